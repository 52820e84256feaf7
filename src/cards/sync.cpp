#include <fmt/format.h>

#include <algorithm>
#include <unordered_set>

#include "apsidon/cards/table.hpp"
#include "cards/inside.hpp"
#include "geometry/thrown.hpp"

namespace apsidon {
namespace {

/// Marks the entries of a longest increasing subsequence (patience sorting, O(n log n)); entries below 0
/// never count. The cards at the other entries are the fewest that have to move.
std::vector<bool> longest_increasing(const std::vector<std::ptrdiff_t>& values) {
  std::vector<std::size_t> tails;  // index of the smallest last value of a subsequence of each length
  std::vector<std::ptrdiff_t> before(values.size(), -1);
  for (std::size_t i = 0; i < values.size(); ++i) {
    if (values[i] < 0) continue;
    const auto it = std::lower_bound(tails.begin(), tails.end(), values[i],
                                     [&](std::size_t t, std::ptrdiff_t v) { return values[t] < v; });
    if (it != tails.begin()) before[i] = static_cast<std::ptrdiff_t>(*(it - 1));
    if (it == tails.end()) {
      tails.push_back(i);
    } else {
      *it = i;
    }
  }
  std::vector<bool> kept(values.size(), false);
  std::ptrdiff_t i = tails.empty() ? -1 : static_cast<std::ptrdiff_t>(tails.back());
  for (; i >= 0; i = before[static_cast<std::size_t>(i)]) kept[static_cast<std::size_t>(i)] = true;
  return kept;
}

template <class T>
bool assign(T& value, const std::optional<T>& wanted) {
  if (!wanted || *wanted == value) return false;
  value = *wanted;
  return true;
}

/// Why nothing can have these numbers; allowed when it can.
Verdict check_numbers(const std::optional<Numbers>& wanted, ZoneId zone, std::uint64_t key, bool of_zone) {
  if (!wanted || wanted->empty()) return {};
  const std::string whose = fmt::format("{} with the key {}", of_zone ? "zone" : "card", key);
  auto problem = geometry_detail::thrown_by([&] { (void)cards_detail::checked(*wanted, whose, of_zone); });
  if (!problem) return {};
  return {.reason = Reason::out_of_range,
          .zone = zone,
          .key = key,
          .arguments = {{"problem", *std::move(problem)}}};
}

}  // namespace

Verdict Table::check(std::span<const WantedZone> wanted) const {
  std::unordered_set<std::uint64_t> zone_keys;
  std::unordered_set<std::uint64_t> card_keys;
  for (const WantedZone& z : wanted) {
    if (z.key == 0) return {.reason = Reason::missing_key};
    const auto id = find_zone_by_key(z.key);
    if (!id) return {.reason = Reason::unknown_key, .key = z.key};
    if (!zone_keys.insert(z.key).second) return {.reason = Reason::repeated_key, .zone = *id, .key = z.key};
    if (Verdict wrong = check_numbers(z.numbers, *id, z.key, true); !wrong) return wrong;
    for (const WantedCard& c : z.cards) {
      if (c.key == 0) return {.reason = Reason::missing_key, .zone = *id};
      if (!card_keys.insert(c.key).second) {
        return {.reason = Reason::repeated_key, .zone = *id, .key = c.key};
      }
      if (c.face && *c.face != hidden_face && !deck_.has(*c.face)) {
        return {.reason = Reason::unknown_face, .zone = *id, .key = c.key};
      }
      if (Verdict wrong = check_numbers(c.numbers, *id, c.key, false); !wrong) return wrong;
    }
  }
  return {};
}

SyncReport Table::sync(std::span<const WantedZone> wanted) {
  SyncReport report;
  report.verdict = check(wanted);
  if (!report.verdict) return report;

  std::vector<bool> zone_touched(zones_.size(), false);
  std::vector<bool> zone_wanted(zones_.size(), false);
  const auto touched = [&](ZoneId id) { zone_touched[id.value - 1] = true; };
  std::unordered_set<std::uint32_t> placed;  // ids of the cards that are wanted somewhere
  std::vector<std::pair<ZoneId, std::vector<CardId>>> contents;

  for (const WantedZone& z : wanted) {
    const ZoneId id = *find_zone_by_key(z.key);
    if (z.numbers && numbers(id) != cards_detail::sorted(*z.numbers)) {
      set_numbers(id, cards_detail::sorted(*z.numbers));
      touched(id);
    }
    zone_wanted[id.value - 1] = true;
    std::vector<CardId> cards;
    std::vector<std::ptrdiff_t> old_places;
    for (const WantedCard& w : z.cards) {
      auto known = find_card_by_key(w.key);
      if (!known) {
        known = add_card({.face = w.face.value_or(hidden_face),
                          .key = w.key,
                          .face_up = w.face_up.value_or(true),
                          .sideways = w.sideways.value_or(false),
                          .numbers = w.numbers.value_or(Numbers{})});
        report.created.push_back(*known);
        old_places.push_back(-1);
        touched(id);
      } else {
        Card& c = *find(*known);
        const bool here = c.zone == id;
        old_places.push_back(here ? static_cast<std::ptrdiff_t>(c.index) : -1);
        if (!here) {
          report.moved.push_back(c.id);
          touched(c.zone);
          touched(id);
        }
        const bool face = assign(c.face, w.face);
        const bool side = assign(c.face_up, w.face_up);
        if (side) (void)forget_opened(c.id);
        const bool counted = w.numbers && numbers(c.id) != cards_detail::sorted(*w.numbers);
        if (counted) set_numbers(c.id, cards_detail::sorted(*w.numbers));
        const bool turn = assign(c.sideways, w.sideways);
        if (face || side || turn || counted) {
          report.changed.push_back(c.id);
          touched(id);
        }
      }
      cards.push_back(*known);
      placed.insert(known->value);
    }
    const std::vector<bool> kept = longest_increasing(old_places);
    for (std::size_t i = 0; i < cards.size(); ++i) {
      if (old_places[i] < 0 || kept[i]) continue;
      report.moved.push_back(cards[i]);
      touched(id);
    }
    contents.emplace_back(id, std::move(cards));
  }

  for (Zone& z : zones_) {
    if (zone_wanted[z.id.value - 1]) {
      for (const CardId id : z.cards) {
        if (placed.contains(id.value)) continue;
        report.retired.push_back(id);
        touched(z.id);
      }
    } else if (zone_touched[z.id.value - 1]) {
      std::erase_if(z.cards, [&](CardId id) { return placed.contains(id.value); });
    }
  }
  for (auto& [id, cards] : contents) zones_[id.value - 1].cards = std::move(cards);
  for (const CardId id : report.retired) retire(id);
  for (Zone& z : zones_) {
    if (!zone_touched[z.id.value - 1]) continue;
    renumber(z, 0);
    touch(z);
  }
  return report;
}

}  // namespace apsidon
