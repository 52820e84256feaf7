// Panels, formations, seats, overlays, limits: what a plan arranges beside zones.
#include <catch2/catch.hpp>

#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

struct Solved {
  PlanResult result;
  std::vector<Rect> areas;
  std::vector<Rect> panels;
};

Solved solved(const Plan& plan, const std::vector<ZoneLayout>& places, const PlanWindow& window,
              std::size_t panels = 0, const std::vector<char>& empty = {}) {
  Solved s{{}, std::vector<Rect>(places.size()), std::vector<Rect>(panels)};
  check(plan, places, panels);
  s.result = solve(plan, places, window, s.areas, s.panels, empty);
  return s;
}

}  // namespace

TEST_CASE("plan: a panel keeps its pixels while cards grow around it") {
  const Plan plan{.root = down({panel({1}, {.px = 100}, {.px = 40}), zone({1}, 1)}, 0), .margin = 0};
  for (const float height : {200.0f, 600.0f}) {
    const Solved s = solved(plan, std::vector<ZoneLayout>(1), {.size = {500, height}}, 1);
    CHECK(s.panels[0] == Rect{{0, 0}, {500, 40}});
    CHECK(s.areas[0].min.y == 40);
    CHECK(s.result.unsnapped_card.height == Approx(std::min(height - 40, 700.0f)).margin(0.02));
  }
  // What does not fit at all is told, and everything stays finite.
  CHECK_FALSE(solved(plan, std::vector<ZoneLayout>(1), {.size = {500, 30}}, 1).result.fits);
}

TEST_CASE("plan: a part that has its place in a layer lies there, no larger than it prefers") {
  const float across_at[] = {0, 200, 400}, down_at[] = {0, 135, 270};
  for (int across = 0; across < 3; ++across) {
    for (int down = 0; down < 3; ++down) {
      Plan plan{.root = layers({zone({1}, 1), panel({1}, {.px = 100}, {.px = 30})}), .margin = 0};
      plan.root.parts[1].place = Placement{static_cast<Align>(across), static_cast<Align>(down)};
      const Solved s = solved(plan, std::vector<ZoneLayout>(1), {.size = {500, 300}}, 1);
      CHECK(s.panels[0] == rect_at({across_at[across], down_at[down]}, {100, 30}));
    }
  }
}

TEST_CASE("plan: insets keep a phone's cut-outs free, and fixed spaces their pixels") {
  Plan plan{.root = across({zone({1}, 1), space(0), zone({2}, 1)}, 0), .margin = 10};
  plan.root.parts[1].space = {.px = 30};
  const Solved s = solved(plan, std::vector<ZoneLayout>(2),
                          {.size = {400, 300}, .insets = {.left = 20, .top = 40, .bottom = 6}});
  CHECK(s.areas[0].min == Vec2{30, 50});
  CHECK(s.areas[1].max == Vec2{390, 284});
  CHECK(s.areas[1].min.x - s.areas[0].max.x == 30);
}

TEST_CASE("plan: parts grow no further than their most and no less than their least") {
  Plan plan{.root = across({zone({1}, 1), zone({2}, 1)}, 0), .margin = 0, .largest_width = 50};
  plan.root.parts[0].most = Length{.px = 120};
  const Solved s = solved(plan, std::vector<ZoneLayout>(2), {.size = {1000, 200}});
  CHECK(s.areas[0].width() == Approx(120));
  CHECK(s.areas[1].width() == Approx(880));
  plan.root.parts[0].share = 0;
  plan.root.parts[0].most = std::nullopt;
  plan.root.parts[0].least = {.px = 300};
  const Solved t = solved(plan, std::vector<ZoneLayout>(2), {.size = {1000, 200}});
  CHECK(t.areas[0].width() == Approx(300));
}

TEST_CASE("plan: strips grow to what they prefer before shares and justification take what is left") {
  const ZoneLayout column{.kind = ColumnLayout{.open_strip = 0.5f, .least_open_strip = 0.1f}, .longest = 5};
  Plan plan{.root = down({zone({1}), zone({2}, 1)}, 0), .margin = 0, .aspect = 1, .largest_width = 100};
  // Five cards of 100: 100 + 4 * 10 at least, 100 + 4 * 50 preferred; the slot below takes 100 and the rest.
  CHECK(solved(plan, {column, {}}, {.size = {400, 1000}}).areas[0].height() == Approx(300));
  CHECK(solved(plan, {column, {}}, {.size = {400, 320}}).areas[0].height() == Approx(220));
  CHECK(solved(plan, {column, {}}, {.size = {400, 241}}).areas[0].height() == Approx(141));
}

