// All that a table can say, written and read again; and what is said of each mistake in it.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "apsidon/files/table_file.hpp"
#include "support/property.hpp"
#include "support/schema.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

ZoneId some_zone(Random& r, const TableSetup& setup) {
  return setup.table.zones()[r.below(setup.table.zones().size())].id;
}

ZoneId other_zone(Random& r, const TableSetup& setup, ZoneId than) {
  for (;;) {
    const ZoneId zone = some_zone(r, setup);
    if (zone != than) return zone;
  }
}

std::vector<ZoneId> some_zones(Random& r, const TableSetup& setup) {
  std::vector<ZoneId> zones;
  for (const Zone& zone : setup.table.zones()) {
    if (r.chance(0.5f)) zones.push_back(zone.id);
  }
  if (zones.empty()) zones.push_back(some_zone(r, setup));
  return zones;
}

NumberTerm some_term(Random& r, const TableSetup& setup) {
  const auto of = static_cast<NumberOf>(r.below(7));
  if (of != NumberOf::owner) return {"hits", of};
  if (r.chance(0.3f)) return "sold";
  if (r.chance(0.5f)) return {"points", setup.table.seats()[r.below(setup.table.seats().size())].id};
  return {"room", some_zone(r, setup)};
}

Numbers some_numbers(Random& r) {
  std::vector<Number> numbers;
  for (const char* name : {"bids", "hits", "points"}) {
    if (r.chance(0.3f)) numbers.push_back({name, r.between(-1'000'000'000, 1'000'000'000)});
  }
  return numbers;
}

Rule some_rule(Random& r, const TableSetup& setup, int depth = 0) {
  const auto part = [&] { return some_rule(r, setup, depth + 1); };
  switch (r.below(depth < 2 ? 24 : 19)) {
    case 0:
      return rule::nothing();
    case 1:
      return rule::rank_down();
    case 2:
      return r.chance(0.5f) ? rule::rank_up() : rule::sequence();
    case 3:
      return rule::same_suit();
    case 4:
      return rule::same_colour();
    case 5:
      return rule::same_rank();
    case 6:
      return rule::together();
    case 7:
      return rule::of_suit(r.between(0, 3));
    case 8:
      return rule::rank_at_least(r.between(0, 12));
    case 9:
      return rule::from(some_zones(r, setup));
    case 10:
      return rule::on_empty();
    case 11:
      return rule::rank_on_empty(r.between(0, 12));
    case 12:
      return r.chance(0.5f) ? rule::at_most(r.between(1, 9)) : rule::at_least(r.between(1, 9));
    case 13:
      return rule::neighbours(r.between(0, 4));
    case 14:
      return rule::waited_for(r.between(0, 3));
    case 15:
      return rule::own("too-" + std::to_string(r.below(9)));
    case 16:
      return rule::on_turn();
    case 17:
      return rule::own_zone();
    case 18:
      if (r.chance(0.3f))
        return rule::sum(static_cast<Compared>(r.below(3)), some_term(r, setup),
                         r.chance(0.5f) ? "hits" : "");
      return rule::number(some_term(r, setup), static_cast<Compared>(r.below(3)),
                          r.chance(0.5f) ? some_term(r, setup) : NumberTerm(r.between(-9, 9)));
    case 19:
      return rule::all({part(), part()});
    case 20:
      return rule::any({part(), part()});
    case 21:
      return rule::negate(part());
    case 22:
      return rule::each_neighbour(part());
    default:
      return rule::anything();
  }
}

Goal some_goal(Random& r, const TableSetup& setup) {
  switch (r.below(5)) {
    case 0:
      return goal::all_in(some_zones(r, setup));
    case 1:
      return goal::filled(some_zones(r, setup));
    case 2:
      return goal::empty(some_zones(r, setup));
    case 3:
      return goal::when(rule::any({rule::own("done"), rule::number("sold", Compared::at_least, 3)}));
    default:
      return {};
  }
}

