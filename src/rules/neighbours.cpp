#include "rules/neighbours.hpp"

#include <algorithm>

namespace apsidon::rules_detail {

Neighbours::Neighbours(std::span<const std::pair<ZoneId, ZoneId>> links, LinkWay way) {
  if (links.empty()) return;
  const bool both = way == LinkWay::both;
  std::uint32_t last = 0;
  for (const auto& [a, b] : links) last = std::max({last, a.value, b.value});
  first_.assign(std::size_t{last} + 2, 0);
  for (const auto& [a, b] : links) {
    ++first_[a.value + 1];
    if (both) ++first_[b.value + 1];
  }
  for (std::size_t i = 1; i < first_.size(); ++i) first_[i] += first_[i - 1];
  zones_.resize(first_.back());
  std::vector<std::uint32_t> next = first_;
  for (const auto& [a, b] : links) {
    zones_[next[a.value]++] = b;
    if (both) zones_[next[b.value]++] = a;
  }
}

std::span<const ZoneId> Neighbours::of(ZoneId zone) const {
  if (std::size_t{zone.value} + 1 >= first_.size()) return {};
  return std::span(zones_).subspan(first_[zone.value], first_[zone.value + 1] - first_[zone.value]);
}

}  // namespace apsidon::rules_detail
