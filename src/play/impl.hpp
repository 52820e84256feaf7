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
#include "play/admit.hpp"
#include "play/arrangement.hpp"
#include "play/client.hpp"
#include "play/event_queue.hpp"
#include "play/focus.hpp"
#include "play/frame_builder.hpp"
#include "play/gate.hpp"
#include "play/hand.hpp"
#include "play/hit_view.hpp"
#include "play/hover.hpp"
#include "play/ids.hpp"
#include "play/inbox.hpp"
#include "play/panels.hpp"
#include "play/performances.hpp"
#include "play/referee.hpp"
#include "play/schedule.hpp"
#include "play/switches.hpp"
#include "play/traffic.hpp"

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

struct Impl {
  Impl(TableSetup setup, const PlayfieldOptions& options);

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
  [[nodiscard]] bool only_overlays() const;
  const Frame& frame();
  [[nodiscard]] Hit hit(Vec2 point);

  // Going on in time (impl_time.cpp).
  std::optional<Event> next_event(double until);
  void advance_to(double time);
  void note_lost_events();
  bool step(double until);
  [[nodiscard]] bool may_be_stuck() const;
  bool judge_standing(bool from_log = false);
  [[nodiscard]] Due next_due() const;
  bool happen_by(double time, const Due& due);
  void happen(const Due& due);
  void go_to(double time, const Due& due);
  void do_due();
  void move_cards(double cards);
  void run_table_due();
  void run_hand_due();
  [[nodiscard]] bool settles() const;
  [[nodiscard]] bool at_rest() const;
  [[nodiscard]] double settles_at() const;
  [[nodiscard]] double wakes_at() const;

  // Inputs and calls (impl_take.cpp).
  bool offer(Input input);
  [[nodiscard]] bool would_use(const Input& input);
  Outcome call(Input input);
  Outcome call(const Script& script, bool closes_gate);
  Verdict may_call(std::string_view what);
  Verdict ignore(Refusal why);
  Verdict admit(Input& input);
  Verdict fits(const Input& input);
  Verdict has_room(const Input& input);
  Verdict too_many(std::string_view input, std::size_t most);
  Outcome take(Input input);
  void bring_foretold(double time);
  void record_answers();

  // After a change (impl.cpp).
  void follow(std::span<const Shift> shifts, Change change, Sender& by);
  void make_room(Sender& by);
  void lay_out_changed(Sender& by);
  void after_change(Sender& by);
  void after_change();
  void cancel_torn(Sender& by);
  void aim_carries_again();
  void hold_again();
  void follow_switches();
  void follow_switch(Switchable what);
  void aim_keys();
  void ask_again();
  void supersede_torn();
  void apply(const HoverChange& change, Sender& by);
  [[nodiscard]] Offset risen_in_window(std::size_t slot) const;
  void consider_hover();
  void set_hovered(CardId card);
  void start_effect(CardId card, const CardEffect& effect, EffectKind kind, ClockIndex clock);
  void shake(CardId card);

  // Another window, another round, back to a snapshot (impl_rounds.cpp).
  void resize(const PlanWindow& window);
  void lay_out_window();
  void end_what_is_pending(const Referee* next);
  void start_round(std::uint64_t seed, bool deals);
  void start_over(TableSetup setup);
  void take_over_switches(const Impl& before);
  void restore(const Impl& snapshot);

  // What comes in (impl_input.cpp).
  bool pointer(const PointerInput& input);
  bool handle(const Gesture& gesture);
  bool slide(const Gesture& gesture);
  bool press(const Gesture& gesture);
  [[nodiscard]] bool presses(const PointerInput& input);
  [[nodiscard]] bool reaches(const PointerInput& input);
  [[nodiscard]] bool reaches(const KeyInput& input) const;
  [[nodiscard]] Hit pressed_by(Vec2 at, PointerKind kind, CardId hovered);
  bool tap(const Gesture& gesture);
  void act_on_tap(TapKind kind, const Hit& on, const Gesture& gesture);
  bool key(const KeyInput& input);
  bool press_key(const KeyInput& input);
  void send_top(double time);
  bool act_on_focus(TapKind other, double time);
  Verdict focus_by_call(const Hit& what);
  void set_focus(const Hit& what) { focus.set(what, focus_view(), events); }
  void keep_focus() { focus.keep(focus_view(), events); }
  void close_gate(std::string_view reason, bool lasts = false);
  void open_gate(std::string_view reason);
  void follow_comparing();
  void let_go_of_all(CancelCause cause);
  void blur();
  [[nodiscard]] Verdict find(const Hit& what) const;
  Verdict turn(const SwitchInput& input);

  // From a pick-up to its end (impl_carry.cpp).
  void pick_up(CardId card, const Gesture& gesture, Hand::Carry as);
  void start_drag(const Gesture& gesture);
  void carry_to(Vec2 pointer, double time);
  void let_go(const Gesture& gesture);
  void put_back(const Event& event, Sender& by);
  void forget_carry(Sender& by);
  void cancel_carry(Vec2 at, CancelCause cause, Sender& by);
  void cancel_all(CancelCause cause);

  // Moves and what belongs to them (impl_moves.cpp).
  Verdict make(const Move& move, double time);
  void put_back_before(const Move& move);
  Verdict refuse_pick(const Verdict& verdict, CardId card, ZoneId zone, Vec2 at, double time);
  Verdict propose(const Move& move, bool by_hand, const Release& release, double time);
  void shake_cards_of(const Move& move);
  void let_copies_fly();
  void lock(const Proposal& proposal);
  void end_made();
  std::vector<CardId> unlock(std::uint64_t proposal);
  void send_home(const Move& move, std::span<const CardId> cards);
  void finish_proposed(const Move& move, double time);
  void finish_move(ZoneId from, double time);
  Verdict finish();
  void finish_next(double time);
  Verdict answer(std::uint64_t proposal, const Verdict& verdict);
  Verdict flip_by_hand(CardId card, double time);
  Verdict draw_from(ZoneId stock, double time);
  Verdict send_best(CardId card, double time);
  Verdict go_back(bool redo);
  void compare(double time);

  // What the game changes itself (impl_edits.cpp).
  Outcome edit(const Edit& edit);
  SyncReport sync(std::span<const WantedZone> wanted);
  void show_on(CardId card);
  void show_on(std::span<const WantedZone> wanted);
  void set_behaviour(ZoneId zone, const ZoneBehaviour& options);
  void set_plans(std::vector<Plan> plans);
  void arrange_anew();
  Verdict scroll_to(ZoneId zone, float offset);

  // Performances (impl_performances.cpp).
  PerformanceId perform(const Script& script, bool closes_gate = false);
  void begin_steps(PerformanceId id);
  void follow_rest(std::vector<Shift>& shifts, const StepPlan& plan);
  void end_steps(PerformanceId id);
  void end_performance(PerformanceId id, EventKind kind);
  void skip(PerformanceId id);
  void stop(PerformanceId id);

  Client client;
  Ids ids = {};
  Inbox inbox = {};
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
  Performances performances = {};
  FrameBuilder frames = {};
  HitView hits = {};
};

/// Switched off by itself or with what holds it: the zone of a card, the overlay of a panel.
[[nodiscard]] bool is_off(const Impl& field, Switchable what);

}  // namespace apsidon::play_detail
