// One way in: every input of a player and every call of the game is taken here, recorded, and done.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <span>
#include <utility>

#include "apsidon/geometry/error.hpp"
#include "layout/common.hpp"
#include "play/order/admit.hpp"
#include "play/order/following.hpp"
#include "play/order/impl.hpp"

namespace apsidon::play_detail {
namespace {

/// Whether a call has named what is not there.
bool names_nothing(Reason reason) {
  switch (reason) {
    case Reason::unknown_card:
    case Reason::unknown_zone:
    case Reason::unknown_proposal:
    case Reason::unknown_panel:
    case Reason::unknown_timer:
    case Reason::unknown_performance:
      return true;
    default:
      return false;
  }
}

/// Does what each kind of input asks for.
struct Taker {
  Impl& field;

  static Outcome used(bool is = true) { return {.used = is}; }
  static Outcome with(const Verdict& verdict) { return {.used = verdict.allowed(), .verdict = verdict}; }

  Outcome operator()(const PointerInput& i) const { return used(field.pointer(i)); }
  Outcome operator()(const KeyInput& i) const { return used(field.reaches(i) && field.key(i)); }
  Outcome operator()(const BlurInput&) const { return field.blur(), used(); }
  Outcome operator()(const ResizeInput& i) const {
    field.resize({.size = i.window, .insets = i.insets, .pixel_ratio = i.pixel_ratio});
    return used();
  }
  Outcome operator()(const ReasonInput& i) const {
    if (i.what == ReasonInput::What::close_gate) field.close_gate(i.reason, i.lasts);
    if (i.what == ReasonInput::What::open_gate) field.open_gate(i.reason);
    if (i.what == ReasonInput::What::forbid_undo) field.gate.forbid_undo(i.reason, i.lasts);
    if (i.what == ReasonInput::What::allow_undo) field.gate.allow_undo(i.reason);
    if (i.what == ReasonInput::What::hold) field.schedule.hold(i.reason);
    if (i.what == ReasonInput::What::release) field.schedule.release(i.reason);
    return used();
  }
  Outcome operator()(const AnswerInput& i) const {
    return with(field.answer(i.proposal, i.verdict, i.is_final));
  }
  Outcome operator()(const JudgedInput& i) const { return field.referee.trail().foretell(i), used(); }
  Outcome operator()(const OwnRuleInput& i) const { return field.referee.trail().foretell(i), used(); }
  Outcome operator()(const FollowedInput& i) const { return field.referee.trail().foretell(i), used(); }
  Outcome operator()(const MoveInput& i) const { return with(field.make(i.move, field.now())); }
  Outcome operator()(const TapInput& i) const {
    return with(field.make_of_tap(i.tap, {.card = i.card, .zone = i.zone}, field.now()));
  }
  Outcome operator()(const EditInput& i) const { return field.edit(i.edit); }
  Outcome operator()(const SyncInput& i) const {
    SyncReport report = field.sync(i.wanted);
    return {.used = report.verdict.allowed(), .verdict = report.verdict, .report = std::move(report)};
  }
  Outcome operator()(const UndoInput& i) const { return with(field.go_back(i.redo)); }
  Outcome operator()(const RoundInput& i) const { return field.start_round(i.seed, i.deals), used(); }
  Outcome operator()(const StartOverInput& i) const { return field.start_over(*i.setup), used(); }
  Outcome operator()(const RestoreInput&) const { return used(false); }  // without the snapshot it is nothing
  Outcome operator()(const PerformInput& i) const {
    return {.used = true, .id = field.perform(i.script, i.closes_gate).value};
  }
  Outcome operator()(const PerformanceInput& i) const {
    using What = PerformanceInput::What;
    const bool of_card = i.what == What::shake || i.what == What::pulse;
    if (of_card && !field.table().card(i.card)) return with({.reason = Reason::unknown_card, .card = i.card});
    if (!of_card && !field.performances.running(i.performance))
      return with({.reason = Reason::unknown_performance});
    if (i.what == What::skip) field.skip(i.performance);
    if (i.what == What::stop) field.stop(i.performance);
    if (i.what == What::speed)
      field.traffic.set_clock_speed(field.performances.clock_of(i.performance), i.speed);
    if (i.what == What::shake)
      field.start_effect(i.card, i.effect.value_or(field.feel().shake), EffectKind::swing, 0);
    if (i.what == What::pulse)
      field.start_effect(i.card, i.effect.value_or(field.feel().pulse), EffectKind::pulse, 0);
    return used();
  }
  Outcome operator()(const ClockInput& i) const {
    using What = ClockInput::What;
    Schedule& schedule = field.schedule;
    const double own = field.schedule.own();
    const auto there = [](bool is) {
      return with(is ? Verdict{} : Verdict{.reason = Reason::unknown_timer});
    };
    switch (i.what) {
      case What::speed:
        (void)schedule.clock().set_speed(i.number);
        return used();
      case What::cards_speed:
        schedule.set_cards_speed(i.number);
        return used();
      case What::start_timer: {
        const CountdownId id = field.ids.next_countdown();
        schedule.start_timer(id, i.number, own);
        return {.used = true, .id = id.value};
      }
      case What::add: {
        const CountdownId id = field.ids.next_countdown();
        schedule.add_countdown(id, i.number, i.at_first_move);
        return {.used = true, .id = id.value};
      }
      case What::start:
        return there(schedule.start_countdown(i.countdown, own));
      case What::extend:
        return there(schedule.extend_countdown(i.countdown, i.number, own));
      case What::reset:
        return there(schedule.reset_countdown(i.countdown, i.number));
      case What::hold:
        return there(schedule.hold_countdown(i.countdown, i.reason, own));
      case What::release:
        return there(schedule.release_countdown(i.countdown, i.reason, own));
      case What::stop:
        return there(schedule.remove_countdown(i.countdown));
    }
    return used(false);
  }
  Outcome operator()(const PanelInput& i) const {
    if (!field.panels.panel(i.panel)) return with({.reason = Reason::unknown_panel});
    if (i.countdown != CountdownId{} && !field.schedule.countdown(i.countdown))
      return with({.reason = Reason::unknown_timer});
    return field.panels.show(i), used();
  }
  Outcome operator()(const LetThroughInput& i) const {
    return field.gate.let_through(i.button, i.on), used();
  }
  Outcome operator()(const FocusInput& i) const { return with(field.focus_by_call(i.on)); }
  Outcome operator()(const SelectInput& i) const { return with(field.choose(i.card, i.on)); }
  Outcome operator()(const FinishInput&) const { return with(field.finish()); }
  Outcome operator()(const PreviewInput& i) const {
    if (i.card && !field.table().card(i.card)) return with({.reason = Reason::unknown_card, .card = i.card});
    field.hover.preview_card(i.card, field.hover_view(), field.events);
    if (field.hover.previewed() == i.card) return used();
    return with({.reason = Reason::no_preview, .card = i.card});
  }
  Outcome operator()(const SwitchInput& i) const { return with(field.turn(i)); }
  Outcome operator()(const StandingInput&) const { return used(field.judge_standing(true)); }
  Outcome operator()(const AskAgainInput& i) const {
    field.referee.set_on_turn(i.on_turn);
    return Following(field).ask_again(), used();
  }
  Outcome operator()(const BehaviourInput& i) const {
    return field.set_behaviour(i.zone, i.behaviour), used();
  }
  Outcome operator()(const PlansInput& i) const { return field.set_plans(i.plans), used(); }
  Outcome operator()(const ScrollInput& i) const { return with(field.scroll_to(i.zone, i.offset)); }
  Outcome operator()(const FeelInput& i) const { return field.client.feel = i.feel, used(); }
  Outcome operator()(const DragOptionsInput& i) const { return field.hand.set_options(i.options), used(); }
  Outcome operator()(const HoverOptionsInput& i) const { return field.hover.set_options(i.options), used(); }
  Outcome operator()(const ThresholdsInput& i) const {
    return field.hand.gestures().set_thresholds(i.options), used();
  }
};

}  // namespace

namespace {

bool would_use(Impl& field, const AnyInput& input);
Verdict ignore(Impl& field, Refusal why);
Verdict admit(Impl& field, AnyInput& input);
Verdict fits(Impl& field, const AnyInput& input);
Verdict has_room(Impl& field, const AnyInput& input);

bool would_use(Impl& field, const AnyInput& input) {
  if (const auto* i = std::get_if<PointerInput>(&input)) {
    const bool ends =
        i->phase == PointerPhase::up || i->phase == PointerPhase::cancel || i->phase == PointerPhase::leave;
    const bool may = field.gate.is_open() || field.reaches(*i);
    if (i->phase == PointerPhase::down && may && field.presses(*i)) field.inbox.claim(i->pointer);
    const bool use = field.inbox.claims(i->pointer);
    if (ends) field.inbox.release(i->pointer);
    return use;
  }
  if (const auto* i = std::get_if<KeyInput>(&input)) {
    if (!field.reaches(*i)) return false;
    // What keys before it will have done is not known yet.
    if (field.gate.is_open() && field.inbox.has_key()) return true;
    if (i->key == Key::undo || i->key == Key::redo)
      return field.gate.lets_undo() &&
             (i->key == Key::undo ? field.referee.can_undo() : field.referee.can_redo());
    const Trail::Aside only_tried(field.referee.trail());
    Focus tried = field.focus;
    EventQueue unheard;
    const KeyRequest asks = tried.read(*i, field.focus_view(), unheard);
    return asks == KeyRequest::moved ? tried.any() : asks != KeyRequest::unused;
  }
  return true;
}

/// An input or a call is ignored: that is counted, and the verdict says why.
Verdict ignore(Impl& field, Refusal why) {
  why.notice.time = field.now();
  field.client.note(why.notice);
  if (why.problem.empty()) why.problem = describe(why.notice);
  return {.reason = Reason::out_of_range, .arguments = {{"problem", std::move(why.problem)}}};
}

/// Whether an input can be meant.
Verdict admit(Impl& field, AnyInput& input) {
  std::optional<Refusal> wrong = refuse(input);
  return wrong ? ignore(field, std::move(*wrong)) : Verdict{};
}

/// Whether what an input would have the table be is possible with the table as it is.
Verdict fits(Impl& field, const AnyInput& input) {
  try {
    if (const auto* zone = std::get_if<BehaviourInput>(&input))
      check(zone->behaviour, zone->zone, field.setup());
    if (const auto* plans = std::get_if<PlansInput>(&input)) check(plans->plans, field.setup());
  } catch (const Error& e) {
    Refusal why{.notice = {.input = name_of(input)}};
    why.problem = e.what();
    return ignore(field, std::move(why));
  }
  return {};
}

/// Whether there is room for what an input would add to what lives already.
Verdict has_room(Impl& field, const AnyInput& input) {
  const auto full = [](std::size_t live, std::size_t most) { return live >= most ? most : 0; };
  // One that is held already is no further one.
  const auto full_of = [&](std::span<const std::string> reasons, const std::string& one) {
    const bool held = std::find(reasons.begin(), reasons.end(), one) != reasons.end();
    return held ? 0 : full(reasons.size(), most_reasons);
  };
  std::size_t most = 0;
  if (const auto* i = std::get_if<PointerInput>(&input)) {
    if (i->phase == PointerPhase::down) most = field.hand.gestures().has_room(i->pointer) ? 0 : most_pointers;
  } else if (std::holds_alternative<PerformInput>(input)) {
    most = full(field.performances.count(), most_performances);
  } else if (const auto* clock = std::get_if<ClockInput>(&input)) {
    using What = ClockInput::What;
    if (clock->what == What::start_timer) most = full(field.schedule.timers(), most_timers);
    if (clock->what == What::add) most = full(field.schedule.countdowns(), most_timers);
    if (clock->what == What::hold) most = full_of(field.schedule.reasons_of(clock->countdown), clock->reason);
  } else if (const auto* reason = std::get_if<ReasonInput>(&input)) {
    using What = ReasonInput::What;
    if (reason->what == What::close_gate) most = full_of(field.gate.reasons(), reason->reason);
    if (reason->what == What::forbid_undo) most = full_of(field.gate.undo_reasons(), reason->reason);
    if (reason->what == What::hold) most = full_of(field.schedule.holds(), reason->reason);
  } else if (const auto* off = std::get_if<SwitchInput>(&input)) {
    if (off->what == SwitchInput::What::off) most = full_of(field.switches.reasons_off(off->of), off->reason);
    if (off->what == SwitchInput::What::hide)
      most = full_of(field.switches.reasons_hidden(off->of), off->reason);
    if (off->what == SwitchInput::What::mark) most = full_of(field.switches.marks_of(off->of), off->reason);
  }
  return most == 0 ? Verdict{} : field.too_many(name_of(input), most);
}

}  // namespace

/// A function of the game's that is called from here may ask, but change nothing: what called it is not done
/// yet.
Verdict Impl::may_call(std::string_view what) {
  if (!referee.trail().asks() && !client.calls() && !layout_detail::in_custom_layout()) return {};
  const Notice notice{.kind = NoticeKind::callback, .time = now(), .input = what};
  client.note(notice);
  return {.reason = Reason::game_failed, .arguments = {{"problem", describe(notice)}}};
}

/// An input comes in and waits for its time. Returns whether it would be used as things are now.
bool Impl::offer(AnyInput input) {
  if (!may_call(name_of(input))) return false;
  if (!(std::abs(time_of(input)) <= most_input_seconds)) {
    client.note({.kind = NoticeKind::bad_time, .time = now(), .input = name_of(input)});
    return false;
  }
  if (!admit(*this, input)) return false;
  if (time_of(input) < now()) client.note({.kind = NoticeKind::late, .time = now(), .input = name_of(input)});
  if (inbox.size() >= most_waiting) {
    (void)too_many(name_of(input), most_waiting);
    return false;
  }
  const bool use = would_use(*this, input);
  inbox.put(std::move(input));
  return use;
}

/// A call of the game acts now, after all that is due now.
Outcome Impl::call(AnyInput input) {
  if (Verdict wrong = may_call(name_of(input)); !wrong) return {.verdict = wrong};
  if (Verdict wrong = admit(*this, input); !wrong) return {.verdict = wrong};
  if (behind) return put_behind(std::move(input));
  do_due();
  const std::string_view name = name_of(input);
  Outcome outcome = take(std::move(input));
  if (names_nothing(outcome.verdict.reason))
    client.note({.kind = NoticeKind::stale, .time = now(), .input = name});
  return outcome;
}

/// What the game says behind a performance is taken, and recorded, when that has ended.
Outcome Impl::put_behind(AnyInput input) {
  if (inbox.size() >= most_waiting) return {.verdict = too_many("behind", most_waiting)};
  inbox.put_behind(behind, std::move(input));
  return {.used = true};
}

/// Of a script that is too large not even a copy is made: it may be nested without end.
Outcome Impl::call(const Script& script, bool closes_gate) {
  if (!is_too_large(script)) return call(PerformInput{.script = script, .closes_gate = closes_gate});
  return {.verdict = ignore(*this, {.notice = {.kind = NoticeKind::too_large, .input = "perform"}})};
}

Verdict Impl::too_many(std::string_view input, std::size_t most) {
  Refusal why{.notice = {.kind = NoticeKind::too_many, .input = input}};
  why.problem = fmt::format("{}: {} of them live already, and no more are expected", input, most);
  return ignore(*this, std::move(why));
}

/// What is taken late counts, and is recorded, as of now.
Outcome Impl::take(AnyInput input) {
  if (const auto* of = std::get_if<BehaviourInput>(&input); of && !table().zone(of->zone))
    return {.verdict = {.reason = Reason::unknown_zone, .zone = of->zone}};
  if (Verdict wrong = fits(*this, input); !wrong) return {.verdict = wrong};
  if (Verdict wrong = has_room(*this, input); !wrong) return {.verdict = wrong};
  std::visit([&](auto& i) { i.time = now(); }, input);
  ++client.inputs;
  client.record(input, now());
  bring_foretold(now());
  Outcome outcome = std::visit(Taker{*this}, input);
  record_answers();
  return outcome;
}

/// What a log says that the game answered, in what is done next.
void Impl::bring_foretold(double time) {
  const auto foretold = [&]<class Answer>(const Answer* answer) {
    if (answer) referee.trail().foretell(*answer);
    return answer != nullptr;
  };
  while (inbox.due() <= time &&
         (foretold(inbox.first<OwnRuleInput>()) || foretold(inbox.first<JudgedInput>()) ||
          foretold(inbox.first<FollowedInput>())))
    (void)inbox.take();
}

void Impl::record_answers() {
  for (AnyInput& answer : referee.trail().take_told()) {
    std::visit([&](auto& i) { i.time = now(); }, answer);
    client.record(answer, now());
  }
  for (Notice& thrown : referee.trail().take_thrown()) {
    thrown.time = now();
    client.note(thrown);
  }
  if (auto problem = arrangement.take_thrown())
    client.note(
        {.kind = NoticeKind::callback, .time = now(), .input = "layout", .problem = *std::move(problem)});
}

}  // namespace apsidon::play_detail
