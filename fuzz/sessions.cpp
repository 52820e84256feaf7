// Random sessions by the thousand, without a fuzzer: fuzz_sessions COUNT [FIRST SEED]. The seed of one that
// fails is printed, and repeats it.
#include <chrono>
#include <cstdio>
#include <cstdlib>
#include <random>
#include <vector>

#include "fuzz.hpp"
#include "play.hpp"

int main(int argc, char** argv) {
  const long count = argc > 1 ? std::atol(argv[1]) : 1000;
  const std::uint64_t first = argc > 2 ? std::strtoull(argv[2], nullptr, 10) : 1;
  if (count < 1) return std::fprintf(stderr, "fuzz_sessions: '%s': a count from 1 is expected\n", argv[1]), 2;
  std::vector<std::uint8_t> bytes;
  long failed = 0;
  const auto begin = std::chrono::steady_clock::now();
  for (long i = 0; i < count && failed < 20; ++i) {
    const std::uint64_t seed = first + static_cast<std::uint64_t>(i);
    std::mt19937_64 random(seed);
    bytes.resize(50 + random() % 750);
    for (std::uint8_t& byte : bytes) byte = static_cast<std::uint8_t>(random());
    const std::string why = apsidon::fuzz::play(bytes, 60);
    if (why.empty()) continue;
    std::printf("session %llu: %s\n", static_cast<unsigned long long>(seed), why.c_str());
    ++failed;
  }
  const std::chrono::duration<double> seconds = std::chrono::steady_clock::now() - begin;
  std::printf("%ld sessions from seed %llu in %.0f s, %ld failed\n", count,
              static_cast<unsigned long long>(first), seconds.count(), failed);
  return failed == 0 ? 0 : 1;
}