TEST_CASE("plan: a part may keep to its own size across, at either end or in the middle") {
  Plan plan{.root = down({zone({1})}, 0), .margin = 0, .largest_width = 100};
  const auto left = [&](Cross cross) {
    plan.root.parts[0].cross = cross;
    return solved(plan, std::vector<ZoneLayout>(1), {.size = {500, 400}}).areas[0];
  };
  CHECK(left(Cross::stretch).width() == 500);
  CHECK(left(Cross::start).min.x == 0);
  CHECK(left(Cross::centre).min.x == 200);
  CHECK(left(Cross::end).max.x == 500);
  CHECK(left(Cross::end).width() == 100);
}

TEST_CASE("plan: formations have their slots, names and neighbours, and no two slots of a lattice overlap") {
  const Formation rows = formation_of_rows({2, 3});
  CHECK(rows.names == std::vector<std::string>{"1-1", "1-2", "2-1", "2-2", "2-3"});
  using Links = std::vector<std::pair<std::size_t, std::size_t>>;
  CHECK(rows.links == Links{{0, 1}, {0, 2}, {0, 3}, {1, 3}, {1, 4}, {2, 3}, {3, 4}});
  const Formation pyramid = formation_of_pyramid(3);
  CHECK(pyramid.at.size() == 6);
  CHECK(pyramid.links == Links{{0, 1}, {0, 2}, {1, 3}, {1, 4}, {2, 4}, {2, 5}});
  const Formation diamond = formation_of_diamond(4);
  CHECK(diamond.at.size() == 16);
  CHECK(diamond.links.size() == 24);
  for (std::size_t i = 0; i < 16; ++i) {
    for (std::size_t j = 0; j < i; ++j) {
      CHECK(overlap(rect_around(diamond.at[i], {1, 1}), rect_around(diamond.at[j], {1, 1})) == 0);
    }
  }
  const Formation ring = formation_of_ring(6);
  CHECK(ring.links.size() == 6);
  CHECK(formation_of_ring(1).links.empty());
  CHECK_THROWS_WITH(formation_of_pyramid(0), "formation: count is 0: 1 to 100 is expected");
  CHECK_THROWS_AS(formation_of_rows({-1}), Error);
}

TEST_CASE("plan: a formation lies in its area in one piece, and its slots are zones") {
  TableSetup setup(glasshouse());
  PlanNode node =
      setup.add_formation({.name = "trellis", .rules = {.drop = rule::on_empty()}}, formation_of_diamond(3));
  node.share = 1;
  setup.plans = {{.root = down({node})}};
  const Playfield field(setup, {.window = {700, 900}});
  CHECK(field.table().find_zone("trellis-3-2").has_value());
  CHECK(setup.links.size() == 12);
  const Rect middle = *field.where().area(*field.table().find_zone("trellis-3-2"));
  CHECK(middle.centre().x == Approx(350).margin(1));
  CHECK(middle.centre().y == Approx(450).margin(1));
  CHECK(middle.width() == field.where().card_size().width);
  CHECK(field.frame().items.size() == 9);
  CHECK_THROWS_AS(setup.add_formation({.name = "trellis"}, formation_of_diamond(3)), Error);
  CHECK(setup.table.zones().size() == 9);
}

TEST_CASE("plan: a formation whose zone has a factor shrinks or grows as a whole, inside the window") {
  for (const float factor : {0.5f, 1.0f, 1.8f}) {
    TableSetup setup(glasshouse());
    const PlanNode node = setup.add_formation({.name = "tree", .layout = {.factor = factor}},
                                              formation_of_rows({2, 3}, {0.2f, 0.15f}));
    setup.plans = {{.root = node, .margin = 10}};
    const Playfield field(setup, {.window = {600, 400}});
    const Size card = field.where().card_size() * factor;
    const Rect first = *field.where().area(*field.table().find_zone("tree-1-1"));
    const Rect second = *field.where().area(*field.table().find_zone("tree-1-2"));
    CHECK(first.width() == Approx(card.width));
    CHECK(second.min.x - first.max.x == Approx(0.2f * card.width).margin(0.01));
    Rect all = first;
    for (const Zone& zone : field.table().zones()) {
      const Rect b = bounds(corners(*field.where().outline(zone.id), field.where().card_size()));
      all = {{std::min(all.min.x, b.min.x), std::min(all.min.y, b.min.y)},
             {std::max(all.max.x, b.max.x), std::max(all.max.y, b.max.y)}};
    }
    // It fills the window in one direction: the card is as large as can be.
    CHECK(all.min.x >= 9.4f);
    CHECK(all.max.y <= 390.6f);
    CHECK((all.height() > 375 || all.width() > 575));
  }
}

