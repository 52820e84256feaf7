// What is held, gripped, raised and shown, to the px: and calls that name what is not there.
#include <catch2/catch.hpp>
#include <numbers>

#include "apsidon/geometry/quad.hpp"
#include "support/hand.hpp"
#include "support/property.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

constexpr float quarter = std::numbers::pi_v<float> / 2;

/// The point of a card's picture that shows at a point, in card widths from its middle.
Vec2 point_of(const Pose& pose, Vec2 at) {
  const Vec2 away = at - pose.centre;
  return rotated(away, std::cos(-pose.rotation), std::sin(-pose.rotation)) * (1 / pose.scale);
}

float turned(const Hand& h, CardId card) { return h.field.where().live_pose(card)->rotation; }

}  // namespace

TEST_CASE("play: a card that lies sideways is held sideways, and laid the other way it turns in the hand") {
  Hand h(desk());
  const CardId card = h.cards("hand")[4];
  h.drag(h.grip(card), h.middle("shelf"));
  h.settle();
  REQUIRE(h.field.table().card(card)->sideways);
  const Vec2 at = h.middle(card);
  h.point(PointerPhase::down, at);
  h.point(PointerPhase::move, at + Vec2{0, 20});
  h.wait(1);
  CHECK(turned(h, card) == Approx(quarter));
  // Over a zone that lays its cards upright it stands.
  h.point(PointerPhase::move, h.middle("meadow"));
  h.wait(1);
  CHECK(turned(h, card) == Approx(0).margin(1e-4));
  h.point(PointerPhase::move, at);
  h.wait(1);
  CHECK(turned(h, card) == Approx(quarter));
  REQUIRE(h.field.edits().set_sideways(card, false));
  h.wait(1);
  CHECK(turned(h, card) == Approx(0).margin(1e-4));
  CHECK(h.field.hand().held().first == card);
}

TEST_CASE("play: a held card stands up when the zone below it is switched off or no longer lays sideways") {
  for (const bool off : {true, false}) {
    Hand h(desk());
    const CardId card = h.cards("hand")[4];
    h.point(PointerPhase::down, h.grip(card));
    h.point(PointerPhase::move, h.middle("shelf"));
    h.wait(1);
    REQUIRE(turned(h, card) == Approx(quarter));
    if (off) {
      REQUIRE(h.field.switches().switch_off(h.zone("shelf")));
    } else {
      ZoneBehaviour behaviour = h.field.where().behaviour(h.zone("shelf"));
      behaviour.rules.lays_sideways = false;
      REQUIRE(h.field.edits().set_behaviour(h.zone("shelf"), behaviour));
    }
    h.wait(1);
    CHECK(turned(h, card) == Approx(0).margin(1e-4));
  }
}

TEST_CASE("play: the gripped point of a card that has grown stays under the pointer") {
  for_all("grip", 3, [](Random& r) {
    Hand h(desk({.hover = r.chance(0.5f) ? HoverKind::lift : HoverKind::raise}));
    REQUIRE(h.field.hand().set_hover_options(
        {.growth = r.uniform(0, 0.4f), .turn = Angle::degrees(double{r.uniform(-5, 5)})}));
    const CardId card = h.cards("hand")[r.below(10)];
    const Size size = h.field.where().card_size();
    const Vec2 at =
        h.middle(card) + Vec2{r.uniform(-0.45f, -0.2f) * size.width, r.uniform(-0.45f, 0.45f) * size.height};
    if (h.field.where().hit(at).card != card) return;
    h.point(PointerPhase::move, at);
    h.wait(1);
    if (h.field.hand().hovered() != card) return;
    const Vec2 gripped = point_of(*h.field.where().live_pose(card), at);
    h.point(PointerPhase::down, at);
    const Vec2 to = at + Vec2{r.uniform(-80, 80), r.uniform(-200, -60)};
    h.point(PointerPhase::move, to);
    h.wait(1);
    RC_ASSERT(h.field.hand().held().first == card);
    const Vec2 now = point_of(*h.field.where().live_pose(card), to);
    RC_ASSERT(length(now - gripped) < 0.3f);
  });
}

