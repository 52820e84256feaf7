// The player's hand by other means than a drag: taps, keys, proposals; snapshots, explanations, phrases.
#include <algorithm>
#include <catch2/catch.hpp>
#include <set>

#include "support/hand.hpp"

using namespace apsidon;
using namespace apsidon::test;

TEST_CASE("play: taps: pick and place, double tap to the best place, and what is not for tapping says so") {
  Hand h(desk({.tap = TapKind::pick}));
  const CardId card = h.cards("hand")[9];
  const Vec2 at = h.grip(card);
  h.tap(at);
  CHECK(h.field.hand().held().first == card);
  CHECK(h.field.hand().targets().size() == 4);
  h.tap(at);  // the same again puts it back
  CHECK(h.field.hand().held().count == 0);
  h.tap(at);
  h.tap(h.middle("shelf"));
  CHECK(h.cards("shelf") == std::vector<CardId>{card});
  Hand sends(desk({.double_tap = TapKind::send}));
  const Vec2 there =
      sends.middle(sends.cards("hand")[9]) + Vec2{sends.field.where().card_size().width * 0.3f, 0};
  sends.tap(there);
  CHECK(sends.count(EventKind::tapped) == 0);  // it waits for a second
  sends.tap(there);
  CHECK(sends.count(EventKind::double_tapped) == 1);
  CHECK(sends.cards("hand").size() == 9);
  CHECK(sends.count(EventKind::dropped) == 1);
}

TEST_CASE("play: keys: all that a pointer does, with focus only on what can be acted on") {
  Hand h(desk({}));
  CHECK(describe_focus(h.field).empty());
  h.key(Key::next);
  CHECK(describe_focus(h.field) == "Poppy-9, 1 of 1 in slot; may be picked up.");
  for (int i = 0; i < 3; ++i) h.key(Key::down);
  CHECK(h.field.hand().focused().zone == h.zone("hand"));
  CHECK(describe_focus(h.field).find(" of 10 in hand; may be picked up.") != std::string::npos);
  const auto& items = h.field.frame().items;
  CHECK(std::count_if(items.begin(), items.end(), [](const FrameItem& i) { return i.marks.focus; }) == 1);
  const CardId before = h.field.hand().focused().card;
  h.key(Key::right);
  h.key(Key::left);
  CHECK(h.field.hand().focused().card == before);
  CHECK(h.key(Key::act));
  CHECK(h.field.hand().held().first == before);
  CHECK(h.field.hand().focused().zone != h.zone("hand"));  // only places that would take it
  CHECK(h.field.hand().aimed_at() == h.field.hand().focused().zone);
  CHECK_FALSE(h.key(Key::act, true));  // a held key counts once
  CHECK(h.key(Key::cancel));
  CHECK(h.field.hand().held().count == 0);
  CHECK(h.field.hand().focused().card == before);
  CHECK(h.key(Key::act));
  while (h.field.hand().focused().zone != h.zone("meadow")) h.key(Key::next);
  CHECK(h.key(Key::act));
  CHECK(h.cards("meadow") == std::vector<CardId>{before});
  CHECK(h.field.hand().focused().card == before);
  CHECK(h.key(Key::undo));
  CHECK(h.cards("meadow").empty());
  CHECK(h.key(Key::redo));
  CHECK(h.cards("meadow").size() == 1);
  // The card goes: focus finds the nearest place.
  CHECK(h.field.moves().can_undo());
  (void)h.field.edits().remove(before);
  CHECK(h.field.moves().can_undo());
  CHECK(h.field.hand().focused() != Hit{});
  CHECK(h.field.hand().focused().card != before);
  CHECK(h.key(Key::cancel));
  CHECK(h.field.hand().focused() == Hit{});
}

