// Flips and turns of cards where they lie, and open cards that are compared.
#include <algorithm>

#include "cards/inside.hpp"
#include "rules/ask.hpp"
#include "rules/inside.hpp"

namespace apsidon {

using rules_detail::Asked;
using rules_detail::Comparison;
using Does = MoveStep::Kind;

namespace {

const MatchRule* match_of(const Rulebook& rules, ZoneId zone) {
  const bool has = zone && zone.value <= rules.zones.size() && rules.zones[zone.value - 1].match;
  return has ? &*rules.zones[zone.value - 1].match : nullptr;
}

MoveVerdict side_move(const Table& table, const Rulebook& rules, CardId id, MoveKind kind) {
  const Card* card = table.card(id);
  if (!card) return {.verdict = {.reason = Reason::unknown_card, .card = id}};
  const bool now = kind == MoveKind::flip ? card->face_up : card->sideways;
  const Move move{.kind = kind, .on = !now, .run = {id, 1}, .from = card->zone};
  return {judge_move(table, rules, move), move};
}

}  // namespace

std::vector<CardId> rules_detail::compared_cards(const Table& table, const Rulebook& rules) {
  std::vector<CardId> opened = cards_detail::Inside::opened_cards(table);
  std::erase_if(opened, [&](CardId id) { return !match_of(rules, table.card(id)->zone); });
  return opened;
}

Verdict rules_detail::judge_side(const Table& table, const Rulebook& rules, const Card& card, MoveKind kind,
                                 std::size_t compared) {
  const bool flips = kind == MoveKind::flip;
  const Reason nothing = flips ? Reason::flip_nothing : Reason::reorient_nothing;
  const auto refuse = [&](Reason reason, int wanted = 0) {
    return Verdict{.reason = reason, .card = card.id, .zone = card.zone, .wanted = wanted};
  };
  if (card.zone.value > rules.zones.size()) return refuse(nothing);
  const ZoneRules& own = rules.zones[card.zone.value - 1];
  const Rule& rule = flips ? own.flip : own.reorient;
  if (rule.kind == RuleKind::nothing) return refuse(nothing);
  if (std::find(rules.locked.begin(), rules.locked.end(), card.id) != rules.locked.end())
    return refuse(Reason::locked);
  if (Verdict off = judge_switches(rules, card); !off) return off;
  if (flips && own.match) {
    if (card.face_up) return refuse(Reason::open_already);
    if (compared >= static_cast<std::size_t>(own.match->open))
      return refuse(Reason::too_many_open, own.match->open);
  }
  Verdict verdict = ask<Verdict>(rule, Asked::where_it_lies(table, rules, card, 1));
  if (verdict.reason == Reason::drop_nothing) verdict.reason = nothing;
  return verdict;
}

Verdict rules_detail::judge_side_move(const Table& table, const Rulebook& rules, const Move& move) {
  const Card* card = table.card(move.run.first);
  if (!card) return {.reason = Reason::unknown_card, .card = move.run.first};
  if (card->zone != move.from || move.run.count != 1 || move.to) {
    return {.reason = Reason::other_run,
            .card = card->id,
            .zone = card->zone,
            .wanted = 1,
            .found = static_cast<int>(move.run.count)};
  }
  const bool compares = move.kind == MoveKind::flip && match_of(rules, card->zone);
  const std::size_t compared = compares ? compared_cards(table, rules).size() : 0;
  if (Verdict verdict = judge_side(table, rules, *card, move.kind, compared); !verdict) return verdict;
  const bool now = move.kind == MoveKind::flip ? card->face_up : card->sideways;
  return now != move.on ? Verdict{}
                        : Verdict{.reason = Reason::other_side, .card = card->id, .zone = card->zone};
}

void rules_detail::make_side_move(Table& table, const Rulebook& rules, const Move& move,
                                  std::vector<MoveStep>& steps) {
  const CardId card = move.run.first;
  if (move.kind == MoveKind::flip) {
    const std::vector<CardId> compared = compared_cards(table, rules);
    const int before = compared.empty() ? 0 : table.number(opened_number, compared.back());
    (void)table.flip(card, move.on);
    if (match_of(rules, move.from)) (void)table.set_number(opened_number, before + 1, card);
  } else {
    (void)table.set_sideways(card, move.on);
  }
  const Does did = move.kind == MoveKind::flip ? Does::flipped : Does::turned;
  steps.push_back({.kind = did, .card = card, .count = 1, .from = move.from});
}

std::optional<Comparison> rules_detail::find_comparison(const Table& table, const Rulebook& rules) {
  std::vector<CardId> cards = compared_cards(table, rules);
  if (cards.empty()) return std::nullopt;
  const auto face = [&](CardId id) { return table.card(id)->face; };
  const ZoneId zone = table.card(cards.back())->zone;  // which goes by the last that was opened
  const MatchRule& match = *match_of(rules, zone);
  if (cards.size() < static_cast<std::size_t>(match.open)) return std::nullopt;
  const bool together = std::all_of(cards.begin(), cards.end(), [&](CardId id) {
    return table.deck().belong_together(face(cards.front()), face(id));
  });
  return Comparison{.cards = std::move(cards), .zone = zone, .found = together, .match = match};
}

void rules_detail::end_comparison(Table& table, const Comparison& found, std::vector<MoveStep>& steps) {
  const ZoneId to = found.to();
  steps.push_back({.kind = found.found ? Does::matched : Does::unmatched,
                   .card = found.cards.front(),
                   .count = found.cards.size(),
                   .from = found.zone,
                   .to = to});
  for (const CardId id : found.cards) {
    const Card* card = table.card(id);
    if (!card) continue;
    const ZoneId from = card->zone;
    if (!found.found) {
      if (card->face_up) (void)table.flip(id, false);
      steps.push_back({.kind = Does::flipped, .card = id, .count = 1, .from = from});
      continue;
    }
    cards_detail::Inside::forget_opened(table, id);
    if (!to) continue;
    if (from != to) (void)table.move({id, 1}, to);
    steps.push_back({.kind = Does::taken, .card = id, .count = 1, .from = found.zone, .to = to});
  }
}

MoveVerdict flip_move(const Table& table, const Rulebook& rules, CardId card) {
  return side_move(table, rules, card, MoveKind::flip);
}

MoveVerdict reorient_move(const Table& table, const Rulebook& rules, CardId card) {
  return side_move(table, rules, card, MoveKind::reorient);
}

}  // namespace apsidon
