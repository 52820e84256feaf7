// The player's hand: hover, zoom, insertion, sorting, exchange, free places, copies, taps, keys, gates.
#include <algorithm>
#include <cmath>
#include <numbers>

#include "support/allocations.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// A playfield with a pointer, and a list of what happened.
struct Hand {
  Playfield field;
  std::vector<Event> told = {};

  Hand(TableSetup setup, const PlayfieldOptions& options = {.window = {1000, 700}})
      : field(std::move(setup), options) {}

  ZoneId zone(const std::string& name) const { return *field.table().find_zone(name); }
  const std::vector<CardId>& cards(const std::string& name) const {
    return field.table().zone(zone(name))->cards;
  }
  Vec2 middle(const std::string& name) const { return field.area(zone(name))->centre(); }
  Vec2 middle(CardId card) const { return field.resting_pose(card)->centre; }

  /// On its left part, which the next card does not cover.
  Vec2 grip(CardId card) const { return middle(card) - Vec2{field.card_size().width * 0.3f, 0}; }

  void wait(double seconds) {
    field.advance_to(field.now() + seconds);
    told.insert(told.end(), field.events().begin(), field.events().end());
  }
  bool point(PointerPhase phase, Vec2 at, PointerKind kind = PointerKind::mouse, std::uint32_t id = 0) {
    const bool used =
        field.pointer({.phase = phase, .at = at, .time = field.now() + 0.02, .pointer = id, .kind = kind});
    wait(0);
    return used;
  }
  void tap(Vec2 at, PointerKind kind = PointerKind::mouse) {
    point(PointerPhase::down, at, kind);
    point(PointerPhase::up, at, kind);
  }
  void drag(Vec2 from, Vec2 to) {
    point(PointerPhase::down, from);
    point(PointerPhase::move, from + (to - from) * 0.5f);
    point(PointerPhase::move, to);
    wait(0.2);
    point(PointerPhase::up, to);
  }
  bool key(Key key, bool repeat = false) {
    const bool used = field.key({.key = key, .time = field.now() + 0.02, .repeat = repeat});
    wait(0);
    return used;
  }
  void settle() { wait(field.settles_at() - field.now() + 0.01); }

  int count(EventKind kind) const {
    return static_cast<int>(
        std::count_if(told.begin(), told.end(), [&](const Event& e) { return e.kind == kind; }));
  }
  const Event* last(EventKind kind) const {
    const auto it = std::find_if(told.rbegin(), told.rend(), [&](const Event& e) { return e.kind == kind; });
    return it == told.rend() ? nullptr : &*it;
  }
  std::string faces(const std::string& name) const {
    std::string out;
    for (const CardId card : cards(name)) {
      out += (out.empty() ? "" : " ") + field.table().deck().text(field.table().card(card)->face);
    }
    return out;
  }
};

std::vector<CardOptions> some(const Deck& deck, std::initializer_list<const char*> faces) {
  std::vector<CardOptions> out;
  for (const char* face : faces) out.push_back(open_card(deck, face));
  return out;
}

/// A hand of ten that zooms, sorts and inserts; a slot that exchanges; a free zone; a shelf.
TableSetup desk(const ZoneHandling& of_hand = {.hover = HoverKind::raise, .zoom = true, .inserts = true}) {
  TableSetup setup(glasshouse());
  const Deck& deck = setup.table.deck();
  const ZoneId slot = setup.add({.name = "slot",
                                 .pick = {.kind = PickKind::top},
                                 .drop = rule::on_empty(),
                                 .exchanges = true,
                                 .cards = some(deck, {"poppy-9"})});
  const ZoneId meadow = setup.add({.name = "meadow",
                                   .layout = FreeLayout{},
                                   .longest = 5,
                                   .pick = {.kind = PickKind::any},
                                   .drop = rule::anything(),
                                   .sorts = true});
  const ZoneId shelf = setup.add({.name = "shelf",
                                  .layout = SpreadLayout{},
                                  .longest = 5,
                                  .sideways = true,
                                  .pick = {.kind = PickKind::any},
                                  .drop = rule::anything(),
                                  .handling = {.inserts = true, .lays_sideways = true}});
  const ZoneId hand = setup.add({.name = "hand",
                                 .layout = HandLayout{},
                                 .longest = 12,
                                 .pick = {.kind = PickKind::any},
                                 .drop = rule::anything(),
                                 .sorts = true,
                                 .handling = of_hand,
                                 .cards = some(deck, {"fern-1", "fern-2", "fern-3", "fern-4", "fern-5",
                                                      "fern-6", "fern-7", "fern-8", "fern-9", "fern-10"})});
  PlanNode top = across({zone(slot), zone(meadow, 1), zone(shelf)});
  top.share = 1;
  setup.plans = {{.root = down({top, zone(hand)}), .largest_width = 100}};
  return setup;
}

}  // namespace

