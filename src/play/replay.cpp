#include "apsidon/play/replay.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <utility>

#include "apsidon/play/input.hpp"
#include "apsidon/play/playfield.hpp"

namespace apsidon {
namespace {

/// When a snapshot was taken: after so many inputs, at that time.
using Moment = std::pair<std::uint64_t, double>;

}  // namespace

std::size_t replay(Playfield& field, std::span<const Input> inputs, double until,
                   const std::function<void(const Event&)>& hear) {
  std::vector<Moment> moments;
  for (const Input& input : inputs) {
    if (const auto* i = std::get_if<RestoreInput>(&input)) moments.emplace_back(i->inputs, i->taken_at);
  }
  std::sort(moments.begin(), moments.end());
  std::map<Moment, Playfield> snapshots;
  const auto go_to = [&](double time) {
    while (const auto event = field.next_event(time)) hear(*event);
  };
  std::size_t missed = 0;
  std::uint64_t taken = 0;
  auto next = moments.begin();
  for (const Input& input : inputs) {
    if (time_of(input) > until) break;
    // What the game answered belongs to the input before.
    const bool answer =
        std::holds_alternative<OwnRuleInput>(input) || std::holds_alternative<JudgedInput>(input);
    for (; !answer && next != moments.end() && next->first == taken && next->second <= time_of(input);
         ++next) {
      go_to(next->second);
      snapshots.emplace(*next, field);
    }
    if (!answer) ++taken;
    const auto* back = std::get_if<RestoreInput>(&input);
    if (!back) {
      (void)field.input(input);
      continue;
    }
    go_to(back->time);
    const auto snapshot = snapshots.find({back->inputs, back->taken_at});
    if (snapshot == snapshots.end()) {
      ++missed;
    } else {
      field.restore(snapshot->second);
    }
  }
  // Beyond all clocks, as infinity is: to the end of the session.
  const bool on_a_clock = std::abs(until) <= most_input_seconds;
  go_to(on_a_clock ? until : inputs.empty() ? field.now() : time_of(inputs.back()));
  return missed;
}

}  // namespace apsidon
