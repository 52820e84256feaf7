#pragma once
// Functions of the game's that are called. Not installed.
#include <optional>
#include <string>
#include <utility>

#include "geometry/thrown.hpp"

namespace apsidon::play_detail {

/// A function of the game's. It may throw, and it may set another in its place while it runs.
///
/// Invariant: what runs is not destroyed before it has returned, and runs once at a time. A copy does not
/// run.
template <class Function>
class Callback {
 public:
  Callback() = default;
  Callback(Function function) : function_(std::move(function)) {}
  Callback(const Callback& other) : function_(other.function_) {}
  Callback(Callback&& other) noexcept : function_(std::move(other.function_)) {}
  Callback& operator=(Callback other) noexcept {
    function_ = std::move(other.function_);
    replaced_ = true;
    return *this;
  }
  ~Callback() = default;

  explicit operator bool() const { return static_cast<bool>(function_); }
  [[nodiscard]] bool runs() const { return runs_; }
  /// Calls the function, which is there, and hands what it returns to `take`. What it threw, as text; nothing
  /// when it returned.
  template <class Take, class... Arguments>
  std::optional<std::string> call(Take take, const Arguments&... arguments) {
    Function running = std::exchange(function_, {});
    runs_ = true;
    replaced_ = false;
    auto thrown =
        geometry_detail::thrown_by([&] { take([&]() -> decltype(auto) { return running(arguments...); }); });
    runs_ = false;
    if (!replaced_) function_ = std::move(running);
    return thrown;
  }

 private:
  Function function_ = {};
  bool runs_ = false;
  bool replaced_ = false;
};

/// While this lives, a function of the game's runs on this thread, called by this asker. A copy of the asker
/// is another one: what is tried on it is tried from without.
class Asking {
 public:
  explicit Asking(const void* asker) : asker_(asker), outer_(std::exchange(innermost_, this)) {}
  Asking(const Asking&) = delete;
  Asking& operator=(const Asking&) = delete;
  ~Asking() { innermost_ = outer_; }

  [[nodiscard]] static bool is_done_by(const void* asker) {
    const Asking* asking = innermost_;
    while (asking && asking->asker_ != asker) asking = asking->outer_;
    return asking != nullptr;
  }

 private:
  static inline thread_local const Asking* innermost_ = nullptr;

  const void* asker_;
  const Asking* outer_;
};

}  // namespace apsidon::play_detail
