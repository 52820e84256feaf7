#pragma once
// Functions of the game's that are called. Not installed.
#include <exception>
#include <optional>
#include <string>
#include <utility>

#include "geometry/utf8.hpp"

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
    std::optional<std::string> thrown;
    try {
      take([&]() -> decltype(auto) { return running(arguments...); });
    } catch (const std::exception& e) {
      thrown = geometry_detail::as_utf8(e.what());
    } catch (...) {
      thrown = "something that is no std::exception";
    }
    runs_ = false;
    if (!replaced_) function_ = std::move(running);
    return thrown;
  }

 private:
  Function function_ = {};
  bool runs_ = false;
  bool replaced_ = false;
};

}  // namespace apsidon::play_detail