TEST_CASE("play: a card that rises stays in the window, wherever its zone lies") {
  for (const HoverKind kind : {HoverKind::raise, HoverKind::lift}) {
    for (const Facing facing : {Facing::bottom, Facing::left, Facing::top, Facing::right}) {
      TableSetup setup = desk({.hover = kind});
      const ZoneId hand = *setup.table.find_zone("hand");
      const ZoneId shelf = *setup.table.find_zone("shelf");
      setup.layout_of(hand).facing = facing;
      setup.plans = {{.root = down({zone(hand), across({zone({1}), zone({2}, 1), zone(shelf)})}),
                      .margin = 0,
                      .largest_width = 100}};
      Hand h(setup);
      REQUIRE(h.field.hand().set_hover_options({.rise = 0.4f, .growth = 0}));
      const CardId card = h.cards("hand")[5];
      Vec2 at = h.middle(card);
      for (const Vec2 aside : {Vec2{-40, 0}, Vec2{40, 0}, Vec2{0, -40}, Vec2{0, 40}}) {
        if (h.field.where().hit(at).card != card) at = h.middle(card) + aside;
      }
      h.point(PointerPhase::move, at);
      h.wait(1);
      REQUIRE(h.field.hand().hovered() == card);
      const Rect box = bounds(corners(*h.field.where().live_pose(card), h.field.where().card_size()));
      CAPTURE(static_cast<int>(kind), static_cast<int>(facing));
      CHECK(box.min.y > -0.6f);
      CHECK(box.min.x > -0.6f);
      CHECK(box.max.x < 1000.6f);
      CHECK(box.max.y < 700.6f);
    }
  }
}

TEST_CASE("play: a held run onto which the game lays a card goes back, a hand that gets one goes on") {
  TableSetup setup(glasshouse());
  const Deck& deck = setup.table.deck();
  const ZoneId column = setup.add(
      {.name = "column",
       .layout = {.kind = ColumnLayout{}, .longest = 9},
       .rules = {.pick = {.kind = PickKind::run, .link = rule::rank_down()}, .drop = rule::anything()},
       .cards = some(deck, {"fern-9", "fern-8", "fern-7"})});
  const ZoneId other = setup.add({.name = "other",
                                  .layout = {.kind = HandLayout{}, .longest = 9},
                                  .rules = {.pick = {.kind = PickKind::any}, .drop = rule::anything()},
                                  .cards = some(deck, {"fern-6", "poppy-1", "poppy-2"})});
  setup.plans = {{.root = across({zone(column), zone(other, 1)})}};
  for (const char* laid : {"fern-6", "poppy-1"}) {  // that is part of the run then, or covers it
    Hand h(setup);
    const CardId first = h.cards("column")[1];
    h.point(PointerPhase::down, h.middle(first) - Vec2{0, h.field.where().card_size().height * 0.45f});
    h.point(PointerPhase::move, h.middle("other"));
    REQUIRE(h.field.hand().held() == Run{first, 2});
    for (const CardId card : std::vector<CardId>(h.cards("other"))) {
      if (h.field.table().deck().text(h.field.table().card(card)->face) == laid)
        REQUIRE(h.field.edits().move({card, 1}, column));
    }
    h.wait(0.01);
    CHECK(h.field.hand().held().count == 0);
    CHECK(h.count(EventKind::cancelled) == 1);
  }
  Hand h(setup);
  const CardId card = h.cards("other").back();
  h.point(PointerPhase::down, h.middle(card));
  h.point(PointerPhase::move, h.middle("column"));
  REQUIRE(h.field.hand().held().first == card);
  REQUIRE(h.field.edits().move({h.cards("column").back(), 1}, other));
  h.wait(0.01);
  CHECK(h.field.hand().held().first == card);
  CHECK(h.field.hand().aimed_at() == column);
}

TEST_CASE("play: a held card leans no further than the feel's most, however it is swung") {
  for_all("tilt", 5, [](Random& r) {
    TableSetup setup = desk();
    setup.rules_of(*setup.table.find_zone("shelf")).lays_sideways = false;
    Hand h(setup);
    Feel feel;
    feel.tilt.damping = r.uniform(0.2f, 1.5f);
    feel.tilt.period = r.uniform(0.1f, 0.8f);
    REQUIRE(h.field.performances().set_feel(feel));
    const CardId card = h.cards("hand")[4];
    h.point(PointerPhase::down, h.grip(card));
    h.point(PointerPhase::move, {500, 300});
    h.wait(0.5);
    for (int i = 0; i < 40; ++i) {
      h.point(PointerPhase::move, {r.uniform(100, 900), 300});
      h.wait(double{r.uniform(0, 0.15f)});
      RC_ASSERT(std::abs(turned(h, card)) <= 8.001f * std::numbers::pi_v<float> / 180);
    }
  });
}

