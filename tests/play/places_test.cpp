// What a client asks of places: the next pose, insertion, outlines, scrolling, cells, panels.
#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <sstream>

#include "support/loop.hpp"
#include "support/property.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

TableSetup one_zone(ZoneSetup zone_setup, std::size_t cards) {
  TableSetup setup(glasshouse(60));
  for (std::size_t i = 0; i < cards; ++i)
    zone_setup.cards.push_back({.face = {static_cast<std::uint32_t>(i % 52 + 1)}});
  const ZoneId id = setup.add(zone_setup);
  const ZoneId other = setup.add({.name = "other"});
  setup.plans = {{.root = across({zone(id, 1), zone(other)})}};
  return setup;
}

}  // namespace

TEST_CASE("play: the next pose is where the next card comes to lie") {
  for_all("next pose", 2, [](Random& r) {
    TableSetup setup = random_setup(r);
    Playfield field(std::move(setup));
    for (const Zone& zone : field.table().zones()) {
      const auto pose = field.where().next_pose(zone.id);
      RC_ASSERT(pose.has_value());
      RC_ASSERT(is_finite(*pose));
    }
    const Zone& from = field.table().zones()[0];
    if (from.cards.empty()) return;
    const CardId card = from.cards.back();
    const Card before = *field.table().card(card);
    const ZoneId to = field.table().zones()[1].id;
    if (before.sideways || before.at != Vec2{0.5f, 0.5f}) return;
    const Pose expected = *field.where().next_pose(to, before.face_up);
    const Rect area = *field.where().area(to);
    RC_ASSERT(field.edits().move({card, 1}, to));
    if (*field.where().area(to) != area) return;  // a zone that was empty has its place back
    RC_ASSERT(length(field.where().neutral_pose(card)->centre - expected.centre) < 0.01f);
  });
}

TEST_CASE("play: no card rests outside of its area, whatever the window and however many there are") {
  for_all("in the area", 5, [](Random& r) {
    TableSetup setup(glasshouse(60));
    ZoneSetup zone{.name = "zone", .layout = {.kind = random_layout(r), .longest = r.between(1, 30)}};
    const int count = r.between(1, 30);
    for (int i = 0; i < count; ++i) zone.cards.push_back({.face = {static_cast<std::uint32_t>(i % 52 + 1)}});
    const ZoneId id = setup.add(zone);
    setup.plans = {{.root = down({apsidon::zone(id, r.chance(0.5f) ? 1.0f : 0.0f)})}};
    const Playfield field(std::move(setup), {.window = {r.uniform(60, 1200), r.uniform(60, 900)},
                                             .pixel_ratio = r.chance(0.5f) ? 1.0f : 1.5f});
    const Rect area = grown(*field.where().area(id), 0.005f);
    for (const CardId card : field.table().zone(id)->cards) {
      const Pose pose = *field.where().resting_pose(card);
      if (pose.rotation != 0 || pose.scale != 1) continue;
      const Rect lies = bounds(corners(pose, field.where().card_size()));
      RC_ASSERT(lies.min.x >= area.min.x && lies.max.x <= area.max.x);
      RC_ASSERT(lies.min.y >= area.min.y && lies.max.y <= area.max.y);
    }
  });
}

TEST_CASE("play: a zone that scrolls clips its cards, and none is hit outside of it") {
  Playfield field(
      one_zone({.name = "long", .layout = {.kind = ColumnLayout{}, .longest = 60, .scrolls = true}}, 40),
      {.window = {600, 400}});
  const ZoneId id = *field.table().find_zone("long");
  const Rect area = *field.where().area(id);
  CHECK(field.where().content(id) > area.height());
  CHECK_FALSE(field.where().crowded(id));
  const CardId first = field.table().zone(id)->cards.front();
  const CardId last = field.table().zone(id)->cards.back();
  CHECK(field.where().hit(area.min + Vec2{area.width() / 2, 5}).card == first);
  CHECK_FALSE(field.where().hit({area.centre().x, area.max.y + 10}).card);
  for (const FrameItem& item : field.frame().items) {
    if (item.kind == FrameKind::card) CHECK(item.clip == area);
  }
  field.where().scroll_to(id, 1e9f);
  CHECK(field.where().offset(id) == Approx(field.where().content(id) - area.height()));
  CHECK(field.where().hit({area.centre().x, area.max.y - 5}).card == last);
  field.where().scroll_to(id, NAN);
  CHECK(field.ignored() == 1);
  field.where().scroll_to({99}, 5);
  field.where().scroll_to(*field.table().find_zone("other"), 5);
  CHECK(field.where().offset(*field.table().find_zone("other")) == 0);
}

