#pragma once
// Formations of slots, as a zone of a table file has them. Not installed.
#include "apsidon/layout/formation.hpp"
#include "files/reader.hpp"

namespace apsidon::files_detail {

/// Rows, a pyramid, a diamond or a ring, with its gaps, links and waits.
Formation formation_from(const Node& node);

}  // namespace apsidon::files_detail
