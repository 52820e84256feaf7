#pragma once
#include <functional>
#include <span>
#include <string>
#include <vector>

#include "apsidon/cards/edit.hpp"
#include "apsidon/rules/move_step.hpp"
#include "apsidon/rules/rule.hpp"

namespace apsidon {

/// What a consequence in code is asked with.
struct FollowQuestion {
  const Table& table;               ///< after the move, and what has followed from it so far
  std::span<const MoveStep> steps;  ///< what that was, in order, from the move itself on
};

/// What is done now, in this order; nothing: nothing follows (any more). Cards can be moved, exchanged,
/// flipped, turned, put elsewhere in their zone, given other faces, made and removed, zones shuffled and cut,
/// numbers set, and the turn passed on; what cannot be done is passed over. It is asked again after all that
/// it did. It may not call back into the playfield that asks it.
using FollowFunction = std::function<std::vector<Edit>(const FollowQuestion&)>;

/// What follows a move by a rule of the table: the topmost cards of a zone go elsewhere, or what a function
/// of the game's says. It is looked for after every move, again and again until nothing follows; it belongs
/// to the move in undo, and whoever makes the move makes it too: a playfield, a bare table (`apply_move`),
/// who looks ahead.
///
///     setup.consequences = {{.cards = 2, .link = rule::same_rank(), .to = sold}};  // pairs are sold
///     setup.consequences = {{.name = "sell", .follow = sell}};
struct Consequence {
  std::vector<ZoneId> in = {};  ///< in which zones; none: in all but `to`
  /// So many topmost cards, all open, each of which follows the one below by `link`, [2, 100000]; 0: not by
  /// cards.
  int cards = 0;
  Rule link = {};  ///< of `cards`: asked for each and the one below it
  /// The topmost open card, or the two topmost, whose ranks, counted from 1, come to this, [1, 1000000]; 0:
  /// not by a sum.
  int sum = 0;
  ZoneId to = {};              ///< where these cards go, on top
  std::string counts = {};     ///< a number of the table that grows by one each time; empty: none
  std::string name = {};       ///< of one in code: it stands for it in files and logs
  FollowFunction follow = {};  ///< of one in code; none: it is not bound yet, and nothing follows
};

/// So often is looked for what follows a move; then, and after `most_asked` parts of rules, nothing follows
/// any more.
inline constexpr std::size_t most_follow_rounds = 10'000;

/// Throws Error when a zone is not there, a number is out of its range, or it is none of the three or
/// several.
APSIDON_CORE_EXPORT void check(const Consequence& consequence, const Table& table);

}  // namespace apsidon
