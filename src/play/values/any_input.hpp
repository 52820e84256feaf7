#pragma once
// Every kind of input: what a client makes itself, and every call. Not installed.
#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "apsidon/cards/edit.hpp"
#include "apsidon/cards/verdict.hpp"
#include "apsidon/cards/wanted.hpp"
#include "apsidon/gesture/thresholds.hpp"
#include "apsidon/layout/panel_id.hpp"
#include "apsidon/layout/plan.hpp"
#include "apsidon/motion/feel.hpp"
#include "apsidon/play/event.hpp"
#include "apsidon/play/handling.hpp"
#include "apsidon/play/hit.hpp"
#include "apsidon/play/input.hpp"
#include "apsidon/play/panel.hpp"
#include "apsidon/play/script.hpp"
#include "apsidon/play/switchable.hpp"
#include "apsidon/play/zone_behaviour.hpp"
#include "apsidon/rules/goal.hpp"
#include "apsidon/rules/move.hpp"

namespace apsidon::play_detail {

/// Presses of a button are told even while the gate is closed, or are so no more.
struct LetThroughInput {
  PointerButton button = PointerButton::primary;
  bool on = true;
  double time = 0;

  friend bool operator==(const LetThroughInput&, const LetThroughInput&) = default;
};

/// The focus of the keys is put somewhere.
struct FocusInput {
  Hit on = {};
  double time = 0;

  friend bool operator==(const FocusInput&, const FocusInput&) = default;
};

/// A card is chosen, or is not any more; with no card, nothing is.
struct SelectInput {
  CardId card = {};
  bool on = true;
  double time = 0;

  friend bool operator==(const SelectInput&, const SelectInput&) = default;
};

/// A preview is shown, or with no card ended.
struct PreviewInput {
  CardId card = {};
  double time = 0;

  friend bool operator==(const PreviewInput&, const PreviewInput&) = default;
};

/// A card, a zone or a panel is switched off or on, hidden or shown, for a reason, or marked by a name.
struct SwitchInput {
  enum class What : std::uint8_t { off, on, hide, show, mark, unmark };
  What what = What::off;
  Switchable of = {};
  std::string reason = {};
  bool lasts = false;  ///< of off and hide: from round to round
  double seconds = 0;  ///< of mark: so long; 0: until it is taken back
  double time = 0;

  friend bool operator==(const SwitchInput&, const SwitchInput&) = default;
};

/// What the game's rules go by has changed: they are asked anew.
struct AskAgainInput {
  bool on_turn = true;  ///< it is this player's turn: that no move is left counts only then
  double time = 0;

  friend bool operator==(const AskAgainInput&, const AskAgainInput&) = default;
};

/// A zone lies, gives, takes and is handled in another way.
struct BehaviourInput {
  ZoneId zone = {};
  ZoneBehaviour behaviour = {};
  double time = 0;

  friend bool operator==(const BehaviourInput&, const BehaviourInput&) = default;
};

/// Zones and panels are arranged by other plans.
struct PlansInput {
  std::vector<Plan> plans = {};
  double time = 0;

  friend bool operator==(const PlansInput&, const PlansInput&) = default;
};

/// The game's answer to a proposal that waits.
struct AnswerInput {
  std::uint64_t proposal = 0;
  Verdict verdict = {};
  bool is_final = false;  ///< of a yes: the rules are not asked again
  double time = 0;

  friend bool operator==(const AnswerInput&, const AnswerInput&) = default;
};

/// What the game's judge said of a proposal when it was asked; none: the answer comes later.
struct JudgedInput {
  std::uint64_t proposal = 0;
  std::optional<Verdict> verdict = {};
  double time = 0;

  friend bool operator==(const JudgedInput&, const JudgedInput&) = default;
};

/// What a rule in the game's code said when it was asked.
struct OwnRuleInput {
  std::string rule = {};
  Verdict verdict = {};
  double time = 0;

  friend bool operator==(const OwnRuleInput&, const OwnRuleInput&) = default;
};

/// What a consequence in the game's code did when it was asked.
struct FollowedInput {
  std::string name = {};
  std::vector<Edit> edits = {};
  double time = 0;

  friend bool operator==(const FollowedInput&, const FollowedInput&) = default;
};

/// A move that a call makes.
struct MoveInput {
  Move move = {};
  double time = 0;

  friend bool operator==(const MoveInput&, const MoveInput&) = default;
};

/// What a tap does, by a call: a stock gives, a card is sent or flipped.
struct TapInput {
  TapKind tap = TapKind::draw;  ///< draw, send or flip
  CardId card = {};             ///< of send and flip
  ZoneId zone = {};             ///< of draw
  double time = 0;

  friend bool operator==(const TapInput&, const TapInput&) = default;
};

/// A change of the table by the game.
struct EditInput {
  Edit edit = {};
  double time = 0;

  friend bool operator==(const EditInput&, const EditInput&) = default;
};

/// What should lie where, by the game's own keys.
struct SyncInput {
  std::vector<WantedZone> wanted = {};
  double time = 0;

  friend bool operator==(const SyncInput&, const SyncInput&) = default;
};

/// The last move is taken back or made again by a call: by a button of the client's, say. Unlike the key, it
/// does not ask the gate.
struct UndoInput {
  bool redo = false;
  double time = 0;

  friend bool operator==(const UndoInput&, const UndoInput&) = default;
};

/// A game that is as good as won is finished.
struct FinishInput {
  double time = 0;