TEST_CASE("play: hover: sweeping slowly over a hand of ten raises each card once, in order, both ways") {
  for (const bool back : {false, true}) {
    Hand h(desk());
    const Rect area = *h.field.area(h.zone("hand"));
    std::vector<CardId> expected = h.cards("hand");
    if (back) std::reverse(expected.begin(), expected.end());
    const float y = h.middle(h.cards("hand")[4]).y;
    for (float x = area.min.x - 30; x < area.max.x + 30; x += 0.5f) {
      const float at = back ? area.min.x + area.max.x - x : x;
      h.field.pointer({.phase = PointerPhase::move, .at = {at, y}, .time = h.field.now() + 0.004});
      h.wait(0);
    }
    std::vector<CardId> raised;
    for (const Event& e : h.told) {
      if (e.kind == EventKind::hovered) raised.push_back(e.card);
    }
    CHECK(raised == expected);
  }
}

TEST_CASE("play: hover: a pointer that rests at any of ten thousand points changes it at most once") {
  for_all("resting pointer", 10, [](Random& r) {
    Hand h(desk({.hover = r.chance(0.5f) ? HoverKind::raise : HoverKind::lift, .zoom = r.chance(0.5f)}));
    const Rect area = *h.field.area(h.zone("hand"));
    for (int i = 0; i < 1000; ++i) {
      h.point(PointerPhase::move,
              {r.uniform(area.min.x - 20, area.max.x + 20), r.uniform(area.min.y - 60, area.max.y)});
      h.told.clear();
      for (int k = 0; k < 4; ++k) h.wait(0.11);
      RC_ASSERT(h.count(EventKind::hovered) <= 1);
      RC_ASSERT(h.count(EventKind::unhovered) <= 1);
    }
  });
}

TEST_CASE(
    "play: hover: the raised card stands above its neighbours, who make room, and ends when the pointer "
    "leaves") {
  Hand h(desk());
  const CardId card = h.cards("hand")[4];
  const Pose before = *h.field.resting_pose(card);
  const Pose next = *h.field.resting_pose(h.cards("hand")[5]);
  h.point(PointerPhase::move, h.grip(card));
  h.settle();
  REQUIRE(h.field.hovered() == card);
  CHECK(h.field.live_pose(card)->centre.y < before.centre.y - 10);
  CHECK(h.field.live_pose(h.cards("hand")[5])->centre.x > next.centre.x + 3);
  CHECK(*h.field.neutral_pose(card) != *h.field.resting_pose(card));
  CHECK(h.field.cursor() == "grab");
  const auto& items = h.field.frame().items;
  const auto top = std::max_element(items.begin(), items.end(),
                                    [](const FrameItem& a, const FrameItem& b) { return a.order < b.order; });
  CHECK(top->card == card);
  CHECK(top->marks.hovered);
  h.point(PointerPhase::leave, before.centre);
  h.settle();
  CHECK(h.field.hovered() == CardId{});
  CHECK(*h.field.live_pose(card) == before);
  CHECK(h.field.cursor() == "default");
}

TEST_CASE("play: hover: delays hold it back, and nothing is hovered during a drag") {
  Hand h(desk(), {.window = {1000, 700}, .hover = {.in_seconds = 0.3, .out_seconds = 0.2}});
  const CardId card = h.cards("hand")[2];
  h.point(PointerPhase::move, h.grip(card));
  CHECK(h.field.hovered() == CardId{});
  h.wait(0.25);
  CHECK(h.field.hovered() == CardId{});
  h.wait(0.06);
  CHECK(h.field.hovered() == card);
  CHECK(h.last(EventKind::hovered)->time == Approx(0.32));
  h.point(PointerPhase::down, h.grip(card));
  h.point(PointerPhase::move, h.grip(card) - Vec2{0, 80});
  CHECK(h.field.hovered() == CardId{});
  h.point(PointerPhase::move, h.middle(h.cards("hand")[7]));
  h.wait(1);
  CHECK(h.field.hovered() == CardId{});
  CHECK(h.field.cursor() == "grabbing");
}

