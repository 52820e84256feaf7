#pragma once
// Properties over generated cases. The seed of a failing case is printed by RapidCheck; RC_PARAMS="seed=…"
// repeats it.
#include <rapidcheck.h>

#include <catch2/catch.hpp>
#include <cstdint>
#include <functional>
#include <string>

#include "support/random.hpp"

namespace apsidon::test {

/// Runs the check, which fails by RC_ASSERT, for 100 generated seeds, `cases` of its own choosing from each.
void for_all(const std::string& what, int cases, const std::function<void(Random&)>& property);

}  // namespace apsidon::test
