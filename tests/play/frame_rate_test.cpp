// A game that reacts to what happens, at any frame rate and however its inputs are handed in.
#include <algorithm>
#include <cmath>
#include <map>
#include <vector>

#include "support/loop.hpp"
#include "support/property.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// Cards are laid on a pile from the hand; for each the game answers after a while, draws another, turns the
/// pile over now and then, counts what lands, and closes the gate when time is up.
struct Relay {
  explicit Relay(const TableSetup& setup) : field(setup, {.window = {900, 700}}) {
    field.moves().set_judge([](const Proposal& p) -> std::optional<Verdict> {
      if (p.id % 3 == 0) return std::nullopt;
      return Verdict{};
    });
    daylight = field.time().add_countdown(5, true);
    field.performances().deal();
  }

  static TableSetup table() {
    TableSetup setup(glasshouse());
    ZoneSetup stock{
        .name = "stock", .layout = {.kind = PileLayout{}, .longest = 52}, .handling = {.tap = TapKind::draw}};
    ZoneSetup hand{.name = "hand",
                   .layout = {.kind = HandLayout{}, .longest = 12},
                   .rules = {.pick = {.kind = PickKind::any}, .drop = rule::anything(), .sorts = true},
                   .handling = {.hover = HoverKind::raise, .zoom = true, .double_tap = TapKind::send}};
    for (std::uint32_t i = 1; i <= 30; ++i) stock.cards.push_back({.face = {i}, .face_up = false});
    for (std::uint32_t i = 31; i <= 37; ++i) hand.cards.push_back({.face = {i}});
    const ZoneId s = setup.add(stock);
    const ZoneId p = setup.add({.name = "pile",
                                .layout = {.kind = PileLayout{}, .longest = 40},
                                .rules = {.drop = rule::anything()}});
    const ZoneId h = setup.add(hand);
    setup.rules_of(s).stock = StockRule{.to = h};
    setup.plans = {{.root = down({across({zone(s), zone(p)}), zone(h, 1)})}};
    setup.deal_from = s;
    return setup;
  }

  void go_to(double time) {
    while (const auto event = field.next_event(time)) {
      told.push_back(*event);
      hear(*event);
    }
  }
  void hear(const Event& e) {
    const ZoneId pile{2};
    // What the game does is done at the event's own time.
    if (e.kind != EventKind::tapped) CHECK(e.time == field.now());
    if (e.kind == EventKind::proposed && e.proposal % 3 == 0) {
      asked = e.proposal;
      server = field.time().start_timer(0.3);
    }
    if (e.kind == EventKind::rang && e.countdown == server) {
      (void)field.moves().answer(asked,
                                 asked % 2 == 0 ? Verdict{} : Verdict{.reason = Reason::refused_by_game});
    }
    if (e.kind == EventKind::dropped && e.to == pile) {
      (void)field.performances().perform(sequence({wait(0.1), draw({1}, {3})}));
      if (field.table().zone(pile)->cards.size() % 3 == 0)
        (void)field.performances().perform(flip(field.table().zone(pile)->cards, false));
    }
    if (e.kind == EventKind::landed && ++landed % 4 == 0) field.performances().pulse(e.card);
    if (e.kind == EventKind::arrived && e.to == pile)
      (void)field.edits().set_sideways(e.card, landed % 2 == 0);
    if (e.kind == EventKind::hovered) ++hovered;
    if (e.kind == EventKind::settled && field.table().zone({1})->cards.size() > 20) {
      (void)field.edits().move({*field.table().top({1}), 1}, {3});
    }
    if (e.kind == EventKind::time_up) field.gate().close("over");
  }

  Playfield field;
  std::vector<Event> told = {};
  std::uint64_t asked = 0;
  CountdownId server = {};
  CountdownId daylight = {};
  int landed = 0;
  int hovered = 0;
};

