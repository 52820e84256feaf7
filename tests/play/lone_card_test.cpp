// One card as a part of somebody's form.
#include <catch2/catch.hpp>
#include <cmath>
#include <map>

#include "apsidon/geometry/quad.hpp"
#include "apsidon/play/lone_card.hpp"
#include "support/allocations.hpp"
#include "support/property.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

const Deck& deck() {
  static const Deck deck({.suits = {{"fern", "green"}, {"poppy", "orange"}},
                          .ranks = {"1", "2", "3"},
                          .jokers = {{"moth", "green"}}});
  return deck;
}

constexpr Rect lone_box = rect_at({20, 30}, {100, 140});

LoneCard lone(LoneCardOptions options = {}) {
  options.face = *deck().find("fern-2");
  options.box = lone_box;
  return LoneCard(deck(), options);
}

std::vector<Event> until(LoneCard& card, double time) {
  std::vector<Event> events;
  while (const auto event = card.next_event(time)) events.push_back(*event);
  return events;
}

std::vector<EventKind> kinds(const std::vector<Event>& events) {
  std::vector<EventKind> out;
  for (const Event& event : events) out.push_back(event.kind);
  return out;
}

void press(LoneCard& card, Vec2 down, Vec2 up, double time) {
  card.pointer({.phase = PointerPhase::down, .at = down, .time = time});
  card.pointer({.phase = PointerPhase::up, .at = up, .time = time + 0.05});
}

}  // namespace

TEST_CASE("play: a lone card is drawn from the start, and a press flips it, each event at its time") {
  LoneCard card = lone({.flips = true});
  CHECK(card.item().face == card.face());
  CHECK(card.item().size == Size{100, 140});
  CHECK(bounds(card.item().corners) == lone_box);
  CHECK(card.at_rest());
  CHECK(until(card, 1).empty());
  press(card, {60, 90}, {60, 90}, 1);
  const auto events = until(card, 3);
  CHECK(kinds(events) == std::vector{EventKind::hovered, EventKind::tapped, EventKind::flipped,
                                     EventKind::edge_on, EventKind::settled});
  REQUIRE(events.size() == 5);
  CHECK(events[2].time == Approx(1.05));
  CHECK_FALSE(events[2].face_up);
  CHECK(events[3].time == Approx(1.05 + 0.15).margin(0.01));
  CHECK_FALSE(events[3].face_up);
  CHECK(events[4].time == Approx(1.05 + 0.3).margin(1e-6));
  CHECK(card.item().back);
  CHECK(card.item().face == hidden_face);
  CHECK_FALSE(card.face_up());
}

TEST_CASE("play: the side of a lone card changes with the event that says so, however often it is flipped") {
  for_all("flips", 5, [](Random& r) {
    LoneCardOptions options;
    const Feel feel = r.chance(0.3f) ? reduced(Feel{}) : r.chance(0.5f) ? springy() : Feel{};
    options.feel = &feel;
    LoneCard card = lone(options);
    bool back = false;
    double time = 0;
    const auto watch = [&](double to) {
      for (;;) {
        const double next = std::min(card.now() + 0.01, to);
        while (const auto event = card.next_event(next)) {
          if (event->kind == EventKind::edge_on) back = !event->face_up;
        }
        RC_ASSERT(card.item().back == back);
        if (!(next < to)) return;
      }
    };
    for (int i = 0; i < 12; ++i) {
      time += double{r.uniform(0, 0.4f)};
      watch(time);
      if (r.chance(0.8f)) card.flip(r.chance(0.2f) ? Pace::at_once : Pace::glides);
      if (r.chance(0.4f)) card.set_sideways(!card.sideways());
    }
    watch(time + 8);
    RC_ASSERT(card.at_rest());
    RC_ASSERT(back == !card.face_up());
    RC_ASSERT(std::abs(card.item().corners.corners[0].x) < 1e4f);
  });
}

