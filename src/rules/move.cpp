// Moves: judging one, making it, and what follows from it.
#include "apsidon/rules/move.hpp"

#include <algorithm>

#include "rules/ask.hpp"
#include "rules/inside.hpp"

namespace apsidon {

using rules_detail::Patience;
using Kind = MoveStep::Kind;

namespace {

const ZoneRules* rules_of(const Rulebook& rules, ZoneId zone) {
  return zone && zone.value <= rules.zones.size() ? &rules.zones[zone.value - 1] : nullptr;
}

Verdict judge_run_move(const Table& table, const Rulebook& rules, const Move& move) {
  const PickVerdict pick = judge_pick(table, rules, move.run.first);
  if (!pick.verdict) return pick.verdict;
  const Card& card = *table.card(move.run.first);
  if (pick.run.count != move.run.count || card.zone != move.from) {
    return {.reason = Reason::other_run,
            .card = card.id,
            .zone = card.zone,
            .wanted = static_cast<int>(pick.run.count),
            .found = static_cast<int>(move.run.count)};
  }
  const Verdict verdict = judge_drop(table, rules, move.run, move.to);
  if (!verdict || !move.at) return verdict;
  const Verdict at = rules_detail::judge_index(table, rules, move, move.from == move.to ? move.run.count : 0);
  return at ? verdict : at;
}

/// A draw and a recycling are both a tap on the stock, whichever it is the time for.
Verdict judge_stock_move(const Table& table, const Rulebook& rules, const Move& move) {
  const bool draws = move.kind == MoveKind::draw;
  const ZoneId stock = draws ? move.from : move.to;
  const MoveVerdict tap = stock_move(table, rules, stock);
  if (!tap.verdict) return tap.verdict;
  const ZoneId waste = draws ? move.to : move.from;
  if (waste != rules_of(rules, stock)->stock->to) return {.reason = Reason::unknown_zone, .zone = waste};
  if (tap.move.kind != move.kind) {
    return {.reason = draws ? Reason::empty_zone : Reason::not_empty, .zone = stock};
  }
  return tap.verdict;
}

/// A refusal has the move's name, by which its sentence is found, unless the rule gave another.
Verdict judge_named_move(const Table& table, const Rulebook& rules, const Move& move) {
  if (move.named < 0 || static_cast<std::size_t>(move.named) >= rules.named_moves.size())
    return {.reason = Reason::unknown_move};
  const NamedMove& own = rules.named_moves[static_cast<std::size_t>(move.named)];
  Verdict verdict = rules_detail::ask<Verdict>(own.when, rules_detail::Asked(table, rules));
  if (!verdict && verdict.rule.empty()) verdict.rule = own.name;
  if (!verdict) return verdict;
  // Whether it has a function is in the log, as what rules in code say: a replay has none.
  const auto allow = [](const RuleQuestion&) { return Verdict{}; };
  const OwnRule bound{own.name, own.does ? RuleFunction(allow) : RuleFunction{}};
  const RuleQuestion question{.table = table, .rules = &rules};
  return rules.own ? rules.own->answer(bound, question) : bound.answer(question);
}

void recycle(Table& table, const Move& move, std::vector<MoveStep>& steps) {
  const Zone& waste = *table.zone(move.from);
  steps.push_back({.kind = Kind::recycled,
                   .card = waste.cards.back(),
                   .count = waste.cards.size(),
                   .from = move.from,
                   .to = move.to});
  (void)table.recycle(move.from, move.to);
}

void draw(Table& table, const Move& move, const Verdict& verdict, std::vector<MoveStep>& steps) {
  const auto count = static_cast<std::size_t>(verdict.found);
  steps.push_back(
      {.kind = Kind::drawn, .card = verdict.card, .count = count, .from = move.from, .to = move.to});
  (void)table.take(move.from, move.to, count, true);
}

bool takes_from(const ZoneRules& own, ZoneId zone) {
  const auto& from = own.takes_from;
  return own.takes_itself && (from.empty() || std::find(from.begin(), from.end(), zone) != from.end());
}

/// The zone that takes the top card of another by itself; none when none does.
ZoneId taker_of(const Table& table, const Rulebook& rules, const Zone& zone) {
  const PickVerdict pick = judge_pick(table, rules, zone.cards.back());
  if (!pick.verdict || pick.run.count != 1) return {};
  for (const Zone& to : table.zones()) {
    const ZoneRules* own = rules_of(rules, to.id);
    if (own && takes_from(*own, zone.id) && judge_drop(table, rules, pick.run, to.id)) return to.id;
  }
  return {};
}

void take_what_fits(Table& table, const Rulebook& given, std::vector<MoveStep>& steps) {
  const auto takes = [](const ZoneRules& zone) { return zone.takes_itself; };
  if (std::none_of(given.zones.begin(), given.zones.end(), takes)) return;
  Rulebook rules = given;
  Patience patience(rules);
  std::size_t work = rules.zones.size();  // for each zone whose top card may be taken
  for (const ZoneRules& zone : rules.zones) work += zone.takes_from.size();
  for (bool again = true; again;) {
    again = false;
    for (const Zone& zone : table.zones()) {
      const ZoneRules* own = rules_of(rules, zone.id);
      if (zone.cards.empty() || !own || own->takes_itself) continue;
      patience.add(work);
      if (patience.over()) return;
      const ZoneId to = taker_of(table, rules, zone);
      if (!to) continue;
      const CardId top = zone.cards.back();
      (void)table.move({top, 1}, to);
      steps.push_back({.kind = Kind::taken, .card = top, .count = 1, .from = zone.id, .to = to});
      rules_detail::uncover(table, rules, zone.id, steps);
      again = true;
    }
  }
}

/// Whether a rule wants certain faces wherever they come to lie first, as a foundation does.
bool begins_with(const Rule& rule) {
  const bool wants = rule.kind == RuleKind::rank_on_empty || rule.kind == RuleKind::of_suit ||
                     rule.kind == RuleKind::rank_at_least;
  const bool combines = rule.kind == RuleKind::all || rule.kind == RuleKind::any;
  return wants || (combines && std::any_of(rule.parts().begin(), rule.parts().end(), begins_with));
}

int worth_of(const ZoneRules& rules, const Zone& zone) {
  if (rules.takes_itself) return 3;
  if (begins_with(rules.drop) && rules.pick.kind != PickKind::run) return 2;
  return zone.cards.empty() ? 0 : 1;
}

}  // namespace

Verdict judge_move(const Table& table, const Rulebook& rules, const Move& move) {
  if (move.seat && move.seat != rules.seat) {
    const Rulebook theirs = rules_detail::as_played_by(rules, move.seat);
    return judge_move(table, theirs, move);
  }
  if (move.kind == MoveKind::undo) return {.reason = Reason::nothing_to_undo};  // a bare table has no past
  if (move.kind == MoveKind::redo) return {.reason = Reason::nothing_to_redo};
  if (move.kind == MoveKind::run) return judge_run_move(table, rules, move);
  if (move.kind == MoveKind::several) return rules_detail::judge_several_move(table, rules, move);
  if (rules_detail::names_cards(move)) return rules_detail::judge_side_move(table, rules, move);
  return move.kind == MoveKind::named ? judge_named_move(table, rules, move)
                                      : judge_stock_move(table, rules, move);
}

MoveVerdict named_move(const Table& table, const Rulebook& rules, std::string_view name) {
  for (std::size_t i = 0; i < rules.named_moves.size(); ++i) {
    if (rules.named_moves[i].name != name) continue;
    const Move move{.kind = MoveKind::named, .named = static_cast<int>(i)};
    return {judge_move(table, rules, move), move};
  }
  return {.verdict = {.reason = Reason::unknown_move}};
}

MoveVerdict stock_move(const Table& table, const Rulebook& rules, ZoneId stock) {
  const Verdict verdict = judge_stock(table, rules, stock);
  if (!verdict) return {.verdict = verdict};
  const ZoneId waste = rules_of(rules, stock)->stock->to;
  if (verdict.found > 0) return {verdict, {.kind = MoveKind::draw, .from = stock, .to = waste}};
  return {verdict, {.kind = MoveKind::recycle, .from = waste, .to = stock}};
}

namespace {

/// The best zone for what a move names, by what `judge` says of each.
template <class Judge>
MoveVerdict best_of(const Table& table, const Rulebook& rules, Move move, Judge judge) {
  Verdict why{.reason = Reason::drop_nothing, .card = rules_detail::named_by(move).first, .zone = move.from};
  const auto takes = [&](ZoneId zone) {
    if (zone == move.from) return false;
    const Verdict verdict = judge(zone);
    if (!verdict && why.reason == Reason::drop_nothing) why = verdict;
    return verdict.allowed();
  };
  const auto to = [&](ZoneId zone) {
    move.to = zone;
    return MoveVerdict{{}, move};
  };
  for (const ZoneId zone : rules_of(rules, move.from)->sends_to) {
    if (takes(zone)) return to(zone);
  }
  const Zone* best = nullptr;
  int most = -1;
  for (const Zone& zone : table.zones()) {
    const ZoneRules* own = rules_of(rules, zone.id);
    if (!own || worth_of(*own, zone) <= most || !takes(zone.id)) continue;
    best = &zone;
    most = worth_of(*own, zone);
  }
  return best ? to(best->id) : MoveVerdict{.verdict = why};
}

}  // namespace

MoveVerdict best_move(const Table& table, const Rulebook& rules, CardId id) {
  const PickVerdict pick = judge_pick(table, rules, id);
  if (!pick.verdict) return {.verdict = pick.verdict};
  const Verdict no_exchange{.reason = Reason::drop_nothing, .card = id, .zone = table.card(id)->zone};
  return best_of(table, rules, {.run = pick.run, .from = table.card(id)->zone}, [&](ZoneId zone) {
    // An exchange moves another card too: that is not for one card to do by itself.
    return rules_detail::would_exchange(table, rules, pick.run, zone)
               ? no_exchange
               : judge_drop(table, rules, pick.run, zone);
  });
}

MoveVerdict best_move(const Table& table, const Rulebook& rules, std::span<const CardId> chosen) {
  if (Verdict verdict = rules_detail::judge_chosen(table, rules, chosen); !verdict) return {verdict};
  const Move move{.kind = MoveKind::several,
                  .cards = std::vector<CardId>(chosen.begin(), chosen.end()),
                  .from = table.card(chosen.front())->zone};
  return best_of(table, rules, move,
                 [&](ZoneId zone) { return rules_detail::judge_chosen_drop(table, rules, chosen, zone); });
}

Verdict rules_detail::judge_index(const Table& table, const Rulebook& rules, const Move& move,
                                  std::size_t within) {
  const ZoneRules& to = *rules_of(rules, move.to);
  const std::size_t room = table.zone(move.to)->cards.size() - within;
  if (*move.at == room || (*move.at < room && (within > 0 ? to.sorts : to.inserts))) return {};
  return {.reason = Reason::unknown_index, .card = named_by(move).first, .zone = move.to};
}

int rules_detail::cell_of_seat(const Table& table, const Rulebook& rules, const Move& move) {
  const ZoneRules* to = rules_of(rules, move.to);
  if (!to || !to->lays_by_seat || move.from == move.to) return -1;
  SeatId seat = move.seat ? move.seat : rules.seat;
  if (!seat && table.turn().size() == 1) seat = table.turn().front();
  return static_cast<int>(seat.value) - 1;
}

namespace {

/// Cards from here and there lie together on top of their zone, in their order. Returns the zones that this
/// has emptied, but that of the first, of which what follows a move tells.
std::vector<ZoneId> gather_on_top(Table& table, const Move& move) {
  std::vector<ZoneId> emptied;
  for (const CardId id : move.cards) {
    const ZoneId from = table.card(id)->zone;
    (void)table.move({id, 1}, move.to);
    if (from != move.from && from != move.to && !table.top(from)) emptied.push_back(from);
  }
  return emptied;
}

}  // namespace

void rules_detail::move_cards(Table& table, const Rulebook& rules, const Move& move,
                              std::vector<MoveStep>& steps) {
  Run run = named_by(move);
  MoveStep moved{.card = run.first, .count = run.count, .from = move.from, .to = move.to};
  if (move.kind == MoveKind::run && would_exchange(table, rules, run, move.to)) {
    const CardId other = *table.top(move.to);
    (void)table.swap(run.first, other);
    steps.push_back({.kind = Kind::exchanged, .card = other, .count = 1, .from = move.to, .to = move.from});
    steps.push_back(moved);
    return;
  }
  const bool within = move.from == move.to;
  std::vector<ZoneId> emptied;
  if (move.kind == MoveKind::several) emptied = gather_on_top(table, move);
  const bool there = within || move.kind == MoveKind::several;
  const std::size_t room = table.zone(move.to)->cards.size() - (there ? run.count : 0);
  (void)table.move(run, move.to, std::min(move.at.value_or(room), room));
  // The cards of the run stay together, so that they are found one by one.
  for (const CardId card : table.cards_of(run)) {
    if (!within) (void)table.set_sideways(card, rules_of(rules, move.to)->lays_sideways);
    if (const int cell = cell_of_seat(table, rules, move); cell >= 0) (void)table.set_cell(card, cell);
    if (move.position) (void)table.set_position(card, *move.position);
  }
  steps.push_back(moved);
  for (const ZoneId zone : emptied) steps.push_back({.kind = Kind::emptied, .from = zone});
}

Verdict rules_detail::make_move(Table& table, const Rulebook& rules, const Move& move,
                                std::vector<MoveStep>& steps) {
  const Verdict verdict = judge_move(table, rules, move);
  if (!verdict) return verdict;
  if (carries(move)) move_cards(table, rules, move, steps);
  if (move.kind == MoveKind::flip || move.kind == MoveKind::reorient)
    make_side_move(table, rules, move, steps);
  if (move.kind == MoveKind::draw) draw(table, move, verdict, steps);
  if (move.kind == MoveKind::recycle) recycle(table, move, steps);
  if (move.kind == MoveKind::named) {
    const NamedMove& own = rules.named_moves[static_cast<std::size_t>(move.named)];
    steps.push_back({.kind = Kind::played, .name = own.name});
    (void)do_as_told(table, rules, own.name, own.does, steps);
  }
  return verdict;
}

void rules_detail::uncover(Table& table, const Rulebook& rules, ZoneId zone, std::vector<MoveStep>& steps) {
  const auto top = table.top(zone);
  if (!top) return steps.push_back({.kind = Kind::emptied, .from = zone});
  const ZoneRules* own = rules_of(rules, zone);
  if (!own || !own->flips_uncovered || table.card(*top)->face_up) return;
  (void)table.flip(*top, true);
  steps.push_back({.kind = Kind::flipped, .card = *top, .count = 1, .from = zone});
}

void rules_detail::follow_move(Table& table, const Rulebook& given, ZoneId from,
                               std::vector<MoveStep>& steps) {
  Rulebook rules = given;
  Patience patience(rules);
  if (from) uncover(table, rules, from, steps);
  for (std::size_t rounds = 0;; ++rounds) {
    take_what_fits(table, rules, steps);
    patience.add(table.zones().size());
    for (const Zone& zone : table.zones()) {
      if (!zone.cards.empty()) uncover(table, rules, zone.id, steps);
    }
    const bool may_go_on = rounds < most_follow_rounds && !patience.over();
    if (!may_go_on || !follow_consequences(table, rules, patience, steps)) return;
  }
}

MoveReport apply_move(Table& table, const Rulebook& rules, const Move& move) {
  MoveReport report;
  report.verdict = rules_detail::make_move(table, rules, move, report.steps);
  if (!report.verdict) return report;
  rules_detail::follow_move(table, rules, move.from, report.steps);
  if (const auto found = rules_detail::find_comparison(table, rules)) {
    // What follows from that is told of it alone: a playfield lets the cards be seen before.
    std::vector<MoveStep> steps;
    rules_detail::end_comparison(table, *found, steps);
    rules_detail::follow_move(table, rules, found->to() ? found->zone : ZoneId{}, steps);
    report.steps.insert(report.steps.end(), steps.begin(), steps.end());
  }
  return report;
}

namespace {

/// The next card that goes to one of these zones by itself.
std::optional<Move> next_to_finish(const Table& table, const Rulebook& rules, std::span<const ZoneId> into,
                                   Patience& patience, const auto& is_home) {
  for (const Zone& zone : table.zones()) {
    if (zone.cards.empty() || is_home(zone.id)) continue;
    const PickVerdict pick = judge_pick(table, rules, zone.cards.back());
    if (!pick.verdict || pick.run.count != 1) continue;
    patience.add(into.size());
    if (patience.over()) return std::nullopt;
    for (const ZoneId to : into) {
      if (!rules_detail::would_exchange(table, rules, pick.run, to) && judge_drop(table, rules, pick.run, to))
        return Move{.run = pick.run, .from = zone.id, .to = to};
    }
  }
  return std::nullopt;
}

}  // namespace

std::vector<Move> finishing_moves(const Table& table, const Rulebook& given, std::span<const ZoneId> into) {
  const auto is_home = [&](ZoneId zone) { return std::find(into.begin(), into.end(), zone) != into.end(); };
  std::size_t left = 0;
  for (const Zone& zone : table.zones()) {
    if (is_home(zone.id)) continue;
    left += zone.cards.size();
    for (const CardId card : zone.cards) {
      if (!table.card(card)->face_up || table.card(card)->face == hidden_face) return {};
    }
  }
  std::vector<Move> moves;
  Table ahead = table;
  Rulebook rules = given;
  Patience patience(rules);
  while (left > 0) {
    patience.add(table.zones().size());
    if (patience.over()) return {};
    const std::optional<Move> move = next_to_finish(ahead, rules, into, patience, is_home);
    if (!move) return {};
    const MoveReport report = apply_move(ahead, rules, *move);
    if (!report.verdict) return {};
    moves.push_back(*move);
    // What a zone takes by itself is on its way home, too.
    left = 0;
    for (const Zone& zone : ahead.zones()) left += is_home(zone.id) ? 0 : zone.cards.size();
  }
  return moves;
}

}  // namespace apsidon