  friend bool operator==(const FinishInput&, const FinishInput&) = default;
};

/// The playfield has judged how the game stands, and told something of it. It does so by itself when a game
/// has answered all that happened at a time; a log says when, for the game may answer that, too.
struct StandingInput {
  Standing standing = Standing::open;
  double time = 0;

  friend bool operator==(const StandingInput&, const StandingInput&) = default;
};

/// A new round, dealt by this seed.
struct RoundInput {
  std::uint64_t seed = 0;
  bool deals = false;  ///< and the deal is shown
  double time = 0;

  friend bool operator==(const RoundInput&, const RoundInput&) = default;
};

/// A new round with another table.
struct StartOverInput {
  std::shared_ptr<const TableSetup> setup = {};  ///< not null
  double time = 0;

  friend bool operator==(const StartOverInput&, const StartOverInput&) = default;
};

/// Back to a snapshot: to how all was after so many inputs, at that time.
struct RestoreInput {
  std::uint64_t inputs = 0;
  double taken_at = 0;
  double time = 0;

  friend bool operator==(const RestoreInput&, const RestoreInput&) = default;
};

/// A script begins.
struct PerformInput {
  Script script = {};
  bool closes_gate = false;
  double time = 0;

  friend bool operator==(const PerformInput&, const PerformInput&) = default;
};

/// A performance is skipped to its end, stopped, or goes at another speed; or a card shakes or swells.
struct PerformanceInput {
  enum class What : std::uint8_t { skip, stop, speed, shake, pulse };
  What what = What::skip;
  PerformanceId performance = {};
  CardId card = {};                       ///< of shake and pulse
  std::optional<CardEffect> effect = {};  ///< of shake and pulse: in place of the feel's
  double speed = 1;                       ///< of speed
  double time = 0;

  friend bool operator==(const PerformanceInput&, const PerformanceInput&) = default;
};

/// The table's clock goes at another speed; a countdown begins, changes or ends.
struct ClockInput {
  enum class What : std::uint8_t {
    speed,
    start_timer,
    add,
    start,
    extend,
    reset,
    hold,
    release,
    stop,
    cards_speed
  };
  What what = What::speed;
  double number = 0;           ///< the speed, or seconds
  std::string reason = {};     ///< of hold and release: of a countdown
  bool at_first_move = false;  ///< of `add`
  CountdownId countdown = {};
  double time = 0;

  friend bool operator==(const ClockInput&, const ClockInput&) = default;
};

/// A panel shows something else.
struct PanelInput {
  PanelId panel = {};
  std::string text = {};
  float fill = 1;
  PanelTone tone = PanelTone::neutral;
  CountdownId countdown = {};  ///< whose share fills it, in place of `fill`; none: `fill` does
  double time = 0;

  friend bool operator==(const PanelInput&, const PanelInput&) = default;
};

/// A zone scrolls to an offset.
struct ScrollInput {
  ZoneId zone = {};
  float offset = 0;  ///< px
  double time = 0;

  friend bool operator==(const ScrollInput&, const ScrollInput&) = default;
};

/// Another feel, or other options of the hand.
struct FeelInput {
  Feel feel = {};
  double time = 0;

  friend bool operator==(const FeelInput&, const FeelInput&) = default;
};
struct DragOptionsInput {
  DragOptions options = {};
  double time = 0;

  friend bool operator==(const DragOptionsInput&, const DragOptionsInput&) = default;
};
struct HoverOptionsInput {
  HoverOptions options = {};
  double time = 0;

  friend bool operator==(const HoverOptionsInput&, const HoverOptionsInput&) = default;
};
struct ThresholdsInput {
  GestureThresholds options = {};
  double time = 0;

  friend bool operator==(const ThresholdsInput&, const ThresholdsInput&) = default;
};

struct AnyInput
    : std::variant<PointerInput, KeyInput, ResizeInput, BlurInput, ReasonInput, AnswerInput, JudgedInput,
                   OwnRuleInput, FollowedInput, MoveInput, TapInput, EditInput, SyncInput, UndoInput,
                   RoundInput, StartOverInput, RestoreInput, PerformInput, PerformanceInput, ClockInput,
                   SwitchInput, PanelInput, LetThroughInput, FocusInput, SelectInput, PreviewInput,
                   FinishInput, StandingInput, AskAgainInput, BehaviourInput, PlansInput, ScrollInput,
                   FeelInput, DragOptionsInput, HoverOptionsInput, ThresholdsInput> {
  using variant::variant;
};

[[nodiscard]] inline double time_of(const AnyInput& input) {
  return std::visit([](const auto& i) { return i.time; }, input);
}

/// The same input, as it is known outside and inside.
[[nodiscard]] APSIDON_CORE_EXPORT Input input_of(AnyInput input);
[[nodiscard]] APSIDON_CORE_EXPORT AnyInput any_of(const Input& input);

/// The input, if it is of this kind; null otherwise.
template <class Kind>
[[nodiscard]] const Kind* as(const Input& input) {
  const auto* call = std::get_if<CallInput>(&input);
  return call ? std::get_if<Kind>(&call->any()) : nullptr;
}

/// What the game answered belongs to the input before it.
[[nodiscard]] inline bool is_answer(const Input& input) {
  return as<OwnRuleInput>(input) || as<JudgedInput>(input) || as<FollowedInput>(input);
}

}  // namespace apsidon::play_detail
