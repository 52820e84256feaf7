// Long random sessions in random tables, beside a small model that only hears the events: what it makes of
// them has to be what the table is.
#include <algorithm>
#include <iostream>
#include <map>
#include <memory>

#include "play/model.hpp"
#include "play/random_game.hpp"
#include "support/property.hpp"
#include "support/whole.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

struct ModelTally {
  std::map<EventKind, int> events;
  std::map<std::string, int> states;
  int undos = 0;
};

/// What the game answers is given by the number of the proposal: so that a replay answers the same.
std::optional<Verdict> answer_of(std::uint64_t proposal) {
  if (proposal % 5 == 1) return std::nullopt;
  if (proposal % 7 == 2) return Verdict{.reason = Reason::refused_by_game};
  return Verdict{};
}

class ModelSession {
 public:
  ModelSession(Random& r, TableSetup setup, bool pure)
      : setup_(std::move(setup)),
        options_(some_options(r)),
        field(setup_, options_),
        pure_(pure),
        model_(field.table()),
        cards_(field.table().card_count()) {
    field.moves().set_judge([this](const Proposal& p) {
      asked_[p.id] = p;
      return answer_of(p.id);
    });
    field.set_recorder([this](const Input& input) { log_.push_back(input); });
  }

  void step(Random& r, ModelTally& tally) {
    tally_ = &tally;
    time_ += double{r.uniform(0, 0.15f)};
    // What is due before is heard first, in one step or in several.
    if (r.chance(0.5f)) go_to(field.now() + (time_ - field.now()) * double{r.uniform(0, 1)});
    go_to(time_);
    const std::size_t what = r.below(40);
    const bool held = field.hand().held().count > 0;
    if (what < 8) {
      point(r, PointerPhase::down, some_card_point(r, field));
    } else if (what < 17) {
      point(r, PointerPhase::move, held ? some_zone_point(r) : some_card_point(r, field));
    } else if (what < 25) {
      point(r, PointerPhase::up, r.chance(0.2f) ? some_zone_point(r) : at_);
      if (r.chance(0.2f)) {
        time_ += 0.05;
        go_to(time_);
        point(r, PointerPhase::down, at_);
        point(r, PointerPhase::up, at_);
      }
    } else if (what < 26) {
      point(r, r.chance(0.5f) ? PointerPhase::cancel : PointerPhase::leave, at_);
    } else if (what < 34) {
      static constexpr Key keys[] = {Key::left,     Key::right, Key::up,  Key::down, Key::next,
                                     Key::previous, Key::act,   Key::act, Key::act,  Key::second,
                                     Key::undo,     Key::redo,  Key::act, Key::next, Key::cancel};
      (void)send(field, KeyInput{.key = keys[r.below(15)], .time = time_, .repeat = r.chance(0.1f)});
    } else {
      disturb(r);
    }
    go_to(time_);
  }

  void finish(ModelTally& tally) {
    field.gate().open("test");
    field.time().release("test");
    send(field, BlurInput{time_});
    while (!field.moves().waiting().empty()) (void)field.moves().answer(field.moves().waiting()[0].id);
    for (const PerformanceId performance : performances_) field.performances().set_speed(performance, 1);
    tally_ = &tally;
    go_to(field.now() + 1);
    go_to(field.time().settles_at() + 1);
    RC_ASSERT(open_ == 0);
  }

  void check(Random& r) {
    const Table& table = field.table();
    assert_whole(table, cards_);
    model_.check(table);
    const Run held = field.hand().held();
    RC_ASSERT(held.count == 0 || table.cards_of(held).size() == held.count);
    const Run first = field.hand().held_by(0);
    const Run second = field.hand().held_by(1);
    RC_ASSERT(first.count == 0 || second.count == 0 ||
              (options_.drag.several && first.first != second.first));
    for (const CardId card : table.cards_of(first)) {
      const auto others = table.cards_of(second);
      RC_ASSERT(std::find(others.begin(), others.end(), card) == others.end());
    }
    for (const Zone& zone : table.zones()) {
      for (const CardId card : zone.cards) RC_ASSERT(is_finite(*field.where().live_pose(card)));
      const auto targets = field.hand().targets();
      const bool listed = std::find(targets.begin(), targets.end(), zone.id) != targets.end();
      RC_ASSERT(listed ==
                (held.count > 0 &&
                 field.rules()
                     .judge_move({.run = held, .from = field.table().card(held.first)->zone, .to = zone.id})
                     .allowed()));
    }
    for (const Move& move : field.rules().legal_moves()) {
      RC_ASSERT(field.rules().judge_move(move).allowed());
    }
    check_frame();
    check_hit(r.chance(0.5f) ? at_ : some_card_point(r, field));
  }