TEST_CASE(
    "play: what a lone card tells does not depend on how time is cut into steps, and a copy does the same") {
  for_all("steps", 5, [](Random& r) {
    LoneCard a = lone({.flips = true});
    LoneCard b = a;
    std::vector<Event> of_a;
    std::vector<Event> of_b;
    double time = 0;
    for (int i = 0; i < 20; ++i) {
      const double next = time + double{r.uniform(0, 0.3f)};
      for (int k = 1; k <= 9; ++k) {
        while (const auto event = a.next_event(time + (next - time) * k / 10)) of_a.push_back(*event);
      }
      time = next;
      const PointerInput input{.phase = static_cast<PointerPhase>(r.below(5)),
                               .at = {r.uniform(0, 150), r.uniform(0, 200)},
                               .time = time,
                               .kind = static_cast<PointerKind>(r.below(3))};
      RC_ASSERT(a.pointer(input) == b.pointer(input));
      if (r.chance(0.2f)) RC_ASSERT(a.set_off(i % 3 == 0) == b.set_off(i % 3 == 0));
    }
    while (const auto event = a.next_event(time + 9)) of_a.push_back(*event);
    while (const auto event = b.next_event(time + 9)) of_b.push_back(*event);
    RC_ASSERT(of_a == of_b);
    RC_ASSERT(a.item() == b.item());
    RC_ASSERT(std::is_sorted(of_a.begin(), of_a.end(),
                             [](const auto& x, const auto& y) { return x.time < y.time; }));
  });
}

TEST_CASE("play: a lone card lies in its box as it is fitted, and sideways it exchanges width and height") {
  LoneCard card = lone();
  for (const Rect& in : {lone_box, rect_at({0, 0}, {300, 100}), rect_at({5, 5}, {40, 400})}) {
    for (const bool sideways : {false, true}) {
      card.set_box(in);
      card.set_sideways(sideways, Pace::at_once);
      card.set_fit(Fit::fill);
      const Rect filled = bounds(card.item().corners);
      CHECK(length(filled.min - in.min) < 0.01f);
      CHECK(length(filled.max - in.max) < 0.01f);
      card.set_fit(Fit::contain);
      const Rect lies = bounds(card.item().corners);
      CHECK(lies.width() / lies.height() == Approx(sideways ? 1.4f : 1 / 1.4f).epsilon(0.001));
      CHECK((lies.width() > in.width() - 0.01f || lies.height() > in.height() - 0.01f));
      CHECK((lies.min.x >= in.min.x - 0.01f && lies.max.y <= in.max.y + 0.01f));
      CHECK(card.is_at(in.centre()));
      // Its corners are as round as its width says, whichever way it lies.
      const float round = card.corner_radius() * std::min(lies.width(), lies.height());
      CHECK(card.is_at(lies.min + Vec2{0.35f * round, 0.35f * round}));
      CHECK_FALSE(card.is_at(lies.min + Vec2{0.25f * round, 0.25f * round}));
      CHECK_FALSE(card.is_at(in.max + Vec2{1, 1}));
    }
  }
  // On its way from one to the other it is between them.
  card.set_box(lone_box);
  card.set_sideways(false);
  (void)until(card, card.now() + 0.1);
  const Size between = card.item().size;
  CHECK((between.width > 71.5f && between.width < 100));
  card.set_box({});
  CHECK(card.item().size.empty());
  CHECK_FALSE(card.is_at({0, 0}));
  CHECK_FALSE(card.set_box(rect_at({NAN, 0}, {1, 1})));
}

TEST_CASE("play: face, suit and rank of a lone card are set apart, and what the deck has not is refused") {
  LoneCard card = lone();
  CHECK(card.set_suit(1));
  CHECK(deck().text(card.face()) == "poppy-2");
  CHECK(card.set_rank(2));
  CHECK(deck().text(card.face()) == "poppy-3");
  CHECK_FALSE(card.set_rank(3));
  CHECK_FALSE(card.set_suit(-1));
  CHECK_FALSE(card.set_face({99}));
  CHECK_FALSE(card.set_face(card.face()));
  CHECK(card.set_face(*deck().find("moth")));
  CHECK(card.set_rank(1));
  CHECK(deck().text(card.face()) == "fern-2");
  CHECK(card.set_face(hidden_face));
  CHECK(card.set_suit(1));
  CHECK(deck().text(card.face()) == "poppy-1");
  // Without a face it was on its way to its edge for a moment.
  std::vector<EventKind> told(6, EventKind::face_changed);
  told.push_back(EventKind::settled);
  CHECK(kinds(until(card, 1)) == told);
}

