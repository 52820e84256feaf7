// A client that sleeps until something is due misses nothing, and one that is woken has something to do.
#include <catch2/catch.hpp>

#include "apsidon/geometry/quad.hpp"
#include "support/hand.hpp"
#include "support/property.hpp"
#include "support/stage.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// The kind and time of an event.
using Told = std::pair<EventKind, double>;

/// Reads everything up to a time; goes there by being woken, or in steps of so many seconds.
std::vector<Told> lived(Playfield& field, double until, std::optional<double> step, int& wakes) {
  std::vector<Told> told;
  constexpr double frame = 1.0 / 60;
  while (field.now() < until) {
    double next = field.now() + step.value_or(frame);
    if (!step) {
      const double due = field.next_due();
      next = due > field.now() ? due : field.now() + frame;
    }
    while (const auto event = field.next_event(std::min(next, until)))
      told.emplace_back(event->kind, event->time);
    (void)field.frame();
    ++wakes;
  }
  return told;
}

TableSetup with_bar(PanelId& bar) {
  TableSetup setup = desk();
  bar = setup.add_panel({.name = "time", .kind = PanelKind::bar});
  setup.plans[0].root = down({panel(bar, {.px = 100}, {.px = 20}), setup.plans[0].root});
  return setup;
}

float fill_of(const Playfield& field, PanelId panel) {
  for (const FramePanel& shown : field.frame().panels) {
    if (shown.panel == panel) return shown.fill;
  }
  return -1;
}

}  // namespace

TEST_CASE("play: a client that sleeps until something is due hears what one hears that never sleeps") {
  for_all("sleeping", 3, [](Random& r) {
    PanelId bar;
    Playfield awake(with_bar(bar), {.window = {1000, 700}});
    const ZoneId hand = *awake.table().find_zone("hand");
    const ZoneId shelf = *awake.table().find_zone("shelf");
    (void)awake.frame();
    for (int i = 0; i < 4; ++i) {
      switch (r.below(5)) {
        case 0:
          (void)awake.time().start_timer(double{r.uniform(0, 3)});
          break;
        case 1: {
          const CountdownId countdown = awake.time().add_countdown(double{r.uniform(0, 3)});
          (void)awake.time().start_countdown(countdown);
          if (r.chance(0.5f)) (void)awake.edits().bind_fill(bar, countdown);
          break;
        }
        case 2:
          (void)awake.moves().make(
              {.run = {awake.table().zone(hand)->cards.back(), 1}, .from = hand, .to = shelf});
          break;
        case 3:
          (void)awake.performances().perform(
              sequence({wait(double{r.uniform(0, 1)}), draw(hand, shelf, 1), wait(double{r.uniform(0, 1)})}));
          break;
        default: {
          const Vec2 at = some_card_point(r, awake);
          const double time = double{r.uniform(0, 1)};
          awake.pointer({.phase = PointerPhase::move, .at = at, .time = time});
          awake.pointer({.phase = PointerPhase::down, .at = at, .time = time});
          awake.pointer({.phase = PointerPhase::up, .at = at, .time = time + double{r.uniform(0, 1)}});
        }
      }
    }
    Playfield sleepy = awake;
    int many = 0;
    int few = 0;
    const auto all = lived(awake, 4, 0.004, many);
    const auto heard = lived(sleepy, 4, std::nullopt, few);
    RC_ASSERT(heard == all);
    RC_ASSERT(few < many + 1000);  // each pixel of the bar is one
    RC_ASSERT(fill_of(sleepy, bar) == fill_of(awake, bar));
  });
}

