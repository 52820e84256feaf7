// Panels as they are drawn: tones, words that can be read, boxes above the table.
#include <algorithm>
#include <catch2/catch.hpp>
#include <set>
#include <string>

#include "apsidon/draw/paint.hpp"
#include "support/hand.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// Two panels beside each other in a row, and a hand.
TableSetup two_panels(const PanelSetup& first, const PanelSetup& second) {
  TableSetup setup(glasshouse());
  const PanelId a = setup.add_panel(first);
  const PanelId b = setup.add_panel(second);
  const ZoneId hand = setup.add({.name = "hand", .layout = {.kind = HandLayout{}, .longest = 4}});
  const auto sized = [](PanelId panel) { return apsidon::panel(panel, {.px = 120}, {.px = 44}); };
  setup.plans = {{.root = down({across({sized(a), sized(b)}), zone(hand)})}};
  return setup;
}

/// The rows of the picture, within an area and less its rim, in which something is as light as words.
std::set<int> rows_of_words(const Picture& picture, const Rect& area) {
  std::set<int> rows;
  for (int y = static_cast<int>(area.min.y) + 4; y < static_cast<int>(area.max.y) - 4; ++y) {
    for (int x = static_cast<int>(area.min.x) + 10; x < static_cast<int>(area.max.x) - 10; ++x) {
      const auto pixel = picture.pixel(x, y);
      if (std::min({pixel[0], pixel[1], pixel[2]}) > 200) rows.insert(y);
    }
  }
  return rows;
}

PanelSetup button(const std::string& name, const std::string& text, PanelTone tone = PanelTone::neutral) {
  return {.name = name, .kind = PanelKind::button, .text = text, .tone = tone};
}

}  // namespace

TEST_CASE("draw: words of panels beside each other stand level, whatever hangs below their line") {
  for (const PanelKind kind : {PanelKind::button, PanelKind::counter}) {
    PanelSetup first = button("first", "HHH");
    PanelSetup second = button("second", "HHy");
    first.kind = second.kind = kind;
    const Playfield field(two_panels(first, second), {.window = {600, 400}});
    const Picture picture = paint(field.frame(), field.table().deck());
    const std::set<int> plain = rows_of_words(picture, *field.where().panel_area({1}));
    const std::set<int> hangs = rows_of_words(picture, *field.where().panel_area({2}));
    REQUIRE(plain.size() > 6);
    CHECK(*plain.begin() == *hangs.begin());
    CHECK(*hangs.rbegin() > *plain.rbegin());
  }
}

TEST_CASE("draw: words on a button can be read whatever its tone, and are fainter where it is off") {
  for (const PanelTone tone : {PanelTone::neutral, PanelTone::good, PanelTone::bad}) {
    Playfield field(two_panels(button("first", "HHH", tone), button("second", "HHH")),
                    {.window = {600, 400}});
    const Rect area = *field.where().panel_area({1});
    const auto ground = [&] {
      return paint(field.frame(), field.table().deck())
          .pixel(static_cast<int>(area.min.x) + 8, static_cast<int>(area.centre().y));
    };
    const auto rows = [&] { return rows_of_words(paint(field.frame(), field.table().deck()), area).size(); };
    CHECK(rows() > 6);
    const auto on = ground();
    // Words of 4.5 to 1 at least: white on a ground of at most 0.18 in relative luminance.
    CHECK(0.2126 * on[0] + 0.7152 * on[1] + 0.0722 * on[2] < 117);
    field.switches().switch_off(PanelId{1});
    CHECK(rows() == 0);
    field.switches().hide(PanelId{1});
    const auto none = ground();
    CHECK(none != on);
    field.switches().show(PanelId{1});
    field.switches().switch_on(PanelId{1});
    CHECK(ground() == on);
  }
}

TEST_CASE("draw: a message box lies above the cards, and its round button is one") {
  TableSetup setup(glasshouse());
  const PanelId box = setup.add_panel({.name = "box", .kind = PanelKind::box});
  PanelSetup help = button("help", "?");
  help.round = true;
  const PanelId ask = setup.add_panel(help);
  const ZoneId hand = setup.add({.name = "hand",
                                 .layout = {.kind = SpreadLayout{}, .longest = 6},
                                 .cards = some(setup.table.deck(), {"fern-1", "reed-2", "poppy-3"})});
  Overlay overlay{.panel = box, .width = {.px = 500}, .height = {.px = 300}, .hits = OverlayHits::all};
  overlay.inside = down({across({panel(ask, {.px = 44}, {.px = 44})})});
  setup.plans = {{.root = down({zone(hand)}), .overlays = {overlay}}};
  Playfield field(setup, {.window = {600, 400}});
  const auto pixel = [&](Vec2 at) {
    return paint(field.frame(), field.table().deck()).pixel(static_cast<int>(at.x), static_cast<int>(at.y));
  };
  const Vec2 on_card = field.where().resting_pose(field.table().zone(hand)->cards[0])->centre;
  const auto covered = pixel(on_card);
  CHECK(std::max({covered[0], covered[1], covered[2]}) < 60);
  const Rect round = *field.where().panel_area(ask);
  CHECK(pixel(round.min + Vec2{2, 2}) != pixel(round.min + Vec2{22, 4}));
  field.switches().hide(box);
  const auto open = pixel(on_card);
  CHECK(std::max({open[0], open[1], open[2]}) > 60);
}