void add_behaviour(Random& r, TableSetup& setup, ZoneId id) {
  ZoneRules& rules = setup.rules_of(id);
  const auto toss = [&] { return r.chance(0.3f); };
  rules.drop = some_rule(r, setup);
  if (rules.pick.kind != PickKind::nothing) {
    if (rules.pick.kind == PickKind::run) rules.pick.link = some_rule(r, setup);
    if (toss()) rules.pick.when = rule::own("too-dear");
    rules.pick.covered = toss();
  }
  rules.exchanges = toss();
  rules.sorts = toss();
  rules.inserts = toss();
  rules.lays_sideways = setup.layout_of(id).sideways && toss();
  rules.flips_uncovered = toss();
  rules.takes_itself = toss();
  if (toss()) rules.sends_to = {other_zone(r, setup, id)};
  if (rules.takes_itself && toss()) rules.takes_from = {other_zone(r, setup, id)};
  if (toss())
    rules.stock = StockRule{.to = other_zone(r, setup, id), .gives = {3, 1}, .passes = r.between(0, 4)};
  ZoneHandling& handling = setup.handling_of(id);
  handling.hover = static_cast<HoverKind>(r.below(3));
  handling.zoom = toss();
  handling.closes_gaps = toss();
  if (rules.stock) handling.tap = TapKind::draw;
  if (!rules.stock && toss()) handling.double_tap = TapKind::send;
  if (toss()) handling.flick_to = FlickTargets::anywhere(other_zone(r, setup, id));
  if (toss()) handling.flick_to = {.left = other_zone(r, setup, id), .down = other_zone(r, setup, id)};
  if (!rules.stock && toss()) {
    handling.tap = TapKind::flip;
    rules.flip = rule::at_most(1);
    MatchRule match{.open = r.between(2, 4), .end = static_cast<MatchEnd>(r.below(3))};
    match.seconds = r.between(0, 20) / 4.0;
    if (match.end != MatchEnd::stay) match.to = other_zone(r, setup, id);
    rules.match = match;
  }
  if (toss()) rules.select = SelectRule{some_rule(r, setup), some_rule(r, setup), toss()};
  handling.playable = static_cast<PlayableLook>(r.below(3));
  if (toss()) {
    rules.reorient = rule::anything();
    handling.double_tap = TapKind::reorient;
  }
  ZoneLayout& layout = setup.layout_of(id);
  layout.snaps = !toss();
  layout.gives_up = toss();
  layout.scrolls = layout.scrolls || toss();
  if (toss()) layout.longest_covered = r.between(0, layout.longest);
  if (toss()) layout.kind = CustomLayout{.name = "striped"};
}

void add_panels(Random& r, TableSetup& setup) {
  for (const PanelKind kind :
       {PanelKind::caption, PanelKind::counter, PanelKind::button, PanelKind::bar, PanelKind::box}) {
    PanelSetup panel{
        .name = "panel-" + std::to_string(static_cast<int>(kind)), .kind = kind, .text = "water"};
    panel.fill = static_cast<float>(r.below(5)) / 4;
    panel.tone = static_cast<PanelTone>(r.below(3));
    if (r.chance(0.3f)) panel.seat = setup.table.seats()[r.below(setup.table.seats().size())].id;
    if (r.chance(0.3f)) {
      panel.fill = 1;
      panel.filled_by = "hits of box";
      panel.full_at = r.chance(0.5f) ? "10" : "bids";
    }
    panel.round = r.chance(0.3f);
    panel.hidden = r.chance(0.3f);
    panel.off = r.chance(0.3f);
    setup.add_panel(panel);
  }
  Plan& plan = setup.plans.front();
  plan.overlays = {{.panel = {5}, .width = {.cards = 2, .px = 20}, .height = {.px = 170}}};
  Overlay& box = plan.overlays.front();
  box.across = static_cast<Align>(r.below(3));
  box.down = static_cast<Align>(r.below(3));
  box.hits = static_cast<OverlayHits>(r.below(3));
  if (r.chance(0.5f)) box.padding = {.px = 4};
  if (r.chance(0.7f))
    box.inside = down({panel({1}, {.px = 100}, {.px = 30}), panel({3}, {.px = 100}, {.px = 30})});
  plan.largest_width = r.chance(0.5f) ? 200.0f : 0.0f;
  plan.name = "wide";
  if (r.chance(0.5f)) plan.root.parts.front().most = Length{.cards = 9};
  if (r.chance(0.5f)) plan.root.parts.front().least = Length{.px = 9};
  if (r.chance(0.5f)) plan.root.cross = Cross::centre;
  if (r.chance(0.5f)) {
    plan.root = layers({plan.root, panel({2}, {.px = 50}, {.px = 20})});
    plan.root.parts.back().place = Placement{Align::end, Align::start};
  }
}