TEST_CASE("play: at rest with nothing to come nothing is due, but a timer is, although the cards rest") {
  Hand h(desk());
  (void)h.field.frame();
  CHECK(h.field.next_due() == INFINITY);
  const CountdownId timer = h.field.time().start_timer(2.5);
  CHECK(h.field.time().at_rest());
  CHECK(h.field.time().settles_at() == h.field.now());
  CHECK(h.field.next_due() == 2.5);
  h.field.time().hold("menu");
  CHECK(h.field.next_due() == INFINITY);
  h.field.time().release("menu");
  REQUIRE(h.field.time().stop_countdown(timer));
  CHECK(h.field.next_due() == INFINITY);
  // An input that waits, an event that was not read, a frame that was not asked for.
  h.field.pointer({.phase = PointerPhase::move, .at = {5, 5}, .time = 0.7});
  CHECK(h.field.next_due() == 0.7);
  REQUIRE(h.field.edits().flip(h.cards("hand")[0], false));
  CHECK(h.field.next_due() == h.field.now());
  h.wait(3);
  CHECK(h.field.next_due() == h.field.now());
  (void)h.field.frame();
  CHECK(h.field.next_due() == INFINITY);
  // A long press comes by itself.
  h.point(PointerPhase::down, h.middle(h.cards("hand")[9]));
  (void)h.field.frame();
  const double due = h.field.next_due();
  CHECK(due > h.field.now());
  CHECK(due <= h.field.now() + h.field.hand().thresholds().long_press_seconds);
}

TEST_CASE(
    "play: a bar bound to a countdown runs down by itself, a pixel at a time, without a line in the log") {
  PanelId bar;
  Hand h(with_bar(bar));
  int inputs = 0;
  const CountdownId countdown = h.field.time().add_countdown(10);
  REQUIRE(h.field.edits().set_panel(bar, "Daylight", 0.3f));
  REQUIRE(h.field.edits().bind_fill(bar, countdown));
  h.field.set_recorder([&](const Input&) { ++inputs; });
  CHECK(fill_of(h.field, bar) == 1);
  REQUIRE(h.field.time().start_countdown(countdown));
  inputs = 0;
  int frames = 0;
  std::uint64_t drawn = h.field.frame().revision;
  float last = 1;
  while (h.field.now() < 10.5) {
    const double due = h.field.next_due();
    h.wait(std::min(due, h.field.now() + 1) - h.field.now() + 1e-9);
    const float fill = fill_of(h.field, bar);
    CHECK(fill <= last);
    CHECK(std::abs(double{fill} - h.field.time().share_left(countdown)) <= 0.0011);
    last = fill;
    frames += std::exchange(drawn, h.field.frame().revision) != drawn ? 1 : 0;
  }
  CHECK(frames ==
        static_cast<int>(std::ceil(h.field.where().panel_area(bar)->width())));  // one for each pixel
  CHECK(inputs == 0);
  CHECK(last == 0);
  CHECK(h.count(EventKind::time_up) == 1);
  REQUIRE(h.field.edits().bind_fill(bar, {}));
  CHECK(fill_of(h.field, bar) == 0.3f);
  CHECK(h.field.edits().bind_fill(bar, {77}).reason == Reason::unknown_timer);
}

TEST_CASE("motion: reduced tells everything at the same times, of cards that flip and move at once, too") {
  for (const Feel& feel : {Feel{}, calm()}) {
    for (int act = 0; act < 8; ++act) {
      std::vector<std::vector<Told>> told;
      for (const Feel& of : {feel, reduced(feel)}) {
        Stage stage(of, 6, 4);
        const CardId card = stage.cards(stage.hand)[1];
        if (act == 0) CHECK(stage.field.edits().flip(card, false));
        if (act == 1) CHECK(stage.field.edits().flip(card, false));
        if (act == 1) CHECK(stage.field.edits().move({card, 1}, stage.waste));
        if (act == 2) CHECK(stage.field.edits().move({card, 1}, stage.waste));
        if (act == 2) CHECK(stage.field.edits().flip(card, false));
        if (act == 3)
          CHECK(stage.field.moves().make({.run = {card, 1}, .from = stage.hand, .to = stage.waste}));
        if (act == 4) stage.field.performances().deal();
        if (act == 5) stage.field.performances().perform(draw(stage.stock, stage.hand, 3));
        if (act == 6) stage.field.performances().perform(flip(stage.cards(stage.hand), false));
        if (act == 7) stage.field.performances().perform(gather(stage.stock));
        std::vector<Told> all;
        for (const Event& e : stage.go(5)) all.emplace_back(e.kind, e.time);
        // Those of one time may change places by a rounding.
        std::sort(all.begin(), all.end());
        told.push_back(all);
      }
      CAPTURE(feel.name, act);
      REQUIRE(told[0].size() == told[1].size());
      for (std::size_t i = 0; i < told[0].size(); ++i) {
        CHECK(told[0][i].first == told[1][i].first);
        CHECK(told[0][i].second == Approx(told[1][i].second).margin(2e-4));
      }
    }
  }
}

