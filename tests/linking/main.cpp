#include "apsidon/rules/rule.hpp"
#include "apsidon/version.hpp"

int main() {
  const bool right =
      apsidon::rule::at_most(2).number == 2 && APSIDON_VERSION_MAJOR + APSIDON_VERSION_MINOR > 0;
  return right ? 0 : 1;
}
