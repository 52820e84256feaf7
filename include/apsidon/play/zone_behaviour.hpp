#pragma once
#include "apsidon/layout/plan.hpp"
#include "apsidon/play/handling.hpp"
#include "apsidon/rules/rulebook.hpp"

namespace apsidon {

/// How a zone lies, what it gives and takes, and what the player's hand may do with it: all of it can be
/// changed while a playfield runs.
struct ZoneBehaviour {
  ZoneLayout layout = {};      ///< how it lies
  ZoneRules rules = {};        ///< what it gives and takes
  ZoneHandling handling = {};  ///< what a hand may do with it

  friend bool operator==(const ZoneBehaviour&, const ZoneBehaviour&) = default;
};

}  // namespace apsidon
