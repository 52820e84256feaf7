#pragma once
// Which of many is due first. Not installed.
#include <algorithm>
#include <bit>
#include <cstddef>
#include <limits>
#include <vector>

namespace apsidon::motion_detail {

/// A tree of minima over a row of times: the least is at its root, and a change costs a look at each level.
class DueTree {
 public:
  /// Makes room for at least so many; new ones are never due.
  void make_room(std::size_t count) {
    if (count <= leaves_) return;
    std::vector<double> grown(2 * std::bit_ceil(count), never);
    const std::size_t leaves = grown.size() / 2;
    for (std::size_t i = 0; i < leaves_; ++i) grown[leaves + i] = nodes_[leaves_ + i];
    for (std::size_t i = leaves; i-- > 1;) grown[i] = std::min(grown[2 * i], grown[2 * i + 1]);
    nodes_ = std::move(grown);
    leaves_ = leaves;
  }
  [[nodiscard]] double least() const { return leaves_ > 0 ? nodes_[1] : never; }
  /// The first whose time is the least; there is one.
  [[nodiscard]] std::size_t first() const {
    std::size_t i = 1;
    while (i < leaves_) i = nodes_[2 * i] <= nodes_[2 * i + 1] ? 2 * i : 2 * i + 1;
    return i - leaves_;
  }
  void set(std::size_t at, double time) {
    std::size_t i = leaves_ + at;
    nodes_[i] = time;
    while ((i /= 2) > 0) {
      const double least = std::min(nodes_[2 * i], nodes_[2 * i + 1]);
      if (nodes_[i] == least) return;
      nodes_[i] = least;
    }
  }
  /// Sets all, each to what `time_of` says.
  template <class TimeOf>
  void set_all(TimeOf time_of) {
    for (std::size_t i = 0; i < leaves_; ++i) nodes_[leaves_ + i] = time_of(i);
    for (std::size_t i = leaves_; i-- > 1;) nodes_[i] = std::min(nodes_[2 * i], nodes_[2 * i + 1]);
  }
  /// The time is this or, if it was before, what it was.
  void lower(std::size_t at, double time) {
    for (std::size_t i = leaves_ + at; i > 0 && time < nodes_[i]; i /= 2) nodes_[i] = time;
  }

 private:
  static constexpr double never = std::numeric_limits<double>::infinity();

  std::vector<double> nodes_ = {};  // from 1: the root; the children of i are 2i and 2i + 1
  std::size_t leaves_ = 0;
};

}  // namespace apsidon::motion_detail