/// What a mouse and keys do in some seconds.
std::vector<Input> some_inputs(Random& r, const Playfield& field, double seconds) {
  std::vector<Input> inputs;
  const Rect hand = *field.where().area({3});
  const Vec2 pile = field.where().area({2})->centre();
  const auto in_hand = [&] {
    return Vec2{r.uniform(hand.min.x, hand.max.x), r.uniform(hand.min.y, hand.max.y)};
  };
  double time = 0.3;
  const auto point = [&](PointerPhase phase, Vec2 at) {
    time += double{r.uniform(0.004f, 0.06f)};
    inputs.emplace_back(PointerInput{.phase = phase, .at = at, .time = time});
  };
  while (time < seconds) {
    const Vec2 from = in_hand();
    switch (r.below(5)) {
      case 0:
        for (int i = 0; i < 6; ++i) point(PointerPhase::move, in_hand());
        break;
      case 1:
        for (int i = 0; i < 2; ++i) {
          point(PointerPhase::down, from);
          point(PointerPhase::up, from);
        }
        break;
      case 2:
        inputs.emplace_back(KeyInput{.key = r.chance(0.5f) ? Key::next : Key::act, .time = time});
        break;
      default: {
        point(PointerPhase::down, from);
        const Vec2 to = r.chance(0.7f) ? pile : in_hand();
        for (int i = 1; i <= 4; ++i)
          point(PointerPhase::move, from + (to - from) * (static_cast<float>(i) / 4));
        point(PointerPhase::up, to);
        break;
      }
    }
    if (r.chance(0.3f)) time += 0.4;
  }
  return inputs;
}

}  // namespace

TEST_CASE(
    "play: a game is the same at every frame rate, at random steps, and with a second of inputs at once") {
  std::map<EventKind, int> counts;
  for_all("frame rates", 1, [&](Random& r) {
    const TableSetup setup = Relay::table();
    constexpr double seconds = 7;
    const std::vector<Input> inputs = some_inputs(r, Relay(setup).field, seconds);
    const auto play = [&](auto next_frame, double ahead) {
      Relay game(setup);
      std::size_t given = 0;
      double time = 0;
      while (time < seconds) {
        time = std::min(next_frame(time), seconds);
        // Inputs up to this frame; or, ahead of it, all up to the end of its second.
        const double until = ahead > 0 ? std::ceil(time / ahead) * ahead : time;
        while (given < inputs.size() && time_of(inputs[given]) <= until)
          (void)game.field.input(inputs[given++]);
        game.go_to(time);
        if (r.chance(0.2f)) (void)game.field.frame();
      }
      RC_ASSERT((given == inputs.size() ||
                 time_of(inputs[given]) > seconds));  // only in brackets it looks no further
      return game;
    };
    const auto at_rate = [](double rate) { return [rate](double time) { return time + 1 / rate; }; };
    const Relay first = play(at_rate(60), 0);
    for (const Event& e : first.told) ++counts[e.kind];
    const auto check = [&](const Relay& other) {
      RC_ASSERT(other.told == first.told);
      for (const Zone& zone : first.field.table().zones()) {
        RC_ASSERT(zone.cards == other.field.table().zone(zone.id)->cards);
        for (const CardId card : zone.cards)
          RC_ASSERT(*first.field.where().live_pose(card) == *other.field.where().live_pose(card));
      }
    };
    check(play(at_rate(24), 0));
    check(play(at_rate(240), 0));
    check(play([&](double time) { return time + double{r.uniform(0.001f, 0.4f)}; }, 0));
    check(play(at_rate(60), 1));
    check(play(at_rate(0.1), 0));  // one frame for all
  });
  // A game in which nothing happens is the same, too: these did.
  for (const EventKind kind :
       {EventKind::dropped, EventKind::refused, EventKind::rang, EventKind::departed, EventKind::landed,
        EventKind::arrived, EventKind::settled, EventKind::hovered, EventKind::time_up, EventKind::ended}) {
    CAPTURE(name_of(kind));
    CHECK(counts[kind] > 0);
  }
}