TEST_CASE("play: what waits for its answer at a zone counts where the next card would lie") {
  Hand h(desk());
  h.field.moves().set_judge([](const Proposal&) { return std::optional<Verdict>{}; });
  const ZoneId shelf = h.zone("shelf");
  const Vec2 before = h.field.where().next_pose(shelf)->centre;
  REQUIRE(h.field.moves().make({.run = {h.cards("hand")[0], 1}, .from = h.zone("hand"), .to = shelf}));
  h.settle();
  const Vec2 waits = h.field.where().live_pose(h.cards("hand")[0])->centre;
  const Vec2 next = h.field.where().next_pose(shelf)->centre;
  CHECK(length(waits - before) < 60);
  CHECK(length(next - waits) > 10);
}

TEST_CASE("play: a covered card that gets another face shows what it showed until it is edge-on") {
  for (const bool by_sync : {false, true}) {
    TableSetup setup(glasshouse());
    const ZoneId slot = setup.add({.name = "slot", .key = 1, .cards = {{.face = {1}, .key = 7}}});
    setup.plans = {{.root = zone(slot)}};
    Hand h(setup);
    const CardId card = h.cards("slot")[0];
    if (by_sync) {
      const std::vector<WantedZone> wanted{
          {.key = 1, .cards = {{.key = 7, .face = FaceId{2}, .face_up = false}}}};
      REQUIRE(h.field.edits().sync(wanted).verdict);
    } else {
      REQUIRE(h.field.edits().flip(card, false));
      h.wait(0.05);
      REQUIRE(h.field.edits().set_face(card, {2}));
    }
    int shown = 0;
    for (int i = 0; i < 40; ++i) {
      h.wait(0.01);
      for (const FrameItem& item : h.field.frame().items) {
        if (item.kind != FrameKind::card) continue;
        CHECK(item.face == (item.back ? hidden_face : FaceId{1}));
        shown += item.back ? 0 : 1;
      }
    }
    CHECK(shown > 3);
    REQUIRE(h.field.edits().flip(card, true));
    h.settle();
    for (const FrameItem& item : h.field.frame().items)
      CHECK((item.kind != FrameKind::card || item.face == FaceId{2}));
  }
}

TEST_CASE("play: after a scroll a resting pointer hovers what lies there now, and a press goes to that") {
  TableSetup setup(glasshouse());
  ZoneSetup row{
      .name = "row",
      .layout = {.kind = SpreadLayout{.spacing = 1.1f, .least_spacing = 1.1f}, .longest = 4, .scrolls = true},
      .rules = {.pick = {.kind = PickKind::any}},
      .handling = {.hover = HoverKind::lift, .zoom = true}};
  for (std::uint32_t i = 1; i <= 20; ++i) row.cards.push_back({.face = {i}});
  const ZoneId there = setup.add(row);
  setup.plans = {{.root = zone(there), .largest_width = 100}};
  Hand h(setup, {.window = {600, 300}});
  const Vec2 at = h.middle(h.cards("row")[1]);
  h.point(PointerPhase::move, at);
  h.wait(1);
  REQUIRE(h.field.hand().hovered() == h.cards("row")[1]);
  REQUIRE(h.field.hand().previewed() == h.cards("row")[1]);
  const float three = h.middle(h.cards("row")[4]).x - h.middle(h.cards("row")[1]).x;
  REQUIRE(h.field.where().scroll_to(there, three));
  h.wait(0.5);
  CHECK(h.field.hand().hovered() == h.cards("row")[4]);
  CHECK(h.field.hand().previewed() == h.cards("row")[4]);
  h.point(PointerPhase::down, at);
  h.point(PointerPhase::move, at + Vec2{0, 40});
  CHECK(h.field.hand().held().first == h.cards("row")[4]);
}

TEST_CASE(
    "play: the larger picture stands beside its card, that of a hand or of a zone that asks beside the "
    "zone") {
  TableSetup setup(glasshouse());
  ZoneSetup board{.name = "board",
                  .layout = {.kind = GridLayout{.columns = 8}, .longest = 24},
                  .handling = {.zoom = true}};
  for (std::uint32_t i = 1; i <= 24; ++i) board.cards.push_back({.face = {i}});
  const ZoneId there = setup.add(board);
  setup.plans = {{.root = across({zone(there)}), .largest_width = 60}};
  for (const bool beside_zone : {false, true}) {
    setup.handling_of(there).zooms_beside_zone = beside_zone;
    Hand h(setup, {.window = {1600, 900}});
    const CardId card = h.cards("board")[9];
    h.point(PointerPhase::move, h.middle(card));
    h.wait(1);
    REQUIRE(h.field.hand().previewed() == card);
    const FrameItem& preview = h.field.frame().items.back();
    REQUIRE(preview.kind == FrameKind::zoom);
    const Rect own = bounds(corners(*h.field.where().live_pose(card), h.field.where().card_size()));
    const Rect shown = bounds(preview.corners);
    const float gap = std::max(
        {own.min.y - shown.max.y, shown.min.y - own.max.y, own.min.x - shown.max.x, shown.min.x - own.max.x});
    CHECK((beside_zone ? gap > 40 : gap == Approx(12).margin(1)));
  }
}

