// Two gardeners shed sets of one rank onto the heap, each higher than the last; who cannot draws two, and the
// heap goes under the stock. Once each may give the other two of a rank. Whoever has no cards has won.
#include <algorithm>
#include <cstdio>
#include <vector>

#include "apsidon/apsidon.hpp"

using namespace apsidon;

namespace {

struct Race {
  TableSetup setup{
      Deck({.suits = {{"fern", "green"}, {"reed", "green"}, {"poppy", "orange"}, {"marigold", "orange"}},
            .ranks = {"1", "2", "3", "4", "5", "6"}})};
  std::vector<SeatId> seats;
  std::vector<ZoneId> hands;
  ZoneId stock, heap;
  PanelId draws, clock;

  Race() {
    for (const char* name : {"south", "north"}) {
      seats.push_back(setup.table.create_seat(name, {{"gifts", 1}}));
      const bool here = seats.size() == 1;
      hands.push_back(
          setup.add({.name = std::string("hand of ") + name,
                     .layout = {.kind = HandLayout{}, .longest = 12},
                     .rules = {.pick = {.kind = PickKind::any, .when = rule::own_zone(), .covered = !here},
                               .drop = rule::all({rule::at_least(2), rule::at_most(2), rule::own("gift")}),
                               .select = SelectRule{rule::own_zone(), rule::same_rank(), !here},
                               .sorts = here},
                     .handling = {.hover = HoverKind::raise, .tap = TapKind::select},
                     .seat = seats.back()}));
    }
    stock = setup.add({.name = "stock", .layout = {.longest = 24}});
    heap = setup.add({.name = "heap", .layout = {.longest = 24}, .rules = {.drop = rule::own("higher")}});
    draws = setup.add_panel({.name = "draws", .kind = PanelKind::button, .text = "Draw two"});
    clock = setup.add_panel({.name = "clock", .kind = PanelKind::bar, .round = true});
    const auto below = across({panel(draws, {.px = 110}, {.px = 40}), panel(clock, {.px = 40}, {.px = 40})});
    setup.plans = {
        {.root = down({zone(hands[1]), across({zone(stock), zone(heap)}), below, zone(hands[0])}, 0.3f)}};
    setup.bind("higher", [](const RuleQuestion& q) {
      const Card* top = q.table.card(q.onto);
      const Deck& deck = q.table.deck();
      return !top || deck.rank_of(q.face) > deck.rank_of(top->face) ? Verdict{} : q.refuse();
    });
    setup.bind("gift", [](const RuleQuestion& q) {
      return q.table.number("gifts", q.table.turn()[0]) > 0 ? Verdict{} : q.refuse();
    });
    setup.sentences = {{"higher", "{card} is not higher than {onto}."},
                       {"gift", "One gift was given already."}};
    setup.named_moves = {{"draw two", {}, [this](const FollowQuestion& q) { return draw_two(q.table); }}};
    setup.consequences = {{.name = "next", .follow = [this](const FollowQuestion& q) { return next(q); }}};
    setup.won = goal::when(rule::number({"cards", hands[0]}, Compared::equal, 0));
    setup.lost = goal::when(rule::number({"cards", hands[1]}, Compared::equal, 0));
    std::vector<FaceId> faces = setup.table.deck().faces();
    Random64 random(11);
    shuffle(std::span(faces), random);
    for (std::size_t i = 0; i < faces.size(); ++i)
      setup.table.create_card(i < 14 ? hands[i % 2] : stock,
                              {.face = faces[i], .face_up = i < 14 && i % 2 == 0});
    (void)setup.table.set_turn(std::vector{seats[0]});
  }

  std::vector<Edit> draw_two(const Table& table) const {
    std::vector<Edit> edits;
    const auto move = [&](CardId card, ZoneId to, bool open) {
      edits.push_back({.kind = EditKind::move, .run = {card, 1}, .zone = to, .at = open ? 100u : 0u});
      edits.push_back({.kind = EditKind::flip, .card = card, .on = open && to == hands[0]});
    };
    const auto& left = table.zone(stock)->cards;
    for (std::size_t i = 0; i < std::min<std::size_t>(2, left.size()); ++i)
      move(left[left.size() - 1 - i], hands[table.turn()[0].value - 1], true);
    for (const CardId card : table.zone(heap)->cards) move(card, stock, false);
    return edits;
  }

  /// What was shed lies open, what was given is counted, and the other one is on turn.
  std::vector<Edit> next(const FollowQuestion& q) const {
    const MoveStep& made = q.steps.front();
    if (q.steps.back().kind == MoveStep::Kind::turn_passed || made.from == made.to) return {};
    const SeatId now = q.table.turn()[0];
    std::vector<Edit> edits;
    if (made.kind == MoveStep::Kind::moved)
      for (const CardId card : q.table.cards_of({made.card, made.count}))
        edits.push_back({.kind = EditKind::flip, .card = card, .on = made.to != hands[1]});
    if (made.kind == MoveStep::Kind::moved && made.to != heap)
      edits.push_back({.kind = EditKind::set_number, .name = "gifts", .value = 0, .seat = now});
    edits.push_back({.kind = EditKind::set_turn, .seats = {now == seats[0] ? seats[1] : seats[0]}});
    return edits;
  }
};

}  // namespace

int main() {
  const Race race;
  Playfield field(race.setup);
  const CountdownId turn = field.time().add_countdown(20);
  (void)field.edits().bind_fill(race.clock, turn);
  (void)field.time().start_countdown(turn);
  // Here the largest set is played for both; a game has the player choose it, and answers the same events.
  while (field.moves().standing() == Standing::open) {
    Move best{.kind = MoveKind::named, .named = 0};
    for (const Move& move : field.rules().legal_moves()) {
      const bool larger = move.cards.size() > best.cards.size() || best.kind == MoveKind::named;
      const bool gives = move.kind == MoveKind::several && move.to != race.heap;
      if (gives || (larger && move.to == race.heap)) best = move;
      if (gives) break;
    }
    if (!field.moves().make(best)) return 1;
    while (const auto event = field.next_event(field.now() + 0.5)) {
      if (event->kind == EventKind::dropped || event->kind == EventKind::played)
        std::printf("%s\n", describe(*event, field).c_str());
      if (event->kind == EventKind::turn_passed) (void)field.time().reset_countdown(turn, 20);
      if (event->kind == EventKind::turn_passed) (void)field.time().start_countdown(turn);
      const bool late = event->kind == EventKind::time_up;
      const bool asks = event->kind == EventKind::tapped && event->panel == race.draws;
      if (late || asks) (void)field.moves().make("draw two");
    }
  }
  std::printf("%s\n", field.moves().standing() == Standing::won ? "South has won." : "North has won.");
}
