#pragma once
#include <functional>
#include <utility>

#include "apsidon/play/input.hpp"

namespace apsidon {

/// Hears every input. May not call back into the playfield; it may set another recorder.
class Recorder {
 public:
  Recorder() = default;
  /// From a function that takes a `const Input&`.
  template <class Function>
  requires(!std::is_same_v<std::remove_cvref_t<Function>, Recorder>) Recorder(Function function)
      : hear_(std::move(function)) {}

  explicit operator bool() const { return static_cast<bool>(hear_); }
  void operator()(const Input& input) const { hear_(input); }

 private:
  std::function<void(const Input&)> hear_ = {};
};

}  // namespace apsidon