TEST_CASE("play: all cards of a refused run shake") {
  TableSetup setup(glasshouse());
  const ZoneId column = setup.add({.name = "column",
                                   .layout = {.kind = ColumnLayout{}, .longest = 9},
                                   .rules = {.pick = {.kind = PickKind::run, .link = rule::rank_down()}},
                                   .cards = some(setup.table.deck(), {"fern-9", "fern-8", "fern-7"})});
  const ZoneId shelf =
      setup.add({.name = "shelf", .layout = {.longest = 9}, .rules = {.drop = rule::at_most(1)}});
  setup.plans = {{.root = across({zone(column), zone(shelf)})}};
  Hand h(setup);
  const Move move{.run = {h.cards("column")[0], 3}, .from = column, .to = shelf};
  CHECK(h.field.moves().make(move).reason == Reason::too_many);
  h.wait(0.05);
  for (const CardId card : h.cards("column"))
    CHECK(h.field.where().live_pose(card)->centre.x != h.field.where().resting_pose(card)->centre.x);
}

TEST_CASE("play: with a stagger of moves the move after one with a consequence leaves at once") {
  TableSetup setup(glasshouse());
  const Deck& deck = setup.table.deck();
  std::vector<CardOptions> cards = some(deck, {"fern-9", "fern-8", "fern-7", "fern-6"});
  for (std::size_t i = 0; i < 3; ++i) cards[i].face_up = false;
  const ZoneId column = setup.add({.name = "column",
                                   .layout = {.kind = ColumnLayout{}, .longest = 9},
                                   .rules = {.pick = {.kind = PickKind::top}, .flips_uncovered = true},
                                   .cards = cards});
  const ZoneId bed = setup.add({.name = "bed", .rules = {.drop = rule::anything()}});
  setup.plans = {{.root = across({zone(column), zone(bed)})}};
  Feel feel;
  feel.move.stagger = 0.5f;
  Hand h(setup, {.window = {1000, 700}, .feel = feel});
  for (int i = 0; i < 3; ++i) {
    const CardId card = h.cards("column").back();
    REQUIRE(h.field.moves().make({.run = {card, 1}, .from = column, .to = bed}));
    const double began = h.field.now();
    h.settle();
    CHECK(h.last(EventKind::landed)->card == card);
    CHECK(h.last(EventKind::landed)->time - began == Approx(double{feel.move.glide.seconds}).margin(1e-3));
  }
}

TEST_CASE("play: a call that names what is not there is refused, says so, and is counted") {
  Hand h(desk());
  const CardId card{999};
  const ZoneId zone{99};
  const PanelId panel{9};
  const CountdownId timer{9};
  const CountdownId countdown{9};
  const PerformanceId performance{9};
  const std::vector<std::pair<Verdict, Reason>> refused{
      {h.field.hand().focus({.card = card}), Reason::unknown_card},
      {h.field.hand().focus({.panel = panel}), Reason::unknown_panel},
      {h.field.hand().preview(card), Reason::unknown_card},
      {h.field.where().scroll_to(zone, 3), Reason::unknown_zone},
      {h.field.switches().switch_off(card), Reason::unknown_card},
      {h.field.switches().switch_on(zone), Reason::unknown_zone},
      {h.field.switches().hide(panel), Reason::unknown_panel},
      {h.field.switches().show(CardId{}), Reason::unknown_card},
      {h.field.edits().set_panel(panel, "x"), Reason::unknown_panel},
      {h.field.edits().set_tone(panel, PanelTone::bad), Reason::unknown_panel},
      {h.field.edits().bind_fill(panel, {}), Reason::unknown_panel},
      {h.field.edits().set_behaviour(zone, {}), Reason::unknown_zone},
      {h.field.edits().flip(card, true), Reason::unknown_card},
      {h.field.moves().answer(77), Reason::unknown_proposal},
      {h.field.moves().send_to_best(card), Reason::unknown_card},
      {h.field.moves().draw_from(zone), Reason::unknown_zone},
      {h.field.time().stop_countdown(timer), Reason::unknown_timer},
      {h.field.time().start_countdown(countdown), Reason::unknown_timer},
      {h.field.time().extend_countdown(countdown, 1), Reason::unknown_timer},
      {h.field.time().reset_countdown(countdown, 1), Reason::unknown_timer},
      {h.field.time().hold_countdown(countdown, "x"), Reason::unknown_timer},
      {h.field.time().release_countdown(countdown, "x"), Reason::unknown_timer},
      {h.field.time().stop_countdown(countdown), Reason::unknown_timer},
      {h.field.performances().skip(performance), Reason::unknown_performance},
      {h.field.performances().stop(performance), Reason::unknown_performance},
      {h.field.performances().set_speed(performance, 2), Reason::unknown_performance},
      {h.field.performances().shake(card), Reason::unknown_card},
      {h.field.performances().pulse(card), Reason::unknown_card}};
  for (const auto& [verdict, reason] : refused) {
    CHECK(code_of(verdict.reason) == code_of(reason));
    CHECK_FALSE(describe(verdict, h.field).empty());
    CHECK_THAT(describe(verdict, h.field), !Catch::Contains("No card"));
  }
  CHECK(h.field.count_of(NoticeKind::stale) == refused.size());
}