TEST_CASE("play: proposals: the game answers at once, later, or too late") {
  Hand h(desk({}));
  std::optional<Verdict> answer = Verdict{.reason = Reason::refused_by_game};
  std::vector<Proposal> asked;
  h.field.moves().set_judge([&](const Proposal& p) {
    asked.push_back(p);
    return answer;
  });
  const auto offer = [&](std::size_t place) {
    h.settle();
    const CardId card = h.cards("hand")[place];
    h.drag(h.grip(card), h.middle("shelf"));
    h.settle();
    return card;
  };
  const CardId card = offer(9);
  CHECK(asked.size() == 1);
  CHECK(h.last(EventKind::refused)->verdict.reason == Reason::refused_by_game);
  CHECK(h.cards("hand").size() == 10);

  answer.reset();
  const Vec2 target = h.field.where().next_pose(h.zone("shelf"))->centre;
  offer(9);
  REQUIRE(h.field.moves().waiting().size() == 1);
  const std::uint64_t id = h.field.moves().waiting()[0].id;
  CHECK(h.cards("hand").size() == 10);                                  // the table is as it was,
  CHECK(length(h.field.where().live_pose(card)->centre - target) < 2);  // but it shows at its target
  CHECK(h.field.rules().judge_pick(card).verdict.reason == Reason::locked);
  const CardId other = offer(3);  // play goes on elsewhere
  REQUIRE(h.field.moves().waiting().size() == 2);
  CHECK(h.field.moves().answer(id).allowed());
  CHECK(h.cards("shelf") == std::vector<CardId>{card});
  CHECK(h.field.moves().answer(id).reason == Reason::unknown_proposal);
  // The other card goes elsewhere meanwhile: its proposal ends, whatever is answered then.
  CHECK(h.field.edits().move({other, 1}, h.zone("meadow")).allowed());
  h.wait(0);
  CHECK(h.field.moves().waiting().empty());
  CHECK(h.last(EventKind::superseded)->card == other);
  CHECK(h.last(EventKind::superseded)->verdict.reason == Reason::superseded);
  h.settle();
  CHECK(*h.field.where().live_pose(other) == *h.field.where().resting_pose(other));
  offer(2);
  const std::uint64_t refused = h.field.moves().waiting()[0].id;
  send(h.field, ResizeInput{{800, 600}, 1, h.field.now()});
  CHECK(h.field.moves().answer(refused, {.reason = Reason::refused_by_game}).reason ==
        Reason::refused_by_game);
  h.settle();
  CHECK(h.cards("hand").size() == 8);
  for (const CardId each : h.cards("hand"))
    CHECK(*h.field.where().live_pose(each) == *h.field.where().resting_pose(each));
}

TEST_CASE("play: snapshots: a copy is everything, and restoring goes on from now") {
  Hand h(desk({}));
  const Playfield snapshot = h.field;
  h.drag(h.grip(h.cards("hand")[9]), h.middle("shelf"));
  const double now = h.field.now();
  CHECK(h.cards("shelf").size() == 1);
  CHECK(snapshot.table().zone(h.zone("shelf"))->cards.empty());
  h.field.restore(snapshot);
  CHECK(h.field.now() == now);
  CHECK_FALSE(h.field.moves().can_undo());
  CHECK(h.cards("shelf").empty());
  h.settle();
  for (const CardId each : h.cards("hand"))
    CHECK(*h.field.where().live_pose(each) == *h.field.where().resting_pose(each));
  h.drag(h.grip(h.cards("hand")[9]), h.middle("shelf"));
  CHECK(h.cards("shelf").size() == 1);
}

TEST_CASE(
    "play: snapshots: what counts down goes on from what was left, whatever was done to the clock before") {
  Hand h(desk({}));
  h.wait(2);
  h.field.time().set_speed(2);
  const CountdownId dusk = h.field.time().add_countdown(6);
  h.field.time().start_countdown(dusk);
  h.wait(1);
  CHECK(h.field.time().seconds_left(dusk) == Approx(4));
  const Playfield snapshot = h.field;
  h.wait(30);
  CHECK(h.count(EventKind::time_up) == 1);
  h.field.restore(snapshot);
  const double now = h.field.now();
  CHECK(h.field.time().seconds_left(dusk) == Approx(4));
  h.wait(1.9);
  CHECK(h.count(EventKind::time_up) == 1);
  h.wait(0.2);
  REQUIRE(h.count(EventKind::time_up) == 2);
  CHECK(h.last(EventKind::time_up)->time == Approx(now + 2));
}

