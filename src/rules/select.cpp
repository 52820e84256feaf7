// Cards that are chosen to be moved together.
#include <algorithm>

#include "rules/ask.hpp"
#include "rules/inside.hpp"

namespace apsidon {

using rules_detail::Asked;

Verdict judge_select(const Table& table, const Rulebook& rules, std::span<const CardId> chosen, CardId id) {
  const Card* card = table.card(id);
  if (!card) return {.reason = Reason::unknown_card, .card = id};
  const auto refuse = [&](Reason reason) {
    return Verdict{.reason = reason, .card = id, .zone = card->zone};
  };
  if (card->zone.value > rules.zones.size()) return refuse(Reason::select_nothing);
  const Rule& rule = rules.zones[card->zone.value - 1].select;
  if (rule.kind == RuleKind::nothing) return refuse(Reason::select_nothing);
  if (!card->face_up) return refuse(Reason::face_down);
  if (std::find(rules.locked.begin(), rules.locked.end(), id) != rules.locked.end())
    return refuse(Reason::locked);
  if (Verdict off = rules_detail::judge_switches(rules, *card); !off) return off;
  Asked q(table, rules);
  q.set_card(*card);
  q.zone = card->zone;
  q.count = chosen.size() + 1;
  q.chosen = chosen;
  if (!chosen.empty()) q.set_onto(chosen.back());
  return rules_detail::ask<Verdict>(rule, q);
}

}  // namespace apsidon