TEST_CASE(
    "play: zoom: the larger picture is inside the window, clear of its hand, takes no hits, and fingers get "
    "it "
    "too") {
  int zooms = 0;
  for_all("zooms", 20, [&](Random& r) {
    Hand h(desk(), {.window = {r.uniform(300, 1400), r.uniform(300, 900)}});
    const std::size_t place = r.below(10);
    const CardId card = h.cards("hand")[place];
    const bool finger = r.chance(0.5f);
    const Vec2 at = h.grip(card);
    if (h.field.hit(at).card != card) return;
    if (finger) {
      h.point(PointerPhase::down, at, PointerKind::touch);
      h.wait(0.6);
    } else {
      h.point(PointerPhase::move, at);
      h.wait(0.5);
    }
    h.wait(0.5);
    if (h.field.zoomed() == CardId{}) return;  // there is no room for one
    RC_ASSERT(h.field.zoomed() == card);
    const auto& items = h.field.frame().items;
    const auto zoom = std::find_if(items.begin(), items.end(),
                                   [](const FrameItem& item) { return item.kind == FrameKind::zoom; });
    RC_ASSERT(zoom != items.end());
    RC_ASSERT(zoom->card == card);
    const Rect box = bounds(zoom->corners);
    RC_ASSERT(box.min.x >= -0.01f && box.min.y >= -0.01f);
    RC_ASSERT(box.max.x <= h.field.frame().window.width + 0.01f);
    RC_ASSERT(box.max.y <= h.field.frame().window.height + 0.01f);
    RC_ASSERT(overlap(box, *h.field.area(h.zone("hand"))) <= 0.01f);
    RC_ASSERT(h.field.hit(box.centre()).card != card);
    if (finger) {
      h.point(PointerPhase::up, at, PointerKind::touch);
    } else {
      h.point(PointerPhase::leave, at);
    }
    RC_ASSERT(h.field.zoomed() == CardId{});
    RC_ASSERT(h.count(EventKind::zoomed) == 1);
    ++zooms;
    RC_ASSERT(h.count(EventKind::unzoomed) == 1);
  });
  CHECK(zooms >= 5);
}

TEST_CASE("play: drag: a hand is sorted by dragging, room is made where the card would come to lie") {
  Hand h(desk({.inserts = true}));
  const CardId card = h.cards("hand")[1];
  const Vec2 from = h.grip(card);
  const Vec2 to = from - h.middle(card) + h.middle(h.cards("hand")[6]) + Vec2{5, 0};
  h.point(PointerPhase::down, from);
  h.point(PointerPhase::move, from + Vec2{20, 0});
  h.point(PointerPhase::move, to);
  h.settle();
  CHECK(h.field.aimed_at() == h.zone("hand"));
  const float gap = h.middle(h.cards("hand")[7]).x - h.middle(h.cards("hand")[6]).x;
  const float usual = h.middle(h.cards("hand")[4]).x - h.middle(h.cards("hand")[3]).x;
  CHECK(gap > usual * 1.3f);
  h.point(PointerPhase::up, to);
  h.settle();
  CHECK(h.faces("hand") == "fern-1 fern-3 fern-4 fern-5 fern-6 fern-7 fern-2 fern-8 fern-9 fern-10");
  CHECK(h.count(EventKind::dropped) == 1);
  CHECK(h.field.undo().allowed());
  CHECK(h.faces("hand") == "fern-1 fern-2 fern-3 fern-4 fern-5 fern-6 fern-7 fern-8 fern-9 fern-10");
}

TEST_CASE(
    "play: drag: a card from elsewhere is inserted where it is held, and lies sideways where cards do") {
  Hand h(desk());
  h.drag(h.middle("slot"), (h.middle(h.cards("hand")[2]) + h.middle(h.cards("hand")[3])) * 0.5f);
  h.settle();
  CHECK(h.faces("hand").starts_with("fern-1 fern-2 fern-3 poppy-9 fern-4"));
  const CardId card = h.cards("hand")[0];
  h.drag(h.grip(card), h.middle("shelf"));
  h.settle();
  REQUIRE(h.faces("shelf") == "fern-1");
  CHECK(h.field.table().card(card)->sideways);
  CHECK(std::abs(h.field.live_pose(card)->rotation) == Approx(std::numbers::pi / 2));
}