/// Something of all that there is to say.
TableSetup whole_table(Random& r) {
  TableSetup setup = random_setup(r);
  for (const char* seat : {"south", "north"}) setup.table.create_seat(seat, some_numbers(r));
  if (r.chance(0.5f)) (void)setup.table.set_turn(std::vector{SeatId{1}});
  for (const Number& number : some_numbers(r)) (void)setup.table.set_number(number.name, number.value);
  const Formation slots = with_waits(
      r.chance(0.5f) ? formation_of_rows({2, 3}, {}, RowLinks::between) : formation_of_pyramid(3), true);
  const PlanNode frame = setup.add_formation({.name = "frame"}, slots);
  setup.plans.front().root.parts.push_back(frame);
  setup.add({.name = "box", .layout = {.off_table = Facing::top}, .seat = {2}, .numbers = some_numbers(r)});
  for (const Zone& zone : setup.table.zones()) {
    for (const CardId card : std::vector(zone.cards)) {
      if (!r.chance(0.2f)) continue;
      for (const Number& number : some_numbers(r))
        (void)setup.table.set_number(number.name, number.value, card);
    }
  }
  for (const Zone& zone : setup.table.zones()) add_behaviour(r, setup, zone.id);
  add_panels(r, setup);
  setup.sentences = {{"too-dear", "{card} costs {cost}."}};
  setup.names = {.card = "{rank} of {suit}", .words = {{"7", "seven"}, {"reed", "reeds"}}};
  setup.send_top_of = some_zones(r, setup);
  setup.finish = {.into = some_zones(r, setup), .by_itself = r.chance(0.5f)};
  setup.round = {.stock = some_zone(r, setup), .zones = {{some_zone(r, setup), 2, 1}}};
  setup.deal_from = setup.round.stock;
  setup.named_moves = {{.name = "redeal", .when = rule::number("redeals", Compared::at_least, 1)},
                       {.name = "knock"}};
  setup.won = some_goal(r, setup);
  setup.lost = some_goal(r, setup);
  setup.badges = {{"hits", static_cast<Corner>(r.below(4))}, {"bids", Corner::top_left}};
  setup.art_size = {50, 70};
  return setup;
}

}  // namespace

TEST_CASE(
    "files: all that a table can say is the same when it was written and read, and the schema takes it") {
  const Schema schema("table");
  int checked = 0;
  for_all("whole tables", 5, [&](Random& r) {
    const TableSetup setup = whole_table(r);
    try {
      check(setup);
    } catch (const Error&) {
      return;  // a choice that excludes another
    }
    ++checked;
    const std::string text = write_table(setup);
    RC_ASSERT(schema.accepts(nlohmann::json::parse(text)));
    const auto read = parse_table(text, "x.table.json");
    if (!read) RC_FAIL(describe(read.error()[0]));
    RC_ASSERT(write_table(*read) == text);
    RC_ASSERT(read->plans == setup.plans && read->panels == setup.panels);
    RC_ASSERT(read->waits == setup.waits && read->links == setup.links);
    RC_ASSERT(read->sentences == setup.sentences && read->names == setup.names);
    RC_ASSERT(read->finish == setup.finish && read->round == setup.round);
    RC_ASSERT(read->send_top_of == setup.send_top_of && read->deal_from == setup.deal_from);
    for (const Zone& zone : setup.table.zones()) {
      RC_ASSERT(read->handling_of(zone.id) == setup.handling_of(zone.id));
      RC_ASSERT(read->rules_of(zone.id).stock == setup.rules_of(zone.id).stock);
      RC_ASSERT(read->rules_of(zone.id).sends_to == setup.rules_of(zone.id).sends_to);
      RC_ASSERT(read->rules_of(zone.id).takes_from == setup.rules_of(zone.id).takes_from);
      RC_ASSERT(read->layout_of(zone.id).longest_covered == setup.layout_of(zone.id).longest_covered);
    }
  });
  CHECK(checked > 20);
}

