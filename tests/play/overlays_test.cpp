// Overlays above the table, and input that comes through a closed gate.
#include <catch2/catch.hpp>

#include "support/hand.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// The desk with a message box above it, that is hidden at first.
TableSetup with_box(OverlayHits hits) {
  TableSetup setup = desk({.hover = HoverKind::lift});
  const PanelId box = setup.add_panel({.name = "box", .hidden = true});
  const PanelId words =
      setup.add_panel({.name = "words", .kind = PanelKind::caption, .text = "Dusk has come."});
  const PanelId again = setup.add_panel({.name = "again", .kind = PanelKind::button, .text = "Once more"});
  setup.plans[0].overlays.push_back(
      {.panel = box,
       .width = {.px = 360},
       .height = {.px = 180},
       .hits = hits,
       .inside = down({panel(words, {.px = 100}, {.px = 40}, 1), panel(again, {.px = 120}, {.px = 44})})});
  return setup;
}

Vec2 middle_of(const Hand& h, const char* panel) {
  return h.field.where().panel_area(*h.field.where().find_panel(panel))->centre();
}

PanelId panel_of(const Hand& h, const char* name) { return *h.field.where().find_panel(name); }

}  // namespace

TEST_CASE(
    "play: a message box takes its own presses, keeps the others off, and its button works behind a closed "
    "gate") {
  Hand h(with_box(OverlayHits::all));
  const CardId card = h.cards("hand")[0];
  const Rect box = *h.field.where().panel_area(panel_of(h, "box"));
  const Rect button = *h.field.where().panel_area(panel_of(h, "again"));
  CHECK(box.contains(button.min));
  CHECK(button.max.y <= box.max.y - 15);
  CHECK(h.field.where().hit(button.centre()).panel != panel_of(h, "again"));  // it is hidden yet
  CHECK(h.field.frame().panels.empty());

  h.field.switches().show(panel_of(h, "box"));
  REQUIRE(h.field.frame().panels.size() == 3);
  for (const FramePanel& panel : h.field.frame().panels) CHECK(panel.overlay);
  CHECK(h.field.where().hit(middle_of(h, "again")) == Hit{.panel = panel_of(h, "again")});
  CHECK(h.field.where().hit(box.min + Vec2{2, 2}) == Hit{.panel = panel_of(h, "box")});
  CHECK(h.field.where().hit(h.grip(card)) == Hit{});
  h.point(PointerPhase::move, h.grip(card));
  CHECK(h.field.hand().hovered() == CardId{});
  h.drag(h.grip(card), h.middle("shelf"));
  CHECK(h.cards("shelf").empty());
  CHECK(h.told.empty());

  h.field.gate().close("won");
  h.point(PointerPhase::move, middle_of(h, "again"));
  CHECK(h.field.hand().cursor() == "pointer");
  CHECK(h.point(PointerPhase::down, middle_of(h, "again")));
  CHECK(h.point(PointerPhase::up, middle_of(h, "again")));
  REQUIRE(h.count(EventKind::tapped) == 1);
  CHECK(h.last(EventKind::tapped)->panel == panel_of(h, "again"));
  // By keys, too: nothing else can be focused, and nothing is acted on unseen.
  CHECK(h.key(Key::act) == false);
  CHECK(h.key(Key::next));
  CHECK(h.field.hand().focused() == Hit{.panel = panel_of(h, "again")});
  CHECK(h.key(Key::act));
  CHECK(h.count(EventKind::tapped) == 2);
  CHECK_FALSE(h.key(Key::undo));

  h.field.switches().hide(panel_of(h, "box"));
  h.field.gate().open("won");
  h.wait(0);
  CHECK(h.field.hand().focused().panel == PanelId{});
  h.drag(h.grip(card), h.middle("shelf"));
  CHECK(h.cards("shelf").size() == 1);
}

TEST_CASE("play: an overlay lets through what it says") {
  Hand own(with_box(OverlayHits::own));
  own.field.switches().show(panel_of(own, "box"));
  own.drag(own.grip(own.cards("hand")[0]), own.middle("shelf"));
  CHECK(own.cards("shelf").size() == 1);
  CHECK(own.field.where().hit(middle_of(own, "again")).panel == panel_of(own, "again"));
  Hand none(with_box(OverlayHits::none));
  const Hit below = none.field.where().hit(middle_of(none, "again"));
  none.field.switches().show(panel_of(none, "box"));
  CHECK(none.field.where().hit(middle_of(none, "again")) == below);
}

TEST_CASE(
    "play: a button that is switched off takes its press, tells nothing, and has no focus and no cursor") {
  Hand h(with_box(OverlayHits::own));
  h.field.switches().show(panel_of(h, "box"));
  h.field.switches().switch_off(panel_of(h, "again"), "wait");
  h.tap(middle_of(h, "again"));
  CHECK(h.told.empty());
  h.point(PointerPhase::move, middle_of(h, "again"));
  CHECK(h.field.hand().cursor() == "default");
  for (int i = 0; i < 40; ++i) {
    (void)h.key(Key::next);
    CHECK(h.field.hand().focused().panel == PanelId{});
  }
  CHECK(h.field.frame().panels.back().off);
  h.field.switches().switch_on(panel_of(h, "again"), "wait");
  h.tap(middle_of(h, "again"));
  CHECK(h.last(EventKind::tapped)->panel == panel_of(h, "again"));
  h.field.edits().set_tone(panel_of(h, "words"), PanelTone::bad);
  h.field.edits().set_panel(panel_of(h, "words"), "No.");
  for (const FramePanel& panel : h.field.frame().panels)
    CHECK((panel.tone == PanelTone::bad) == (panel.text == "No."));
}

TEST_CASE("play: a button of the pointer is told at any time where the game asks for it, and only told") {
  Hand h(desk({.tap = TapKind::send}));
  h.field.gate().close("busy");
  const auto secondary = [&](Vec2 at) {
    for (const PointerPhase phase : {PointerPhase::down, PointerPhase::up}) {
      (void)h.field.pointer(
          {.phase = phase, .at = at, .time = h.field.now() + 0.02, .button = PointerButton::secondary});
      h.wait(0.02);
    }
  };
  secondary(h.middle("slot"));
  CHECK(h.told.empty());
  h.field.gate().let_through(PointerButton::secondary);
  secondary(h.middle("slot"));
  secondary({1, 1});
  REQUIRE(h.count(EventKind::tapped) == 2);
  CHECK(h.last(EventKind::tapped)->button == PointerButton::secondary);
  h.tap(h.grip(h.cards("hand")[0]));  // of the primary one nothing comes
  CHECK(h.count(EventKind::tapped) == 2);
  h.field.gate().let_through(PointerButton::primary);
  const std::size_t before = h.cards("hand").size();
  h.tap(h.grip(h.cards("hand")[0]));
  CHECK(h.count(EventKind::tapped) == 3);
  CHECK(h.cards("hand").size() == before);  // it is told, and does nothing
}
