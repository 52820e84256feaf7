// A session through every public call, its every choice from bytes; see tests/support/session.hpp for what
// has to hold.
#include "fuzz.hpp"
#include "play.hpp"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  const std::string why = apsidon::fuzz::play({data, size}, 200);
  apsidon::fuzz::expect(why.empty(), why);
  return 0;
}