TEST_CASE("play: explain: all that lies at a point, from the top, and why it is or is not the answer") {
  Hand h(desk({}));
  const auto& hand = h.cards("hand");
  const Vec2 at = (h.middle(hand[4]) + h.middle(hand[5])) * 0.5f;
  const auto lies = h.field.where().explain(at);
  REQUIRE(lies.size() >= 3);
  CHECK(lies[0].what.card == h.field.where().hit(at).card);
  CHECK(lies[0].because == Explained::Because::answer);
  CHECK(lies[1].because == Explained::Because::covered);
  CHECK(lies.back().what == Hit{.zone = h.zone("hand")});
  CHECK(h.field.where().explain({NAN, 0}).empty());
}

TEST_CASE("play: an event that is read late tells how things were when it happened") {
  TableSetup setup = desk({});
  const ZoneId bed = *setup.table.find_zone("shelf");
  setup.rules_of(bed).drop = rule::rank_down();
  Hand h(std::move(setup));
  const CardId below = h.cards("slot").back();
  REQUIRE(h.field.edits().move({below, 1}, bed));
  h.settle();
  const CardId high = h.cards("hand").back();
  REQUIRE(h.field.edits().set_face(high, *h.field.table().deck().find("reed-12")));
  h.drag(h.grip(high), h.middle("shelf"));
  h.wait(0);
  const Event refused = *h.last(EventKind::refused);
  const std::string then = describe(refused, h.field);
  CHECK(then == "Reed-12 is not one rank below poppy-9, as shelf builds down.");
  h.settle();
  h.drag(h.grip(high), h.middle("meadow"));
  h.wait(0);
  const Event dropped = *h.last(EventKind::dropped);
  // The cards are covered, and one has another face, before the events are read.
  REQUIRE(h.field.edits().flip(below, false));
  REQUIRE(h.field.edits().set_face(high, *h.field.table().deck().find("fern-1")));
  CHECK(describe(refused, h.field) == then);
  CHECK(describe(dropped, h.field) == "Reed-12 laid on meadow.");
  // And what lay covered is not told, though it lies open by now.
  REQUIRE(h.field.edits().flip(high, false));
  REQUIRE(h.field.edits().set_face(high, *h.field.table().deck().find("fern-2")));
  h.wait(0);
  const Event changed = *h.last(EventKind::face_changed);
  REQUIRE(h.field.edits().flip(high, true));
  CHECK(describe(changed, h.field) == "A covered card shows another face.");
}

TEST_CASE(
    "play: all that happens to cards and the game has a sentence, and what only moves or waits has none") {
  const std::set<EventKind> silent{
      EventKind::tapped,   EventKind::double_tapped, EventKind::long_pressed, EventKind::released,
      EventKind::proposed, EventKind::hovered,       EventKind::unhovered,    EventKind::zoomed,
      EventKind::unzoomed, EventKind::focused,       EventKind::departed,     EventKind::edge_on,
      EventKind::arrived,  EventKind::landed,        EventKind::began,        EventKind::cue,
      EventKind::ended,    EventKind::stopped,       EventKind::rang,         EventKind::settled,
      EventKind::created,  EventKind::removed,       EventKind::counted};
  for (std::size_t kind = 0; kind < event_kind_count; ++kind) {
    CAPTURE(name_of(static_cast<EventKind>(kind)));
    CHECK(default_event_phrases().by_kind[kind].empty() == silent.contains(static_cast<EventKind>(kind)));
  }
}

TEST_CASE("play: phrases of events can be replaced, and wrong ones are found") {
  Hand h(desk({}));
  h.drag(h.middle("slot"), h.middle("shelf"));
  h.wait(0);
  const Event& dropped = *h.last(EventKind::dropped);
  CHECK(describe(dropped, h.field) == "Poppy-9 laid on shelf.");
  EventPhrases phrases = default_event_phrases();
  phrases.by_kind[static_cast<std::size_t>(EventKind::dropped)] = "{to}: {card}";
  check(phrases);
  CHECK(describe(dropped, h.field, phrases) == "Shelf: poppy-9");
  phrases.run = "{cards}";
  CHECK_THROWS_WITH(check(phrases), Catch::Contains("phrase for a run: '{cards}'") &&
                                        Catch::Contains("{card}, {more} is expected"));
}
