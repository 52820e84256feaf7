#include "apsidon/play/replay.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <utility>

#include "apsidon/geometry/limits.hpp"
#include "apsidon/play/playfield.hpp"
#include "play/values/any_input.hpp"

namespace apsidon {
namespace {

using namespace play_detail;

/// When a snapshot was taken: after so many inputs, at that time.
using Moment = std::pair<std::uint64_t, double>;

}  // namespace

std::size_t replay(Playfield& field, std::span<const Input> inputs, double until,
                   const std::function<void(const Event&)>& hear) {
  std::vector<Moment> moments;
  std::map<Moment, std::size_t> uses;  // that are to come: after the last the snapshot goes
  for (const Input& input : inputs) {
    const auto* i = as<RestoreInput>(input);
    if (i && ++uses[{i->inputs, i->taken_at}] == 1) moments.emplace_back(i->inputs, i->taken_at);
  }
  std::sort(moments.begin(), moments.end());
  std::map<Moment, Playfield> snapshots;
  std::size_t kept = 0;  // cards and zones of all snapshots
  const auto weight = [](const Playfield& of) { return of.table().card_count() + of.table().zones().size(); };
  const auto go_to = [&](double time) {
    while (const auto event = field.next_event(time)) hear(*event);
  };
  std::size_t missed = 0;
  std::uint64_t taken = 0;
  auto next = moments.begin();
  for (const Input& input : inputs) {
    if (time_of(input) > until) break;
    // What the game answered belongs to the input before.
    const bool answer = is_answer(input);
    for (; !answer && next != moments.end() && next->first == taken && next->second <= time_of(input);
         ++next) {
      go_to(next->second);
      if (snapshots.size() >= most_snapshots || kept + weight(field) > most_kept) continue;
      kept += weight(field);
      snapshots.emplace(*next, field);
    }
    if (!answer) ++taken;
    const auto* back = as<RestoreInput>(input);
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
      if (--uses[snapshot->first] > 0) continue;
      kept -= weight(snapshot->second);
      snapshots.erase(snapshot);
    }
  }
  // Beyond all clocks, as infinity is: to the end of the session.
  const bool on_a_clock = std::abs(until) <= most_input_seconds;
  go_to(on_a_clock ? until : inputs.empty() ? field.now() : time_of(inputs.back()));
  return missed;
}

}  // namespace apsidon
