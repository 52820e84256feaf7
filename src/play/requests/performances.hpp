#pragma once
// Scripts that run. Not installed.
#include <algorithm>
#include <cstddef>
#include <cstdint>
#include <limits>
#include <optional>
#include <set>
#include <span>
#include <string>
#include <utility>
#include <vector>

#include "apsidon/play/script.hpp"
#include "play/keeps/arrangement.hpp"
#include "play/keeps/event_queue.hpp"
#include "play/keeps/traffic.hpp"

namespace apsidon::play_detail {

/// What a performance looks at.
struct Scene {
  const TableSetup& setup;
  const Arrangement& arrangement;
  const Traffic& traffic;
  const Feel& feel;
};

/// How the cards of a step go.
struct StepPlan {
  Glide glide = {};
  std::vector<Departure> departures = {};
  std::vector<Cue> cues = {};
  double seconds = 0;  ///< the step takes at least so long
  /// An effect on cards that stay where they are.
  CardEffect effect = {};
  EffectKind effect_kind = EffectKind::swing;
  std::vector<CardId> with_effect = {};
};

/// Scripts, step by step. A step asks for a change of the table, which others make, and plans how the cards
/// go, which others send; it ends when the last of them was to land.
///
/// Each of these costs what happens, times the logarithm of what has not ended.
///
/// Invariant: a step begins once, at the very time at which the last of those it waits for ends; a
/// performance ends once.
class Performances {
 public:
  /// One step of a performance.
  struct Step {
    PerformanceId performance = {};
    std::size_t index = 0;
  };

  void add(PerformanceId id, ClockIndex clock, const Script& script, const Feel& feel,
           bool closes_gate = false);
  [[nodiscard]] bool running(PerformanceId id) const { return find(id) != nullptr; }
  [[nodiscard]] bool any() const { return !list_.empty(); }
  [[nodiscard]] std::size_t count() const { return list_.size(); }
  /// Whether one runs that keeps the gate closed.
  [[nodiscard]] bool closes_gate() const {
    return std::any_of(list_.begin(), list_.end(), [](const Performance& p) { return p.closes_gate; });
  }
  /// Whether a step sends those cards, too, that only lie elsewhere in their zone.
  [[nodiscard]] bool sends_within(const Step& step) const { return node(step).kind == StepKind::straight; }
  /// Whether a step is to come that changes the table.
  [[nodiscard]] bool will_change_table() const {
    return std::any_of(list_.begin(), list_.end(), [](const Performance& p) { return p.changes_left > 0; });
  }
  [[nodiscard]] ClockIndex clock_of(PerformanceId id) const { return find(id)->clock; }
  /// Whether the script moves many cards at once, and so begins with an empty hand.
  [[nodiscard]] bool needs_empty_hand(PerformanceId id) const;

  // Beginning a step: `next_ready`, `change_of`, `plan`, `depart` for each card that was sent, `begun`.

  /// A step whose time has come; it counts as begun.
  [[nodiscard]] std::optional<Step> next_ready(PerformanceId id, const motion_detail::TableMotion& motion);
  /// What a step has the table changed by; nothing when it leaves the table as it is.
  [[nodiscard]] std::optional<Act> change_of(const Step& step, const Scene& scene) const;
  /// How its cards go, after the change, which has shifted cards.
  [[nodiscard]] StepPlan plan(const Step& step, const std::optional<Act>& change, std::vector<Shift> shifts,
                              const Scene& scene) const;
  /// A card of the step was sent, and lands at this time on the performance's clock.
  void depart(const Step& step, CardId card, double delay, double lands);
  void begun(const Step& step, const StepPlan& plan);

  // Going on.

