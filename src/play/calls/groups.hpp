#pragma once
// A playfield as it is kept: its inside, and the groups of calls that act on it. Not installed.
#include "apsidon/play/edits_group.hpp"
#include "apsidon/play/gate_group.hpp"
#include "apsidon/play/hand_group.hpp"
#include "apsidon/play/moves_group.hpp"
#include "apsidon/play/performances_group.hpp"
#include "apsidon/play/rules_group.hpp"
#include "apsidon/play/switches_group.hpp"
#include "apsidon/play/time_group.hpp"
#include "apsidon/play/where_group.hpp"
#include "play/order/impl.hpp"

namespace apsidon::play_detail {

struct Groups {
  explicit Groups(Impl& field)
      : where(field),
        hand(field),
        rules(field),
        moves(field),
        edits(field),
        time(field),
        gate(field),
        switches(field),
        performances(field) {}

  WhereGroup where;
  HandGroup hand;
  RulesGroup rules;
  MovesGroup moves;
  EditsGroup edits;
  TimeGroup time;
  GateGroup gate;
  SwitchesGroup switches;
  PerformancesGroup performances;
};

/// Invariant: its groups act on itself, not on what it was copied from.
struct Whole : Impl {
  using Impl::Impl;
  Whole(const Whole& other) : Impl(other) {}
  Whole& operator=(const Whole&) = delete;
  ~Whole() = default;

  Groups groups{*this};
};

}  // namespace apsidon::play_detail
