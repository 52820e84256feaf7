#pragma once
// The inside of a playfield: its rooms, and the order in which they are called. Not installed.
//
// Nothing is decided here. A room is passed what it needs and returns what it wants; who asks whom, and when,
// is what these functions are. docs/architecture.md has the picture.
#include <cstdint>
#include <optional>
#include <span>

#include "apsidon/play/options.hpp"
#include "apsidon/play/outcome.hpp"
#include "play/decides/playable.hpp"
#include "play/decides/referee.hpp"
#include "play/keeps/arrangement.hpp"
#include "play/keeps/client.hpp"
#include "play/keeps/event_queue.hpp"
#include "play/keeps/gate.hpp"
#include "play/keeps/ids.hpp"
#include "play/keeps/inbox.hpp"
#include "play/keeps/panels.hpp"
#include "play/keeps/schedule.hpp"
#include "play/keeps/switches.hpp"
#include "play/keeps/traffic.hpp"
#include "play/order/admit.hpp"
#include "play/reads/frame_builder.hpp"
#include "play/reads/hit_view.hpp"
#include "play/requests/focus.hpp"
#include "play/requests/hand.hpp"
#include "play/requests/hover.hpp"
#include "play/requests/performances.hpp"
#include "play/requests/selection.hpp"

namespace apsidon::play_detail {

/// Why the gate is closed while cards are compared.
inline constexpr std::string_view comparing_reason = "comparing";

/// Why it is closed while a performance runs that keeps it so.
inline constexpr std::string_view performing_reason = "performing";

/// Why it is closed while a game is finished.
inline constexpr std::string_view finishing_reason = "finishing";

/// The next thing that happens by itself.
struct Due {
  double time = 0;       ///< of the inputs
  bool by_hand = false;  ///< by a pointer that rests; otherwise by the table's clock
  double own = 0;        ///< when the next comes by the table's clock, on that
  double cards = 0;      ///< likewise by that of the cards
};

/// All rooms, and what one is shown of the others.
struct Rooms {
  Rooms(TableSetup setup, const PlayfieldOptions& options);

  // What the rooms are asked with.
  [[nodiscard]] const TableSetup& setup() const { return referee.setup(); }
  [[nodiscard]] const Table& table() const { return referee.table(); }
  [[nodiscard]] const Feel& feel() const { return client.feel; }
  [[nodiscard]] PlayfieldOptions options() const;
  [[nodiscard]] double now() const { return schedule.now(); }
  [[nodiscard]] std::size_t slot(CardId card) const { return *table().slot(card); }
  [[nodiscard]] Scene scene() const { return {setup(), arrangement, traffic, feel()}; }
  [[nodiscard]] HoverView hover_view() const;
  [[nodiscard]] FocusView focus_view() const;
  [[nodiscard]] LayoutRequest layout_request() const;
  [[nodiscard]] FrameSources frame_sources() const;
  [[nodiscard]] std::optional<Hit> over(Vec2 point) const;
  const Frame& frame();
  [[nodiscard]] Hit hit(Vec2 point);
  void start_effect(CardId card, const CardEffect& effect, EffectKind kind, ClockIndex clock);

  Client client;
  Ids ids = {};
  Inbox inbox = {};
  PerformanceId behind = {};  // calls of the game are put behind it while this is one
  EventQueue events = {};
  Gate gate = {};
  Schedule schedule;
  Traffic traffic;
  Referee referee;  // the table comes before all that looks at it
  Arrangement arrangement;
  Panels panels;
  Switches switches;
  Hand hand;
  Hover hover;
  Focus focus = {};
  Selection selection = {};
  Playable playable;
  Performances performances = {};
  FrameBuilder frames = {};
  HitView hits = {};
};

/// What is called, in its order. What one source alone calls is in that source.
struct Impl : Rooms {
  Impl(TableSetup setup, const PlayfieldOptions& options);

  // Going on in time (impl_time.cpp).
  std::optional<Event> next_event(double until);
  void advance_to(double time);
  bool judge_standing(bool from_log = false);
  void do_due();
  void move_cards(double cards);
  [[nodiscard]] bool at_rest() const;
  [[nodiscard]] double settles_at() const;
  [[nodiscard]] double wakes_at() const;

  // Inputs and calls (impl_take.cpp).
  bool offer(AnyInput input);
  Outcome call(AnyInput input);
  Outcome put_behind(AnyInput input);
  Outcome call(const Script& script, bool closes_gate);
  Verdict may_call(std::string_view what);
  Verdict too_many(std::string_view input, std::size_t most);
  Outcome take(AnyInput input);
  void bring_foretold(double time);
  void record_answers();

  // Another window, another round, back to a snapshot (impl_rounds.cpp).
  void resize(const PlanWindow& window);
  void start_round(std::uint64_t seed, bool deals);
  void start_over(TableSetup setup);
  void restore(const Impl& snapshot);

  // What comes in (impl_input.cpp).
  bool pointer(const PointerInput& input);
  bool handle(const Gesture& gesture);
  [[nodiscard]] bool presses(const PointerInput& input);
  [[nodiscard]] bool reaches(const PointerInput& input);
  [[nodiscard]] bool reaches(const KeyInput& input) const;
  bool key(const KeyInput& input);
  Verdict focus_by_call(const Hit& what);
  Verdict choose(CardId card, bool on);
  void close_gate(std::string_view reason, bool lasts = false);
  void open_gate(std::string_view reason);
  void follow_comparing();
  void blur();
  Verdict turn(const SwitchInput& input);

  // From a pick-up to its end (impl_carry.cpp).
  void pick_up(CardId card, const Gesture& gesture, Hand::Carry as);
  void start_drag(const Gesture& gesture);
  void carry_to(Vec2 pointer, double time);
  void let_go(const Gesture& gesture);

  // Moves and what belongs to them (impl_moves.cpp).
  Verdict make(const Move& move, double time);
  Verdict refuse_pick(const Verdict& verdict, CardId card, ZoneId zone, Vec2 at, double time);
  Verdict propose(const Move& move, bool by_hand, const Release& release, double time);
  void end_made();
  std::vector<CardId> unlock(std::uint64_t proposal);
  void send_home(const Move& move, std::span<const CardId> cards);
  Verdict finish();
  void finish_next(double time);
  Verdict answer(std::uint64_t proposal, const Verdict& verdict, bool is_final);
  Verdict make_of_tap(TapKind does, const Hit& on, double time);
  Verdict go_back(bool redo);
  Verdict gone_back(bool redo, std::uint64_t proposal);
  void compare(double time);

  // What the game changes itself (impl_edits.cpp).
  Outcome edit(const Edit& edit);
  SyncReport sync(std::span<const WantedZone> wanted);
  void set_behaviour(ZoneId zone, const ZoneBehaviour& options);
  void set_plans(std::vector<Plan> plans);
  Verdict scroll_to(ZoneId zone, float offset);

  // Performances (impl_performances.cpp).
  PerformanceId perform(const Script& script, bool closes_gate = false);
  void end_steps(PerformanceId id);
  void skip(PerformanceId id);
  void stop(PerformanceId id);
};

/// Switched off by itself or with what holds it: the zone of a card, the overlay of a panel.
[[nodiscard]] bool is_off(const Impl& field, Switchable what);

}  // namespace apsidon::play_detail
