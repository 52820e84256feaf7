#pragma once
// A session whose every choice comes from bytes.
#include <algorithm>
#include <functional>
#include <span>
#include <string>

#include "apsidon/apsidon.hpp"
#include "support/session.hpp"

namespace apsidon::fuzz {

/// Numbers of the bytes, two a number, until there are no more; then 0.
class Bytes {
 public:
  explicit Bytes(std::span<const std::uint8_t> bytes) : bytes_(bytes) {}

  [[nodiscard]] bool any() const { return !bytes_.empty(); }
  std::uint64_t next() {
    std::uint64_t number = 0;
    for (int i = 0; i < 2 && any(); ++i) {
      number = number << 8 | bytes_.front();
      bytes_ = bytes_.subspan(1);
    }
    // Spread over all bits: shares look at the upper ones, counts at the lower ones.
    return number * 0x0001000100010001u;
  }

 private:
  std::span<const std::uint8_t> bytes_;
};

/// Plays on while there are bytes, at most so many steps, and shows each to `seen`. Returns what does not
/// hold; empty when all does.
inline std::string play(
    std::span<const std::uint8_t> data, int most_steps,
    const std::function<void(const test::Session&)>& seen = [](const test::Session&) {}) {
  Bytes bytes(data);
  test::Random r([&] { return bytes.next(); });
  const Feel feels[] = {Feel{}, springy(), calm(), reduced(Feel{})};
  PlayfieldOptions options;
  options.window = {r.uniform(1, 1400), r.uniform(1, 1000)};
  options.feel = feels[r.below(4)];
  options.most_undos = 1 + r.below(5);
  options.start_time = r.chance(0.1f) ? -50 : r.chance(0.1f) ? 1.8e12 : 0;
  test::Session session(test::with_rules_in_code(r), options, true);
  for (int i = 0; i < most_steps && bytes.any(); ++i) {
    session.step(r);
    seen(session);
    if (std::string why = session.wrong(r); !why.empty()) return why;
  }
  session.finish();
  seen(session);
  return session.wrong_at_end();
}

}  // namespace apsidon::fuzz
