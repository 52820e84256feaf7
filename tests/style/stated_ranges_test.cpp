// The ranges that headers state, of what no list of options has: see stated_numbers.txt.
#include <catch2/catch.hpp>
#include <cmath>

#include "apsidon/files/feel_file.hpp"
#include "support/hand.hpp"
#include "support/stage.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// What a call throws; nothing: it throws none.
template <class Call>
std::string thrown(Call call) {
  try {
    call();
  } catch (const Error& e) {
    return e.what();
  }
  return {};
}

/// At both borders it is taken, and beyond them refused by this name.
template <class Call>
void check_borders(const std::string& name, double least, double most, double step, Call call) {
  for (const double within : {least, most}) {
    CAPTURE(name, within);
    CHECK(thrown([&] { call(within); }) == "");
  }
  for (const double beyond : {least - step, most + step, std::nan("")}) {
    if (std::isnan(beyond) && step >= 1) continue;  // of whole numbers there is none
    CAPTURE(name, beyond);
    CHECK(thrown([&] { call(beyond); }).find(name) != std::string::npos);
  }
}

float f(double value) { return static_cast<float>(value); }
int i(double value) { return static_cast<int>(value); }

}  // namespace

TEST_CASE("plan: lengths, shares, margins, aspects, factors and room for cards have their ranges") {
  const auto plan = [place = ZoneLayout{}](const Plan& tried) { check(tried, {&place, 1}); };
  const auto node = [] { return zone({1}); };
  check_borders("cards", 0, 1000, 0.01, [&](double v) {
    PlanNode n = node();
    n.least.cards = f(v);
    plan({.root = n});
  });
  check_borders("px", 0, 100'000, 0.1, [&](double v) {
    PlanNode n = node();
    n.least.px = f(v);
    plan({.root = n});
  });
  check_borders("share", 0, 1000, 0.01, [&](double v) {
    PlanNode n = node();
    n.share = f(v);
    plan({.root = n});
  });
  check_borders("margin", 0, 10'000, 0.1, [&](double v) { plan({.root = node(), .margin = f(v)}); });
  check_borders("aspect", 0.05, 20, 0.001, [&](double v) { plan({.root = node(), .aspect = f(v)}); });
  check_borders("largest width", 0, 1'000'000, 1e-1,
                [&](double v) { plan({.root = node(), .largest_width = f(v)}); });
  check_borders("longest", 0, 100'000, 1, [&](double v) { check(ZoneLayout{.longest = i(v)}); });
  check_borders("longest covered", 0, 7, 1,
                [&](double v) { check(ZoneLayout{.longest = 7, .longest_covered = i(v)}); });
  check_borders("factor", 0.05, 20, 0.001, [&](double v) { check(ZoneLayout{.factor = f(v)}); });
}

TEST_CASE("plan: formations have so many slots and such gaps, and no others") {
  check_borders("count", 0, 1000, 1, [](double v) { (void)formation_of_rows({i(v)}); });
  check_borders("count", 1, 100, 1, [](double v) { (void)formation_of_pyramid(i(v)); });
  check_borders("count", 1, 100, 1, [](double v) { (void)formation_of_diamond(i(v)); });
  check_borders("count", 1, 1000, 1, [](double v) { (void)formation_of_ring(i(v)); });
  check_borders("gap across", -1, 100, 0.001, [](double v) { (void)formation_of_rows({2}, {f(v), 0}); });
  check_borders("gap down", -1, 100, 0.001, [](double v) { (void)formation_of_rows({2}, {0, f(v)}); });
}

TEST_CASE("play: the numbers of a set-up have their ranges") {
  const auto with = [](const ZoneSetup& zone_setup) {
    TableSetup setup(glasshouse());
    const ZoneId added = setup.add(zone_setup);
    setup.plans = {{.root = zone(added)}};
    check(setup);
  };
  check_borders("longest", 0, 100'000, 1,
                [&](double v) { with({.name = "a", .layout = {.longest = i(v)}}); });
  check_borders("longest covered", 0, 5, 1,
                [&](double v) { with({.name = "a", .layout = {.longest = 5, .longest_covered = i(v)}}); });
  check_borders("factor", 0.05, 20, 0.001,
                [&](double v) { with({.name = "a", .layout = {.factor = f(v)}}); });
  check_borders("cop", 1, 1'000'000, 1, [](double v) {
    (void)Deck({.suits = {{"fern", "green"}}, .ranks = {"1"}, .copies = i(v)});
  });
  check_borders("jokers", 0, 4, 1, [](double v) { (void)standard_deck(i(v)); });
  check_borders("open", 1, 100, 1, [](double v) {
    TableSetup setup(glasshouse());
    const ZoneId added = setup.add(
        {.name = "a",
         .rules = {.flip = rule::anything(), .match = MatchRule{.open = i(v), .end = MatchEnd::stay}}});
    setup.plans = {{.root = zone(added)}};
    check(setup);
  });
  for (const bool open : {true, false}) {
    check_borders("it deals", 0, 100'000, 1, [&](double v) {
      TableSetup setup(glasshouse());
      const ZoneId stock = setup.add({.name = "stock"});
      const ZoneId bed = setup.add({.name = "bed"});
      setup.plans = {{.root = across({zone(stock), zone(bed)})}};
      setup.round = {.stock = stock,
                     .zones = {{.zone = bed, .covered = open ? 0 : i(v), .open = open ? i(v) : 0}}};
      check(setup);
    });
  }
  TableSetup setup(Deck({.suits = {{"fern", "green"}}, .ranks = {"1", "2"}, .copies = 3}));
  const ZoneId stock = setup.add({.name = "stock"});
  check_borders("packs", 1, 3, 1, [&](double v) {
    TableSetup copy = setup;
    copy.add_deck(stock, {.packs = i(v)});
  });
}

