#pragma once
// In what order cards are drawn. Not installed.
#include <cstdint>
#include <span>
#include <vector>

#include "motion/run_merger.hpp"
#include "play/keeps/arrangement.hpp"
#include "play/keeps/traffic.hpp"

namespace apsidon::play_detail {

/// Invariant: after `update` every card of the table is listed once, in ascending order of its key; cards of
/// equal keys in the order of their zone.
class FrameOrder {
 public:
  struct Entry {
    std::uint64_t order;
    std::uint32_t rank;  ///< on the table: what is drawn with equal keys keeps the order of its zone
    std::uint32_t slot : 31;
    std::uint32_t away : 1;  ///< it is held, flies, or waits to

    [[nodiscard]] bool before(const Entry& other) const {
      return order != other.order ? order < other.order : rank < other.rank;
    }
    [[nodiscard]] bool shows_as(const Entry& other) const {
      return order == other.order && slot == other.slot && away == other.away;
    }
  };

  /// Orders the cards as they lie and fly now. `raised` ones, of which there are few, stand above their
  /// neighbours. O(cards); what has kept its order is not sorted again.
  void update(const Table& table, const Arrangement& arrangement, const Traffic& traffic,
              std::span<const CardId> raised);
  [[nodiscard]] std::span<const Entry> cards() const { return cards_; }
  /// As they were before the last `update`.
  [[nodiscard]] std::span<const Entry> before() const { return before_; }
  /// Whether a card lies in the zone, not only flies to it.
  [[nodiscard]] bool covers(ZoneId zone) const { return covered_[zone.value - 1] != 0; }

 private:
  std::size_t give_orders(const Table& table, const Arrangement& arrangement, const Traffic& traffic,
                          std::span<const CardId> raised);

  std::vector<Entry> cards_ = {};
  std::vector<Entry> before_ = {};
  std::vector<Entry> by_slot_ = {};  // scratch
  std::vector<Entry> strays_ = {};   // scratch
  motion_detail::RunMerger<Entry> merger_ = {};
  std::vector<char> covered_ = {};            // by zone
  std::vector<std::uint32_t> by_rank_ = {};   // slots, by index in the zones of the table
  std::uint64_t ranked_ = ~std::uint64_t{0};  // the revision of the table that `by_rank_` has
};

}  // namespace apsidon::play_detail
