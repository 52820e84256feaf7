#pragma once
// What a rule says of a question. Not installed.
#include <cstddef>
#include <span>
#include <utility>

#include "apsidon/rules/rulebook.hpp"

namespace apsidon::rules_detail {

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

  void set_card(const Card& of) {
    card = of.id;
    from = of.zone;
    set_face(of.face);
  }
  void set_face(FaceId of) {
    face = of;
    traits = &table.deck().traits(of);
  }
  /// None for an empty zone.
  void set_onto(CardId id) {
    onto = id;
    below = id ? &table.deck().traits(table.card(id)->face) : nullptr;
  }
  [[nodiscard]] RuleQuestion question() const {
    return {
        .table = table, .card = card, .face = face, .from = from, .count = count, .onto = onto, .zone = zone};
  }
};

/// The answer of a rule. As a `Verdict` with all that a sentence needs; as a `bool` without them,
/// for those who ask thousands of questions: both are the same code, and never disagree.
template <class Answer>
[[nodiscard]] Answer ask(const Rule& rule, const Asked& q);
extern template Verdict ask<Verdict>(const Rule&, const Asked&);
extern template bool ask<bool>(const Rule&, const Asked&);

}  // namespace apsidon::rules_detail