  /// What is drawn anew only where something has changed is what it would be if all were.
  void check_frame() const {
    const Frame& frame = field.frame();
    std::size_t shown = 0;
    std::uint64_t order = 0;
    for (const FrameItem& item : frame.items) {
      RC_ASSERT(item.order >= order);
      order = item.order;
      if (item.kind != FrameKind::card) continue;
      ++shown;
      const Card& card = *field.table().card(item.card);
      const Pose pose = *field.where().live_pose(item.card);
      RC_ASSERT(item.zone == card.zone && item.size == frame.card);
      RC_ASSERT(item.back == !shows_face(pose.flip));
      // What was covered, and has another face by now, shows on what it showed until it is edge-on.
      const bool shows_on = !item.back && !card.face_up;
      RC_ASSERT((shows_on || item.face == (item.back ? hidden_face : card.face)));
      RC_ASSERT(item.matrix == matrix_of(pose) && item.corners == corners(pose, item.size));
      RC_ASSERT(item.opacity == pose.opacity && item.brightness == pose.brightness && item.lift == pose.lift);
      check_marks(item);
    }
    RC_ASSERT(shown == cards_);
  }

  void check_marks(const FrameItem& item) const {
    const Table& table = field.table();
    const auto in = [&](const Run& run) {
      const auto cards = table.cards_of(run);
      return std::find(cards.begin(), cards.end(), item.card) != cards.end();
    };
    const auto waiting = field.moves().waiting();
    RC_ASSERT(item.marks.held ==
              (in(field.hand().held()) || in(field.hand().held_by(0)) || in(field.hand().held_by(1))));
    const auto locks = [&](const Proposal& p) {
      if (p.move.kind == MoveKind::run) return in(p.move.run);
      const auto& cards = table.zone(p.move.from)->cards;  // those of a draw are at the top
      return item.marks.locked && std::find(cards.begin(), cards.end(), item.card) != cards.end();
    };
    RC_ASSERT(item.marks.locked == std::any_of(waiting.begin(), waiting.end(), locks));
    RC_ASSERT(item.marks.hovered == (item.card == field.hand().hovered()));
    RC_ASSERT(item.marks.focus ==
              (item.card == field.hand().focused().card || in(field.hand().focused_run())));
    if (field.hand().held_by(0).count > 0 && field.hand().held_by(1).count > 0)
      return;  // the targets of one are listed
    const auto targets = field.hand().targets();
    const bool target = table.top(item.zone) == item.card &&
                        std::find(targets.begin(), targets.end(), item.zone) != targets.end();
    RC_ASSERT(item.marks.legal_target == target);
    RC_ASSERT(item.marks.aimed_at == (target && item.zone == field.hand().aimed_at()));
  }

  void check_rest() const {
    for (const Zone& zone : field.table().zones()) {
      for (const CardId card : zone.cards)
        RC_ASSERT(*field.where().live_pose(card) == *field.where().resting_pose(card));
    }
  }

  /// The same inputs in a fresh playfield give the same events and the same table.
  void check_replay() const {
    Playfield again(setup_, options_);
    std::vector<Event> told;
    for (const Input& input : log_) (void)again.input(input);
    for (const Event& e : events_until(again, field.now())) told.push_back(e);
    RC_ASSERT(told == told_);
    // No frame was asked for on the way.
    RC_ASSERT(again.frame().items == field.frame().items);
    for (const Zone& zone : field.table().zones()) {
      RC_ASSERT(again.table().contents_of(zone.id) == field.table().contents_of(zone.id));
      for (const CardId card : zone.cards)
        RC_ASSERT(*again.where().live_pose(card) == *field.where().live_pose(card));
    }
  }

  /// Starting over equals a fresh start, whatever is in flight.
  void check_start_over() {
    field.start_over(setup_);
    PlayfieldOptions now = options_;
    now.window = field.frame().window;
    now.pixel_ratio = field.frame().pixel_ratio;
    const Playfield fresh(setup_, now);
    RC_ASSERT(field.hand().held().count == 0 && field.moves().waiting().empty() && !field.moves().can_undo());
    RC_ASSERT(field.hand().focused() == Hit{} && field.hand().hovered() == CardId{});
    for (const Zone& zone : fresh.table().zones()) {
      const auto& cards = field.table().zone(zone.id)->cards;
      RC_ASSERT(cards.size() == zone.cards.size());
      for (std::size_t i = 0; i < cards.size(); ++i) {
        RC_ASSERT(*field.where().live_pose(cards[i]) == *fresh.where().live_pose(zone.cards[i]));
        RC_ASSERT(field.table().card(cards[i])->face == fresh.table().card(zone.cards[i])->face);
      }
    }
  }