  /// The next time on the table's clock at which there is something to tell or a step ends; infinity when
  /// there is none.
  [[nodiscard]] double due(const motion_detail::TableMotion& motion) const;
  /// The first performance of which a step has come to its end.
  [[nodiscard]] std::optional<PerformanceId> first_due(const motion_detail::TableMotion& motion) const;
  /// Ends the steps of a performance whose time has come. Returns whether there were any: others may be ready
  /// then.
  bool end_steps(PerformanceId id, const motion_detail::TableMotion& motion);
  /// All that has begun ends now.
  void cut_short(PerformanceId id);
  /// Whether all steps have ended.
  [[nodiscard]] bool finished(PerformanceId id) const;
  /// Tells of departures and cues whose time has come: of one performance, or of all.
  void tell(PerformanceId id, const motion_detail::TableMotion& motion, const Table& table, double time,
            EventQueue& events) {
    tell(*find(id), motion, table, time, events);
  }
  void tell(const motion_detail::TableMotion& motion, const Table& table, double time, EventQueue& events) {
    for (Performance& p : list_) tell(p, motion, table, time, events);
  }
  void remove(PerformanceId id);

 private:
  /// What an act is made of; some take several steps. A join waits for several and is over at once.
  enum class StepKind : std::uint8_t { single, straight, home, scatter, wreath, vanish, appear, join };
  /// Something to tell of when its time has come: a departure, or a cue.
  struct Beat {
    double at;
    CardId card = {};
    std::size_t cue = no_cue;  ///< of the node's cues
  };
  static constexpr std::size_t no_cue = ~std::size_t{0};
  struct Node {
    StepKind kind = StepKind::single;
    Act act = {};
    bool first = true;                   ///< it waits for none
    std::size_t waits_for = 0;           ///< nodes that have to end first
    std::vector<std::size_t> then = {};  ///< nodes that wait for it
    double starts = 0;                   ///< on the clock of the performance
    double ends = 0;                     ///< likewise
    std::vector<Beat> beats = {};
    std::vector<std::string> cues = {};
    std::size_t told = 0;  ///< beats
  };
  /// Nodes, by a time of theirs.
  using Agenda = std::set<std::pair<double, std::size_t>>;
  struct Performance {
    PerformanceId id = {};
    ClockIndex clock = 0;
    bool closes_gate = false;
    std::vector<Node> nodes = {};
    std::set<std::size_t> ready = {};
    Agenda ending = {};            ///< that have begun, by when they end
    Agenda telling = {};           ///< with beats that are to come, by the next of them
    std::size_t left = 0;          ///< that have not ended
    std::size_t changes_left = 0;  ///< that will change the table and have not begun
  };
  using Index = std::optional<std::size_t>;

  static constexpr double never = std::numeric_limits<double>::infinity();
  static constexpr double long_ago = -never;

  [[nodiscard]] const Performance* find(PerformanceId id) const;
  [[nodiscard]] Performance* find(PerformanceId id);
  [[nodiscard]] Node& node(const Step& step) { return find(step.performance)->nodes[step.index]; }
  [[nodiscard]] const Node& node(const Step& step) const { return find(step.performance)->nodes[step.index]; }
  static void tell(Performance& performance, const motion_detail::TableMotion& motion, const Table& table,
                   double time, EventQueue& events);
  [[nodiscard]] static bool changes_table(const Node& node);
  static void end(Performance& performance, std::size_t index);
  static std::size_t add(std::vector<Node>& nodes, StepKind kind, const Act& act,
                         std::span<const std::size_t> after);
  static std::size_t add(std::vector<Node>& nodes, StepKind kind, const Act& act, const Index& after);
  static Index compile(std::vector<Node>& nodes, const Script& script, Index after, const Feel& feel);
  static std::size_t compile(std::vector<Node>& nodes, const Act& act, const Index& after, const Feel& feel);

  // acts.cpp
  static StepPlan plan_act(const Node& node, std::vector<Shift> shifts, const Scene& scene);
  static StepPlan plan_deal(const Node& node, const Scene& scene);
  static StepPlan plan_changed(const Node& node, const Choreography& how, std::span<const Shift> shifts,
                               const Scene& scene);
  static StepPlan plan_scatter(const Node& node, std::span<const CardId> order, const Scene& scene);
  static StepPlan plan_vanish(std::span<const CardId> cards, const Scene& scene);
  static StepPlan plan_appear(const Node& node, PerformanceId id, const Scene& scene);
  static StepPlan plan_wreath(const Scene& scene);
  static StepPlan plan_home(const Node& node, PerformanceId id, const Scene& scene);

  std::vector<Performance> list_ = {};
};

}  // namespace apsidon::play_detail