TEST_CASE("play: drag: a drop on an occupied slot exchanges the two, and undo takes it back") {
  Hand h(desk());
  const CardId card = h.cards("hand")[9];
  const CardId other = h.cards("slot")[0];
  h.drag(h.grip(card), h.middle("slot"));
  h.settle();
  CHECK(h.cards("slot") == std::vector<CardId>{card});
  CHECK(h.cards("hand")[9] == other);
  CHECK(h.last(EventKind::exchanged)->card == other);
  CHECK(h.field.undo().allowed());
  h.settle();
  CHECK(h.cards("slot") == std::vector<CardId>{other});
  CHECK(h.cards("hand")[9] == card);
  CHECK(h.field.redo().allowed());
  CHECK(h.cards("slot") == std::vector<CardId>{card});
  CHECK(h.field.redo().reason == Reason::nothing_to_redo);
}

TEST_CASE("play: drag: in a free zone a card stays where it is let go, and can be moved about") {
  Hand h(desk({}));
  const CardId card = h.cards("hand")[9];
  const Vec2 grip = h.grip(card) - h.middle(card);
  const Vec2 spot = h.middle("meadow") + Vec2{-40, 10};
  h.drag(h.grip(card), spot + grip);
  h.settle();
  REQUIRE(h.cards("meadow") == std::vector<CardId>{card});
  CHECK(length(h.middle(card) - spot) < 1.5f);
  h.drag(h.middle(card), spot + Vec2{50, 30});
  h.settle();
  CHECK(length(h.middle(card) - (spot + Vec2{50, 30})) < 1.5f);
}

TEST_CASE(
    "play: drag: copies follow the pointer where it is so wanted, and the cards stay until they are "
    "dropped") {
  Hand h(desk({}), {.window = {1000, 700}, .drag = {.look = DragLook::copy}});
  const CardId card = h.cards("hand")[9];
  const Pose home = *h.field.live_pose(card);
  const Vec2 grip = h.grip(card) - h.middle(card);
  h.point(PointerPhase::down, h.grip(card));
  h.point(PointerPhase::move, h.middle("shelf") + grip);
  h.wait(0.3);
  CHECK(*h.field.live_pose(card) == home);
  const auto copy = [&]() -> const FrameItem* {
    for (const FrameItem& item : h.field.frame().items) {
      if (item.kind == FrameKind::copy) return &item;
    }
    return nullptr;
  };
  REQUIRE(copy() != nullptr);
  CHECK(copy()->card == card);
  CHECK(copy()->opacity == 0.6f);
  CHECK(length(bounds(copy()->corners).centre() - h.middle("shelf")) < 2);
  h.point(PointerPhase::up, h.middle("shelf") + grip);
  CHECK(h.cards("shelf") == std::vector<CardId>{card});
  CHECK(copy() == nullptr);
  CHECK(length(h.field.live_pose(card)->centre - h.middle("shelf")) < 60);
}

TEST_CASE("play: drag: a held card leans into its way and hangs straight when the pointer stops") {
  Hand h(desk({}));
  const CardId card = h.cards("hand")[9];
  const Vec2 from = h.grip(card);
  h.point(PointerPhase::down, from);
  for (int i = 1; i <= 8; ++i) h.point(PointerPhase::move, from - Vec2{50.0f * static_cast<float>(i), 0});
  CHECK(h.field.live_pose(card)->rotation < -0.01f);
  h.wait(2);
  CHECK(h.field.live_pose(card)->rotation == 0);
}

