#pragma once
#include <stdexcept>

#include "apsidon/core_export.hpp"

namespace apsidon {

/// Misuse of a set-up call (options, decks, zones, plans): thrown before anything is changed. The text names
/// the thing, the value found and what is expected. Calls of a running playfield never throw it.
class APSIDON_CORE_EXPORT Error : public std::runtime_error {
 public:
  using std::runtime_error::runtime_error;
  Error(const Error&) = default;  ///< never throws, as of every exception
  ~Error() override;
};

}  // namespace apsidon
