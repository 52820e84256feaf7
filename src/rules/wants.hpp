#pragma once
// What a zone wants, as it lies now. Not installed.
#include <cstddef>
#include <cstdint>
#include <vector>

#include "apsidon/rules/rulebook.hpp"

namespace apsidon::rules_detail {

/// The numbers of a face in one word, so that a look at it is one comparison: suit, rank, colour and set,
/// sixteen bits each, what it lacks all ones.
[[nodiscard]] constexpr std::uint64_t word_of(const FaceTraits& face) {
  const auto part = [](int number) { return static_cast<std::uint64_t>(static_cast<std::uint16_t>(number)); };
  return part(face.suit) | part(face.rank) << 16 | part(face.colour) << 32 | part(face.set) << 48;
}

/// A face as a question asks of it.
struct Asker {
  explicit Asker(const FaceTraits& face) : word(word_of(face)), rank(face.rank) {}

  std::uint64_t word;
  int rank;
};

/// Some of the numbers of a face, and how many cards there may be: a rule on a card that is known comes down
/// to that.
struct Want {
  std::uint64_t is = 0;    // 0 where the mask is
  std::uint64_t mask = 0;  // of the numbers that matter
  int least_rank = -1;
  std::uint32_t most = ~std::uint32_t{0};

  [[nodiscard]] bool takes(const Asker& face, std::size_t count) const {
    return ((face.word ^ is) & mask) == 0 && face.rank >= least_rank && count <= most;
  }
};

/// Adds to `out` what a rule asks for where a run comes to lie on a card of this face, or on an empty zone
/// (null): any of these wants, or nothing that a card could meet. False when it looks at more than the run's
/// face and length; then some may have been added.
bool collect_wants(const Rule& rule, const FaceTraits* below, std::vector<Want>& out);

}  // namespace apsidon::rules_detail
