// Chapter 10: several at the table. Two seats in turn, and a server that answers late, once with no.
#include <cstdio>
#include <optional>

#include "apsidon/apsidon.hpp"
#include "apsidon/draw/paint.hpp"

using namespace apsidon;

int main(int argc, char** argv) {
  TableSetup setup(Deck({.suits = {{"fern", "green"}, {"poppy", "orange"}}, .ranks = {"1", "2", "3", "4"}}));
  std::vector<PlanNode> rows;
  for (const char* name : {"south", "north"}) {
    const SeatId seat = setup.table.create_seat(name);
    rows.push_back(
        zone(setup.add({.name = name,
                        .layout = {.kind = HandLayout{}, .longest = 4},
                        .rules = {.pick = {.kind = PickKind::any,
                                           .when = rule::all({rule::on_turn(), rule::own_zone()})}},
                        .seat = seat}),
             1));
    const PanelId label = setup.add_panel({.name = name, .kind = PanelKind::box, .text = name, .seat = seat});
    rows.push_back(panel(label, {.px = 120}, {.px = 32}));
  }
  const ZoneId heap = setup.add({.name = "heap",
                                 .layout = {.kind = SpreadLayout{}, .longest = 8},
                                 .rules = {.drop = rule::anything()}});
  setup.plans = {{.root = down({rows[2], rows[3], zone(heap), rows[1], rows[0]})}};
  setup.add_deck({1}, {.face_up = true});
  (void)setup.table.take({1}, {2}, 4, true);
  (void)setup.table.set_turn({{{1}}});
  setup.consequences = {{.name = "turn passes", .follow = [](const FollowQuestion& q) -> std::vector<Edit> {
                           if (q.steps.back().kind == MoveStep::Kind::turn_passed) return {};
                           return {
                               {.kind = EditKind::set_turn, .seats = {{3 - q.table.turn().front().value}}}};
                         }}};

  Table server = setup.table;  // the server has the table and its rules, and nothing that moves
  Playfield field(setup, {.window = {480, 640}});
  field.moves().set_judge([](const Proposal&) { return std::nullopt; });  // asked, and answered later
  for (int turn = 0; turn < 5; ++turn) {
    (void)field.moves().make(field.rules().legal_moves().front());
    while (field.next_event(turn + 0.5)) {  // meanwhile the card shows at its target
    }
    const Proposal asked = field.moves().waiting().front();
    Verdict answer;
    if (turn == 2) answer = {.reason = Reason::refused_by_game};
    if (answer) answer = apply_move(server, setup.rulebook(), asked.move).verdict;
    (void)field.moves().answer(asked.id, answer);
    while (const auto event = field.next_event(turn + 1)) {
      if (event->kind == EventKind::dropped || event->kind == EventKind::refused ||
          event->kind == EventKind::turn_passed)
        std::printf("%s\n", describe(*event, field).c_str());
    }
  }
  std::printf("%zu cards lie on the server's heap, and %zu here.\n", server.zone(heap)->cards.size(),
              field.table().zone(heap)->cards.size());
  if (argc > 1) paint(field.frame(), field.table().deck()).write_png(argv[1]);
}