TEST_CASE("play: cards of a grid keep their cells when one leaves, and a newcomer takes the first free one") {
  Playfield field(
      one_zone({.name = "grid",
                .layout = {.kind = GridLayout{.columns = 3, .rows = 2, .keeps_cells = true}, .longest = 6}},
               6));
  const ZoneId id = *field.table().find_zone("grid");
  const auto cards = field.table().zone(id)->cards;
  const Pose fifth = *field.where().resting_pose(cards[4]);
  const Pose second = *field.where().resting_pose(cards[1]);
  REQUIRE(field.edits().move({cards[1], 1}, *field.table().find_zone("other")));
  CHECK(*field.where().resting_pose(cards[4]) == fifth);
  CHECK(field.table().card(cards[1])->cell == -1);
  REQUIRE(field.edits().move({cards[1], 1}, id));
  CHECK(field.table().card(cards[1])->cell == 1);
  CHECK(*field.where().resting_pose(cards[1]) == second);
  CHECK(field.edits().set_cell(cards[1], 7).reason == Reason::unknown_index);  // there are six
  CHECK(*field.where().resting_pose(cards[1]) == second);
  CHECK(field.edits().set_cell(cards[1], -9).reason == Reason::unknown_index);
  CHECK(field.edits().set_cell({999}, 1).reason == Reason::unknown_card);
}

TEST_CASE("play: free positions and turns are the table's, and survive a resize") {
  Playfield field(
      one_zone({.name = "free", .layout = {.kind = FreeLayout{}, .longest = 3, .sideways = true}}, 2),
      {.window = {900, 600}});
  const ZoneId id = *field.table().find_zone("free");
  const CardId card = field.table().zone(id)->cards[0];
  REQUIRE(field.edits().set_position(card, {0, 1}));
  const Rect area = *field.where().area(id);
  CHECK(field.where().resting_pose(card)->centre.x ==
        Approx(area.min.x + field.where().card_size().width / 2).margin(1));
  CHECK(field.where().resting_pose(card)->centre.y ==
        Approx(area.max.y - field.where().card_size().height / 2).margin(1));
  send(field, ResizeInput{{500, 900}, 1, 1});
  CHECK(field.where().resting_pose(card)->centre.x ==
        Approx(field.where().area(id)->min.x + field.where().card_size().width / 2).margin(1));
  REQUIRE(field.edits().set_sideways(card, true));
  CHECK(field.where().resting_pose(card)->rotation == Approx(1.5707963));
  CHECK(field.edits().set_position(card, {NAN, 0}).reason == Reason::out_of_range);
  CHECK(field.edits().set_sideways({99}, true).reason == Reason::unknown_card);
}