TEST_CASE("play: drag: a second pointer, a second button, lost focus and a closed gate") {
  Hand h(desk({}));
  const CardId card = h.cards("hand")[9];
  const Vec2 from = h.grip(card);
  const auto begin = [&] {
    h.told.clear();
    h.settle();
    h.point(PointerPhase::down, from);
    h.point(PointerPhase::move, h.middle("shelf"));
    REQUIRE(h.field.held().count == 1);
  };
  begin();
  h.point(PointerPhase::down, h.middle(h.cards("hand")[0]), PointerKind::touch, 7);
  h.point(PointerPhase::move, {500, 300}, PointerKind::touch, 7);
  h.point(PointerPhase::up, {500, 300}, PointerKind::touch, 7);
  CHECK(h.field.held().first == card);
  CHECK(h.count(EventKind::picked_up) == 1);
  h.field.pointer({.phase = PointerPhase::down,
                   .at = h.middle("shelf"),
                   .time = h.field.now() + 0.1,
                   .button = PointerButton::secondary});
  h.wait(0);
  CHECK(h.field.held().count == 0);
  CHECK(h.count(EventKind::cancelled) == 1);
  begin();
  h.field.blur(h.field.now() + 0.1);
  h.wait(0);
  CHECK(h.count(EventKind::cancelled) == 1);
  begin();
  CHECK(h.key(Key::cancel));
  CHECK(h.count(EventKind::cancelled) == 1);
  begin();
  h.field.close_gate("a dialogue");
  h.wait(0);
  CHECK(h.count(EventKind::cancelled) == 1);
  CHECK(h.field.cursor() == "wait");
  CHECK_FALSE(h.point(PointerPhase::down, from));
  CHECK_FALSE(h.key(Key::next));
  h.field.close_gate("another");
  h.field.open_gate("a dialogue");
  CHECK_FALSE(h.field.gate_open());
  h.field.open_gate("another");
  CHECK(h.field.gate_open());
  CHECK_FALSE(h.point(PointerPhase::move, {500, 300}));  // what went down behind the gate does nothing
  CHECK(h.field.held().count == 0);
  begin();
}

TEST_CASE("play: drag: several pointers drag at once only when asked for") {
  for (const bool several : {false, true}) {
    PlayfieldOptions options;
    options.window = {1000, 700};
    options.drag.several = several;
    Hand h(desk({}), options);
    const CardId one = h.cards("hand")[9];
    const CardId other = h.cards("slot")[0];
    const auto touch = [&](PointerPhase phase, Vec2 at, std::uint32_t id) {
      h.point(phase, at, PointerKind::touch, id);
    };
    touch(PointerPhase::down, h.grip(one), 7);
    touch(PointerPhase::move, h.middle("meadow"), 7);
    touch(PointerPhase::down, h.middle(other), 8);
    touch(PointerPhase::move, h.middle("shelf"), 8);
    CHECK(h.field.held_by(7).first == one);
    CHECK(h.field.held_by(8).count == (several ? 1 : 0));
    CHECK(h.field.held().first == (several ? other : one));
    // The first goes on while the second is still.
    touch(PointerPhase::move, h.middle("meadow") + Vec2{9, 5}, 7);
    CHECK(h.field.held().first == one);
    CHECK(h.field.aimed_at() == h.zone("meadow"));
    touch(PointerPhase::up, h.middle("meadow") + Vec2{9, 5}, 7);
    CHECK(h.cards("meadow") == std::vector<CardId>{one});
    CHECK(h.field.held().count == (several ? 1 : 0));
    touch(PointerPhase::up, h.middle("shelf"), 8);
    CHECK(h.cards("shelf").size() == (several ? 1 : 0));
    CHECK(h.count(EventKind::dropped) == (several ? 2 : 1));
    CHECK(h.field.held().count == 0);
  }
}

TEST_CASE("play: drag: what one pointer holds another cannot take, and what ends all drags ends each") {
  PlayfieldOptions options;
  options.window = {1000, 700};
  options.drag.several = true;
  TableSetup setup = desk({});
  // A column whose cards are picked up with all that lies on them.
  const Deck& deck = setup.table.deck();
  setup.rules[0].pick = {.kind = PickKind::run, .link = rule::anything()};
  setup.places[0].layout = ColumnLayout{};
  for (const char* face : {"poppy-8", "poppy-7"}) setup.table.create_card({1}, {.face = *deck.find(face)});
  Hand h(std::move(setup), options);
  const std::vector<CardId> column = h.cards("slot");
  const auto top_strip = [&](std::size_t i) {
    return h.middle(column[i]) - Vec2{0, h.field.card_size().height * 0.45f};
  };
  h.point(PointerPhase::down, top_strip(1), PointerKind::mouse, 1);
  h.point(PointerPhase::move, h.middle("meadow"), PointerKind::mouse, 1);
  REQUIRE(h.field.held_by(1).count == 2);
  h.point(PointerPhase::down, top_strip(0), PointerKind::mouse, 2);
  h.point(PointerPhase::move, h.middle("shelf"), PointerKind::mouse, 2);
  CHECK(h.field.held_by(2).count == 0);
  const auto refused = std::find_if(h.told.begin(), h.told.end(),
                                    [](const Event& e) { return e.kind == EventKind::pick_refused; });
  REQUIRE(refused != h.told.end());
  CHECK(refused->verdict.reason == Reason::in_hand);
  h.point(PointerPhase::up, h.middle("shelf"), PointerKind::mouse, 2);
  const CardId free = h.cards("hand")[9];
  h.point(PointerPhase::down, h.grip(free), PointerKind::mouse, 3);
  h.point(PointerPhase::move, h.middle("shelf"), PointerKind::mouse, 3);
  REQUIRE(h.field.held_by(3).first == free);
  h.field.resize({900, 650}, 1, h.field.now());
  h.wait(0);
  CHECK(h.count(EventKind::cancelled) == 2);
  CHECK(h.field.held().count == 0);
  h.settle();
  for (const CardId card : column) CHECK(*h.field.live_pose(card) == *h.field.resting_pose(card));
}

