// A hand with a preview, whose sales a slow server answers: play goes on while it thinks.
#include <cstdio>
#include <deque>

#include "apsidon/draw/paint.hpp"
#include "mouse.hpp"

using namespace apsidon;

namespace {

TableSetup market() {
  TableSetup setup(
      Deck({.suits = {{"fern", "green"}, {"poppy", "orange"}}, .ranks = {"1", "2", "3", "4", "5"}}));
  setup.name = "Slow sales";
  setup.sentences = {{"out-of-season", "{card} is out of season until day {day}."}};
  const ZoneId sold =
      setup.add({.name = "sold",
                 .key = 1,
                 .layout = {.kind = SpreadLayout{.spacing = 1.1f, .align = Align::centre}, .longest = 6},
                 .rules = {.drop = rule::anything()}});
  const ZoneId hand = setup.add({.name = "hand",
                                 .key = 2,
                                 .layout = {.kind = HandLayout{}, .longest = 8},
                                 .rules = {.pick = {.kind = PickKind::any}},
                                 .handling = {.hover = HoverKind::raise, .zoom = true}});
  for (std::uint32_t face = 1; face <= 7; ++face)
    (void)setup.table.create_card(hand, {.face = {face}, .key = face});
  setup.plans = {{.root = down({zone(sold, 1), zone(hand, 1)}), .largest_width = 92}};
  return setup;
}

/// It thinks about each sale for so long.
struct Server {
  struct Sale {
    std::uint64_t proposal;
    std::uint64_t key;
    double answered;
  };
  std::deque<Sale> sales = {};
};

}  // namespace

int main(int argc, char** argv) {
  constexpr double thinks = 0.9;
  Playfield field(market(), {.window = {960, 560}, .hover = {.zoom_seconds = 0.2}});
  const ZoneId hand = *field.table().find_zone("hand");
  Server server;
  field.moves().set_judge([&](const Proposal& p) -> std::optional<Verdict> {
    server.sales.push_back({p.id, field.table().card(p.move.run.first)->key, field.now() + thinks});
    return std::nullopt;  // it comes later
  });
  example::Mouse mouse(field, [&](const Event& event) {
    const bool tells = event.kind == EventKind::dropped || event.kind == EventKind::refused;
    if (tells) std::printf("%5.2f s  %s\n", event.time, describe(event, field).c_str());
    if (event.kind == EventKind::zoomed)
      std::printf("%5.2f s  a preview of %s\n", event.time,
                  field.table().deck().text(field.table().card(event.card)->face).c_str());
  });
  // What has come from the server by now.
  const auto hear_server = [&] {
    while (!server.sales.empty() && server.sales.front().answered <= field.now()) {
      const Server::Sale sale = server.sales.front();
      server.sales.pop_front();
      const bool season = sale.key != 6;
      (void)field.moves().answer(sale.proposal, season ? Verdict{}
                                                       : Verdict{.reason = Reason::refused_by_game,
                                                                 .card = *field.table().find_card_by_key(6),
                                                                 .rule = "out-of-season",
                                                                 .arguments = {{"day", std::int64_t{12}}}});
    }
  };
  const auto grip = [&](std::size_t i) {
    return field.where().resting_pose(field.table().zone(hand)->cards[i])->centre - Vec2{24, 0};
  };
  const Vec2 stall = field.where().area(*field.table().find_zone("sold"))->centre();

  mouse.move(grip(2));
  mouse.wait(0.4);
  mouse.move(grip(3));  // the preview goes along at once
  for (const std::size_t i : {6u, 5u, 4u}) {
    mouse.drag(grip(i), stall, 0.3);
    std::printf("%5.2f s  %zu wait for the server\n", field.now(), field.moves().waiting().size());
    mouse.wait(0.25);
    if (i == 5 && argc > 1) paint(field.frame(), field.table().deck()).write_png(argv[1]);
    mouse.press(grip(0));  // while it thinks, the next card is in the hand already
    mouse.move(stall);
    hear_server();
    std::printf("%5.2f s  in the hand: %zu\n", field.now(), field.hand().held().count);
    mouse.move(grip(0));
    mouse.release(grip(0));
    mouse.wait(0.4);
  }
  for (int i = 0; i < 20; ++i) {
    mouse.wait(0.1);
    hear_server();
  }
  std::printf("%zu are sold, %zu are left.\n", field.table().zones()[0].cards.size(),
              field.table().zone(hand)->cards.size());
}