TEST_CASE("play: options of a playfield and of a lone card have their ranges") {
  check_borders("corner radius", 0, 0.5, 0.001,
                [](double v) { check(PlayfieldOptions{.corner_radius = f(v)}); });
  check_borders("most undos", 1, 1e15, 1, [](double v) {
    check(PlayfieldOptions{.most_undos = static_cast<std::size_t>(std::max(v, 0.0))});
  });
  const Deck deck = glasshouse();
  const auto lone = [&](LoneCardOptions options) {
    options.face = {7};
    options.box = rect_at({0, 0}, {100, 140});
    (void)LoneCard(deck, options);
  };
  check_borders("aspect", 0.05, 20, 0.001, [&](double v) { lone({.aspect = f(v)}); });
  check_borders("art_size width", 0, 16384, 0.1, [&](double v) { lone({.art_size = {f(v), 100}}); });
  check_borders("art_size height", 0, 16384, 0.1, [&](double v) { lone({.art_size = {100, f(v)}}); });
  check_borders("pixel_ratio", 0.01, 100, 0.001, [&](double v) { lone({.pixel_ratio = f(v)}); });
  check_borders("corner_radius", 0, 0.5, 0.001, [&](double v) { lone({.corner_radius = f(v)}); });
}

TEST_CASE(
    "play: the clock, cards and performances go at 0 to 1000 times, and any other speed changes nothing") {
  Stage stage;
  const PerformanceId id = stage.field.performances().perform(wait(1));
  for (const double speed : {0.0, 1000.0, -0.001, 1000.1, std::nan(""), HUGE_VAL}) {
    CAPTURE(speed);
    const bool taken = speed >= 0 && speed <= 1000;
    CHECK(stage.field.time().set_speed(speed).allowed() == taken);
    CHECK(stage.field.time().set_cards_speed(speed).allowed() == taken);
    CHECK(stage.field.performances().set_speed(id, speed).allowed() == taken);
  }
}

TEST_CASE(
    "play: a timer rings after 0 to 1e9 seconds, below and without a number at once, beyond at the longest") {
  for (const auto& [seconds, rings] : std::vector<std::pair<double, double>>{
           {0, 0}, {2.5, 2.5}, {-3, 0}, {std::nan(""), 0}, {1e9, 1e9}, {5e9, 1e9}}) {
    Stage stage;
    const double began = stage.field.now();
    (void)stage.field.time().start_timer(seconds);
    const auto event = stage.field.next_event(2e9);
    CAPTURE(seconds);
    REQUIRE(event);
    CHECK(event->kind == EventKind::rang);
    CHECK(event->time == Approx(began + rings));
  }
}

