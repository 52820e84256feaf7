// Apart from its header, so that RapidCheck's engine is compiled once.
#include "support/property.hpp"

#include <sstream>

namespace apsidon::test {

void for_all(const std::string& what, int cases, const std::function<void(Random&)>& property) {
  const auto result = rc::detail::checkTestable([&] {
    Random random(*rc::gen::noShrink(rc::gen::resize(100, rc::gen::arbitrary<std::uint64_t>())));
    for (int i = 0; i < cases; ++i) property(random);
  });
  if (!result.is<rc::detail::SuccessResult>()) {
    std::ostringstream text;
    rc::detail::printResultMessage(result, text);
    FAIL(what << ": " << text.str());
  }
  SUCCEED(what);
}

}  // namespace apsidon::test
