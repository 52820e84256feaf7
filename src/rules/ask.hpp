#pragma once
// What a rule says of a question. Not installed.
#include <algorithm>
#include <cstddef>
#include <span>
#include <utility>

#include "apsidon/geometry/limits.hpp"
#include "apsidon/rules/rulebook.hpp"

namespace apsidon::rules_detail {

/// Counts what is asked by a rulebook, also where its owner does not, and knows when that is enough: a table
/// at all its limits has more to ask than anybody would wait for.
class Patience {
 public:
  explicit Patience(Rulebook& rules) {
    if (!rules.asked) rules.asked = &own_;
    asked_ = rules.asked;
    began_ = *asked_;
  }
  Patience(const Patience&) = delete;
  Patience& operator=(const Patience&) = delete;

  /// What costs time as questions do.
  void add(std::size_t work) { *asked_ += work; }
  [[nodiscard]] bool over() const { return *asked_ - began_ > most_asked; }

 private:
  std::size_t own_ = 0;
  std::size_t* asked_;
  std::size_t began_;
};

/// A question to a rule, with what the rules look at of each face at hand.
struct Asked {
  Asked(const Table& on, const Rulebook& by) : table(on), rules(by) {}

  const Table& table;
  const Rulebook& rules;
  CardId card = {};
  FaceId face = {};
  const FaceTraits* traits = nullptr;
  ZoneId from = {};
  std::size_t count = 1;
  CardId onto = {};
  const FaceTraits* below = nullptr;  // of `onto`, if there is one
  ZoneId zone = {};
  std::span<const CardId> chosen = {};  // beside `card`, where they lie in no run

  void set_card(const Card& of) {
    card = of.id;
    from = of.zone;
    set_face(of.face);
  }
  void set_face(FaceId of) {
    face = of;
    traits = &table.deck().traits(of);
  }
  /// A question about a run where it lies: it would be picked up.
  [[nodiscard]] static Asked where_it_lies(const Table& on, const Rulebook& by, const Card& lowest,
                                           std::size_t count) {
    Asked q(on, by);
    q.set_card(lowest);
    q.count = count;
    q.zone = lowest.zone;
    if (lowest.index > 0) q.set_onto(on.zone(lowest.zone)->cards[lowest.index - 1]);
    return q;
  }
  /// The other cards that it is about.
  [[nodiscard]] std::span<const CardId> others() const {
    if (!chosen.empty() || count < 2 || !card) return chosen;
    const auto run = table.cards_of({card, count});
    return run.empty() ? run : run.subspan(1);
  }
  /// None for an empty zone.
  void set_onto(CardId id) {
    onto = id;
    below = id ? &table.deck().traits(table.card(id)->face) : nullptr;
  }
  [[nodiscard]] RuleQuestion question() const {
    return {.table = table,
            .card = card,
            .face = face,
            .from = from,
            .count = count,
            .onto = onto,
            .zone = zone,
            .rules = &rules,
            .others = others()};
  }
};

/// Whether a zone is switched off.
[[nodiscard]] inline bool is_off(const Rulebook& rules, ZoneId zone) {
  return std::binary_search(rules.zones_off.begin(), rules.zones_off.end(), zone);
}
[[nodiscard]] inline bool is_off(const Rulebook& rules, CardId card) {
  return std::binary_search(rules.cards_off.begin(), rules.cards_off.end(), card);
}

/// The refusal of what is switched off; its rule is the reason why, if the rulebook says it, so that the
/// client's sentence for that is found.
[[nodiscard]] inline Verdict refuse_off(const Rulebook& rules, Verdict verdict) {
  verdict.reason = Reason::switched_off;
  const auto look = [&](const auto& off, const auto& reasons, auto what) {
    const auto at = std::lower_bound(off.begin(), off.end(), what) - off.begin();
    if (at == static_cast<std::ptrdiff_t>(off.size()) || off[static_cast<std::size_t>(at)] != what) return;
    if (at < static_cast<std::ptrdiff_t>(reasons.size()))
      verdict.rule = reasons[static_cast<std::size_t>(at)];
  };
  look(rules.zones_off, rules.zones_off_for, verdict.zone);
  look(rules.cards_off, rules.cards_off_for, verdict.card);
  return verdict;
}

/// The answer of a rule. As a `Verdict` with all that a sentence needs; as a `bool` without them,
/// for those who ask thousands of questions: both are the same code, and never disagree.
template <class Answer>
[[nodiscard]] Answer ask(const Rule& rule, const Asked& q);
extern template Verdict ask<Verdict>(const Rule&, const Asked&);
extern template bool ask<bool>(const Rule&, const Asked&);

}  // namespace apsidon::rules_detail