TEST_CASE(
    "play: a bar shows 0 to 1 of itself, an act waits 0 to 3600 seconds, what is beyond is brought there") {
  TableSetup setup(glasshouse());
  const ZoneId hand = setup.add({.name = "hand"});
  setup.panels = {{.name = "bar", .kind = PanelKind::bar}};
  const PanelId bar{1};
  setup.plans = {{.root = down({zone(hand), panel(bar, {.px = 100}, {.px = 20})})}};
  Hand h(setup);
  for (const auto& [fill, shown] :
       std::vector<std::pair<float, float>>{{0, 0}, {1, 1}, {-0.1f, 0}, {1.1f, 1}}) {
    REQUIRE(h.field.edits().set_panel(bar, "", fill));
    CHECK(h.field.frame().panels[0].fill == shown);
  }
  CHECK_FALSE(h.field.edits().set_panel(bar, "", NAN));
  CHECK(h.field.frame().panels[0].fill == 1);
  for (const auto& [seconds, waited] :
       std::vector<std::pair<double, double>>{{3600, 3600}, {3700, 3600}, {-1, 0}}) {
    const double began = h.field.now();
    (void)h.field.performances().perform(wait(seconds));
    h.told.clear();
    h.wait(4000);
    REQUIRE(h.last(EventKind::ended));
    CHECK(h.last(EventKind::ended)->time - began == Approx(waited).margin(1e-6));
  }
}

TEST_CASE("motion: easings, cues and effects have their ranges") {
  check_borders("x", 0, 1, 0.001, [](double v) { (void)Easing(CubicBezier{.x1 = f(v)}); });
  check_borders("x", 0, 1, 0.001, [](double v) { (void)Easing(CubicBezier{.x2 = f(v)}); });
  check_borders("y", -1000, 1000, 0.1, [](double v) { (void)Easing(CubicBezier{.y1 = f(v)}); });
  check_borders("steps", 1, 100'000, 1,
                [](double v) { (void)Easing::parse("steps(" + std::to_string(i(v)) + ")"); });
  CHECK(thrown([] { (void)Easing::parse("steps(1, jump-none)"); }).find("2") != std::string::npos);
  CHECK(thrown([] { (void)Easing::parse("steps(2, jump-none)"); }) == "");
  check_borders("cues 'slide'", 0, 1, 0.001, [](double v) {
    Feel feel;
    feel.deal.cues = {{.name = "slide", .at = f(v)}};
    check(feel);
  });
}

TEST_CASE(
    "cards: a card's place in a free zone is brought into 0 to 1, a waste is recycled 0 to 1000000 times") {
  Table table(glasshouse());
  check_borders("recycled", 0, 1'000'000, 1,
                [&](double v) { (void)Table(glasshouse()).create_zone("a", {.recycled = i(v)}); });
  const ZoneId zone = table.create_zone("a");
  const CardId card = table.create_card(zone, {.face = {1}, .at = {-0.5f, 1.5f}});
  CHECK(table.card(card)->at == Vec2{0, 1});
  REQUIRE(table.set_position(card, {2, -1}));
  CHECK(table.card(card)->at == Vec2{1, 0});
}

TEST_CASE("plan: the card before it is snapped is the largest in steps of 1/128 px") {
  const ZoneLayout place;
  for (float width = 300; width < 320; width += 0.7f) {
    const PlanResult solved = [&] {
      std::vector<Rect> areas(1);
      return solve({.root = zone({1})}, {&place, 1}, {.size = {width, 2000}}, areas);
    }();
    const float steps = solved.unsnapped_card.width * 128;
    CHECK(steps == std::round(steps));
    CHECK(width - 32 - solved.unsnapped_card.width >= 0);
    CHECK(width - 32 - solved.unsnapped_card.width < 2.0f / 128);
  }
}

TEST_CASE("plan: a plan stays until another's card is larger by more than 4%") {
  const ZoneLayout place;
  const Plan one{.root = zone({1})};
  const auto better = [&](float share) {
    // Both are as high as the window lets them; the second has so much less margin.
    Plan other = one;
    other.margin = one.margin - (share - 1) * (500 - 2 * one.margin) / 2;
    const std::vector<Plan> plans{one, other};
    return best_plan(plans, {&place, 1}, {.size = {2000, 500}}, 0);
  };
  CHECK(better(1.035f) == 0);
  CHECK(better(1.045f) == 1);
}

