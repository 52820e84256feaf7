#pragma once
#include <cstddef>
#include <initializer_list>
#include <memory>
#include <utility>
#include <vector>

namespace apsidon {

/// A list that is a value and cannot be changed, only replaced: its copies are one in memory, so that a rule
/// that ten thousand zones share takes the room of one. Copying is O(1).
template <class T>
class SharedList {
 public:
  SharedList() = default;
  SharedList(std::vector<T> items) {  // implicit: it is written wherever a vector would be
    if (!items.empty()) items_ = std::make_shared<const std::vector<T>>(std::move(items));
  }
  SharedList(std::initializer_list<T> items) : SharedList(std::vector<T>(items)) {}

  [[nodiscard]] const T* data() const { return items_ ? items_->data() : nullptr; }
  [[nodiscard]] std::size_t size() const { return items_ ? items_->size() : 0; }
  [[nodiscard]] bool empty() const { return !items_; }
  [[nodiscard]] const T* begin() const { return data(); }
  [[nodiscard]] const T* end() const { return data() + size(); }
  [[nodiscard]] const T& operator[](std::size_t i) const { return (*items_)[i]; }
  [[nodiscard]] const T& front() const { return items_->front(); }
  [[nodiscard]] const T& back() const { return items_->back(); }

  friend bool operator==(const SharedList& a, const SharedList& b) {
    return a.items_ == b.items_ || (a.items_ && b.items_ && *a.items_ == *b.items_);
  }

 private:
  std::shared_ptr<const std::vector<T>> items_ = {};
};

}  // namespace apsidon
