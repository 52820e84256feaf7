#pragma once
// Tables for tests: the glasshouse's deck, and random tables on which much is allowed.
#include <string>
#include <utility>
#include <vector>

#include "apsidon/apsidon.hpp"
#include "support/random.hpp"

namespace apsidon::test {

inline Deck glasshouse(int copies = 1) {
  return Deck({.name = "Glasshouse",
               .suits = {{"fern", "green"}, {"reed", "green"}, {"poppy", "orange"}, {"marigold", "orange"}},
               .ranks = {"1", "2", "3", "4", "5", "6", "7", "8", "9", "10", "11", "12", "13"},
               .copies = copies});
}

/// The table of tests/reference/everything.log.
inline TableSetup table_of_log() {
  TableSetup table(glasshouse());
  for (const char* name : {"stock", "waste", "hand"}) (void)table.add({.name = name});
  table.plans = {{.root = across({zone({1}), zone({2}), zone({3})})}};
  return table;
}

inline CardOptions open_card(const Deck& deck, const std::string& face) { return {.face = *deck.find(face)}; }

inline std::vector<ZoneContents> contents_of(const Table& table) {
  std::vector<ZoneContents> out;
  for (const Zone& zone : table.zones()) out.push_back(table.contents_of(zone.id));
  return out;
}

/// The name of every kind of layout that files have.
inline std::vector<std::string> layout_kinds() {
  std::vector<std::string> kinds;
  const auto note = [&]<std::size_t... I>(std::index_sequence<I...>) {
    (kinds.emplace_back(traits_of(std::variant_alternative_t<I, Layout>{}).name), ...);
  };
  note(std::make_index_sequence<std::variant_size_v<Layout> - 1>{});  // the last is that of one's own
  return kinds;
}

inline Layout random_layout(Random& r) {
  const auto align = [&] { return static_cast<Align>(r.below(3)); };
  switch (r.below(9)) {
    case 0:
      return SlotLayout{};
    case 1: {
      PileLayout l{.thickness = r.uniform(0, 0.02f), .most_thickness = r.uniform(0, 0.2f)};
      if (r.chance(0.5f)) l.untidy_angle = Angle::degrees(double{r.uniform(0, 30)});
      if (r.chance(0.5f)) l.untidy_offset = r.uniform(0, 0.5f);
      l.seed = static_cast<std::uint32_t>(r.below(1000));
      return l;
    }
    case 2: {
      ColumnLayout l{.open_strip = r.uniform(0.1f, 1), .covered_strip = r.uniform(0.05f, 0.5f)};
      l.least_open_strip = l.open_strip * r.uniform(0.1f, 1);
      l.least_covered_strip = l.covered_strip * r.uniform(0.1f, 1);
      return l;
    }
    case 3:
    case 4: {
      HandLayout l{.spacing = r.uniform(0.1f, 1.2f),
                   .step = Angle::degrees(double{r.chance(0.2f) ? 0 : r.uniform(0, 12)}),
                   .largest_angle = Angle::degrees(double{r.uniform(0, 140)}),
                   .align = align()};
      l.least_spacing = l.spacing * r.uniform(0, 1);
      return l;
    }
    case 5: {
      SpreadLayout l{
          .spacing = r.uniform(0, 1.2f), .last = r.chance(0.5f) ? r.between(1, 5) : 0, .align = align()};
      l.least_spacing = l.spacing * r.uniform(0, 1);
      return l;
    }
    case 6:
      return RingLayout{.start = Angle::degrees(double{r.uniform(-360, 360)}),
                        .sweep = Angle::degrees(double{r.chance(0.5f) ? 360 : r.uniform(20, 360)}),
                        .turned = r.chance(0.5f),
                        .round = r.chance(0.5f),
                        .cells = r.chance(0.3f) ? static_cast<int>(r.between(1, 6)) : 0};
    case 7:
      return FreeLayout{};
    default:
      return GridLayout{.columns = r.between(0, 7),
                        .rows = r.between(0, 3),
                        .keeps_cells = r.chance(0.4f),
                        .gap = r.uniform(0, 0.5f),
                        .row_gap = r.uniform(0, 0.5f),
                        .across = static_cast<Distribute>(r.below(6)),
                        .down = static_cast<Distribute>(r.below(6))};
  }
}

inline LaidCard random_laid(Random& r, bool may_lie_sideways) {
  return {.face_up = r.chance(0.5f),
          .sideways = may_lie_sideways && r.chance(0.3f),
          .cell = r.chance(0.3f) ? r.between(0, 30) : -1,
          .at = {r.uniform(0, 1), r.uniform(0, 1)}};
}

/// A table with keys on every card and zone, a few zones of all layouts, and rules that allow a good part of
/// all drops.
inline TableSetup random_setup(Random& r) {
  TableSetup setup(glasshouse(60));  // enough of each face for any choice
  const int zones = r.between(2, 7);
  std::uint64_t key = 1;
  std::vector<PlanNode> nodes;
  for (int i = 0; i < zones; ++i) {
    ZoneSetup zone{.name = "zone-" + std::to_string(i + 1),
                   .key = static_cast<std::uint64_t>(i + 1),
                   .layout = {.kind = random_layout(r),
                              .longest = r.between(1, 12),
                              .facing = static_cast<Facing>(r.chance(0.6f) ? 0 : r.below(4)),
                              .factor = r.chance(0.8f) ? 1 : r.uniform(0.4f, 1.6f),
                              .sideways = r.chance(0.2f),
                              .scrolls = r.chance(0.15f),
                              .gives_up = r.chance(0.2f)}};
    const Rule drops[] = {rule::anything(),
                          rule::anything(),
                          rule::at_most(2),
                          rule::on_empty(),
                          rule::any({rule::on_empty(), rule::same_colour()}),
                          rule::nothing()};
    zone.rules.drop = drops[r.below(6)];
    const PickKind picks[] = {PickKind::any, PickKind::top, PickKind::run, PickKind::run, PickKind::nothing};
    zone.rules.pick.kind = picks[r.below(5)];
    const int cards = r.between(0, 8);
    for (int c = 0; c < cards; ++c) {
      zone.cards.push_back(
          {.face = {static_cast<std::uint32_t>(r.between(0, 52))}, .key = key++, .face_up = r.chance(0.8f)});
    }
    nodes.push_back(apsidon::zone(setup.add(zone), r.chance(0.5f) ? 1.0f : 0.0f));
  }
  setup.plans = {{.root = r.chance(0.5f) ? across(nodes) : down(nodes), .margin = r.uniform(0, 20)}};
  return setup;
}

/// Contents for some of the zones, by key: most of the cards, a few new ones, some turned or with another
/// face.
inline std::vector<WantedZone> random_wish(Random& r, const Table& table) {
  std::vector<std::uint64_t> keys;
  for (std::uint64_t k = 1; k <= table.card_count() + 4; ++k) {
    if (r.chance(0.85f)) keys.push_back(k);
  }
  for (std::size_t i = keys.size(); i > 1; --i) std::swap(keys[i - 1], keys[r.below(i)]);
  std::vector<WantedZone> wish;
  for (const Zone& zone : table.zones()) {
    if (r.chance(0.8f)) wish.push_back({.key = zone.key, .cards = {}});
  }
  if (wish.empty()) return wish;
  for (const std::uint64_t key : keys) {
    WantedCard card{.key = key};
    if (r.chance(0.3f)) card.face = FaceId{static_cast<std::uint32_t>(r.between(0, 52))};
    if (r.chance(0.3f)) card.face_up = r.chance(0.5f);
    wish[r.below(wish.size())].cards.push_back(card);
  }
  return wish;
}

/// A point on some card as it shows, or anywhere when none is found.
inline Vec2 some_card_point(Random& r, const Playfield& field) {
  const auto zones = field.table().zones();
  for (int tries = 0; tries < 10; ++tries) {
    const Zone& zone = zones[r.below(zones.size())];
    if (zone.cards.empty()) continue;
    const Vec2 centre = field.where().live_pose(zone.cards[r.below(zone.cards.size())])->centre;
    return centre + Vec2{r.uniform(-0.4f, 0.4f), r.uniform(-0.4f, 0.4f)} * field.where().card_size().width;
  }
  return {r.uniform(0, 1300), r.uniform(0, 900)};
}

/// All that undo brings back, as text.
inline std::string state_of(const Table& table) {
  std::string out;
  const auto add = [&](const Numbers& numbers) {
    for (const Number& n : numbers) out += " " + n.name + "=" + std::to_string(n.value);
    out += ";";
  };
  add(table.numbers());
  for (const Seat& seat : table.seats()) {
    out += table.is_on_turn(seat.id) ? "*" : "-";
    add(table.numbers(seat.id));
  }
  for (const Zone& zone : table.zones()) {
    out += "|" + zone.name;
    add(table.numbers(zone.id));
    for (const CardId card : zone.cards) {
      const Card& c = *table.card(card);
      out += " " + std::to_string(card.value) + "/" + std::to_string(c.face.value) + "/" +
             std::to_string(c.key) + (c.face_up ? "+" : "-") + std::to_string(c.cell);
      add(table.numbers(card));
    }
  }
  return out;
}

}  // namespace apsidon::test
