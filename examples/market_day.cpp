// Pairs sell themselves, and twice the stalls are dealt again: for a solver, by hand, and over a server.
#include <algorithm>
#include <cstdio>
#include <vector>

#include "apsidon/apsidon.hpp"

using namespace apsidon;

namespace {

TableSetup market() {
  const std::vector<Suit> suits{
      {"fern", "green"}, {"reed", "green"}, {"poppy", "orange"}, {"rose", "orange"}};
  TableSetup setup(Deck({.suits = suits, .ranks = {"1", "2", "3", "4", "5", "6"}}));
  std::vector<ZoneId> stalls;
  std::vector<PlanNode> row;
  for (const char* name : {"stall-1", "stall-2", "stall-3", "stall-4", "stall-5"}) {
    const Rule drop = rule::any({rule::same_rank(), rule::on_empty()});
    stalls.push_back(setup.add({.name = name,
                                .layout = {.kind = ColumnLayout{}, .longest = 24},
                                .rules = {.pick = {.kind = PickKind::top}, .drop = drop}}));
    row.push_back(zone(stalls.back()));
  }
  const ZoneId sold = setup.add({.name = "sold", .layout = {.longest = 24, .off_table = Facing::top}});
  const PanelId left = setup.add_panel({.name = "left", .text = "{pairs} of 12 sold, {redeals} redeals"});
  setup.plans = {{.root = down({across(row), panel(left, {.px = 300}, {.px = 30})})}};
  (void)setup.table.set_number("redeals", 2);
  (void)setup.table.set_number("pairs", 0);
  setup.consequences = {{.in = stalls, .cards = 2, .link = rule::same_rank(), .to = sold, .counts = "pairs"}};
  setup.won = goal::when(rule::number("pairs", Compared::equal, 12));
  const auto redeal = [stalls](const FollowQuestion& q) {
    const int redeals = q.table.number("redeals");
    std::vector<Edit> edits{{.kind = EditKind::set_number, .name = "redeals", .value = redeals - 1}};
    std::vector<CardId> cards;
    for (const ZoneId stall : stalls)
      cards.insert(cards.end(), q.table.zone(stall)->cards.begin(), q.table.zone(stall)->cards.end());
    Random64 random(static_cast<std::uint64_t>(redeals));
    shuffle(std::span(cards), random);
    for (std::size_t i = 0; i < cards.size(); ++i)
      edits.push_back({.kind = EditKind::move, .run = {cards[i], 1}, .zone = stalls[i % 5]});
    return edits;
  };
  setup.named_moves = {{"redeal", rule::number("redeals", Compared::at_least, 1), redeal}};
  std::size_t i = 0;
  for (const FaceId face : setup.table.deck().faces())
    setup.table.create_card(stalls[i++ % 5], {.face = face});
  return setup;
}

/// Sells while it can, and deals again when it cannot.
std::vector<Move> solve(Table table, const Rulebook& rules) {
  std::vector<Move> way;
  while (standing_of(table, rules) == Standing::open && way.size() < 100) {
    const std::vector<Move> moves = legal_moves(table, rules);
    const auto sells = [&](const Move& move) {
      Table ahead = table;
      return apply_move(ahead, rules, move).verdict && ahead.number("pairs") > table.number("pairs");
    };
    const auto best = std::find_if(moves.begin(), moves.end(), sells);
    way.push_back(best != moves.end() ? *best : moves.back());  // named moves are listed last
    (void)apply_move(table, rules, way.back());
  }
  return way;
}

/// A drag from card to stall, or a press of the button for what is no card's way; then all is still.
void play(Playfield& field, const Move& move) {
  double time = field.now();
  const auto point = [&](PointerPhase phase, Vec2 at) {
    field.pointer({.phase = phase, .at = at, .time = time += 0.05});
  };
  if (move.kind == MoveKind::named) {
    (void)field.moves().make(move);
  } else {
    point(PointerPhase::down, field.where().resting_pose(move.run.first)->centre);
    point(PointerPhase::move, field.where().area(move.to)->centre() + Vec2{0, 30});
    point(PointerPhase::up, field.where().area(move.to)->centre());
  }
  field.advance_to(time + 2);
}

const char* is_same(const Table& a, const Table& b) {
  const bool same = std::all_of(a.zones().begin(), a.zones().end(), [&](const Zone& zone) {
    return a.contents_of(zone.id) == b.contents_of(zone.id);
  });
  return same && a.numbers() == b.numbers() ? "the same table" : "another table";
}

}  // namespace

int main() {
  const TableSetup setup = market();
  const Rulebook rules = setup.rulebook();
  Table server = setup.table;
  const std::vector<Move> way = solve(server, rules);
  for (const Move& move : way) (void)apply_move(server, rules, move);
  std::printf("solver: %d of 12 sold in %zu moves\n", server.number("pairs"), way.size());
  Playfield field(setup);
  for (const Move& move : way) play(field, move);
  std::printf("by hand: %s, %s\n", field.frame().panels[0].text.c_str(), is_same(field.table(), server));
  // The server has the last word. Its answers are late, and the first to the third move is no.
  server = setup.table;
  Playfield client(setup);
  client.moves().set_judge([](const Proposal&) -> std::optional<Verdict> { return std::nullopt; });
  const auto answer = [&](const Verdict& verdict) {
    (void)client.moves().answer(client.moves().waiting()[0].id, verdict, true);
    client.advance_to(client.now() + 2);
  };
  for (std::size_t i = 0; i < way.size(); ++i) {
    play(client, way[i]);
    if (i == 2) {
      answer({.reason = Reason::refused_by_game});
      play(client, way[i]);
    }
    answer(apply_move(server, rules, client.moves().waiting()[0].move).verdict);
  }
  std::printf("server: %s, %s\n", client.frame().panels[0].text.c_str(), is_same(client.table(), server));
}