TEST_CASE(
    "play: a lone card is pressed where it lies, by keys while it is focused, and not while it is off") {
  LoneCard card = lone({.flips = true});
  const auto presses = [&](Vec2 down, Vec2 up) {
    press(card, down, up, card.now() + 0.1);
    int count = 0;
    for (const Event& event : until(card, card.now() + 1)) count += event.kind == EventKind::tapped ? 1 : 0;
    return count;
  };
  CHECK(presses({60, 90}, {61, 91}) == 1);
  CHECK(presses({60, 90}, {400, 90}) == 0);      // dragged away
  CHECK(presses({118.5f, 90}, {121, 90}) == 0);  // let go beside it
  CHECK(presses({400, 90}, {60, 90}) == 0);
  CHECK_FALSE(card.pointer({.phase = PointerPhase::down, .at = {400, 90}, .time = card.now()}));
  CHECK_FALSE(card.key({.key = Key::act, .time = card.now()}));
  card.pointer({.phase = PointerPhase::leave, .at = {0, 0}, .time = card.now()});
  (void)until(card, card.now() + 1);
  CHECK(card.set_focused(true));
  CHECK(card.item().marks.focus);
  CHECK(card.key({.key = Key::act, .time = card.now()}));
  CHECK_FALSE(card.key({.key = Key::act, .time = card.now(), .repeat = true}));
  CHECK_FALSE(card.key({.key = Key::left, .time = card.now()}));
  CHECK(kinds(until(card, card.now())) ==
        std::vector{EventKind::focused, EventKind::tapped, EventKind::flipped});
  CHECK(card.set_off(true));
  CHECK(card.item().marks.off);
  CHECK_FALSE(card.focused());
  CHECK_FALSE(card.set_focused(true));
  CHECK(presses({60, 90}, {60, 90}) == 0);
  CHECK_FALSE(card.hovered());
  CHECK(card.set_off(false));
  CHECK(presses({60, 90}, {60, 90}) == 1);
}

TEST_CASE(
    "play: a lone card that comes to lie below a resting pointer is hovered, and one that leaves it is not") {
  LoneCard card = lone();
  std::uint64_t fitted = card.revision();  // without a pointer that could see it
  CHECK(card.set_fit(Fit::fill));
  CHECK(card.revision() > std::exchange(fitted, card.revision()));
  CHECK(card.set_fit(Fit::contain));
  CHECK(card.revision() > fitted);
  const std::uint64_t elsewhere = card.revision();
  card.set_box(rect_at({0, 0}, {300, 100}));
  CHECK(card.revision() > elsewhere);
  card.pointer({.phase = PointerPhase::move, .at = {5, 50}, .time = card.now()});
  (void)until(card, card.now() + 1);
  CHECK_FALSE(card.hovered());
  const std::uint64_t revision = card.revision();
  CHECK(card.set_fit(Fit::fill));
  CHECK(card.revision() > revision);
  (void)until(card, card.now() + 1);
  CHECK(card.hovered());
  CHECK(card.set_fit(Fit::contain));
  (void)until(card, card.now() + 1);
  CHECK_FALSE(card.hovered());
}

TEST_CASE("play: a lone card rises under the pointer, and goes down again") {
  LoneCard card = lone({.growth = 0.1f, .lift = 0.4f});
  card.pointer({.at = {60, 90}, .time = 0.1});
  CHECK(card.hovered());
  CHECK(kinds(until(card, 2)) == std::vector{EventKind::hovered, EventKind::settled});
  CHECK(bounds(card.item().corners).width() == Approx(110).epsilon(0.001));
  CHECK(card.item().lift == Approx(0.4f));
  card.pointer({.phase = PointerPhase::leave, .at = {60, 90}, .time = 2});
  CHECK(kinds(until(card, 4)) == std::vector{EventKind::unhovered, EventKind::settled});
  CHECK(bounds(card.item().corners) == lone_box);
  // A finger presses, and hovers nothing.
  CHECK(card.pointer({.phase = PointerPhase::down, .at = {60, 90}, .time = 4, .kind = PointerKind::touch}));
  CHECK_FALSE(card.hovered());
  CHECK_FALSE(card.pointer({.at = {NAN, 90}, .time = 5}));
  CHECK_FALSE(card.pointer({.at = {60, 90}, .time = INFINITY}));
}

