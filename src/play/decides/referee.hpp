#pragma once
// The only one that changes the table. Not installed.
#include <algorithm>
#include <cstddef>
#include <cstdint>
#include <limits>
#include <optional>
#include <span>
#include <string>
#include <utility>
#include <vector>

#include "apsidon/cards/history.hpp"
#include "apsidon/play/options.hpp"
#include "apsidon/play/script.hpp"
#include "apsidon/play/setup.hpp"
#include "apsidon/rules/move.hpp"
#include "cards/inside.hpp"
#include "play/decides/off_list.hpp"
#include "play/decides/own_code.hpp"
#include "play/decides/trail.hpp"
#include "play/keeps/event_queue.hpp"
#include "play/values/shift.hpp"
#include "rules/inside.hpp"
#include "rules/neighbours.hpp"

namespace apsidon::play_detail {

/// How a move was let go from the hand; of one that was not, where it was made.
struct Release {
  Vec2 at = {};
  Vec2 velocity = {};    ///< px per second
  bool flicked = false;  ///< by its speed, or so far to one side that it counts as that

  void tell(Event& event) const;
};

/// What came of a proposal.
struct Ruling {
  Verdict verdict = {};  ///< of a refused one: why
  bool waits = false;    ///< for the game's answer
};

using rules_detail::Comparison;

/// The table and its rules: proposals, moves and their consequences, history, comparing. Events are told of
/// what it changes; where the changed cards go is for others.
///
/// Invariant: every proposal ends once, as dropped, refused or superseded; a call that refuses leaves the
/// table as it was; whatever changed the table is seen by `history` before the next move.
class Referee {
 public:
  Referee(TableSetup setup, const PlayfieldOptions& options);

  [[nodiscard]] const TableSetup& setup() const { return setup_; }
  [[nodiscard]] const Table& table() const { return setup_.table; }
  /// The rules as they hold now: cards that wait for an answer may not be moved. What the game's own rules
  /// say is kept for the log.
  [[nodiscard]] Rulebook rulebook() const;
  /// The same for questions from outside, of which a log need not know.
  [[nodiscard]] Rulebook plain_rulebook() const;
  [[nodiscard]] PickVerdict judge_pick(CardId card) const;
  /// Whether what a move carries may be picked up by who makes it, as its run, or as chosen cards.
  [[nodiscard]] PickVerdict judge_pick(const Move& move) const;
  [[nodiscard]] bool can_undo() const { return history_.can_undo(); }
  [[nodiscard]] bool can_redo() const { return history_.can_redo(); }
  [[nodiscard]] std::span<const Proposal> waiting() const { return waiting_; }
  /// The cards of runs that wait, as they would lie at their targets.
  [[nodiscard]] std::span<const Guest> guests() const { return guests_; }
  /// After a change of the table, which may be of those cards.
  void find_guests();
  /// Of each proposal that waits: the cards with which it was made.
  [[nodiscard]] std::span<const std::vector<CardId>> waiting_cards() const { return waiting_cards_; }
  /// The cards that a move is about: of a draw and a recycling, those that the stock or the waste would give.
  [[nodiscard]] std::vector<CardId> cards_of(const Move& move) const;
  [[nodiscard]] bool comparing() const { return compare_at_.has_value(); }
  /// When the open cards are compared, or the next card goes to finish the game, on the table's clock;
  /// infinity when nothing of that is to come.
  [[nodiscard]] double due() const { return std::min(compare_due(), finish_at_); }
  [[nodiscard]] double compare_due() const { return compare_at_.value_or(never); }
  /// Grows whenever a proposal begins or ends to wait, and when what rules go by has changed.
  [[nodiscard]] std::uint64_t revision() const { return revision_; }

  [[nodiscard]] Trail& trail() { return trail_; }
  /// Functions that the table has only by name are those of the same name in another that was played before.
  [[nodiscard]] OwnCode& own_code() { return own_code_; }
  /// No card id of the table before is given out again.
  void keep_ids_ahead_of(const Table& before) {
    cards_detail::Inside::keep_ids_ahead_of(setup_.table, before.last_id());
  }

  // Moves: each is a proposal, whoever makes it.

  /// The rules answer at once; what they allow the game may answer, now or later. A move that is allowed is
  /// made.
  Ruling propose(const Proposal& proposal, const Release& release, double time, EventQueue& events);
  /// What the game says of a proposal; one of which it says nothing waits.
  Ruling ask_game(const Proposal& proposal);
  /// Whether an undo or redo waits for its answer.
  [[nodiscard]] bool goes_back() const;
  [[nodiscard]] const Proposal* find(std::uint64_t proposal) const;
  /// Answers a proposal that waited. An allowed one is made on the table as it is now, if the rules allow it
  /// by now; of a run that is final, whatever they say.
  Verdict answer(const Proposal& proposal, const Verdict& verdict, bool is_final, double time,
                 EventQueue& events);
  /// A proposal that waits, and whose cards lie already where it would have them; the first one first.
  [[nodiscard]] std::optional<Proposal> came_true() const;
  /// The game has made its move itself: it is dropped.
  void tell_made(const Proposal& proposal, double time, EventQueue& events) const;
  /// The cards that a proposal that waits locks; it ends.
  std::vector<CardId> end_waiting(std::uint64_t proposal);
  /// A proposal that waits whose cards are no longer those with which it was made, or lie elsewhere; the last
  /// one first.
  [[nodiscard]] std::optional<Proposal> torn() const;
  void supersede(const Proposal& proposal, double time, EventQueue& events) const;
  [[nodiscard]] Event event_of(EventKind kind, const Proposal& proposal, double time) const;