TEST_CASE("files: each mistake in a table is told with what is expected instead") {
  const auto good = nlohmann::json::parse(R"({
    "apsidon": "table", "version": 1,
    "deck": {"suits": [{"name": "fern", "colour": "green"}], "ranks": ["1", "2", "3"], "copies": 9},
    "zones": [
      {"name": "bed", "repeat": 2, "layout": "column", "longest": 4, "pick": "any", "drop": "anything"},
      {"name": "tree", "formation": {"pyramid": 2, "waits": "below"}},
      {"name": "stock", "tap": "draw", "stock": {"to": "bed-1"}},
      {"name": "plot", "layout": "slot", "tap": "flip", "flip": "anything", "match": {"open": 2, "to": "bed-1"}}
    ],
    "panels": [{"name": "title", "repeat": 2, "text": "{n}"}, {"name": "box"}],
    "cards": {"bed-1": ["fern-1"], "stock": {"covered": ["fern-2"]}},
    "plans": [{
      "root": {"down": [{"across": [{"each": "bed"}]}, {"formation": "tree"}, {"zone": "stock"}, {"zone": "plot"}]},
      "overlays": [{"panel": "box", "width": 2, "height": 1}]
    }]
  })");
  REQUIRE(parse_table(good.dump(), "t.json"));
  struct Mistake {
    std::string at;     // a JSON pointer
    std::string value;  // what is there instead
    std::string told;
  };
  const std::vector<Mistake> mistakes{
      {"/zones/0/formation", R"({"ring": 3})", "a formation repeats its zone already"},
      {"/zones/0/key", "7", "a repeated zone cannot share one key"},
      {"/zones/1/key", "7", "the slots of a formation cannot share one key"},
      {"/zones/1/formation", R"({"pyramid": 2, "ring": 3})", "2 of 'rows', 'pyramid', 'diamond', 'ring'"},
      {"/zones/1/formation", R"({"pyramid": 2, "links": "all"})", "only rows have links"},
      {"/zones/1/formation", R"({"rows": [0, 0]})", "0 slots: 1 to 10000 are expected"},
      {"/zones/1/formation", R"({"pyramid": 2, "waits": "beside"})", "unknown waits 'beside'"},
      {"/zones/2/key", "-1", "a whole number from 1"},
      {"/zones/2/stock/gives", "[]", "a stock that gives nothing"},
      {"/zones/2/stock/to", R"("stock")", "'stock' names itself"},
      {"/zones/2/layout", R"({"own": ""})", "layout"},
      {"/zones/2/double_tap", R"("pick")", "unknown double_tap 'pick'"},
      {"/zones/2/drop", R"({"anything": 1})", "'anything' has no argument"},
      {"/zones/2/drop", "7", "a rule"},
      {"/zones/2/drop", R"({"all": [{"from": []}]})", "/zones/2/drop/all/0/from"},
      {"/zones/2/pick", R"({"cards": "run"})", "'run' wants a rule"},
      {"/zones/2/zoom", "1", "true or false is expected"},
      {"/panels/0/repeat", "10000", "the table has 10000 panels: no more"},
      {"/panels/0/repeat", "0", "1 to 10000"},
      {"/panels/0/text", R"(["a"])", "1 texts for 2 panels"},
      {"/panels/1/tone", R"("sad")", "unknown tone 'sad'"},
      {"/links", R"([["bed-1"]])", "1 zones: two neighbours are expected"},
      {"/waits", R"([["bed-1", "bed-2", "stock"]])", "3 zones: two slots are expected"},
      {"/sentences", "[]", "an object with sentences"},
      {"/names", R"({"words": []})", "an object with a text for each word"},
      {"/send_top_of", "7", "an array is expected"},
      {"/finish", R"({"by_itself": true})", "'into' is missing"},
      {"/cards", "[]", "an object with the cards by zone"},
      {"/cards/bed-1/0", R"({"face": "fern-1", "at": [0.5]})", "1 numbers: two, [x, y], are expected"},
      {"/ids", R"({"cards": {}, "last": 9})", "0 ids for the 1 cards of 'bed-1'"},
      {"/ids", R"({"cards": {"bed-1": [1], "stock": [2]}, "last": 3000000000})", "an id nearer to it"},
      {"/plans/0/root", R"({"each": "bed"})", "one node is expected at the root"},
      {"/plans/0/root/down/0", R"({"across": []})", "no parts"},
      {"/plans/0/root/down/0",
       R"({"each": "bed", "as": {"across": [{"each": "bed", "as": {"zone": "bed"}}]}})",
       "'as' within another 'as'"},
      {"/plans/0/root/down/0", R"({"each": "bed", "as": {"each": "bed"}})",
       "one node is expected in the place"},
      {"/plans/0/root/down/1", R"({"formation": "bed"})", "unknown formation 'bed'"},
      {"/plans/0/root/down/2", R"({"zone": "stock", "place": ["start"]})", "two words are expected"},
      {"/plans/0/root/down/2", R"({"zone": "stock", "panel": "box"})", "exactly one is expected"},
      {"/plans/0/root/down/2", R"({"seats": [], "middle": {"zone": "stock"}})", "no seats"},
      {"/plans/0/root/down/2", R"({"seats": [{"zone": "stock"}], "middle": {"each": "bed"}})",
       "place already"},
      {"/plans/0/root/down/2", R"({"slots": []})", "no slots"},
      {"/plans/0/root/down/2", R"({"panel": "box"})", "panel 'box' has a place already"},
      {"/plans/0/root/down/2", R"({"panel": "bix"})", "unknown panel 'bix': did you mean 'box'?"},
      {"/plans/0/overlays/0/inside", R"({"each": "bed"})", "place already"},
  };
  for (const Mistake& mistake : mistakes) {
    CAPTURE(mistake.at, mistake.value);
    nlohmann::json json = good;
    json[nlohmann::json::json_pointer(mistake.at)] = nlohmann::json::parse(mistake.value);
    const auto read = parse_table(json.dump(), "t.json");
    REQUIRE_FALSE(read.has_value());
    REQUIRE(read.error().size() == 1);
    CHECK_THAT(describe(read.error()[0]), Catch::Contains(mistake.told));
  }
}

TEST_CASE(
    "files: the rows of a pyramid and of a diamond overlap as far as is stated, unless the file says how "
    "far") {
  const auto second_row = [](const std::string& formation) {
    const auto table = parse_table(
        R"({"apsidon": "table", "version": 1, "deck": {"suits": [{"name": "fern", "colour": "green"}],
      "ranks": ["1"]}, "zones": [{"name": "tree", "formation": )" +
            formation + R"(}], "plans": [{"root": {"formation": "tree"}}]})",
        "t.json");
    REQUIRE(table);
    return table->plans[0].root.places.at(1).at.y;
  };
  CHECK(second_row(R"({"pyramid": 2})") == Approx(0.5));
  CHECK(second_row(R"({"diamond": 2})") == Approx(0.54));
  CHECK(second_row(R"({"pyramid": 2, "gap_down": 0.25})") == Approx(1.25));
}