TEST_CASE("play: panels are placed, hit, and show what they are told") {
  TableSetup setup(glasshouse());
  const ZoneId a = setup.add({.name = "a"});
  const PanelId bar = setup.add_panel({.name = "daylight", .kind = PanelKind::bar, .text = "Daylight"});
  const PanelId message = setup.add_panel({.name = "message"});
  setup.plans = {
      {.root = down({panel(bar, {.px = 100}, {.px = 30}), zone(a)}),
       .overlays = {{.panel = message, .width = {.px = 80}, .height = {.px = 60}, .across = Align::end}}}};
  Playfield field(setup, {.window = {400, 300}});
  const Rect area = *field.where().panel_area(bar);
  CHECK(area.height() == 30);
  CHECK(field.where().hit(area.centre()).panel == bar);
  CHECK_FALSE(field.where().hit(area.centre()).zone);
  REQUIRE(field.frame().panels.size() == 2);
  CHECK_FALSE(field.frame().panels[0].overlay);
  CHECK(field.frame().panels[1].overlay);
  const auto revision = field.frame().revision;
  field.edits().set_panel(bar, "Dusk", 2);
  CHECK(field.frame().revision > revision);
  CHECK(field.frame().panels[0].text == "Dusk");
  CHECK(field.frame().panels[0].fill == 1);
  field.edits().set_panel({9}, "nobody");
  field.edits().set_panel(bar, "x", NAN);
  CHECK(field.where().panels()[0].text == "Dusk");
  CHECK_FALSE(field.where().panel_area({9}).has_value());
  CHECK_THROWS_AS(setup.add_panel({.name = "daylight"}), Error);
  CHECK_THROWS_AS(setup.add_panel({.name = "x", .fill = 2}), Error);
}

TEST_CASE("play: a change lays out the zones that it touches and no others") {
  int calls[3] = {};
  const auto counting = [&calls](std::size_t which) {
    return CustomLayout{.functions = std::make_shared<CustomFunctions>(
                            CustomFunctions{[&calls, which](const LayoutInput& in, std::span<Pose> poses) {
                                              ++calls[which];
                                              return lay_out(SlotLayout{}, in, poses);
                                            },
                                            [](const LayoutNeed&, Size card) { return card; }})};
  };
  TableSetup setup(glasshouse());
  std::vector<PlanNode> nodes;
  for (std::size_t i = 0; i < 3; ++i) {
    nodes.push_back(zone(setup.add({.name = "zone-" + std::to_string(i),
                                    .layout = {.kind = counting(i), .longest = 2},
                                    .cards = {{.face = {1}}}})));
  }
  setup.plans = {{.root = across(nodes)}};
  Playfield field(setup);
  CHECK(std::vector(calls, calls + 3) == std::vector{1, 1, 1});
  const CardId card = field.table().zones()[0].cards[0];
  REQUIRE(field.edits().move({card, 1}, field.table().zones()[1].id));
  CHECK(std::vector(calls, calls + 3) == std::vector{2, 2, 1});
  REQUIRE(field.edits().flip(field.table().zones()[2].cards[0], false));
  field.advance_to(5);
  CHECK(std::vector(calls, calls + 3) == std::vector{2, 2, 2});
  REQUIRE(field.edits().move({card, 1}, field.table().zones()[1].id));  // it lies there already
  CHECK(std::vector(calls, calls + 3) == std::vector{2, 2, 2});
}

TEST_CASE("play: it shows itself in its layers: strips, insertion points, panels, ids") {
  TableSetup setup =
      one_zone({.name = "column", .layout = {.kind = ColumnLayout{.open_strip = 0.3f}, .longest = 4}}, 4);
  const PanelId label = setup.add_panel({.name = "label"});
  setup.plans[0].root.parts.push_back(panel(label, {.px = 50}, {.px = 20}));
  const Playfield field(setup, {.window = {600, 900}});
  const std::string sketch = text_of(field.where().sketch());
  std::map<std::string, int> lines;
  std::istringstream in(sketch);
  for (std::string line; std::getline(in, line);) {
    const std::string layer = line.substr(0, line.find(' '));
    ++lines[layer + line.substr(layer.size(), line.find(' ', layer.size() + 1) - layer.size())];
  }
  CHECK(lines == std::map<std::string, int>{{"areas box", 2},
                                            {"areas label", 2},
                                            {"panels box", 1},
                                            {"panels label", 1},
                                            {"hits quad", 4},
                                            {"neutral point", 4},
                                            {"strips line", 3},
                                            {"strips label", 1},
                                            {"insertion point", 5},
                                            {"ids label", 4}});
  for (const auto& [primitive, count] : lines) {
    const std::string layer = primitive.substr(0, primitive.find(' '));
    CHECK(std::count(sketch_layers.begin(), sketch_layers.end(), layer) == 1);
  }
  CHECK(sketch.find(fmt::format("{:.1f} px", 0.3f * field.where().card_size().height)) != std::string::npos);
}

