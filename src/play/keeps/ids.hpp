#pragma once
// The numbers that a playfield gives out. Not installed.
#include <algorithm>
#include <cstdint>

#include "apsidon/play/event.hpp"

namespace apsidon::play_detail {

/// All counters of a playfield.
///
/// Invariant: no number is given out twice, not in a new round and not after a snapshot is restored.
class Ids {
 public:
  std::uint64_t next_proposal() { return ++proposals_; }
  [[nodiscard]] std::uint64_t last_proposal() const { return proposals_; }
  PerformanceId next_performance() { return {++performances_}; }
  CountdownId next_countdown() { return {++countdowns_}; }

  /// Goes on where whichever is further has stopped.
  void keep_ahead_of(const Ids& other) {
    proposals_ = std::max(proposals_, other.proposals_);
    performances_ = std::max(performances_, other.performances_);
    countdowns_ = std::max(countdowns_, other.countdowns_);
  }

 private:
  std::uint64_t proposals_ = 0;
  std::uint32_t performances_ = 0;
  std::uint32_t countdowns_ = 0;
};

}  // namespace apsidon::play_detail
