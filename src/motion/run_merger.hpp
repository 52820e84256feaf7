#pragma once
// Puts in order what comes in runs. Not installed.
#include <algorithm>
#include <cstddef>
#include <iterator>
#include <span>
#include <utility>
#include <vector>

namespace apsidon::motion_detail {

/// Sorts what mostly is in order, or comes in few rising or falling runs: those are found and merged. Equals
/// stay in their order. O(n log runs); takes nothing from the heap once it has been as large before, as
/// std::stable_sort would.
template <class T>
class RunMerger {
 public:
  template <class Less>
  void sort(std::span<T> items, Less less) {
    find_runs(items, less);
    if (ends_.size() < 2) return;
    if (spare_.size() < items.size()) spare_.resize(items.size());
    std::span<T> from = items;
    std::span<T> to(spare_.data(), items.size());
    while (ends_.size() > 1) {
      merge_pairs(from, to, less);
      std::swap(from, to);
    }
    if (from.data() != items.data()) std::move(from.begin(), from.end(), items.begin());
  }

 private:
  template <class Less>
  void find_runs(std::span<T> items, Less less) {
    ends_.clear();
    for (std::size_t begin = 0; begin < items.size();) {
      std::size_t end = begin + 1;
      while (end < items.size() && less(items[end], items[end - 1])) ++end;
      if (end - begin > 1) std::reverse(at(items, begin), at(items, end));
      while (end < items.size() && !less(items[end], items[end - 1])) ++end;
      ends_.push_back(end);
      begin = end;
    }
  }

  /// Each run with the next.
  template <class Less>
  void merge_pairs(std::span<T> from, std::span<T> to, Less less) {
    std::size_t begin = 0;
    std::size_t merged = 0;
    for (std::size_t i = 0; i < ends_.size(); i += 2) {
      const std::size_t middle = ends_[i];
      const std::size_t end = i + 1 < ends_.size() ? ends_[i + 1] : middle;
      std::merge(std::move_iterator(at(from, begin)), std::move_iterator(at(from, middle)),
                 std::move_iterator(at(from, middle)), std::move_iterator(at(from, end)), at(to, begin),
                 less);
      ends_[merged++] = begin = end;
    }
    ends_.resize(merged);
  }

  static auto at(std::span<T> items, std::size_t i) { return items.begin() + static_cast<std::ptrdiff_t>(i); }

  std::vector<T> spare_;
  std::vector<std::size_t> ends_;
};

}  // namespace apsidon::motion_detail
