// An easing from a text is written as one that gives the same, and gives what is finite.
#include <cmath>

#include "apsidon/geometry/error.hpp"
#include "apsidon/motion/easing.hpp"
#include "fuzz.hpp"

using namespace apsidon;
using namespace apsidon::fuzz;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  try {
    const Easing easing = Easing::parse(text_of(data, size));
    const Easing again = Easing::parse(easing.text());
    for (const float x : {-1.0f, 0.0f, 1e-7f, 0.1f, 0.25f, 0.5f, 0.9999f, 1.0f, 2.0f}) {
      expect(std::isfinite(easing.value(x)) && std::isfinite(easing.at(x).slope), "an easing is finite");
      expect(easing.value(x) == again.value(x), "an easing reads back as the same: " + easing.text());
    }
  } catch (const Error& e) {
    expect(e.what()[0] != '\0', "a refusal says something");
  }
  return 0;
}
