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
  /// O(1): takes the items.
  SharedList(std::vector<T> items) {  // implicit: it is written wherever a vector would be
    if (!items.empty()) items_ = std::make_shared<const std::vector<T>>(std::move(items));
  }
  /// `{a, b}` may stand wherever a list is wanted.
  SharedList(std::initializer_list<T> items) : SharedList(std::vector<T>(items)) {}

  [[nodiscard]] const T* data() const { return items_ ? items_->data() : nullptr; }  ///< null when empty
  [[nodiscard]] std::size_t size() const { return items_ ? items_->size() : 0; }     ///< how many
  [[nodiscard]] bool empty() const { return !items_; }            ///< whether there are none
  [[nodiscard]] const T* begin() const { return data(); }         ///< the first
  [[nodiscard]] const T* end() const { return data() + size(); }  ///< behind the last
  /// From 0, less than `size()`.
  [[nodiscard]] const T& operator[](std::size_t i) const { return (*items_)[i]; }
  [[nodiscard]] const T& front() const { return items_->front(); }  ///< not of an empty list
  [[nodiscard]] const T& back() const { return items_->back(); }    ///< not of an empty list

  friend bool operator==(const SharedList& a, const SharedList& b) {
    return a.items_ == b.items_ || (a.items_ && b.items_ && *a.items_ == *b.items_);
  }

 private:
  std::shared_ptr<const std::vector<T>> items_ = {};
};

/// A value that may not be there, and cannot be changed, only replaced: likewise its copies are one in
/// memory.
template <class T>
class Shared {
 public:
  Shared() = default;
  /// There it is.
  Shared(T value) : value_(std::make_shared<const T>(std::move(value))) {}  // implicit, as of an optional

  [[nodiscard]] explicit operator bool() const { return value_ != nullptr; }  ///< whether it is there
  [[nodiscard]] const T& operator*() const { return *value_; }        ///< not of one that is not there
  [[nodiscard]] const T* operator->() const { return value_.get(); }  ///< likewise

  friend bool operator==(const Shared& a, const Shared& b) {
    return a.value_ == b.value_ || (a.value_ && b.value_ && *a.value_ == *b.value_);
  }

 private:
  std::shared_ptr<const T> value_ = {};
};

}  // namespace apsidon