TEST_CASE("play: runs, empty zones and drops have their outlines") {
  Playfield field(one_zone({.name = "column", .layout = {.kind = ColumnLayout{}, .longest = 9}}, 5));
  const ZoneId id = *field.table().find_zone("column");
  const auto& cards = field.table().zone(id)->cards;
  const Rect all = *field.where().run_outline({cards[0], 5});
  const Rect two = *field.where().run_outline({cards[3], 2});
  CHECK(all.height() > two.height());
  CHECK(all.max == two.max);
  CHECK(two.width() == Approx(field.where().card_size().width).margin(0.01));
  CHECK_FALSE(field.where().run_outline({cards[3], 3}).has_value());
  CHECK(field.where().outline(id)->centre.x == Approx(field.where().area(id)->centre().x).margin(1));
  CHECK(field.where().drop_area(id)->width() > field.where().area(id)->width());
  CHECK_FALSE(field.where().drop_area({99}).has_value());
  CHECK(field.where().insertion_index(id, {field.where().area(id)->centre().x, 0}) == 0);
  CHECK(field.where().insertion_index(id, {field.where().area(id)->centre().x, 5000}) == 5);
  CHECK_FALSE(field.where().insertion_index(id, {NAN, 0}).has_value());
}

TEST_CASE("play: of each card and zone there is a place, and of those that are not there none") {
  TableSetup setup = one_zone({.name = "column", .layout = {.kind = ColumnLayout{}, .longest = 4}}, 2);
  const PanelId label = setup.add_panel({.name = "label"});
  setup.plans[0].root.parts.push_back(panel(label, {.px = 50}, {.px = 20}));
  const Playfield field(setup, {.window = {600, 900}});
  const WhereGroup& where = field.where();
  for (const Zone& there : field.table().zones()) {
    CHECK(where.area(there.id).has_value());
    CHECK(where.drop_area(there.id).has_value());
    CHECK(where.outline(there.id).has_value());
    CHECK(where.next_pose(there.id).has_value());
    CHECK(where.insertion_index(there.id, {1, 1}).has_value());
    for (const CardId card : there.cards) {
      CHECK(where.neutral_pose(card).has_value());
      CHECK(where.resting_pose(card).has_value());
      CHECK(where.live_pose(card).has_value());
      CHECK(where.run_outline({card, 1}).has_value());
    }
  }
  CHECK(where.panel_area(label).has_value());
  CHECK(where.find_panel("label") == label);
  for (const std::uint32_t number : {0u, 999u}) {
    const ZoneId zone{number};
    CHECK_FALSE(where.area(zone).has_value());
    CHECK_FALSE(where.drop_area(zone).has_value());
    CHECK_FALSE(where.outline(zone).has_value());
    CHECK_FALSE(where.next_pose(zone).has_value());
    CHECK_FALSE(where.insertion_index(zone, {1, 1}).has_value());
    CHECK_FALSE(where.crowded(zone));
    CHECK(where.behaviour(zone) == ZoneBehaviour{});
    CHECK(where.facing(zone) == Facing::bottom);
    CHECK(where.content(zone) == 0);
    CHECK(where.offset(zone) == 0);
    const CardId card{number};
    CHECK_FALSE(where.neutral_pose(card).has_value());
    CHECK_FALSE(where.resting_pose(card).has_value());
    CHECK_FALSE(where.live_pose(card).has_value());
    CHECK_FALSE(where.run_outline({card, 1}).has_value());
    CHECK_FALSE(where.panel_area({number}).has_value());
  }
  CHECK_FALSE(where.find_panel("lable").has_value());
}