TEST_CASE("play: lone cards are spoken of in words that can be replaced, and make a frame together") {
  LoneCard card = lone();
  const Names names{.card = "{rank} of {suit}", .words = {{"2", "two"}, {"fern", "ferns"}}};
  CHECK(describe(card) == "fern-2");
  CHECK(describe(card, names) == "two of ferns");
  card.set_sideways(true, Pace::at_once);
  CHECK(describe(card, names) == "two of ferns, sideways");
  card.set_face_up(false, Pace::at_once);
  CHECK(describe(card, names, {.by_kind = {}, .covered = "Rückseite", .sideways = "{card} (quer)"}) ==
        "Rückseite (quer)");
  const std::vector<LoneCard> form{lone(), card, lone()};
  const Frame frame = frame_of(form, {400, 300}, 2);
  REQUIRE(frame.items.size() == 3);
  CHECK(frame.items[1].back);
  CHECK(frame.items[0].order < frame.items[1].order);
  CHECK(frame.corner_radius == Approx(7));
  CHECK(frame.card == frame.items[0].size);
}

TEST_CASE("play: a lone card that cannot be is refused, and one takes less than 2 kB") {
  CHECK_THROWS_WITH(LoneCard(deck(), {.face = {77}}), Catch::Contains("its face is not in the deck"));
  CHECK_THROWS_WITH(LoneCard(deck(), {.aspect = 0}), Catch::Contains("aspect"));
  CHECK_THROWS_WITH(LoneCard(deck(), {.box = rect_at({0, 0}, {INFINITY, 1})}), Catch::Contains("not finite"));
  CHECK(sizeof(LoneCard) < 2048);
  // What a press takes from the heap once is there for the next.
  LoneCard card = lone({.flips = true});
  press(card, {60, 90}, {60, 90}, 1);
  (void)card.next_event(5);
  CHECK(allocations_in([&] {
          press(card, {60, 90}, {60, 90}, 6);
          while (card.next_event(9)) {
          }
        }) <= 2);
}

TEST_CASE("play: a lone card of pixel art is a whole multiple in device pixels, and lies on them") {
  for_all("whole multiples", 10, [](Random& r) {
    const Size art{static_cast<float>(r.between(5, 40)), static_cast<float>(r.between(5, 60))};
    const float ratio = r.chance(0.5f) ? 1 : r.chance(0.5f) ? 2 : 1.5f;
    const Rect in = rect_at({r.uniform(0, 50), r.uniform(0, 50)}, {r.uniform(60, 400), r.uniform(60, 400)});
    LoneCard card(deck(), {.face = {1},
                           .sideways = r.chance(0.3f),
                           .box = in,
                           .fit = Fit::whole,
                           .art_size = art,
                           .pixel_ratio = ratio});
    const Rect shown = bounds(card.item().corners);
    const Size size = card.sideways() ? Size{shown.height(), shown.width()} : shown.size();
    const float times = size.width * ratio / art.width;
    RC_ASSERT(std::abs(times - std::round(times)) < 1e-3f && times > 0.9f);
    RC_ASSERT(std::abs(size.height * ratio / art.height - times) < 1e-3f);
    for (const float edge : {shown.min.x * ratio, shown.min.y * ratio})
      RC_ASSERT(std::abs(edge - std::round(edge)) < 1e-2f);
    if (times > 1.5f) RC_ASSERT(shown.width() <= in.width() + 1e-3f && shown.height() <= in.height() + 1e-3f);
    RC_ASSERT(card.set_pixel_ratio(3) && !card.set_pixel_ratio(NAN) && !card.set_pixel_ratio(0));
  });
  // Where the picture is not known there is nothing to multiply: as large as fits.
  LoneCard card(deck(), {.face = {1}, .box = lone_box, .fit = Fit::whole});
  CHECK(bounds(card.item().corners) == lone_box);
}

