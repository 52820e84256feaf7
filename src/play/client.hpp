#pragma once
// What of a playfield lasts from round to round. Not installed.
#include <cstddef>
#include <cstdint>

#include "apsidon/motion/feel.hpp"
#include "apsidon/play/recorder.hpp"

namespace apsidon::play_detail {

/// What is the client's, and lasts from round to round.
struct Client {
  Feel feel = {};
  float corner_radius = 0;  ///< of a card, share of its width
  std::size_t most_undos = 0;
  Recorder recorder = {};
  std::uint64_t ignored = 0;  ///< inputs that could not be meant
  std::uint64_t inputs = 0;   ///< taken so far
};

}  // namespace apsidon::play_detail