TEST_CASE("play: drag: a flick takes a card to where it is thrown, a slow drag as far does not") {
  ZoneHandling handling;
  handling.flick_to = {3};  // the shelf
  Hand h(desk(handling));
  const auto throw_up = [&](double step) {
    h.settle();
    const Vec2 from = h.middle(h.cards("hand")[4]);
    const double start = h.field.now();
    h.field.pointer({.phase = PointerPhase::down, .at = from, .time = start});
    for (int i = 1; i <= 6; ++i) {
      h.field.pointer({.phase = PointerPhase::move,
                       .at = from - Vec2{0, 15.0f * static_cast<float>(i)},
                       .time = start + step * i});
    }
    h.field.pointer({.phase = PointerPhase::up, .at = from - Vec2{0, 90}, .time = start + step * 6 + 0.001});
    h.wait(0.01);
  };
  throw_up(0.01);
  CHECK(h.cards("shelf").size() == 1);
  throw_up(0.2);
  CHECK(h.cards("shelf").size() == 1);
  CHECK(h.cards("hand").size() == 9);
}

TEST_CASE("play: frames take nothing from the heap once they are warm, in motion, under a pointer, at rest") {
  Playfield field(desk(), {.window = {1000, 700}});
  const Rect area = *field.area(*field.table().find_zone("hand"));
  double time = 0;
  // The same rounds: cards are dealt, the pointer sweeps over them while they come, then all is still.
  for (int round = 0; round < 4; ++round) {
    field.deal();
    const std::size_t taken = allocations_in([&] {
      for (int i = 0; i < 400; ++i) {
        time += 1.0 / 60;
        if (i < 300) {
          const float share = static_cast<float>(i) / 300;
          field.pointer({.phase = PointerPhase::move,
                         .at = {area.min.x + area.width() * share, area.centre().y},
                         .time = time});
        }
        field.advance_to(time);
        (void)field.hit({500, 350});
        (void)field.frame();
      }
    });
    CAPTURE(round);
    CHECK((round < 2 || taken == 0));
  }
}

