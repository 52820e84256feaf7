// Four growers, each with a hand that the others do not see, lay a card each on the bench: the suit of the
// first is asked for, its highest card takes the four. One sits here; the others are played by the program.
#include <algorithm>
#include <cstdio>
#include <vector>

#include "apsidon/apsidon.hpp"

using namespace apsidon;

namespace {

struct Growers {
  TableSetup setup{
      Deck({.suits = {{"fern", "green"}, {"reed", "green"}, {"poppy", "orange"}, {"marigold", "orange"}},
            .ranks = {"1", "2", "3", "4", "5", "6"}})};
  std::vector<SeatId> seats;
  std::vector<ZoneId> hands, boxes;
  ZoneId bench;

  int suit(const Table& table, CardId card) const { return table.deck().suit_of(table.card(card)->face); }
  int rank(const Table& table, CardId card) const { return table.deck().rank_of(table.card(card)->face); }

  Growers() {
    for (const char* name : {"south", "west", "north", "east"}) {
      seats.push_back(setup.table.create_seat(name, {{"points", 0}}));
      const bool here = seats.size() == 1;
      hands.push_back(setup.add({.name = std::string("hand of ") + name,
                                 .layout = {.kind = HandLayout{}, .longest = 6},
                                 .rules = {.pick = {.kind = PickKind::any,
                                                    .when = rule::all({rule::on_turn(), rule::own_zone()}),
                                                    .covered = !here}},
                                 .seat = seats.back()}));
      boxes.push_back(setup.add({.name = std::string("box of ") + name,
                                 .layout = {.kind = PileLayout{}, .longest = 24},
                                 .seat = seats.back()}));
      setup.add_panel({.name = name,
                       .kind = PanelKind::counter,
                       .text = std::string(name) + " {points}",
                       .seat = seats.back()});
    }
    bench = setup.add({.name = "bench",
                       .layout = {.kind = SpreadLayout{}, .longest = 4},
                       .rules = {.drop = rule::own("follow suit")}});
    std::vector<PlanNode> places;
    for (std::uint32_t i = 0; i < 4; ++i)
      places.push_back(
          down({zone(hands[i]), across({zone(boxes[i]), panel({i + 1}, {.px = 90}, {.px = 30})})}));
    setup.plans = {{.root = apsidon::seats(places, zone(bench))}};
    setup.bind("follow suit", [this](const RuleQuestion& q) {
      const auto& laid = q.table.zone(bench)->cards;
      const auto& hand = q.table.zone(q.from)->cards;
      if (laid.empty() || suit(q.table, q.card) == suit(q.table, laid[0])) return Verdict{};
      const bool could = std::any_of(hand.begin(), hand.end(), [&](CardId card) {
        return suit(q.table, card) == suit(q.table, laid[0]);
      });
      return could ? q.refuse() : Verdict{};
    });
    setup.sentences["follow suit"] = "{card} does not follow suit, and another card would.";
    setup.consequences = {{.name = "sweep", .follow = [this](const FollowQuestion& q) { return sweep(q); }}};
    setup.won = goal::when(rule::all({rule::number({"cards", hands[0]}, Compared::equal, 0),
                                      rule::number({"cards", bench}, Compared::equal, 0)}));
    std::vector<FaceId> faces = setup.table.deck().faces();
    Random64 random(7);
    shuffle(std::span(faces), random);
    for (std::size_t i = 0; i < faces.size(); ++i)
      setup.table.create_card(hands[i % 4], {.face = faces[i], .face_up = i % 4 == 0});
    (void)setup.table.set_turn(std::vector{seats[0]});
  }

  /// The card that was laid shows; the next seat is on turn, or whoever takes the four.
  std::vector<Edit> sweep(const FollowQuestion& q) const {
    const auto& laid = q.table.zone(bench)->cards;
    if (laid.empty() || q.steps.back().kind == MoveStep::Kind::turn_passed) return {};
    const std::size_t now = q.table.turn()[0].value - 1;
    std::vector<Edit> edits{{.kind = EditKind::flip, .card = laid.back(), .on = true}};
    std::size_t next = (now + 1) % 4;
    if (laid.size() == 4) {
      const auto best = std::max_element(laid.begin(), laid.end(), [&](CardId a, CardId b) {
        const auto worth = [&](CardId card) {
          return suit(q.table, card) == suit(q.table, laid[0]) ? rank(q.table, card) : -1;
        };
        return worth(a) < worth(b);
      });
      next = (now + 1 + static_cast<std::size_t>(best - laid.begin())) % 4;
      edits.push_back({.kind = EditKind::move, .run = {laid[0], 4}, .zone = boxes[next]});
      edits.push_back({.kind = EditKind::set_number,
                       .name = "points",
                       .value = q.table.number("points", seats[next]) + 1,
                       .seat = seats[next]});
    }
    edits.push_back({.kind = EditKind::set_turn, .seats = {seats[next]}});
    return edits;
  }
};

}  // namespace

int main() {
  const Growers game;
  Playfield field(game.setup, {.window = {1280, 800}, .seat = game.seats[0]});
  while (field.moves().standing() == Standing::open) {
    // Whoever is on turn lays the first card that may be laid; here it stands for the player as well.
    Rulebook rules = game.setup.rulebook();
    rules.seat = field.table().turn()[0];
    Move move = legal_moves(field.table(), rules).at(0);
    move.seat = rules.seat;
    if (!field.moves().make(move)) return 1;
    while (const auto event = field.next_event(field.now() + 0.5)) {
      const bool swept = event->kind == EventKind::taken;
      if (swept || event->kind == EventKind::won) std::printf("%s\n", describe(*event, field).c_str());
    }
  }
  for (const FramePanel& panel : field.frame().panels)
    std::printf("%s%s\n", panel.text.c_str(), panel.glows ? ", on turn" : "");
}
