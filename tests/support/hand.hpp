#pragma once
// A player's hand at a playfield, for tests: a pointer, keys, and what is told.
#include <algorithm>
#include <cmath>
#include <string>
#include <vector>

#include "support/loop.hpp"
#include "support/tables.hpp"

namespace apsidon::test {

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
  std::vector<CardId> chosen() const {
    const auto cards = field.hand().selection();
    return {cards.begin(), cards.end()};
  }
  Vec2 middle(const std::string& name) const { return field.where().area(zone(name))->centre(); }
  Vec2 middle(CardId card) const { return field.where().resting_pose(card)->centre; }

  /// On its left part, which the next card does not cover.
  Vec2 grip(CardId card) const { return middle(card) - Vec2{field.where().card_size().width * 0.3f, 0}; }

  /// From the pointer to the middle of a card that was gripped there, and lies straight by now.
  Vec2 straightened(CardId card, Vec2 grip) const {
    const float turned = -field.where().resting_pose(card)->rotation;
    return rotated(middle(card) - grip, std::cos(turned), std::sin(turned));
  }

  void wait(double seconds) {
    for (Event& event : events_until(field, field.now() + seconds)) told.push_back(std::move(event));
  }
  bool point(PointerPhase phase, Vec2 at, PointerKind kind = PointerKind::mouse, std::uint32_t id = 0) {
    const bool used =
        field.pointer({.phase = phase, .at = at, .time = field.now() + 0.02, .pointer = id, .kind = kind});
    wait(0.02);
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
    wait(0.02);
    return used;
  }
  void settle() { wait(field.time().settles_at() - field.now() + 0.01); }

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
      if (!out.empty()) out += ' ';
      out += field.table().deck().text(field.table().card(card)->face);
    }
    return out;
  }
};

inline std::vector<CardOptions> some(const Deck& deck, std::initializer_list<const char*> faces) {
  std::vector<CardOptions> out;
  for (const char* face : faces) out.push_back(open_card(deck, face));
  return out;
}

/// A hand of ten that zooms, sorts and inserts; a slot that exchanges; a free zone; a shelf.
inline TableSetup desk(const ZoneHandling& of_hand = {.hover = HoverKind::raise, .zoom = true}) {
  TableSetup setup(glasshouse());
  const Deck& deck = setup.table.deck();
  const ZoneId slot =
      setup.add({.name = "slot",
                 .rules = {.pick = {.kind = PickKind::top}, .drop = rule::on_empty(), .exchanges = true},
                 .cards = some(deck, {"poppy-9"})});
  const ZoneId meadow =
      setup.add({.name = "meadow",
                 .layout = {.kind = FreeLayout{}, .longest = 5},
                 .rules = {.pick = {.kind = PickKind::any}, .drop = rule::anything(), .sorts = true}});
  const ZoneId shelf = setup.add({.name = "shelf",
                                  .layout = {.kind = SpreadLayout{}, .longest = 5, .sideways = true},
                                  .rules = {.pick = {.kind = PickKind::any},
                                            .drop = rule::anything(),
                                            .inserts = true,
                                            .lays_sideways = true}});
  const ZoneId hand = setup.add(
      {.name = "hand",
       .layout = {.kind = HandLayout{}, .longest = 12},
       .rules = {.pick = {.kind = PickKind::any}, .drop = rule::anything(), .sorts = true, .inserts = true},
       .handling = of_hand,
       .cards = some(deck, {"fern-1", "fern-2", "fern-3", "fern-4", "fern-5", "fern-6", "fern-7", "fern-8",
                            "fern-9", "fern-10"})});
  PlanNode top = across({zone(slot), zone(meadow, 1), zone(shelf)});
  top.share = 1;
  setup.plans = {{.root = down({top, zone(hand)}), .largest_width = 100}};
  return setup;
}

}  // namespace apsidon::test