TEST_CASE(
    "play: no call of a running playfield throws: what is out of range is refused by the name of its "
    "number") {
  Hand h(desk());
  Feel feel;
  feel.tilt_angle = Angle::degrees(500);
  TableSetup nothing(glasshouse());
  const std::vector<std::pair<Verdict, std::string>> refused{
      {h.field.performances().set_feel(feel), "tilt_angle_deg"},
      {h.field.hand().set_hover_options({.growth = -2}), "growth"},
      {h.field.hand().set_thresholds({.mouse_slop = -1}), "mouse_slop"},
      {h.field.edits().set_plans({}), "plans"},
      {h.field.edits().set_plans({Plan{}}), "plan"},
      {h.field.start_over(nothing), "no zones"},
      {h.field.time().set_speed(-1), "Clock"}};
  for (const auto& [verdict, name] : refused) {
    CHECK(verdict.reason == Reason::out_of_range);
    CHECK_THAT(describe(verdict, h.field), Catch::Contains(name));
  }
  CHECK(h.field.count_of(NoticeKind::out_of_range) == refused.size());
  CHECK(h.field.table().card_count() == 11);
}

TEST_CASE("play: sentences say what a bare refusal is about, and a switch by its own reason") {
  TableSetup setup = desk();
  setup.sentences["frozen"] = "{card} is frozen until spring.";
  Hand h(setup);
  const CardId card = h.cards("hand")[3];
  h.field.moves().set_judge([](const Proposal&) { return Verdict{.reason = Reason::refused_by_game}; });
  (void)h.field.moves().make({.run = {card, 1}, .from = h.zone("hand"), .to = h.zone("shelf")});
  h.wait(0.1);
  REQUIRE(h.last(EventKind::refused) != nullptr);
  CHECK(describe(*h.last(EventKind::refused), h.field) == "Fern-4 may not go to shelf now.");
  REQUIRE(h.field.switches().switch_off(card, "frozen"));
  CHECK(describe(h.field.rules().judge_pick(card).verdict, h.field) == "Fern-4 is frozen until spring.");
  REQUIRE(h.field.switches().switch_on(card, "frozen"));
  REQUIRE(h.field.switches().hide(h.zone("shelf"), "frozen"));
  CHECK(describe(h.field.rules().judge_drop({card, 1}, h.zone("shelf")), h.field) ==
        "Fern-4 is frozen until spring.");
  CHECK(describe(Verdict{.reason = Reason::unknown_card}, h.field) == "That card is not on the table.");
}

TEST_CASE("play: a card that the game plays itself while it is held is not said to be put back") {
  Hand h(desk());
  const CardId card = h.cards("hand")[3];
  h.point(PointerPhase::down, h.grip(card));
  h.point(PointerPhase::move, {500, 300});
  REQUIRE(h.field.edits().move({card, 1}, h.zone("shelf")));
  h.wait(0.01);
  REQUIRE(h.last(EventKind::cancelled) != nullptr);
  CHECK(describe(*h.last(EventKind::cancelled), h.field) == "Fern-4 has been moved meanwhile.");
  const CardId other = h.cards("hand")[3];
  h.settle();
  h.point(PointerPhase::up, {500, 300});
  h.point(PointerPhase::down, h.grip(other));
  h.point(PointerPhase::move, {500, 300});
  h.field.gate().close("menu");
  h.wait(0.01);
  CHECK(describe(*h.last(EventKind::cancelled), h.field) == "Fern-5 put back.");
}
