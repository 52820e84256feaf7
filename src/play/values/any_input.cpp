#include "play/values/any_input.hpp"

#include <type_traits>
#include <utility>

#include "apsidon/play/setup.hpp"

namespace apsidon {

CallInput::CallInput(play_detail::AnyInput input)
    : any_(std::make_shared<const play_detail::AnyInput>(std::move(input))) {}

bool operator==(const CallInput& a, const CallInput& b) { return *a.any_ == *b.any_; }

double time_of(const Input& input) {
  if (const auto* call = std::get_if<CallInput>(&input)) return time_of(call->any());
  return time_of(play_detail::any_of(input));
}

Input at_time(const Input& input, double time) {
  play_detail::AnyInput any = play_detail::any_of(input);
  std::visit([&](auto& i) { i.time = time; }, any);
  return play_detail::input_of(std::move(any));
}

namespace play_detail {

Input input_of(AnyInput input) {
  return std::visit(
      [](auto&& i) -> Input {
        if constexpr (std::is_constructible_v<Input, decltype(i)>) return std::move(i);
        if constexpr (!std::is_constructible_v<Input, decltype(i)>) return CallInput(std::move(i));
      },
      std::move(input));
}

AnyInput any_of(const Input& input) {
  return std::visit(
      [](const auto& i) -> AnyInput {
        if constexpr (std::is_same_v<decltype(i), const CallInput&>) return i.any();
        if constexpr (!std::is_same_v<decltype(i), const CallInput&>) return i;
      },
      input);
}

}  // namespace play_detail
}  // namespace apsidon
