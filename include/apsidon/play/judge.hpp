#pragma once
#include <functional>
#include <optional>

#include "apsidon/cards/verdict.hpp"
#include "apsidon/play/proposal.hpp"

namespace apsidon {

/// The game's own answer to a move that the rules allow: a verdict now, or nothing: it comes later, by
/// `moves().answer`. May ask the playfield, but not change it; it may set another judge.
using Judge = std::function<std::optional<Verdict>(const Proposal&)>;

}  // namespace apsidon