TEST_CASE("play: taps: pick and place, double tap to the best place, and what is not for tapping says so") {
  Hand h(desk({.tap = TapKind::pick}));
  const CardId card = h.cards("hand")[9];
  const Vec2 at = h.grip(card);
  h.tap(at);
  CHECK(h.field.held().first == card);
  CHECK(h.field.targets().size() == 4);
  h.tap(at);  // the same again puts it back
  CHECK(h.field.held().count == 0);
  h.tap(at);
  h.tap(h.middle("shelf"));
  CHECK(h.cards("shelf") == std::vector<CardId>{card});
  Hand sends(desk({.double_tap = TapKind::send}));
  const Vec2 there = sends.middle(sends.cards("hand")[9]) + Vec2{sends.field.card_size().width * 0.3f, 0};
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
  CHECK(h.field.focused().zone == h.zone("hand"));
  CHECK(describe_focus(h.field).find(" of 10 in hand; may be picked up.") != std::string::npos);
  const auto& items = h.field.frame().items;
  CHECK(std::count_if(items.begin(), items.end(), [](const FrameItem& i) { return i.marks.focus; }) == 1);
  const CardId before = h.field.focused().card;
  h.key(Key::right);
  h.key(Key::left);
  CHECK(h.field.focused().card == before);
  CHECK(h.key(Key::act));
  CHECK(h.field.held().first == before);
  CHECK(h.field.focused().zone != h.zone("hand"));  // only places that would take it
  CHECK(h.field.aimed_at() == h.field.focused().zone);
  CHECK_FALSE(h.key(Key::act, true));  // a held key counts once
  CHECK(h.key(Key::cancel));
  CHECK(h.field.held().count == 0);
  CHECK(h.field.focused().card == before);
  CHECK(h.key(Key::act));
  while (h.field.focused().zone != h.zone("meadow")) h.key(Key::next);
  CHECK(h.key(Key::act));
  CHECK(h.cards("meadow") == std::vector<CardId>{before});
  CHECK(h.field.focused().card == before);
  CHECK(h.key(Key::undo));
  CHECK(h.cards("meadow").empty());
  CHECK(h.key(Key::redo));
  CHECK(h.cards("meadow").size() == 1);
  // The card goes: focus finds the nearest place.
  CHECK(h.field.can_undo());
  (void)h.field.remove(before);
  CHECK_FALSE(h.field.can_undo());
  CHECK(h.field.focused() != Hit{});
  CHECK(h.field.focused().card != before);
  CHECK(h.key(Key::cancel));
  CHECK(h.field.focused() == Hit{});
}

TEST_CASE("play: proposals: the game answers at once, later, or too late") {
  Hand h(desk({}));
  std::optional<Verdict> answer = Verdict{.reason = Reason::refused_by_game};
  std::vector<Proposal> asked;
  h.field.set_judge([&](const Proposal& p) {
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
  offer(9);
  REQUIRE(h.field.waiting().size() == 1);
  const std::uint64_t id = h.field.waiting()[0].id;
  CHECK(h.cards("hand").size() == 10);  // the table is as it was,
  CHECK(length(h.field.live_pose(card)->centre - h.field.next_pose(h.zone("shelf"))->centre) <
        2);  // but it shows at its target
  CHECK(h.field.judge_pick(card).verdict.reason == Reason::locked);
  const CardId other = offer(3);  // play goes on elsewhere
  REQUIRE(h.field.waiting().size() == 2);
  CHECK(h.field.answer(id).allowed());
  CHECK(h.cards("shelf") == std::vector<CardId>{card});
  CHECK(h.field.answer(id).reason == Reason::unknown_proposal);
  // The other card goes elsewhere meanwhile: its proposal ends, whatever is answered then.
  CHECK(h.field.move({other, 1}, h.zone("meadow")).allowed());
  h.wait(0);
  CHECK(h.field.waiting().empty());
  CHECK(h.last(EventKind::superseded)->card == other);
  h.settle();
  CHECK(*h.field.live_pose(other) == *h.field.resting_pose(other));
  offer(2);
  const std::uint64_t refused = h.field.waiting()[0].id;
  h.field.resize({800, 600}, 1, h.field.now());
  CHECK(h.field.answer(refused, {.reason = Reason::refused_by_game}).reason == Reason::refused_by_game);
  h.settle();
  CHECK(h.cards("hand").size() == 8);
  for (const CardId each : h.cards("hand")) CHECK(*h.field.live_pose(each) == *h.field.resting_pose(each));
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
  CHECK_FALSE(h.field.can_undo());
  CHECK(h.cards("shelf").empty());
  h.settle();
  for (const CardId each : h.cards("hand")) CHECK(*h.field.live_pose(each) == *h.field.resting_pose(each));
  h.drag(h.grip(h.cards("hand")[9]), h.middle("shelf"));
  CHECK(h.cards("shelf").size() == 1);
}

TEST_CASE("play: explain: all that lies at a point, from the top, and why it is or is not the answer") {
  Hand h(desk({}));
  const auto& hand = h.cards("hand");
  const Vec2 at = (h.middle(hand[4]) + h.middle(hand[5])) * 0.5f;
  const auto lies = h.field.explain(at);
  REQUIRE(lies.size() >= 3);
  CHECK(lies[0].what.card == h.field.hit(at).card);
  CHECK(lies[0].because == Explained::Because::answer);
  CHECK(lies[1].because == Explained::Because::covered);
  CHECK(lies.back().what == Hit{.zone = h.zone("hand")});
  CHECK(h.field.explain({NAN, 0}).empty());
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
