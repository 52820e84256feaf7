#pragma once
// What each kind of input is made of, with its ranges: one list for playing, writing and reading. Not
// installed.
#include <array>
#include <string_view>
#include <utility>

#include "apsidon/geometry/limits.hpp"
#include "play/values/any_input.hpp"
#include "play/values/fields.hpp"

namespace apsidon::play_detail {

// `fields(thing, visitor)` shows the visitor each part of it under its key, with what it is when nothing is
// said. `v.number` is refused outside of its range; `v.cut` is brought into it, and refused only where it is
// no number; so are `v.seconds`, of which what is no number counts as 0. Points, sizes and times have the
// ranges of input.hpp.

/// Scripts are not nested deeper, and have no more acts.
inline constexpr int most_script_depth = most_nesting;
inline constexpr int most_script_acts = 100'000;
/// The longest that an act waits, and a countdown or timer runs, seconds.
inline constexpr double most_act_seconds = 3600;
inline constexpr double most_clock_seconds = 1e9;

template <class Value, std::size_t N>
using Words = std::array<std::pair<std::string_view, Value>, N>;

inline constexpr Words<PointerPhase, 5> phases{{{"move", PointerPhase::move},
                                                {"down", PointerPhase::down},
                                                {"up", PointerPhase::up},
                                                {"cancel", PointerPhase::cancel},
                                                {"leave", PointerPhase::leave}}};
inline constexpr Words<PointerKind, 3> pointer_kinds{
    {{"mouse", PointerKind::mouse}, {"touch", PointerKind::touch}, {"pen", PointerKind::pen}}};
inline constexpr Words<Key, 13> key_words{{{"left", Key::left},
                                           {"right", Key::right},
                                           {"up", Key::up},
                                           {"down", Key::down},
                                           {"next", Key::next},
                                           {"previous", Key::previous},
                                           {"act", Key::act},
                                           {"second", Key::second},
                                           {"cancel", Key::cancel},
                                           {"undo", Key::undo},
                                           {"redo", Key::redo},
                                           {"send", Key::send},
                                           {"send-top", Key::send_top}}};
inline constexpr Words<ReasonInput::What, 6> reason_words{{{"close_gate", ReasonInput::What::close_gate},
                                                           {"open_gate", ReasonInput::What::open_gate},
                                                           {"hold", ReasonInput::What::hold},
                                                           {"release", ReasonInput::What::release},
                                                           {"forbid_undo", ReasonInput::What::forbid_undo},
                                                           {"allow_undo", ReasonInput::What::allow_undo}}};
inline constexpr Words<bool, 2> undo_words{{{"undo", false}, {"redo", true}}};
inline constexpr Words<MoveKind, 9> move_words{{{"run", MoveKind::run},
                                                {"several", MoveKind::several},
                                                {"draw", MoveKind::draw},
                                                {"recycle", MoveKind::recycle},
                                                {"flip", MoveKind::flip},
                                                {"reorient", MoveKind::reorient},
                                                {"named", MoveKind::named},
                                                {"undo", MoveKind::undo},
                                                {"redo", MoveKind::redo}}};
inline constexpr Words<EditKind, 16> edit_words{{{"move", EditKind::move},
                                                 {"swap", EditKind::swap},
                                                 {"flip", EditKind::flip},
                                                 {"set-sideways", EditKind::set_sideways},
                                                 {"set-face", EditKind::set_face},
                                                 {"set-cell", EditKind::set_cell},
                                                 {"set-position", EditKind::set_position},
                                                 {"scatter", EditKind::scatter},
                                                 {"shuffle", EditKind::shuffle},
                                                 {"conceal", EditKind::conceal},
                                                 {"cut", EditKind::cut},
                                                 {"create", EditKind::create},
                                                 {"remove", EditKind::remove},
                                                 {"set-number", EditKind::set_number},
                                                 {"set-turn", EditKind::set_turn},
                                                 {"mark-move", EditKind::mark_move}}};
inline constexpr Words<Script::Kind, 3> script_words{
    {{"act", Script::Kind::act}, {"sequence", Script::Kind::sequence}, {"together", Script::Kind::together}}};
inline constexpr Words<ActKind, 12> act_words{{{"deal", ActKind::deal},
                                               {"gather", ActKind::gather},
                                               {"shuffle", ActKind::shuffle},
                                               {"scatter", ActKind::scatter},
                                               {"draw", ActKind::draw},
                                               {"move", ActKind::move},
                                               {"flip", ActKind::flip},
                                               {"shake", ActKind::shake},
                                               {"pulse", ActKind::pulse},
                                               {"collect", ActKind::collect},
                                               {"finale", ActKind::finale},
                                               {"wait", ActKind::wait}}};
inline constexpr Words<PerformanceInput::What, 5> performance_words{
    {{"skip", PerformanceInput::What::skip},
     {"stop", PerformanceInput::What::stop},
     {"speed", PerformanceInput::What::speed},
     {"shake", PerformanceInput::What::shake},
     {"pulse", PerformanceInput::What::pulse}}};
inline constexpr Words<ClockInput::What, 10> clock_words{{{"speed", ClockInput::What::speed},
                                                          {"start-timer", ClockInput::What::start_timer},
                                                          {"add-countdown", ClockInput::What::add},
                                                          {"start-countdown", ClockInput::What::start},
                                                          {"extend-countdown", ClockInput::What::extend},
                                                          {"reset-countdown", ClockInput::What::reset},
                                                          {"hold-countdown", ClockInput::What::hold},
                                                          {"release-countdown", ClockInput::What::release},
                                                          {"stop-countdown", ClockInput::What::stop},
                                                          {"cards-speed", ClockInput::What::cards_speed}}};
inline constexpr Words<PanelTone, 3> tone_words{
    {{"neutral", PanelTone::neutral}, {"good", PanelTone::good}, {"bad", PanelTone::bad}}};
inline constexpr Words<Standing, 4> standing_words{
    {{"open", Standing::open}, {"won", Standing::won}, {"lost", Standing::lost}, {"stuck", Standing::stuck}}};
inline constexpr Words<SwitchInput::What, 6> switch_words{{{"off", SwitchInput::What::off},
                                                           {"on", SwitchInput::What::on},
                                                           {"hide", SwitchInput::What::hide},
                                                           {"show", SwitchInput::What::show},
                                                           {"mark", SwitchInput::What::mark},
                                                           {"unmark", SwitchInput::What::unmark}}};

template <class V>
void fields(Verdict& x, V& v) {
  v.reason("reason", x.reason);
  v("card", x.card);
  v("face", x.face);
  v("onto", x.onto);
  v("zone", x.zone);
  v("wanted", x.wanted, 0);
  v("found", x.found, 0);
  v("alternative", x.alternative, -1);
  v("others", x.others, 0);
  v("key", x.key);
  v("rule", x.rule);
  v.arguments("arguments", x.arguments);
}

template <class V>
void fields(Move& m, V& v) {
  v("kind", m.kind, move_words, MoveKind::run);
  v("on", m.on, false);
  v("card", m.run.first);
  v("count", m.run.count);
  v("cards", m.cards);
  v("from", m.from);
  v("to", m.to);
  v("at", m.at);
  v("position", m.position);
  v("seat", m.seat);
  v("named", m.named, -1);
}

template <class V>
void fields(CardOptions& c, V& v) {
  v("face", c.face);
  v("key", c.key);
  v("face_up", c.face_up, true);
  v("sideways", c.sideways, false);
  v("cell", c.cell, -1);
  v("at", c.at, CardOptions{}.at);
  v.numbers("numbers", c.numbers);
}

template <class V>
void fields(Script& s, V& v) {
  v("kind", s.kind, script_words, Script::Kind::act);
  v("act", s.act.kind, act_words, ActKind::wait);
  v("from", s.act.from);
  v("to", s.act.to);
  v("cards", s.act.cards);
  v("count", s.act.count, std::size_t{1});
  v("face_up", s.act.face_up, true);
  v("keeps_sides", s.act.keeps_sides, false);
  v("seed", s.act.seed, std::uint64_t{1});
  v.seconds("seconds", s.act.seconds, 0, most_act_seconds);
  v.seconds("delays", s.act.delays, 0, most_act_seconds);
  v.parts("parts", s.parts);
}

// The first of each says what kind it is, and is always there.

template <class V>
void fields(PointerInput& i, V& v) {
  v.tag("pointer", i.phase, phases);
  v.always("at", i.at);
  v("id", i.pointer);
  v("kind", i.kind, pointer_kinds, PointerKind::mouse);
  v.button("button", i.button);
  v("shift", i.shift, false);
  v("control", i.control, false);
}

template <class V>
void fields(KeyInput& i, V& v) {
  v.tag("key", i.key, key_words);
  v("repeat", i.repeat, false);
}

template <class V>
void fields(ResizeInput& i, V& v) {
  v.tag("resize", i.window);
  v.number("pixel_ratio", i.pixel_ratio, 1.0f, least_pixel_ratio, most_pixel_ratio);
  v("insets", i.insets);
}

template <class V>
void fields(BlurInput&, V& v) {
  v.tag("blur");
}

template <class V>
void fields(ReasonInput& i, V& v) {
  v.tag(reason_words, i.what, i.reason);
  const bool may_last = i.what == ReasonInput::What::close_gate || i.what == ReasonInput::What::forbid_undo;
  if (may_last) v("lasts", i.lasts, false);
}

template <class V>
void fields(AnswerInput& i, V& v) {
  v.tag("answer", i.proposal);
  v.part("verdict", i.verdict);
  v("final", i.is_final, false);
}

template <class V>
void fields(JudgedInput& i, V& v) {
  v.tag("judged", i.proposal);
  v.judged(i.verdict);
}

template <class V>
void fields(OwnRuleInput& i, V& v) {
  v.tag("own", i.rule);
  v.part("verdict", i.verdict);
}

template <class V>
void fields(FollowedInput& i, V& v) {
  v.tag("followed", i.name);
  v.parts("edits", i.edits);
}

template <class V>
void fields(MoveInput& i, V& v) {
  v.tag("move", i.move);
}

template <class V>
void fields(TapInput& i, V& v) {
  v.tag("tap", i.tap, tap_names);
  v("card", i.card);
  v("zone", i.zone);
}

/// All of an edit but its kind.
template <class V>
void parts_of(Edit& e, V& v) {
  v("run", e.run.first);
  v("of", e.run.count);
  v("card", e.card);
  v("other", e.other);
  v("zone", e.zone);
  v("at", e.at);
  v("count", e.count, std::size_t{0});
  v("on", e.on, false);
  v("face", e.face);
  v("cell", e.cell, -1);
  v("position", e.position, Vec2{});
  v("seed", e.seed);
  v.part("made", e.made);
  v("name", e.name);
  v("value", e.value, 0);
  v("seat", e.seat);
  v("seats", e.seats);
}

template <class V>
void fields(Edit& e, V& v) {
  v("kind", e.kind, edit_words, EditKind::move);
  parts_of(e, v);
}

template <class V>
void fields(EditInput& i, V& v) {
  v.tag("edit", i.edit.kind, edit_words);
  parts_of(i.edit, v);
}

template <class V>
void fields(SyncInput& i, V& v) {
  v.wanted("sync", i.wanted);
}

template <class V>
void fields(UndoInput& i, V& v) {
  v.tag(undo_words, i.redo);
}

template <class V>
void fields(RoundInput& i, V& v) {
  v.tag("round", i.seed);
  v("deals", i.deals, false);
}

template <class V>
void fields(StartOverInput& i, V& v) {
  v.table("start_over", i.setup);
}

template <class V>
void fields(RestoreInput& i, V& v) {
  v.tag("restore", i.inputs);
  v.number("taken_at", i.taken_at, 0.0, -most_input_seconds, most_input_seconds);
}

template <class V>
void fields(PerformInput& i, V& v) {
  v.tag("perform", i.script);
  v("closes_gate", i.closes_gate, false);
}

template <class V>
void fields(PerformanceInput& i, V& v) {
  v.tag("performance", i.what, performance_words);
  v("id", i.performance);
  v("card", i.card);
  v.effect("effect", i.effect);
  v.number("speed", i.speed, 1.0, 0, most_speed);
}

template <class V>
void fields(ClockInput& i, V& v) {
  v.tag("clock", i.what, clock_words);
  if (i.what == ClockInput::What::speed || i.what == ClockInput::What::cards_speed) {
    v.number("number", i.number, 0.0, 0, most_speed);
  } else {
    v.seconds("number", i.number, -most_clock_seconds, most_clock_seconds);
  }
  v("reason", i.reason);
  v("at_first_move", i.at_first_move, false);
  v("countdown", i.countdown);
}

template <class V>
void fields(PanelInput& i, V& v) {
  v.tag("panel", i.panel);
  v("text", i.text);
  v.cut("fill", i.fill, 1.0f, 0, 1);
  v("tone", i.tone, tone_words, PanelTone::neutral);
  v("countdown", i.countdown);
}

template <class V>
void fields(LetThroughInput& i, V& v) {
  v.tag("let_through", i.on);
  v.button("button", i.button);
}

template <class V>
void fields(FocusInput& i, V& v) {
  v.tag("focus");
  v("on_card", i.on.card);
  v("on_zone", i.on.zone);
  v("on_panel", i.on.panel);
}

template <class V>
void fields(SelectInput& i, V& v) {
  v.tag("select", i.on);
  v("card", i.card);
}

template <class V>
void fields(FinishInput&, V& v) {
  v.tag("finish");
}

template <class V>
void fields(PreviewInput& i, V& v) {
  v.tag("preview", i.card);
}

template <class V>
void fields(SwitchInput& i, V& v) {
  v.tag("switch", i.what, switch_words);
  v("card", i.of.card);
  v("zone", i.of.zone);
  v("panel", i.of.panel);
  v("reason", i.reason);
  if (i.what == SwitchInput::What::off || i.what == SwitchInput::What::hide) v("lasts", i.lasts, false);
  v.seconds("seconds", i.seconds, 0, most_act_seconds);
}

template <class V>
void fields(StandingInput& i, V& v) {
  v.tag("standing", i.standing, standing_words);
}

template <class V>
void fields(AskAgainInput& i, V& v) {
  v.tag("ask_again", i.on_turn);
}

template <class V>
void fields(BehaviourInput& i, V& v) {
  v.tag("behaviour", i.zone);
  v.zone("as", i.zone, i.behaviour);
}

template <class V>
void fields(PlansInput& i, V& v) {
  v.plans("plans", i.plans);
}

template <class V>
void fields(ScrollInput& i, V& v) {
  v.tag("scroll", i.zone);
  v.cut("offset", i.offset, 0.0f, -most_input_px, most_input_px);
}

template <class V>
void fields(FeelInput& i, V& v) {
  v.options("feel", i.feel);
}
template <class V>
void fields(DragOptionsInput& i, V& v) {
  v.options("drag", i.options);
}
template <class V>
void fields(HoverOptionsInput& i, V& v) {
  v.options("hover", i.options);
}
template <class V>
void fields(ThresholdsInput& i, V& v) {
  v.options("thresholds", i.options);
}

}  // namespace apsidon::play_detail
