#pragma once
#include <cstdint>

namespace apsidon {

/// Which files a file may name: the deck of a table, the pictures of an art.
enum class OtherFiles : std::uint8_t {
  within,    ///< in its own folder or below: a table from a stranger reads nothing else
  anywhere,  ///< as the system allows; for files of one's own
};

}  // namespace apsidon
