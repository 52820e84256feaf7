// Random sessions by the thousand, without a fuzzer: fuzz_sessions COUNT [FIRST SEED]. The seed of one that
// fails is printed, and repeats it. At the end there is one number of all that was told and shown: a change
// that is to leave everything as it is leaves that, too.
#include <chrono>
#include <cstdio>
#include <cstdlib>
#include <random>
#include <span>
#include <string_view>
#include <vector>

#include "apsidon/files/input_log.hpp"
#include "fuzz.hpp"
#include "play.hpp"

namespace {

using namespace apsidon;

/// Grows with what it is given (FNV-1a, 64 bits; http://www.isthe.com/chongo/tech/comp/fnv).
class Sum {
 public:
  void add(std::string_view bytes) {
    for (const char byte : bytes) sum_ = (sum_ ^ static_cast<unsigned char>(byte)) * 0x100000001B3u;
  }
  template <class Number>
  requires std::is_arithmetic_v<Number>
  void add(Number number) { add(std::string_view(reinterpret_cast<const char*>(&number), sizeof number)); }
  [[nodiscard]] unsigned long long get() const { return sum_; }

 private:
  std::uint64_t sum_ = 0xCBF29CE484222325u;
};

void add(Sum& sum, const Frame& frame) {
  for (const FrameItem& item : frame.items) {
    const Matrix& m = item.matrix;
    for (const float number : {m.a, m.b, m.c, m.d, m.tx, m.ty, item.opacity, item.lift, item.brightness})
      sum.add(number);
    for (const Vec2 corner : item.corners.corners) {
      sum.add(corner.x);
      sum.add(corner.y);
    }
    const Marks& marks = item.marks;
    for (const bool is : {marks.legal_target, marks.aimed_at, marks.held, marks.refused, marks.focus,
                          marks.hovered, marks.locked, marks.off, item.back})
      sum.add(is);
    for (const std::uint32_t id : {item.card.value, item.zone.value, item.face.value}) sum.add(id);
  }
  for (const FramePanel& panel : frame.panels) {
    for (const float number :
         {panel.area.min.x, panel.area.min.y, panel.area.max.x, panel.area.max.y, panel.fill})
      sum.add(number);
    sum.add(panel.text);
  }
}

}  // namespace

int main(int argc, char** argv) {
  const long count = argc > 1 ? std::atol(argv[1]) : 1000;
  const std::uint64_t first = argc > 2 ? std::strtoull(argv[2], nullptr, 10) : 1;
  if (count < 1) return std::fprintf(stderr, "fuzz_sessions: '%s': a count from 1 is expected\n", argv[1]), 2;
  std::vector<std::uint8_t> bytes;
  long failed = 0;
  Sum sum;
  const auto begin = std::chrono::steady_clock::now();
  for (long i = 0; i < count && failed < 20; ++i) {
    const std::uint64_t seed = first + static_cast<std::uint64_t>(i);
    std::mt19937_64 random(seed);
    bytes.resize(50 + random() % 750);
    for (std::uint8_t& byte : bytes) byte = static_cast<std::uint8_t>(random());
    std::size_t told = 0;
    const std::string why = fuzz::play(bytes, 60, [&](const test::Session& session) {
      add(sum, session.field().frame());
      for (; told < session.told().size(); ++told)
        sum.add(event_line(session.told()[told], session.field().table()));
    });
    if (why.empty()) continue;
    std::printf("session %llu: %s\n", static_cast<unsigned long long>(seed), why.c_str());
    ++failed;
  }
  const std::chrono::duration<double> seconds = std::chrono::steady_clock::now() - begin;
  std::printf("%ld sessions from seed %llu in %.0f s, %ld failed; their sum is %016llx\n", count,
              static_cast<unsigned long long>(first), seconds.count(), failed, sum.get());
  return failed == 0 ? 0 : 1;
}