 private:
  TableSetup setup_;
  PlayfieldOptions options_;

 public:
  Playfield field;

 private:
  static PlayfieldOptions some_options(Random& r) {
    PlayfieldOptions options;
    options.window = window(r);
    if (r.chance(0.2f)) options.drag.look = DragLook::copy;
    options.drag.several = r.chance(0.4f);
    return options;
  }
  static Size window(Random& r) { return {r.uniform(300, 1300), r.uniform(300, 900)}; }

  void point(Random& r, PointerPhase phase, Vec2 at) {
    at_ = at;
    if (phase == PointerPhase::down) kind_ = static_cast<PointerKind>(r.below(3));
    (void)send(field,
               PointerInput{.phase = phase,
                            .at = at,
                            .time = time_,
                            .pointer = r.chance(options_.drag.several ? 0.6f : 0.9f) ? 0u : 1u,
                            .kind = kind_,
                            .button = r.chance(0.97f) ? PointerButton::primary : PointerButton::secondary});
    hear_until_now();
  }
  Vec2 some_zone_point(Random& r) const {
    const auto targets = field.hand().targets();
    const ZoneId zone = !targets.empty() && r.chance(0.6f)
                            ? targets[r.below(targets.size())]
                            : field.table().zones()[r.below(field.table().zones().size())].id;
    return field.where().area(zone)->centre() + Vec2{r.uniform(-20, 20), r.uniform(-20, 20)};
  }

  void disturb(Random& r) {
    const auto some_card = [&] { return CardId{static_cast<std::uint32_t>(r.below(60))}; };
    switch (r.below(pure_ ? 6 : 9)) {
      case 0: {
        hear_until_now();
        const std::uint64_t before = field.table().revision();
        const SyncReport report = field.edits().sync(random_wish(r, field.table()));
        RC_ASSERT(report.verdict.allowed());
        cards_ += report.created.size();
        cards_ -= report.retired.size();
        if (field.table().revision() != before) synced_ = true;
        break;
      }
      case 1:
        // By a call: whatever the gate says, and in mid-drag.
        if (r.chance(0.3f)) (void)(r.chance(0.5f) ? field.moves().undo() : field.moves().redo());
        send(field, ResizeInput{window(r), r.chance(0.5f) ? 1.0f : 2.0f, time_});
        break;
      case 2:
        r.chance(0.3f) ? field.gate().close("test") : field.gate().open("test");
        break;
      case 3:
        r.chance(0.3f) ? field.time().hold("test") : field.time().release("test");
        break;
      case 4:
      case 5:
        if (!field.moves().waiting().empty()) {
          const Verdict no{.reason = Reason::refused_by_game};
          (void)field.moves().answer(field.moves().waiting()[0].id, r.chance(0.7f) ? Verdict{} : no);
        } else {
          send(field, BlurInput{time_});
        }
        break;
      case 6:
        perform(r);
        break;
      case 7:
        game_did([&] { (void)field.edits().flip(some_card(), r.chance(0.5f)); });
        break;
      default:
        game_did([&] {
          (void)field.edits().move(field.table().run_from(some_card()),
                                   {static_cast<std::uint32_t>(r.below(9))});
        });
        break;
    }
    if (!synced_) return;
    hear_until_now();
    model_.take(field.table());
    synced_ = false;
  }

  /// Some cards wait to leave, and the performance that they belong to ends in every way.
  void perform(Random& r) {
    const PerformanceId last = performances_.empty() ? PerformanceId{} : performances_.back();
    switch (r.below(6)) {
      case 0:
        return (void)field.performances().stop(last);
      case 1:
        return (void)field.performances().skip(last);
      case 2:
        return (void)field.performances().set_speed(last, r.chance(0.3f) ? 0 : double{r.uniform(0.2f, 4)});
      default:
        performances_.push_back(field.performances().deal());
    }
  }

  template <class Call>
  void game_did(Call call) {
    hear_until_now();
    const std::uint64_t before = field.table().revision();
    call();
    hear_until_now();
    if (field.table().revision() != before) model_.game_did(field.table());
  }

  /// The events up to this moment, so that the model is where the table is.
  void hear_until_now() { go_to(field.now()); }

