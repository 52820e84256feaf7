// A table built in code, a frame loop without any window, and where the dragged card ends.
#include <cstdio>

#include "apsidon/apsidon.hpp"

using namespace apsidon;

int main() {
  TableSetup setup(Deck({.suits = {{"fern", "green"}, {"poppy", "orange"}}, .ranks = {"1", "2", "3"}}));
  const Deck& deck = setup.table.deck();
  const ZoneId hand = setup.add({.name = "hand",
                                 .layout = {.kind = HandLayout{}, .longest = 6},
                                 .rules = {.pick = {.kind = PickKind::any}},
                                 .cards = {{.face = *deck.find("fern-1")}, {.face = *deck.find("poppy-2")}}});
  const ZoneId bed = setup.add({.name = "bed", .rules = {.drop = rule::rank_on_empty(*deck.find_rank("1"))}});
  setup.plans = {{.root = down({zone(bed, 1), zone(hand, 1)})}};

  Playfield field(std::move(setup), {.window = {640, 480}});
  const CardId card = field.table().zone(hand)->cards.front();
  const Vec2 from = field.where().live_pose(card)->centre;
  const Vec2 to = field.where().area(bed)->centre();

  // What a window would tell: the button goes down, the pointer moves in 30 steps, the button goes up.
  std::uint64_t drawn = 0;
  for (int i = 0; i <= 60; ++i) {
    const double time = i / 60.0;
    const float share = static_cast<float>(i < 30 ? i : 30) / 30;
    const PointerPhase phase = i == 0 ? PointerPhase::down : i == 30 ? PointerPhase::up : PointerPhase::move;
    if (i <= 30) field.pointer({.phase = phase, .at = from + (to - from) * share, .time = time});
    while (const auto event = field.next_event(time)) {
      std::printf("%.2f s  %s\n", event->time, std::string(name_of(event->kind)).c_str());
    }
    if (field.frame().revision != drawn) drawn = field.frame().revision;  // here a game would draw
  }
  const Card& dragged = *field.table().card(card);
  const Pose pose = *field.where().live_pose(card);
  std::printf("%s lies in %s, its middle at %.0f, %.0f\n", field.table().deck().text(dragged.face).c_str(),
              field.table().zone(dragged.zone)->name.c_str(), double{pose.centre.x}, double{pose.centre.y});
}
