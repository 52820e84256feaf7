#include "support/session.hpp"

#include <algorithm>
#include <cmath>
#include <iterator>
#include <limits>

#include "play/values/any_input.hpp"
#include "support/loop.hpp"
#include "support/tables.hpp"

namespace apsidon::test {
namespace {

constexpr double forever = std::numeric_limits<double>::infinity();
const double odd_numbers[] = {std::nan(""), forever, -forever, 0,    -1,   1e308, -1e308, 3.4e38,
                              1e-320,       1e13,    1.8e12,   -0.0, 1e-7, 1e7,   -1e7,   255};

std::optional<Verdict> judge(const Proposal& p) {
  if (p.id % 3 == 1) return std::nullopt;
  if (p.id % 7 == 2) return Verdict{.reason = Reason::refused_by_game, .zone = p.move.to};
  return Verdict{};
}

}  // namespace

TableSetup with_rules_in_code(Random& r) {
  TableSetup setup = random_setup(r);
  const Zone& any = setup.table.zones()[r.below(setup.table.zones().size())];
  setup.rules_of(any.id).drop = rule::own("odd", [](const RuleQuestion& q) {
    return q.card.value % 2 == 1 ? Verdict{} : q.answer(Reason::own_rule);
  });
  setup.layout_of(any.id).scrolls = true;
  setup.won = goal::when(rule::own("few", [](const RuleQuestion& q) {
    return q.table.card_count() % 5 == 0 ? Verdict{} : q.answer(Reason::own_rule);
  }));
  for (const Zone& zone : setup.table.zones()) {
    ZoneRules& rules = setup.rules_of(zone.id);
    ZoneHandling& handling = setup.handling_of(zone.id);
    rules.sorts = r.chance(0.3f);
    rules.inserts = r.chance(0.3f);
    rules.exchanges = r.chance(0.3f);
    rules.flips_uncovered = r.chance(0.3f);
    handling.tap = static_cast<TapKind>(r.below(8));
    if (handling.tap >= TapKind::select || r.chance(0.2f))
      rules.select =
          r.chance(0.5f) ? SelectRule{.when = rule::at_most(3)} : SelectRule{.link = rule::same_suit()};
    if (handling.tap == TapKind::flip || r.chance(0.2f)) rules.flip = rule::anything();
    if (handling.tap == TapKind::reorient || r.chance(0.2f)) rules.reorient = rule::anything();
    handling.hover = static_cast<HoverKind>(r.below(3));
    handling.playable = r.chance(0.2f) ? static_cast<PlayableLook>(r.below(3)) : PlayableLook::none;
    handling.zoom = r.chance(0.3f);
    handling.zooms_beside_zone = r.chance(0.3f);
    const ZoneId other{static_cast<std::uint32_t>(zone.id.value % setup.table.zones().size() + 1)};
    if (r.chance(0.3f))
      rules.stock = StockRule{.to = other, .gives = {r.between(1, 3)}, .passes = r.between(0, 2)};
    if (r.chance(0.2f)) {
      const auto end = static_cast<MatchEnd>(r.below(3));
      rules.flip = rule::anything();
      rules.match = MatchRule{.open = r.between(1, 3),
                              .end = end,
                              .to = end == MatchEnd::stay ? ZoneId{} : other,
                              .seconds = 0.3};
    }
    if (r.chance(0.2f)) handling.flick_to = FlickTargets::anywhere(other);
  }
  return setup;
}

Session::Session(const TableSetup& setup, const PlayfieldOptions& options, bool hostile)
    : setup_(setup), options_(options), hostile_(hostile), field_(setup, options), snapshot_(field_) {
  field_.set_recorder([this](const Input& input) { log_.push_back(input); });
  field_.moves().set_judge(judge);
}

InputLog Session::log() const { return {.options = options_, .table = fingerprint(setup_), .inputs = log_}; }

void Session::hear(const Event& event) {
  if (event.time != field_.now()) wrong_event_ = "an event is not told at its own time";
  if (!told_.empty() && event.time < told_.back().time)
    wrong_event_ = "an event is dated before one that was told";
  told_.push_back(event);
}

void Session::go(double seconds) {
  const double until = field_.now() + seconds;
  while (auto event = field_.next_event(until)) hear(*event);
}

double Session::number(Random& r, double low, double high) const {
  if (hostile_ && r.chance(0.15f)) return odd_numbers[r.below(std::size(odd_numbers))];
  return low + (high - low) * double{r.uniform(0, 1)};
}

double Session::time(Random& r) const {
  if (hostile_ && r.chance(0.2f)) return field_.now() + number(r, -2, 1);
  if (hostile_ && r.chance(0.05f)) return odd_numbers[r.below(8)];
  return field_.now() + double{r.uniform(0, 0.05f)};
}

CardId Session::card(Random& r) const {
  const Zone& zone = field_.table().zones()[r.below(field_.table().zones().size())];
  if (zone.cards.empty() || r.chance(0.1f)) return {static_cast<std::uint32_t>(r.below(70))};
  return zone.cards[r.below(zone.cards.size())];
}

ZoneId Session::zone(Random& r) const {
  return {static_cast<std::uint32_t>(r.below(field_.table().zones().size() + 2))};
}

Vec2 Session::some_point(Random& r) const {
  if (hostile_ && r.chance(0.05f))
    return {static_cast<float>(number(r, 0, 1e6)), static_cast<float>(number(r, -1e6, 1e6))};
  const auto pose = field_.where().live_pose(card(r));
  return pose && r.chance(0.8f) ? pose->centre : Vec2{r.uniform(0, 1200), r.uniform(0, 800)};
}

void Session::step(Random& r) {
  if (r.chance(0.7f)) go(double{r.uniform(0, 0.3f)});
  switch (r.below(9)) {
    case 8:
      return change_rules(r);
    case 0:
    case 1:
      return point(r);
    case 2:
    case 3:
      return play(r);
    case 4:
      return edit(r);
    case 5:
      return perform(r);
    case 6:
      return r.chance(0.5f) ? change_options(r) : change_time(r);
    default:
      return r.chance(0.7f) ? change_time(r) : change_rounds(r);
  }
}

/// With a mouse, fingers and keys.
void Session::point(Random& r) {
  const double now = field_.now();
  if (r.chance(0.2f)) {
    (void)field_.key(
        {.key = static_cast<Key>(r.below(hostile_ ? 15 : 13)), .time = time(r), .repeat = r.chance(0.2f)});
    return;
  }
  const auto kind = static_cast<PointerKind>(r.below(3));
  const auto pointer = static_cast<std::uint32_t>(r.below(3));
  const auto send = [&](PointerPhase phase, Vec2 at, double when) {
    (void)field_.pointer({.phase = phase,
                          .at = at,
                          .time = when,
                          .pointer = pointer,
                          .kind = kind,
                          .shift = r.chance(0.1f),
                          .control = r.chance(0.1f)});
  };
  if (r.chance(0.6f)) {
    const Vec2 from = some_point(r);
    const Vec2 to = some_point(r);
    send(PointerPhase::down, from, now + 0.02);
    send(PointerPhase::move, (from + to) * 0.5f, now + 0.05);
    send(PointerPhase::move, to, now + 0.09);
    if (r.chance(0.9f)) send(PointerPhase::up, to, now + 0.12);
    return;
  }
  (void)field_.pointer(
      {.phase = static_cast<PointerPhase>(r.below(hostile_ ? 7 : 5)),
       .at = some_point(r),
       .time = time(r),
       .pointer = static_cast<std::uint32_t>(hostile_ && r.chance(0.1f) ? r.below(1u << 31) : pointer),
       .kind = kind,
       .button = static_cast<PointerButton>(r.chance(0.8f) ? 0 : r.below(hostile_ ? 8 : 5))});
}

/// By calls.
void Session::play(Random& r) {
  switch (r.below(7)) {
    case 0:
    case 1: {
      const auto legal = field_.rules().legal_moves();
      if (!legal.empty()) (void)field_.moves().make(legal[r.below(legal.size())]);
      return;
    }
    case 2:
      if (r.chance(0.3f)) return (void)field_.moves().play_selection(r.chance(0.7f) ? zone(r) : ZoneId{});
      (void)field_.moves().make({.kind = static_cast<MoveKind>(r.below(hostile_ ? 9 : 6)),
                                 .on = r.chance(0.5f),
                                 .run = {card(r), r.below(4)},
                                 .cards = {card(r), card(r)},
                                 .from = zone(r),
                                 .to = zone(r),
                                 .at = r.below(3)});
      return;
    case 3:
      (void)(r.chance(0.5f) ? field_.moves().send_to_best(card(r)) : field_.moves().draw_from(zone(r)));
      return;
    case 4:
      (void)(r.chance(0.5f)   ? field_.moves().flip(card(r))
             : r.chance(0.5f) ? field_.moves().undo()
                              : field_.moves().redo());
      return;
    default: {
      if (field_.moves().waiting().empty()) {
        (void)field_.moves().answer(r.below(5), {});
        return;
      }
      const Verdict no{.reason = Reason::refused_by_game, .wanted = 3};
      (void)field_.moves().answer(field_.moves().waiting()[0].id, r.chance(0.7f) ? Verdict{} : no);
    }
  }
}

void Session::edit(Random& r) {
  if (r.chance(0.15f)) {
    (void)field_.edits().sync(random_wish(r, field_.table()));
    return;
  }
  const Edit edit{.kind = static_cast<EditKind>(r.below(hostile_ ? 16 : 14)),
                  .run = {card(r), r.below(3)},
                  .card = card(r),
                  .other = card(r),
                  .zone = zone(r),
                  .count = r.below(4),
                  .on = r.chance(0.6f),
                  .face = {static_cast<std::uint32_t>(r.below(70))},
                  .cell = r.between(-2, 8),
                  .position = {static_cast<float>(number(r, 0, 1)), static_cast<float>(number(r, -1, 2))},
                  .seed = r.below(1000),
                  .made = {.face = {static_cast<std::uint32_t>(r.below(54))},
                           .face_up = r.chance(0.5f),
                           .at = {static_cast<float>(number(r, 0, 1)), 0.5f}}};
  (void)field_.call(play_detail::input_of(play_detail::EditInput{.edit = edit}));
}

void Session::perform(Random& r) {
  const PerformanceId last{last_performance_};
  switch (r.below(7)) {
    case 0:
    case 1: {
      const Script scripts[] = {deal(),
                                shuffle(zone(r), r.below(99)),
                                draw(zone(r), zone(r), r.below(4)),
                                flip({card(r), card(r)}, r.chance(0.5f)),
                                collect({card(r), card(r)}, zone(r)),
                                reveal({card(r)}, number(r, 0, 0.5)),
                                finale(),
                                gather(zone(r), r.chance(0.5f) ? zone(r) : ZoneId{}),
                                shake({card(r)}),
                                scatter(zone(r), r.below(99)),
                                reload(zone(r), zone(r), r.below(9)),
                                pulse({card(r), card(r)}),
                                wait(number(r, 0, 0.4)),
                                move_cards({card(r), card(r)}, zone(r))};
      const auto any = [&] { return scripts[r.below(std::size(scripts))]; };
      Script all =
          r.chance(0.5f) ? sequence({any(), any()}) : together({any(), any(), sequence({any(), any()})});
      if (hostile_ && r.chance(0.1f)) all = sequence({all, together({}), together({all, wait(0)})});
      if (hostile_ && r.chance(0.2f)) {
        all.parts.push_back(
            {.act = {.kind = static_cast<ActKind>(r.below(14)), .from = zone(r), .to = zone(r)}});
        all.parts.back().act.delays = {number(r, 0, 0.3), number(r, 0, 0.3)};
      }
      if (const PerformanceId begun = field_.performances().perform(all, {.closes_gate = r.chance(0.2f)}))
        last_performance_ = begun.value;
      return;
    }
    case 2:
      return (void)field_.performances().skip(last);
    case 3:
      return (void)field_.performances().stop(last);
    case 4:
      return (void)field_.performances().set_speed(last, r.chance(0.2f) ? 0 : number(r, 0.3, 3));
    default:
      if (r.chance(0.2f))
        return (void)field_.performances().shake(card(r),
                                                 CardEffect{.seconds = static_cast<float>(number(r, 0, 1)),
                                                            .width = static_cast<float>(number(r, 0, 2))});
      return (void)(r.chance(0.5f) ? field_.performances().shake(card(r))
                                   : field_.performances().pulse(card(r)));
  }
}

void Session::change_options(Random& r) {
  switch (r.below(8)) {
    case 0: {
      const Feel feels[] = {springy(), calm(), Feel{}, reduced(springy())};
      Feel feel = feels[r.below(4)];
      if (hostile_ && r.chance(0.3f)) {
        const char* curves[] = {"circ-out",       "cubic-bezier(0, 0.55, 0.45, 1)",
                                "steps(3)",       "linear(0, 1, 1 0.0001%)",
                                "elastic-in-out", "cubic-bezier(0, -900, 1, 900)"};
        feel.carry =
            feel.move.glide = {.seconds = r.uniform(0, 0.4f), .curve = Easing::parse(curves[r.below(6)])};
        feel.shift.seconds = r.chance(0.5f) ? 0 : 0.2f;
        feel.shift.spring.reset();
        feel.shake.seconds = r.chance(0.3f) ? 0 : 0.4f;
      }
      return (void)field_.performances().set_feel(feel);
    }
    case 1:
      return (void)field_.hand().set_drag_options(
          {.look = r.chance(0.5f) ? DragLook::copy : DragLook::card, .several = r.chance(0.5f)});
    case 2:
      return (void)field_.hand().set_hover_options({.zoom_seconds = double{r.uniform(0, 0.3f)}});
    case 3:
      return (void)field_.hand().set_thresholds({.mouse_slop = r.uniform(1, 9)});
    case 4:
      return (void)field_.where().scroll_to(zone(r), static_cast<float>(number(r, 0, 300)));
    case 5:
      if (r.chance(0.3f))
        return (void)field_.edits().bind_fill({static_cast<std::uint32_t>(r.below(3))}, {last_countdown_});
      return (void)field_.edits().set_panel({static_cast<std::uint32_t>(r.below(3))},
                                            r.chance(0.1f) ? "\xff\x80" : "so many",
                                            static_cast<float>(number(r, 0, 1)));
    case 6:
      return field_.resize(
          {static_cast<float>(number(r, 500, 1400)), static_cast<float>(number(r, 300, 900))},
          r.chance(0.8f) ? 1 : static_cast<float>(number(r, 0.5, 3)), time(r),
          {.left = r.chance(0.8f) ? 0 : static_cast<float>(number(r, 0, 50))});
    default:
      if (r.chance(0.3f)) return (void)field_.hand().focus({.card = card(r), .zone = zone(r)});
      if (r.chance(0.2f)) return (void)field_.hand().select(card(r));
      if (r.chance(0.1f)) return (void)field_.hand().deselect(r.chance(0.5f) ? card(r) : CardId{});
      return r.chance(0.5f) ? (void)field_.hand().preview(card(r)) : field_.blur(time(r));
  }
}

/// What is switched off, how zones lie and are played, and the plans.
void Session::change_rules(Random& r) {
  const Switchable things[] = {card(r), zone(r), PanelId{static_cast<std::uint32_t>(r.below(3))}};
  const Switchable what = things[r.below(3)];
  const char* reason = r.chance(0.5f) ? "" : "asleep";
  switch (r.below(8)) {
    case 0:
      return (void)(r.chance(0.5f) ? field_.switches().switch_off(what, reason, r.chance(0.3f))
                                   : field_.switches().hide(what, reason, r.chance(0.3f)));
    case 1:
    case 2:
      return (void)(r.chance(0.5f) ? field_.switches().switch_on(what, reason)
                                   : field_.switches().show(what, reason));
    case 3:
      return (void)field_.rules().ask_again(r.chance(0.8f));
    case 4:
      return (void)field_.gate().let_through(static_cast<PointerButton>(r.below(hostile_ ? 9 : 5)),
                                             r.chance(0.5f));
    case 5: {
      std::vector<Plan> plans{field_.where().plan()};
      plans[0].margin = r.uniform(0, 40);
      plans[0].root.gap.cards = r.uniform(0, 0.5f);
      return (void)field_.edits().set_plans(plans);
    }
    case 6:
      if (hostile_) {
        (void)field_.edits().set_behaviour(zone(r), {});
        (void)field_.edits().set_plans({Plan{}});
      }
      return;
    default: {
      const ZoneId of = zone(r);
      ZoneBehaviour behaviour = field_.where().behaviour(of);
      const ZoneBehaviour other = setup_.behaviour_of(setup_.table.zones()[0].id);
      behaviour.layout.factor = r.uniform(0.5f, 1.2f);
      behaviour.layout.facing = static_cast<Facing>(r.below(4));
      behaviour.rules.pick.covered = r.chance(0.3f);
      behaviour.rules.pick.when = r.chance(0.3f) ? rule::at_most(r.between(1, 3)) : rule::anything();
      if (r.chance(0.3f)) behaviour.layout.kind = other.layout.kind;
      if (r.chance(0.3f)) behaviour.rules.drop = r.chance(0.5f) ? rule::anything() : rule::waited_for();
      if (field_.table().zone(of)) (void)field_.edits().set_behaviour(of, behaviour);
    }
  }
}

void Session::change_time(Random& r) {
  switch (r.below(10)) {
    case 9:
      switch (r.below(3)) {
        case 0:
          return (void)field_.time().hold_countdown({last_countdown_}, "rest");
        case 1:
          return (void)field_.time().release_countdown({last_countdown_}, "rest");
        default:
          if (r.chance(0.2f)) (void)field_.time().stop_countdown({last_countdown_});
          return;
      }
    case 0:
      last_timer_ = field_.time().start_timer(number(r, 0, 1)).value;
      return;
    case 1:
      last_countdown_ = field_.time().add_countdown(number(r, 0, 2), r.chance(0.3f)).value;
      return (void)field_.time().start_countdown({last_countdown_});
    case 2:
      return (void)field_.time().extend_countdown({last_countdown_}, number(r, -1, 1));
    case 3:
      return (void)(r.chance(0.5f) ? field_.time().reset_countdown({last_countdown_}, number(r, 0, 1))
                                   : field_.time().stop_countdown({last_timer_}));
    case 4:
      return (void)(r.chance(0.3f) ? field_.time().hold("test") : field_.time().release("test"));
    case 5:
      if (r.chance(0.3f)) return (void)field_.time().set_cards_speed(r.chance(0.1f) ? 0 : number(r, 0.5, 2));
      return (void)field_.time().set_speed(r.chance(0.1f) ? 0 : number(r, 0.5, 2));
    case 6:
      return (void)(r.chance(0.3f) ? field_.gate().close("test", r.chance(0.2f))
                                   : field_.gate().open("test"));
    case 7:
      if (hostile_) {
        if (const auto event = field_.next_event(odd_numbers[r.below(8)])) hear(*event);
        return field_.advance_to(odd_numbers[r.below(3)]);
      }
      return;
    default:
      return go(number(r, 0, 1) > 0.8 ? 3 : 0.1);
  }
}

void Session::change_rounds(Random& r) {
  switch (r.below(5)) {
    case 0:
      return (void)field_.start_round(r.below(99), r.chance(0.3f));
    case 1:
      return (void)field_.start_over(setup_);
    case 2:
      return field_.restore(snapshot_);
    default:
      snapshot_ = field_;
  }
}

void Session::finish() {
  field_.gate().open("test");
  field_.time().release("test");
  field_.time().set_speed(1);
  field_.time().set_cards_speed(1);
  field_.time().release_countdown({last_countdown_}, "rest");
  for (std::uint32_t id = 1; id <= last_performance_; ++id) field_.performances().set_speed({id}, 1);
  while (!field_.moves().waiting().empty()) (void)field_.moves().answer(field_.moves().waiting()[0].id, {});
  go(2);  // what was handed in ahead of its time
  while (!field_.moves().waiting().empty()) (void)field_.moves().answer(field_.moves().waiting()[0].id, {});
  field_.blur(field_.now());
  go(20);
  // What still goes on are acts that wait for up to an hour, one after another.
  for (std::uint32_t id = 1; id <= last_performance_; ++id) field_.performances().skip({id});
  go(200);
  // A table whose clock begins below 0 may have been handed in what comes only now.
  field_.blur(field_.now());
  go(20);
}

}  // namespace apsidon::test
