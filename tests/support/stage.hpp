#pragma once
// A stock, a waste and a hand, for tests of what is performed.
#include <map>
#include <vector>

#include "support/loop.hpp"
#include "support/tables.hpp"

namespace apsidon::test {

struct Stage {
  Playfield field;
  ZoneId stock, waste, hand;
  static constexpr std::uint64_t hand_key = 7;

  explicit Stage(const Feel& feel = {}, std::size_t in_stock = 12, std::size_t in_hand = 6)
      : Stage(make(feel, in_stock, in_hand)) {}
  explicit Stage(Playfield f)
      : field(std::move(f)),
        stock(*field.table().find_zone("stock")),
        waste(*field.table().find_zone("waste")),
        hand(*field.table().find_zone("hand")) {}

  static Playfield make(const Feel& feel, std::size_t in_stock, std::size_t in_hand) {
    TableSetup setup(glasshouse(2));
    ZoneSetup stock{.name = "stock", .layout = {.kind = PileLayout{}, .longest = 60}};
    ZoneSetup hand{.name = "hand",
                   .layout = {.kind = HandLayout{}, .longest = 60},
                   .rules = {.pick = {.kind = PickKind::any}}};
    hand.key = hand_key;
    for (std::size_t i = 0; i < in_stock; ++i) {
      stock.cards.push_back({.face = {static_cast<std::uint32_t>(i % 52 + 1)}, .face_up = false});
    }
    for (std::size_t i = 0; i < in_hand; ++i)
      hand.cards.push_back({.face = {static_cast<std::uint32_t>(i % 52 + 1)}});
    const ZoneId s = setup.add(stock);
    const ZoneId w = setup.add({.name = "waste",
                                .layout = {.kind = PileLayout{}, .longest = 60},
                                .rules = {.drop = rule::anything()}});
    const ZoneId h = setup.add(hand);
    setup.plans = {{.root = down({across({zone(s), zone(w)}), zone(h, 1)})}};
    setup.deal_from = s;
    return Playfield(setup, {.feel = feel});
  }

  [[nodiscard]] std::vector<Event> go(double until) { return events_until(field, until); }
  [[nodiscard]] bool at_rest() const {
    for (const Zone& zone : field.table().zones()) {
      for (const CardId card : zone.cards) {
        if (*field.where().live_pose(card) != *field.where().resting_pose(card)) return false;
      }
    }
    return true;
  }
  [[nodiscard]] std::vector<CardId> cards(ZoneId zone) const { return field.table().zone(zone)->cards; }
};

inline std::map<EventKind, int> counted(const std::vector<Event>& events) {
  std::map<EventKind, int> counts;
  for (const Event& e : events) ++counts[e.kind];
  return counts;
}

}  // namespace apsidon::test