TEST_CASE(
    "layout: a layout of one's own scrolls along its axis, inserts, sorts, and may leave poses as they come "
    "in") {
  // A ladder: each card lower than the one before, as long as it likes to be, and the seventh to one side.
  const FaceId aside{7};
  const auto ladder = std::make_shared<const CustomFunctions>(CustomFunctions{
      .lay_out =
          [aside](const LayoutInput& in, std::span<Pose> poses) {
            const float step = 0.6f * in.card.height;
            for (std::size_t i = 0; i < poses.size(); ++i) {
              poses[i].centre.y =
                  in.area.min.y + in.card.height / 2 + static_cast<float>(i) * step - in.offset;
              const Card* card = in.cards[i].card;
              if (card && card->face == aside) poses[i].centre.x += in.window.width / 100;
            }
            return LayoutReport{.content = static_cast<float>(poses.size() - 1) * step + in.card.height};
          },
      .least_size =
          [](const LayoutNeed&, Size card) {
            return Size{card.width, 2 * card.height};
          },
      .traits = {.axis = LayoutAxis::down}});
  TableSetup setup(glasshouse());
  ZoneSetup rungs{
      .name = "rungs",
      .layout = {.kind = CustomLayout{.name = "ladder", .functions = ladder}, .longest = 12, .scrolls = true},
      .rules = {.pick = {.kind = PickKind::any}, .drop = rule::anything(), .sorts = true, .inserts = true}};
  for (std::uint32_t i = 1; i <= 12; ++i) rungs.cards.push_back({.face = {i}, .face_up = i != 2});
  const ZoneId there = setup.add(rungs);
  const ZoneId hand = setup.add({.name = "hand",
                                 .layout = {.kind = HandLayout{}, .longest = 3},
                                 .rules = {.pick = {.kind = PickKind::any}},
                                 .cards = {{.face = {20}}, {.face = {21}}}});
  setup.plans = {{.root = across({zone(there), zone(hand, 1)}), .largest_width = 80}};
  Hand h(setup, {.window = {500, 400}});
  const Rect area = *h.field.where().area(there);
  const Size card = h.field.where().card_size();
  // Only y was written: x, flip and rotation are those of a card in the middle.
  CHECK(h.field.where().neutral_pose(h.cards("rungs")[0])->centre.x == Approx(area.centre().x).margin(1));
  CHECK(shows_face(h.field.where().neutral_pose(h.cards("rungs")[0])->flip));
  CHECK_FALSE(shows_face(h.field.where().neutral_pose(h.cards("rungs")[1])->flip));
  CHECK(h.field.where().neutral_pose(h.cards("rungs")[6])->centre.x ==
        Approx(area.centre().x + 5).margin(1));  // a hundredth of the window
  // To its end, and no further.
  const float content = h.field.where().content(there);
  REQUIRE(h.field.where().scroll_to(there, 1e6f));
  CHECK(h.field.where().offset(there) == Approx(content - area.height()).margin(0.1));
  CHECK(bounds(corners(*h.field.where().neutral_pose(h.cards("rungs")[11]), card)).max.y ==
        Approx(area.max.y).margin(1));
  REQUIRE(h.field.where().scroll_to(there, 0));
  // Between the third and the fourth.
  const CardId guest = h.cards("hand")[0];
  const Vec2 third = h.middle(h.cards("rungs")[2]), fourth = h.middle(h.cards("rungs")[3]);
  h.drag(h.middle(guest), (third + fourth) * 0.5f);
  CHECK(h.cards("rungs")[3] == guest);
  const CardId lowest = h.cards("rungs")[0];
  h.settle();
  h.drag(h.middle(lowest) - Vec2{0, card.height * 0.3f},
         h.middle(h.cards("rungs")[2]) + Vec2{0, card.height * 0.1f});
  CHECK(h.field.table().card(lowest)->index == 3);  // the others had closed up
}