TEST_CASE(
    "play: a lone card glides to another box, keeps its velocity on the way, and is pressed where it goes") {
  LoneCard card = lone();
  const Rect there = rect_at({220, 30}, {200, 280});
  CHECK(card.set_box(there, Pace::glides));
  CHECK_FALSE(card.at_rest());
  CHECK(card.next_due() == card.now());
  Vec2 before = bounds(card.item().corners).centre();
  float last = 0;
  for (int i = 0; i < 60; ++i) {
    if (i == 6) CHECK(card.set_box(lone_box, Pace::glides));
    card.advance_to(card.now() + 0.01);
    const Vec2 now = bounds(card.item().corners).centre();
    CHECK(std::abs((now.x - before.x) - last) < 16);  // px in 0.01 s: no jump of its speed
    last = now.x - before.x;
    before = now;
  }
  CHECK(bounds(card.item().corners) == lone_box);
  CHECK(card.set_box(there));
  CHECK(bounds(card.item().corners) == there);
  until(card, 5);
  CHECK(card.next_due() == INFINITY);
}

TEST_CASE(
    "play: an open lone card without a face waits on its edge, and a covered one shows on what it showed") {
  LoneCard card(deck(), {.box = lone_box});
  CHECK(card.item().face == hidden_face);
  CHECK(bounds(card.item().corners).width() < 1);
  CHECK(card.set_face(*deck().find("fern-2")));
  const auto told = kinds(until(card, 2));
  CHECK(std::count(told.begin(), told.end(), EventKind::edge_on) <= 1);
  CHECK(bounds(card.item().corners) == lone_box);
  CHECK(card.item().face == *deck().find("fern-2"));
  CHECK(card.flip());
  CHECK(card.set_face(*deck().find("poppy-3")));
  while (!card.at_rest()) {
    CHECK(card.item().face == (card.item().back ? hidden_face : *deck().find("fern-2")));
    card.advance_to(card.now() + 0.01);
  }
  CHECK(card.flip());
  until(card, card.now() + 2);
  CHECK(card.item().face == *deck().find("poppy-3"));
}

TEST_CASE("play: reduced, a lone card tells its edge when it would have been there") {
  for (const Feel& feel : {Feel{}, calm()}) {
    std::vector<std::vector<Event>> told;
    for (const Feel& of : {feel, reduced(feel)}) {
      LoneCard card = lone({.feel = &of});
      CHECK(card.flip());
      told.push_back(until(card, 3));
    }
    REQUIRE(told[0].size() == told[1].size());
    for (std::size_t i = 0; i < told[0].size(); ++i) {
      CHECK(told[0][i].kind == told[1][i].kind);
      CHECK(told[0][i].time == Approx(told[1][i].time).margin(1e-4));
    }
  }
}

TEST_CASE(
    "play: events of a lone card that nobody reads are limited and counted, and reading them is linear") {
  LoneCard card = lone();
  for (std::size_t i = 0; i < most_unread_events + 10; ++i) (void)card.flip(Pace::at_once);
  CHECK(card.lost_events() > 10);
  std::size_t read = 0;
  while (card.next_event(0)) ++read;
  CHECK(read == most_unread_events + 1);  // the last says that it has settled, now that there is room for it
}

TEST_CASE("play: a frame takes lone cards wherever they are kept") {
  const LoneCard a = lone();
  const LoneCard b = lone({.face_up = false});
  const std::vector<LoneCard> together{a, b};
  const LoneCard* apart[] = {&a, &b};
  const Frame one = frame_of(together, {300, 200}, 2);
  const Frame other = frame_of(apart, {300, 200}, 2);
  REQUIRE(other.items.size() == 2);
  CHECK(one.items == other.items);
  CHECK(one.pixel_ratio == other.pixel_ratio);
}