TEST_CASE("layout: of a layout of one's own a pose beyond 1e7 px from the window becomes the middle") {
  CustomFunctions functions;
  functions.lay_out = [](const LayoutInput&, std::span<Pose> poses) {
    poses[0].centre = {0.99e7f, 0};
    poses[1].centre = {0, 1.01e7f};
    return LayoutReport{};
  };
  const CustomLayout layout{.functions = std::make_shared<const CustomFunctions>(functions)};
  const std::vector<LaidCard> cards(2);
  std::vector<Pose> poses(2);
  (void)lay_out(layout, {.area = rect_at({0, 0}, {200, 100}), .card = {50, 70}, .cards = cards}, poses);
  CHECK(poses[0].centre.x == 0.99e7f);
  CHECK(poses[1].centre == Vec2{100, 50});
}

TEST_CASE("layout: a hand with a step of 0° is straight, a ring of 360° goes all the way round") {
  const std::vector<LaidCard> cards(4);
  std::vector<Pose> poses(4);
  const LayoutInput in{.area = rect_at({0, 0}, {800, 800}), .card = {50, 70}, .cards = cards};
  (void)lay_out(HandLayout{.step = {}}, in, poses);
  for (const Pose& pose : poses) {
    CHECK(pose.rotation == 0);
    CHECK(pose.centre.y == poses[0].centre.y);
  }
  (void)lay_out(RingLayout{.sweep = Angle::degrees(360)}, in, poses);
  CHECK(length(poses[0].centre - poses[1].centre) == Approx(length(poses[3].centre - poses[0].centre)));
  CHECK(poses[2].centre.y > poses[0].centre.y);
  (void)lay_out(RingLayout{.sweep = Angle::degrees(180)}, in, poses);
  CHECK(length(poses[0].centre - poses[1].centre) < length(poses[3].centre - poses[0].centre) * 0.6f);
}

TEST_CASE(
    "motion: of two effects of a kind the first fades in 0.12 s, and one of 0 seconds ends it at once") {
  const auto after = [](double seconds, float lasts) {
    Motion motion;
    motion.resize(1);
    motion.put(0, Pose{.centre = {100, 100}});
    motion.start(0, {.kind = EffectKind::pulse, .seconds = 10, .swings = 1, .most = {.scale = 0.5f}});
    motion.advance_to(5);
    motion.start(0, {.kind = EffectKind::pulse, .seconds = lasts, .swings = 1, .most = {.brightness = 0.1f}});
    motion.advance_to(5 + seconds);
    return motion.pose(0).scale;
  };
  CHECK(after(0, 10) == Approx(1.5f).margin(0.01));
  CHECK(after(0.06, 10) > 1.01f);
  CHECK(after(0.06, 10) < 1.49f);
  CHECK(after(0.11, 10) > 1);
  CHECK(after(0.121, 10) == Approx(1).margin(1e-4));
  CHECK(after(0, 0) == Approx(1).margin(1e-4));
}

TEST_CASE("geometry: a sketch in text rounds to 0.01 px") {
  Sketch sketch;
  sketch.point("grip", {1.234f, 5.678f});
  sketch.point("grip", {1.0049f, 7});
  CHECK(text_of(sketch) == "grip point 1.23 5.68\ngrip point 1 7\n");
}

TEST_CASE("motion: stops of an easing are written in percent, 25% being a quarter of the time") {
  const Easing eased = Easing::parse("linear(0, 0.5 20% 40%, 1 100%)");
  CHECK(eased.value(0.1f) == Approx(0.25f));
  CHECK(eased.value(0.2f) == 0.5f);
  CHECK(eased.value(0.4f) == 0.5f);
  CHECK(eased.value(0.7f) == Approx(0.75f));
  CHECK(Easing::parse("linear(0, 1 25%, 1)").value(0.25f) == 1);
}

