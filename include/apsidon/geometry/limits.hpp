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
    100'000;                                      ///< of a table; the cells of a grid are numbered up to that
inline constexpr std::size_t most_seats = 100;    ///< of a table
inline constexpr std::size_t most_numbers = 100;  ///< of a table, a zone, a card or a seat
inline constexpr std::size_t most_links = 100'000;        ///< between the slots of a table
inline constexpr std::size_t most_faces = 1'000'000;      ///< of a deck, and cards of each
inline constexpr std::size_t most_plans = 100;            ///< of a table
inline constexpr std::size_t most_consequences = 1'000;   ///< of a table
inline constexpr std::size_t most_badges = 8;             ///< of a card
inline constexpr std::size_t most_named_moves = 100;      ///< of a table
inline constexpr std::size_t most_plan_nodes = 100'000;   ///< of all plans of a table
inline constexpr std::size_t most_parts_of_rule = 1'000;  ///< of one rule, with the zones that it lists
/// Of the rules of all zones of a table, with the zones and numbers that they list; what zones share counts
/// for each of them, because each is judged.
inline constexpr std::size_t most_rule_parts = 400'000;
inline constexpr std::size_t most_longest =
    10'000'000;  ///< cards that all zones of a table hold at their longest
/// Parts of rules that are asked to list moves, to look ahead, or for what follows from a move.
inline constexpr std::size_t most_asked = 20'000'000;
// Of what lives in a playfield at one time; more is refused, counted and told to the watcher.
inline constexpr std::size_t most_pointers = 100;        ///< that are down
inline constexpr std::size_t most_performances = 1'000;  ///< that run
inline constexpr std::size_t most_timers = 100'000;      ///< and so many countdowns
inline constexpr std::size_t most_reasons = 1'000;       ///< for one gate, one clock, one thing that is off
inline constexpr std::size_t most_proposals = 1'000;     ///< that wait for an answer
inline constexpr std::size_t most_waiting = 1'000'000;   ///< inputs whose time has not come
inline constexpr std::size_t most_snapshots = 1'000;     ///< that a replay keeps, of
inline constexpr std::size_t most_kept = 300'000;        ///< cards and zones in all
/// How deep plans, rules and scripts are nested.
inline constexpr int most_nesting = 24;

}  // namespace apsidon