  void go_to(double time) {
    ModelTally& tally = *tally_;
    for (const Event& e : events_until(field, time)) hear(e, tally);
    model_.see_spots(field.table());
    if (matched_) {
      model_.game_did(field.table());
      model_.next_begins();
    }
    matched_ = false;
    const auto state = [&](const char* name, bool is) { tally.states[name] += is ? 1 : 0; };
    state("held", field.hand().held().count > 0);
    state("two held", field.hand().held_by(0).count > 0 && field.hand().held_by(1).count > 0);
    state("waiting", !field.moves().waiting().empty());
    state("gate closed", !field.gate().is_open());
    state("comparing", field.gate().closed_for("comparing"));
    state("hovered", bool(field.hand().hovered()));
    state("zoomed", bool(field.hand().previewed()));
    state("focused", field.hand().focused() != Hit{});
    state("in flight", field.time().settles_at() > field.now());
    state("clock held", field.time().stopped_for("test"));
  }

  void hear(const Event& e, ModelTally& tally) {
    told_.push_back(e);
    ++tally.events[e.kind];
    if (e.kind == EventKind::picked_up) ++open_;
    const bool ends = e.kind == EventKind::dropped || e.kind == EventKind::refused ||
                      e.kind == EventKind::cancelled || e.kind == EventKind::superseded;
    // What a stock gives is proposed without having been picked up.
    const bool run =
        e.proposal == 0 || !asked_.contains(e.proposal) || asked_.at(e.proposal).move.kind == MoveKind::run;
    if (ends && run) RC_ASSERT(--open_ >= 0);
    if (e.kind == EventKind::matched || e.kind == EventKind::unmatched) matched_ = true;
    // What follows from comparing is read from the table, with what comparing itself has moved.
    const bool follows = e.proposal == 0 && (e.kind == EventKind::taken || e.kind == EventKind::flipped);
    if (!matched_ || !follows) model_.hear(e, asked_, field.table());
  }

  /// The card that is hit is the last in drawing order that has the point, unless an overlay lies above it.
  void check_hit(Vec2 at) const {
    if (field.hand().held().count > 0)
      return;  // what is held takes no hits: random_play_test.cpp looks at that
    CardId expected;
    for (const FrameItem& item : field.frame().items) {
      if (item.kind != FrameKind::card) continue;
      const HitShape shape{.pose = *field.where().live_pose(item.card),
                           .size = item.size,
                           .corner_radius = field.frame().corner_radius,
                           .clip = item.clip};
      if (contains(shape, at)) expected = item.card;
    }
    for (const Overlay& overlay : field.where().plan().overlays) {
      const auto area = field.where().panel_area(overlay.panel);
      if (area && area->contains(at)) expected = {};
    }
    RC_ASSERT(field.where().hit(at).card == expected);
  }

  bool pure_;
  Model model_;
  std::size_t cards_;
  std::map<std::uint64_t, Proposal> asked_ = {};
  std::vector<PerformanceId> performances_ = {};
  std::vector<Input> log_ = {};
  std::vector<Event> told_ = {};
  ModelTally* tally_ = nullptr;
  double time_ = 0;
  Vec2 at_ = {};
  PointerKind kind_ = PointerKind::mouse;
  int open_ = 0;
  bool matched_ = false;
  bool synced_ = false;
};

void print(const ModelTally& tally) {
  std::cout << "model:";
  for (const auto& [kind, count] : tally.events) std::cout << " " << name_of(kind) << " " << count;
  std::cout << "\nmodel: states";
  for (const auto& [name, count] : tally.states) std::cout << ", " << name << " " << count;
  std::cout << "\n";
}

}  // namespace

TEST_CASE(
    "play: model: random sessions lose and double no card, and the events tell all that happens to the "
    "table") {
  ModelTally tally;
  for_all("sessions", 2, [&](Random& r) {
    for (const bool pure : {true, false}) {
      ModelSession session(r, random_game(r), pure);
      for (int i = 0; i < 150; ++i) {
        session.step(r, tally);
        session.check(r);
      }
      session.finish(tally);
      session.check(r);
      session.check_rest();
      if (pure) session.check_replay();
      session.check_start_over();
    }
  });
  print(tally);
  for (const EventKind kind :
       {EventKind::dropped, EventKind::refused, EventKind::cancelled, EventKind::superseded,
        EventKind::exchanged, EventKind::flipped, EventKind::taken, EventKind::drawn, EventKind::recycled,
        EventKind::unmatched, EventKind::undone, EventKind::redone, EventKind::hovered, EventKind::zoomed,
        EventKind::focused, EventKind::tapped, EventKind::double_tapped, EventKind::long_pressed,
        EventKind::pick_refused}) {
    CAPTURE(name_of(kind));
    CHECK(tally.events[kind] > 0);
  }
  for (const auto& [name, count] : tally.states) {
    CAPTURE(name);
    CHECK(count > 0);
  }
  CHECK(tally.events[EventKind::dropped] * 10 >= tally.events[EventKind::proposed]);
}
