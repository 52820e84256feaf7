#pragma once
// What of a playfield lasts from round to round. Not installed.
#include <array>
#include <cstddef>
#include <cstdint>

#include "apsidon/cards/ids.hpp"
#include "apsidon/motion/feel.hpp"
#include "apsidon/play/notice.hpp"
#include "apsidon/play/recorder.hpp"
#include "play/decides/callback.hpp"
#include "play/values/any_input.hpp"

namespace apsidon::play_detail {

/// What is the client's, and lasts from round to round.
struct Client {
  Feel feel = {};
  float corner_radius = 0;  ///< of a card, share of its width
  SeatId seat = {};         ///< who plays here
  std::size_t most_undos = 0;
  Callback<Recorder> recorder = {};
  Callback<Watcher> watcher = {};
  std::array<std::uint64_t, notice_kind_count> counts = {};  ///< by NoticeKind
  std::uint64_t inputs = 0;                                  ///< taken so far

  [[nodiscard]] std::uint64_t& count(NoticeKind kind) { return counts[static_cast<std::size_t>(kind)]; }
  [[nodiscard]] std::uint64_t count(NoticeKind kind) const { return counts[static_cast<std::size_t>(kind)]; }
  /// Counts what the client may want to hear of, and tells it.
  void note(const Notice& notice) {
    ++count(notice.kind);
    // A watcher that throws has heard enough for this time.
    if (watcher && watcher.call([](const auto& tell) { tell(); }, notice)) ++count(NoticeKind::callback);
  }
  /// The game's recorder hears of what has come in, if it has one.
  void record(const AnyInput& input, double now) {
    if (!recorder) return;
    const Input heard = input_of(input);
    if (const auto thrown = recorder.call([](const auto& tell) { tell(); }, heard))
      note({.kind = NoticeKind::callback, .time = now, .input = "recorder", .problem = *thrown});
  }
  /// Whether one of them runs: what the game calls meanwhile it calls from within its own function.
  [[nodiscard]] bool calls() const { return recorder.runs() || watcher.runs(); }
};

}  // namespace apsidon::play_detail