  /// What follows from a move that was made from this zone. Returns whether the move, or that, has taken
  /// cards off the table.
  bool follow_up(ZoneId from, double time, EventQueue& events);
  /// The move is whole: it is a step of undo.
  void finish_move() { history_.note(setup_.table); }
  /// What the game's own rules go by has changed: the standing is judged anew.
  void ask_again();
  /// Whether it is the player's turn; while it is not, that no move is left is no news.
  void set_on_turn(bool on_turn) { on_turn_ = on_turn; }
  [[nodiscard]] bool is_on_turn() const { return on_turn_ && (!seat_ || setup_.table.is_on_turn(seat_)); }
  Verdict go_back(bool redo, double own);

  // How the game stands. It is judged when the game has answered all that happened at a time: until then a
  // table without a move, or with its goal reached, may be on its way to another.

  [[nodiscard]] Standing standing() const { return standing_; }
  /// Whether the table, or what the rules go by, has changed since it was judged; `may_be_stuck`: nothing
  /// but the player moves cards now.
  [[nodiscard]] bool standing_is_due(bool may_be_stuck) const {
    return looked_at_ != setup_.table.revision() || (stuck_unless_changed_ && is_on_turn() && may_be_stuck);
  }
  /// Judges it and tells what is new. Returns whether anything was told.
  bool judge_standing(bool may_be_stuck, double time, EventQueue& events);

  // Finishing.

  [[nodiscard]] std::vector<Move> finishing_moves() const;
  [[nodiscard]] bool finishing() const { return finish_at_ < never; }
  [[nodiscard]] double finish_due() const { return finish_at_; }
  /// The next card goes at this time on the table's clock; never: it is over.
  void finish_at(double own) { finish_at_ = own; }
  /// Whether it can be done since the standing was judged last, and begins by itself.
  [[nodiscard]] bool finishes_by_itself() { return std::exchange(finishes_, false); }

  // Comparing (comparing.cpp).

  /// Begins to compare, if enough cards lie open and none are being compared.
  void begin_comparing(double own);
  /// The time to look at the open cards is over: what comes of it is told. None when the game has covered
  /// them meanwhile.
  std::optional<Comparison> end_comparing(double time, EventQueue& events);
  /// What came of it is done, as far as it is not, with what follows from that; it belongs to the last move.
  /// Returns whether cards were taken off the table.
  bool follow_comparison(const Comparison& comparison, double time, EventQueue& events);

  // What the game, and acts, change: not judged, nothing follows.

  template <class Change>
  auto edit(Change change) {
    return change(setup_.table);
  }
  /// How a zone lies and is played from now on, and by which plans all of them are arranged.
  void set_behaviour(ZoneId zone, ZoneBehaviour behaviour);
  void set_plans(std::vector<Plan> plans) { setup_.plans = std::move(plans); }
  /// What is switched off now.
  void switch_off(const OffList& off);
  /// Likewise of one thing, that is off for this reason, or not at all.
  void switch_off(const Switchable& what, std::optional<std::string> reason);
  /// What an act has the table changed by.
  void perform(const Act& act);
  /// Nothing before this can be undone.
  void forget_history() { history_.start(setup_.table); }
  void mark_move() { history_.note(setup_.table); }
  /// Cards that came to a grid that keeps cells get theirs. Belongs to every change.
  void give_cells();

  static constexpr double never = std::numeric_limits<double>::infinity();

 private:
  Verdict apply(const Proposal& proposal, const Release& release, double time, EventQueue& events,
                bool is_final = false);
  bool judge_goals(double time, EventQueue& events);
  bool judge_moves(bool may_be_stuck, double time, EventQueue& events);
  bool judge_finishing(double time, EventQueue& events);
  [[nodiscard]] bool has_moves() const;
  [[nodiscard]] static Event event_of(const MoveStep& step, double time);
  void note_waiting();
  [[nodiscard]] std::vector<ZoneId> zones_of(std::span<const CardId> cards) const;

  TableSetup setup_;
  SeatId seat_;  // who plays here
  OwnCode own_code_;
  rules_detail::Neighbours neighbours_;  // of its links, which never change
  rules_detail::Neighbours waited_;      // of its waits, which neither do
  OffList off_ = {};
  mutable Trail trail_ = {};  // of what was asked: nothing depends on it but the log
  History history_;
  std::vector<Proposal> waiting_ = {};
  std::vector<std::vector<CardId>> waiting_cards_ = {};
  std::vector<std::vector<ZoneId>> waiting_from_ = {};  // where each of them lay
  std::vector<std::uint64_t> waiting_since_ = {};       // the table's revision then
  std::vector<CardId> locked_ = {};                     // all of these
  std::vector<Guest> guests_ = {};                      // those of runs
  std::optional<double> compare_at_ = {};
  double finish_at_ = never;
  bool may_finish_ = false;
  bool finishes_ = false;  // by itself, since the standing was judged
  bool on_turn_ = true;
  bool stuck_unless_changed_ = false;  // no move was left, but more might change by itself then
  Standing standing_ = Standing::open;
  std::uint64_t looked_at_ = 0;             // the table's revision when the standing was judged
  std::vector<std::uint64_t> celled_ = {};  // by zone: its revision when cells were given
  std::uint64_t revision_ = 0;
  std::vector<MoveStep> steps_ = {};  // of the move that is being made, until what follows has followed
};

}  // namespace apsidon::play_detail