TEST_CASE("files: what a panel shows has 10,000 bytes at most") {
  for (const std::size_t bytes : {10'000u, 10'001u}) {
    TableSetup setup(glasshouse());
    const ZoneId hand = setup.add({.name = "hand"});
    setup.panels = {{.name = "bar", .text = std::string(bytes, 'x')}};
    setup.plans = {{.root = down({zone(hand), panel(PanelId{1}, {.px = 100}, {.px = 20})})}};
    const std::string why = thrown([&] { check(setup); });
    CHECK(why.empty() == (bytes == 10'000));
    if (bytes > 10'000) CHECK(why.find("10001 bytes: at most 10000") != std::string::npos);
  }
}

TEST_CASE(
    "play: points, windows, insets, ratios, times and scrolling have their ranges, what is beyond is ignored "
    "or brought there") {
  Stage stage;
  std::uint64_t ignored = 0;
  const auto check_taken = [&](bool taken) {
    ignored += taken ? 0 : 1;
    CHECK(stage.field.ignored() == ignored);
  };
  for (const float px : {-1e7f, 1e7f, -1.001e7f, 1.001e7f}) {
    CAPTURE(px);
    (void)stage.field.pointer({.phase = PointerPhase::move, .at = {px, 0}, .time = stage.field.now()});
    (void)stage.go(stage.field.now() + 0.01);
    check_taken(std::abs(px) <= 1e7f);
    stage.field.resize({std::abs(px), 700}, 1, stage.field.now());
    (void)stage.go(stage.field.now() + 0.01);
    check_taken(std::abs(px) <= 1e7f);
    stage.field.resize({900, 700}, 1, stage.field.now(), {.top = std::abs(px)});
    (void)stage.go(stage.field.now() + 0.01);
    check_taken(std::abs(px) <= 1e7f);
  }
  for (const float ratio : {0.01f, 100.0f, 0.0099f, 100.1f}) {
    CAPTURE(ratio);
    stage.field.resize({900, 700}, ratio, stage.field.now());
    (void)stage.go(stage.field.now() + 0.01);
    check_taken(ratio >= 0.01f && ratio <= 100);
  }
  for (const double time : {1.01e13, -1.01e13}) {
    (void)stage.field.pointer({.phase = PointerPhase::move, .at = {5, 5}, .time = time});
    (void)stage.go(stage.field.now() + 0.01);
    check_taken(false);
  }
  // Late by as much as a clock can tell of, and taken.
  (void)stage.field.pointer({.phase = PointerPhase::move, .at = {5, 5}, .time = -1e13});
  (void)stage.go(stage.field.now() + 0.01);
  check_taken(true);
}

TEST_CASE("rules: a million legal moves are listed, unless another number is stated") {
  TableSetup setup(glasshouse());
  for (int n = 0; n < 1'100; ++n) {
    (void)setup.add({.name = "a" + std::to_string(n),
                     .rules = {.pick = {.kind = PickKind::any}, .drop = rule::anything()},
                     .cards = {{.face = {static_cast<std::uint32_t>(n % 52 + 1)}}}});
  }
  CHECK(legal_moves(setup.table, setup.rulebook()).size() == 1'000'000);
  CHECK(legal_moves(setup.table, setup.rulebook(), 10).size() == 10);
}

TEST_CASE("cards: a deck has 10,000 suits, ranks and jokers at most, and a million faces") {
  const auto deck = [](std::size_t suits, std::size_t ranks, std::size_t jokers) {
    DeckOptions options;
    for (std::size_t n = 0; n < suits; ++n) options.suits.push_back({"s" + std::to_string(n), "green"});
    for (std::size_t n = 0; n < ranks; ++n) options.ranks.push_back(std::to_string(n));
    for (std::size_t n = 0; n < jokers; ++n) options.jokers.push_back({.name = "j" + std::to_string(n)});
    (void)Deck(options);
  };
  CHECK(thrown([&] { deck(10'000, 1, 0); }) == "");
  CHECK(thrown([&] { deck(10'001, 1, 0); }).find("10000") != std::string::npos);
  CHECK(thrown([&] { deck(1, 10'000, 0); }) == "");
  CHECK(thrown([&] { deck(1, 10'001, 0); }).find("10000") != std::string::npos);
  CHECK(thrown([&] { deck(1, 1, 10'000); }) == "");
  CHECK(thrown([&] { deck(1, 1, 10'001); }).find("10000") != std::string::npos);
  CHECK(thrown([&] { deck(1'000, 1'000, 0); }) == "");
  CHECK(thrown([&] { deck(1'001, 1'000, 0); }).find("1000000") != std::string::npos);
}

TEST_CASE("files: JSON is nested 64 levels deep at most, client data too") {
  const auto nested = [](int levels) {
    return R"({"apsidon": "feel", "version": 1, "data": )" +
           std::string(static_cast<std::size_t>(levels), '[') +
           std::string(static_cast<std::size_t>(levels), ']') + "}";
  };
  const auto said = [&](int levels) { return describe(parse_feel(nested(levels), "x").error()[0]); };
  CHECK(said(60).find("64") == std::string::npos);  // a feel has no data; that is another matter
  CHECK(said(70).find("64") != std::string::npos);
}