TEST_CASE("plan: seats lie around their table, each with its facing") {
  CHECK(facings(1) == std::vector{Facing::bottom});
  CHECK(facings(2) == std::vector{Facing::bottom, Facing::top});
  CHECK(facings(4) == std::vector{Facing::bottom, Facing::left, Facing::top, Facing::right});
  CHECK(facings(5) == std::vector{Facing::bottom, Facing::left, Facing::top, Facing::top, Facing::right});
  for (std::size_t n = 1; n <= 6; ++n) {
    const std::vector<Facing> sides = facings(n);
    std::vector<ZoneLayout> places;
    std::vector<PlanNode> nodes;
    for (std::size_t i = 0; i < n; ++i) {
      ZoneLayout place;
      place.kind = HandLayout{};
      place.longest = 5;
      place.facing = sides[i];
      places.push_back(place);
      nodes.push_back(zone({static_cast<std::uint32_t>(i + 1)}));
    }
    places.emplace_back();  // the table that they sit around
    const Plan plan{.root = seats(nodes, zone({static_cast<std::uint32_t>(n + 1)})), .margin = 0};
    const Solved s = solved(plan, places, {.size = {1000, 800}});
    const Vec2 middle = s.areas[n].centre();
    for (std::size_t i = 0; i < n; ++i) {
      const Vec2 at = s.areas[i].centre();
      if (sides[i] == Facing::bottom) CHECK(at.y > middle.y);
      if (sides[i] == Facing::top) CHECK(at.y < middle.y);
      if (sides[i] == Facing::left) CHECK(at.x < middle.x);
      if (sides[i] == Facing::right) CHECK(at.x > middle.x);
    }
  }
}

TEST_CASE("plan: an overlay lies over the window, where it is asked to and no larger") {
  Plan plan{.root = zone({1}), .margin = 16};
  plan.overlays = {{.panel = {1}, .width = {.px = 200}, .height = {.px = 100}, .down = Align::end},
                   {.panel = {2},
                    .width = {.px = 9000},
                    .height = {.px = 50},
                    .across = Align::start,
                    .down = Align::start}};
  const Solved s = solved(plan, std::vector<ZoneLayout>(1), {.size = {600, 400}}, 2);
  CHECK(s.panels[0] == Rect{{200, 300}, {400, 400}});
  CHECK(s.panels[1] == Rect{{0, 0}, {600, 50}});
}

TEST_CASE("plan: a zone gives up its place while it is empty, and cards keep their size") {
  std::vector<ZoneLayout> places(2);
  places[0].gives_up = true;
  const Plan plan{.root = across({zone({1}, 1), zone({2}, 1)}, 0.2f), .margin = 0};
  const Solved both = solved(plan, places, {.size = {600, 300}}, 0, {0, 0});
  const Solved one = solved(plan, places, {.size = {600, 300}}, 0, {1, 0});
  CHECK(one.areas[1] == Rect{{0, 0}, {600, 300}});
  // Nothing is left that could take a hit or a drop from a neighbour.
  CHECK(one.areas[0].empty());
  CHECK(both.areas[1].min.x > 250);
  CHECK(one.result.card == both.result.card);
}

TEST_CASE("plan: between two plans the current one stays until another's card is clearly larger") {
  const std::vector<ZoneLayout> places(2);
  const std::vector<Plan> plans{{.root = across({zone({1}), zone({2})})},
                                {.root = down({zone({1}), zone({2})})}};
  int changes = 0;
  std::size_t current = best_plan(plans, places, {.size = {900, 500}});
  for (float width = 900; width > 300; width -= 1) {
    // The window trembles by a pixel as it is dragged.
    for (const float tremble : {0.0f, 1.0f, 0.0f}) {
      const std::size_t next = best_plan(plans, places, {.size = {width + tremble, 700}}, current);
      changes += next != current;
      current = next;
    }
  }
  CHECK(changes == 1);
}

TEST_CASE("plan: a zone's factor makes its cards larger or smaller, there and on the way") {
  TableSetup setup(glasshouse());
  const ZoneId big = setup.add({.name = "big", .cards = {{.face = {1}}}});
  const ZoneId small = setup.add({.name = "small", .layout = {.factor = 0.5f}});
  setup.plans = {{.root = across({zone(big), zone(small)})}};
  Playfield field(setup);
  const CardId card = field.table().zone(big)->cards[0];
  CHECK(field.where().resting_pose(card)->scale == 1);
  REQUIRE(field.edits().move({card, 1}, small));
  field.advance_to(0.1);
  CHECK(field.where().live_pose(card)->scale < 1);
  CHECK(field.where().live_pose(card)->scale > 0.5f);
  field.advance_to(2);
  CHECK(field.where().live_pose(card)->scale == 0.5f);
  CHECK(field.where().outline(small)->scale == 0.5f);
}
