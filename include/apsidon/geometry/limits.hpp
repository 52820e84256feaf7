#pragma once
#include <cstddef>

namespace apsidon {

// What no game needs more of. Set-up calls throw Error beyond these, files are refused, and calls of a
// running client change nothing; docs/limits.md has all of them on one page.

inline constexpr std::size_t most_name_bytes = 200;     ///< of a zone, a rank, a plan …, in UTF-8
inline constexpr std::size_t most_text_bytes = 10'000;  ///< of what a panel shows, in UTF-8
inline constexpr std::size_t most_zones = 10'000;       ///< of a table
inline constexpr std::size_t most_panels = 10'000;      ///< of a table
inline constexpr std::size_t most_cards =
    100'000;  ///< of a table; the cells of a grid are numbered up to that
inline constexpr std::size_t most_links = 100'000;       ///< between the slots of a table
inline constexpr std::size_t most_faces = 1'000'000;     ///< of a deck, and cards of each
inline constexpr std::size_t most_plans = 100;           ///< of a table
inline constexpr std::size_t most_plan_nodes = 100'000;  ///< of all plans of a table
/// How deep plans, rules and scripts are nested.
inline constexpr int most_nesting = 24;

}  // namespace apsidon
