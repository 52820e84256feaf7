#pragma once
// The neighbours of many slots. Not installed.
#include <cstdint>
#include <span>
#include <utility>
#include <vector>

#include "apsidon/cards/ids.hpp"
#include "apsidon/core_export.hpp"

namespace apsidon::rules_detail {

/// Which of the two zones of a link finds the other.
enum class LinkWay : std::uint8_t { both, first_to_second };

/// The neighbours of each slot, found at once: for tables with many links.
class APSIDON_CORE_EXPORT Neighbours {
 public:
  Neighbours() = default;
  /// Of the zones that the links name. O(links).
  explicit Neighbours(std::span<const std::pair<ZoneId, ZoneId>> links, LinkWay way = LinkWay::both);

  /// In the order of the links; none for a zone that no link names. O(1).
  [[nodiscard]] std::span<const ZoneId> of(ZoneId zone) const;

 private:
  std::vector<std::uint32_t> first_ = {};  // by ZoneId: where its neighbours begin; one more at the end
  std::vector<ZoneId> zones_ = {};
};

}  // namespace apsidon::rules_detail
