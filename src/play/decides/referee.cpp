#include "play/decides/referee.hpp"

#include <algorithm>
#include <array>
#include <utility>

#include "play/decides/cells.hpp"
#include "rules/inside.hpp"

namespace apsidon::play_detail {
namespace {

constexpr std::uint64_t never_judged = ~std::uint64_t{0};  // no revision of a table

}  // namespace

Referee::Referee(TableSetup setup, const PlayfieldOptions& options)
    : setup_(std::move(setup)),
      seat_(options.seat),
      own_code_(setup_),
      neighbours_(setup_.links),
      waited_(setup_.waits, rules_detail::LinkWay::first_to_second),
      history_(options.most_undos),
      celled_(setup_.table.zones().size(), ~std::uint64_t{0}) {
  give_cells();
  history_.start(setup_.table);
  looked_at_ = setup_.table.revision();  // what it begins with is no news
}

void Referee::give_cells() {
  for (const Zone& zone : setup_.table.zones()) {
    const LayoutTraits traits = traits_of(setup_.layout_of(zone.id).kind);
    std::uint64_t& seen = celled_[zone.id.value - 1];
    if (!traits.keeps_cells || seen == zone.revision) continue;
    apsidon::give_cells(setup_.table, zone.id);
    seen = zone.revision;
  }
}

Rulebook Referee::plain_rulebook() const {
  Rulebook rules = setup_.rulebook();
  rules.neighbours = &neighbours_;
  rules.waited = &waited_;
  rules.cards_off = off_.cards;
  rules.zones_off = off_.zones;
  rules.cards_off_for = off_.cards_for;
  rules.zones_off_for = off_.zones_for;
  rules.locked = locked_;
  rules.own = &trail_.from_outside();
  rules.seat = seat_;
  return rules;
}

Rulebook Referee::rulebook() const {
  Rulebook rules = plain_rulebook();
  rules.own = &trail_;
  return rules;
}

PickVerdict Referee::judge_pick(CardId card) const {
  return apsidon::judge_pick(setup_.table, rulebook(), card);
}

PickVerdict Referee::judge_pick(const Move& move) const {
  const Rulebook rules = rules_detail::as_played_by(rulebook(), move.seat);
  const Run run = rules_detail::named_by(move);
  if (move.kind == MoveKind::run) return apsidon::judge_pick(setup_.table, rules, run.first);
  const std::span cards{move.cards.begin(), move.cards.end()};
  return {rules_detail::judge_chosen(setup_.table, rules, cards), run};
}

std::vector<CardId> Referee::cards_of(const Move& move) const {
  const Table& table = setup_.table;
  if (move.kind == MoveKind::several) {
    std::vector<CardId> cards(move.cards.begin(), move.cards.end());
    std::erase_if(cards, [&](CardId card) { return !table.card(card); });
    return cards;
  }
  if (rules_detail::names_cards(move)) {
    const auto run = table.cards_of(move.run);
    const bool there = !run.empty() && table.card(move.run.first)->zone == move.from;
    return there ? std::vector<CardId>(run.begin(), run.end()) : std::vector<CardId>{};
  }
  if (!table.zone(move.from)) return {};
  const auto& cards = table.zone(move.from)->cards;
  if (move.kind == MoveKind::recycle) return cards;
  // Whether they are locked by this very move is not asked here.
  const Verdict verdict = apsidon::judge_stock(table, setup_.rulebook(), move.from);
  const auto count = static_cast<std::ptrdiff_t>(verdict ? verdict.found : 0);
  return {cards.end() - count, cards.end()};
}

Event Referee::event_of(EventKind kind, const Proposal& p, double time) const {
  const Move& move = p.move;
  const bool named = rules_detail::names_cards(move);
  const Run run = rules_detail::named_by(move);
  return {.kind = kind,
          .time = time,
          .card = named ? run.first : setup_.table.top(move.from).value_or(CardId{}),
          .count = named ? run.count : cards_of(move).size(),
          .from = move.from,
          .to = move.to,
          .proposal = p.id};
}

void Release::tell(Event& event) const {
  event.at = at;
  event.velocity = velocity;
  event.flicked = flicked;
}

Ruling Referee::propose(const Proposal& p, const Release& release, double time, EventQueue& events) {
  Event event = event_of(EventKind::proposed, p, time);
  release.tell(event);
  events.tell(std::move(event), setup_.table);
  Ruling ruling{.verdict = judge_move(setup_.table, rulebook(), p.move)};
  if (ruling.verdict) ruling = ask_game(p);
  if (!ruling.verdict || ruling.waits) return ruling;
  ruling.verdict = apply(p, release, time, events);
  return ruling;
}

Ruling Referee::ask_game(const Proposal& p) {
  const std::optional<Verdict> answer = trail_.judge(p);
  if (answer) return {.verdict = *answer ? Verdict{} : *answer};
  waiting_.push_back(p);
  waiting_cards_.push_back(cards_of(p.move));
  waiting_from_.push_back(zones_of(waiting_cards_.back()));
  waiting_since_.push_back(setup_.table.revision());
  note_waiting();
  return {.waits = true};
}

bool Referee::goes_back() const {
  return std::any_of(waiting_.begin(), waiting_.end(), [](const Proposal& p) {
    return p.move.kind == MoveKind::undo || p.move.kind == MoveKind::redo;
  });
}

const Proposal* Referee::find(std::uint64_t id) const {
  const auto it =
      std::find_if(waiting_.begin(), waiting_.end(), [&](const Proposal& p) { return p.id == id; });
  return it == waiting_.end() ? nullptr : &*it;
}

void Referee::note_waiting() {
  locked_.clear();
  for (const auto& cards : waiting_cards_) locked_.insert(locked_.end(), cards.begin(), cards.end());
  find_guests();
  ++revision_;
}

namespace {

/// The index of a zone that is `at` when these of its cards are not counted.
std::size_t index_beside(std::span<const CardId> cards, const Table& table, ZoneId zone, std::size_t at) {
  const auto& all = table.zone(zone)->cards;
  std::size_t index = 0;
  for (std::size_t others = 0; index < all.size(); ++index) {
    const bool counts = std::find(cards.begin(), cards.end(), all[index]) == cards.end();
    if (counts && others++ == at) break;
  }
  return index;
}

}  // namespace

void Referee::find_guests() {
  guests_.clear();
  const Table& table = setup_.table;
  for (const Proposal& proposal : waiting_) {
    const Move& move = proposal.move;
    if (!rules_detail::carries(move)) continue;
    const std::vector<CardId> cards = cards_of(move);
    const bool within = move.from == move.to;
    const std::size_t before = move.at ? index_beside(cards, table, move.to, *move.at) : Guest::on_top;
    for (const CardId id : cards) {
      const Card& card = *table.card(id);
      const bool sideways = within ? card.sideways : setup_.rules_of(move.to).lays_sideways;
      const int cell = rules_detail::cell_of_seat(table, rulebook(), move);
      guests_.push_back({.zone = move.to,
                         .card = id,
                         .slot = static_cast<std::uint32_t>(*table.slot(id)),
                         .laid = {.face_up = card.face_up,
                                  .sideways = sideways,
                                  .cell = cell,
                                  .at = move.position.value_or(card.at)},
                         .before = before});
    }
  }
}

std::optional<Proposal> Referee::came_true() const {
  for (std::size_t i = 0; i < waiting_.size(); ++i) {
    const Move& move = waiting_[i].move;
    const auto& cards = waiting_cards_[i];
    const auto lies = [&](CardId id) {
      const Card* card = setup_.table.card(id);
      if (move.kind == MoveKind::flip) return card && card->face_up == move.on;
      if (move.kind == MoveKind::reorient) return card && card->sideways == move.on;
      return card && card->zone == move.to;
    };
    if (move.from != move.to && !cards.empty() && std::all_of(cards.begin(), cards.end(), lies))
      return waiting_[i];
  }
  return std::nullopt;
}

void Referee::tell_made(const Proposal& p, double time, EventQueue& events) const {
  // A named move is of no cards, and comes true by its answer alone.
  constexpr std::array<EventKind, 6> kinds{EventKind::dropped,  EventKind::dropped, EventKind::drawn,
                                           EventKind::recycled, EventKind::flipped, EventKind::reoriented};
  Event event = event_of(kinds[static_cast<std::size_t>(p.move.kind)], p, time);
  const auto& cards = waiting_cards_[static_cast<std::size_t>(find(p.id) - waiting_.data())];
  event.count = cards.size();
  event.card = rules_detail::names_cards(p.move) ? cards.front() : cards.back();
  events.tell(std::move(event), setup_.table);
  if (setup_.table.zone(p.move.from)->cards.empty())
    events.tell({.kind = EventKind::emptied, .time = time, .from = p.move.from});
}

void Referee::set_behaviour(ZoneId zone, ZoneBehaviour behaviour) {
  own_code_.adopt(behaviour);
  setup_.set_behaviour(zone, std::move(behaviour));
  celled_[zone.value - 1] = ~std::uint64_t{0};  // it may keep cells now
  ++revision_;
}

void Referee::switch_off(const OffList& off) { off_ = off; }
void Referee::switch_off(const Switchable& what, std::optional<std::string> reason) {
  off_.set(what, std::move(reason));
}

void Referee::ask_again() {
  looked_at_ = never_judged;
  ++revision_;
}

std::vector<ZoneId> Referee::zones_of(std::span<const CardId> cards) const {
  std::vector<ZoneId> zones;
  for (const CardId card : cards) zones.push_back(setup_.table.card(card)->zone);
  return zones;
}

std::vector<CardId> Referee::end_waiting(std::uint64_t id) {
  const auto at = find(id) - waiting_.data();
  std::vector<CardId> cards = std::move(waiting_cards_[static_cast<std::size_t>(at)]);
  waiting_.erase(waiting_.begin() + at);
  waiting_cards_.erase(waiting_cards_.begin() + at);
  waiting_from_.erase(waiting_from_.begin() + at);
  waiting_since_.erase(waiting_since_.begin() + at);
  note_waiting();
  return cards;
}

Verdict Referee::answer(const Proposal& p, const Verdict& verdict, bool is_final, double time,
                        EventQueue& events) {
  if (verdict) {
    // The rules may see it otherwise by now.
    const Verdict applied = apply(p, {}, time, events, is_final);
    if (applied) return applied;
    Event event = event_of(EventKind::superseded, p, time);
    event.verdict = applied;
    events.tell(std::move(event), setup_.table);
    return applied;
  }
  Event event = event_of(EventKind::refused, p, time);
  event.verdict = verdict;
  events.tell(std::move(event), setup_.table);
  return verdict;
}

std::optional<Proposal> Referee::torn() const {
  for (std::size_t i = waiting_.size(); i-- > 0;) {
    const MoveKind kind = waiting_[i].move.kind;
    // What would be taken back is another move by now.
    const bool back = kind == MoveKind::undo || kind == MoveKind::redo;
    const bool other = back ? waiting_since_[i] != setup_.table.revision()
                            : cards_of(waiting_[i].move) != waiting_cards_[i] ||
                                  zones_of(waiting_cards_[i]) != waiting_from_[i];
    if (other) return waiting_[i];
  }
  return std::nullopt;
}

void Referee::supersede(const Proposal& p, double time, EventQueue& events) const {
  Event event = event_of(EventKind::superseded, p, time);
  event.verdict = {.reason = Reason::superseded, .card = event.card, .zone = p.move.to};
  events.tell(std::move(event), setup_.table);
}

/// Makes a move: whole, or not at all.
Verdict Referee::apply(const Proposal& p, const Release& release, double time, EventQueue& events,
                       bool is_final) {
  is_final = is_final && rules_detail::carries(p.move);
  const Verdict verdict = is_final ? Verdict{} : judge_move(setup_.table, rulebook(), p.move);
  if (!verdict) return verdict;
  history_.note(setup_.table, true);  // what the game did before belongs to the move before
  steps_.clear();
  if (is_final) rules_detail::move_cards(setup_.table, rulebook(), p.move, steps_);
  if (!is_final) (void)rules_detail::make_move(setup_.table, rulebook(), p.move, steps_);
  for (const MoveStep& step : steps_) {
    Event event = event_of(step, time);
    event.proposal = p.id;
    const bool is_move = step.kind != MoveStep::Kind::exchanged && step.kind != MoveStep::Kind::emptied;
    if (is_move) release.tell(event);
    if (is_move) event.verdict = verdict;
    events.tell(std::move(event), setup_.table);
  }
  return verdict;
}

Event Referee::event_of(const MoveStep& step, double time) {
  constexpr std::array<EventKind, 16> kinds{
      EventKind::dropped,     EventKind::exchanged,    EventKind::drawn,   EventKind::recycled,
      EventKind::emptied,     EventKind::flipped,      EventKind::taken,   EventKind::reoriented,
      EventKind::played,      EventKind::created,      EventKind::removed, EventKind::counted,
      EventKind::turn_passed, EventKind::face_changed, EventKind::matched, EventKind::unmatched};
  return {.kind = kinds[static_cast<std::size_t>(step.kind)],
          .time = time,
          .card = step.card,
          .count = step.count,
          .from = step.from,
          .to = step.to,
          .seat = step.seat,
          .name = step.name};
}

bool Referee::follow_up(ZoneId from, double time, EventQueue& events) {
  // What consequences are told begins with the move, as on a bare table; of that it was told already.
  const std::size_t made = steps_.size();
  rules_detail::follow_move(setup_.table, rulebook(), from, steps_);
  for (std::size_t i = made; i < steps_.size(); ++i) events.tell(event_of(steps_[i], time), setup_.table);
  const bool removed = std::any_of(steps_.begin(), steps_.end(),
                                   [](const MoveStep& step) { return step.kind == MoveStep::Kind::removed; });
  steps_.clear();
  return removed;
}

std::vector<Move> Referee::finishing_moves() const {
  return apsidon::finishing_moves(setup_.table, rulebook(), setup_.finish.into);
}

/// Whether the rules give the player anything at all: where a game moves every card itself, no move is ever
/// left, and that is no news.
bool Referee::has_moves() const {
  const auto zones = setup_.table.zones();
  const auto gives = [&](const Zone& zone) {
    const ZoneRules& rules = setup_.rules_of(zone.id);
    return rules.stock || rules.pick.kind != PickKind::nothing || rules.flip.kind != RuleKind::nothing ||
           rules.reorient.kind != RuleKind::nothing || rules.select;
  };
  return std::any_of(zones.begin(), zones.end(), gives);
}

bool Referee::judge_standing(bool may_be_stuck, double time, EventQueue& events) {
  looked_at_ = setup_.table.revision();
  const bool goal = judge_goals(time, events);
  const bool stuck = judge_moves(may_be_stuck && is_on_turn(), time, events);
  return judge_finishing(time, events) || goal || stuck;
}

bool Referee::judge_goals(double time, EventQueue& events) {
  const Rulebook rules = rulebook();
  const bool won = reached(setup_.won, setup_.table, rules);
  const bool lost = !won && reached(setup_.lost, setup_.table, rules);
  const Standing before = standing_;
  if (won) standing_ = Standing::won;
  if (lost) standing_ = Standing::lost;
  if (!won && !lost && (before == Standing::won || before == Standing::lost)) standing_ = Standing::open;
  if (standing_ == before || !(won || lost)) return false;
  events.tell({.kind = won ? EventKind::won : EventKind::lost, .time = time});
  return true;
}

bool Referee::judge_moves(bool may_be_stuck, double time, EventQueue& events) {
  stuck_unless_changed_ = false;
  if (compare_at_ || standing_ == Standing::won || standing_ == Standing::lost || !has_moves()) return false;
  // What waits for an answer may still be a move.
  Rulebook unlocked = rulebook();
  unlocked.locked = {};
  const bool any = any_legal_move(setup_.table, unlocked);
  stuck_unless_changed_ = !any && !may_be_stuck;
  if (stuck_unless_changed_) return false;
  const Standing before = std::exchange(standing_, any ? Standing::open : Standing::stuck);
  if (any || before == Standing::stuck) return false;
  events.tell({.kind = EventKind::no_moves, .time = time});
  return true;
}

bool Referee::judge_finishing(double time, EventQueue& events) {
  if (setup_.finish.into.empty() || finishing()) return false;
  const bool before = std::exchange(may_finish_, !finishing_moves().empty());
  if (!may_finish_ || before) return false;
  finishes_ = setup_.finish.by_itself;
  events.tell({.kind = EventKind::may_finish, .time = time});
  return true;
}

Verdict Referee::go_back(bool redo, double own) {
  const Verdict verdict = redo ? history_.redo(setup_.table) : history_.undo(setup_.table);
  if (!verdict) return verdict;
  compare_at_.reset();
  begin_comparing(own);
  standing_ = Standing::open;
  looked_at_ = never_judged;
  return verdict;
}

void Referee::perform(const Act& act) {
  Table& table = setup_.table;
  switch (act.kind) {
    case ActKind::gather:
      (void)table.gather(act.cards, act.to, act.keeps_sides);
      break;
    case ActKind::shuffle:
      (void)table.shuffle(act.to, act.seed);
      break;
    case ActKind::scatter:
      (void)table.scatter(act.to, act.seed);
      break;
    case ActKind::draw:
      (void)table.take(act.from, act.to, act.count, act.face_up);
      break;
    case ActKind::move:
      for (const CardId card : act.cards) (void)table.move({card, 1}, act.to);
      break;
    case ActKind::flip:
      for (const CardId card : act.cards) (void)table.flip(card, act.face_up);
      break;
    default:
      break;
  }
}

}  // namespace apsidon::play_detail
