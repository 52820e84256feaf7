#include "shared/motions.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>

#include "apsidon/files/feel_file.hpp"
#include "shared/common.hpp"

namespace apsidon::tool {
namespace {

/// The zone with the most cards of those that `suits`.
template <class Suits>
ZoneId largest(const Table& table, std::string_view what, Suits suits) {
  const Zone* best = nullptr;
  for (const Zone& zone : table.zones()) {
    if (suits(zone) && (!best || zone.cards.size() > best->cards.size())) best = &zone;
  }
  if (!best) throw Failure{bad_call, fmt::format("the table has no {}: name one with --zone", what)};
  return best->id;
}

std::vector<CardId> chosen(const Table& table, const Motions& m, bool only_open) {
  if (!m.card.empty()) return {find_card(table, m.card)};
  std::vector<CardId> cards;
  for (const Zone& zone : table.zones()) {
    if (zone.cards.empty() || static_cast<int>(cards.size()) == m.count) continue;
    const CardId top = zone.cards.back();
    if (!only_open || table.card(top)->face_up) cards.push_back(top);
  }
  if (cards.empty()) throw Failure{bad_call, "the table has no cards for that: name one with --card"};
  return cards;
}

}  // namespace

std::string all_motions() {
  std::string out;
  for (const std::string_view name : motion_names) out += fmt::format("{}{}", out.empty() ? "" : ", ", name);
  return out;
}

Begun begin(Playfield& field, const Motions& m) {
  const Table& table = field.table();
  const auto begun = [&](const auto& script, std::size_t cards) {
    return Begun{field.performances().perform(script), cards};
  };
  const auto zone_or = [&](std::string_view what, auto suits) {
    return m.zone.empty() ? largest(table, what, suits) : find_zone(table, m.zone);
  };
  const auto any_zone = [](const Zone&) { return true; };
  const auto has_cards = [](const Zone& zone) { return !zone.cards.empty(); };
  if (m.motion == "gather") return begun(gather(zone_or("zone", any_zone)), table.card_count());
  if (m.motion == "shuffle") {
    // A gathered pile first: a shuffle of a few cards shows little.
    const ZoneId zone = zone_or("zone with cards", has_cards);
    return begun(shuffle(zone, m.seed), table.zone(zone)->cards.size());
  }
  if (m.motion == "draw") {
    const auto covered = [&](const Zone& zone) {
      return !zone.cards.empty() && !table.card(zone.cards.back())->face_up;
    };
    const ZoneId from = largest(table, "covered pile to draw from", covered);
    const auto open = [&](const Zone& zone) {
      return zone.id != from && !zone.cards.empty() && table.card(zone.cards.back())->face_up;
    };
    const ZoneId to = zone_or("zone to draw to", open);
    const std::size_t count = std::min(static_cast<std::size_t>(m.count), table.zone(from)->cards.size());
    return begun(draw(from, to, count), count);
  }
  if (m.motion == "flip") {
    const std::vector<CardId> cards = chosen(table, m, false);
    const bool face_up = !table.card(cards.front())->face_up;
    const auto turns = [&](CardId card) { return table.card(card)->face_up != face_up; };
    return begun(flip(cards, face_up),
                 static_cast<std::size_t>(std::count_if(cards.begin(), cards.end(), turns)));
  }
  if (m.motion == "reveal") {
    std::vector<CardId> covered;
    for (const Zone& zone : table.zones()) {
      for (const CardId card : zone.cards) {
        const bool can = !table.card(card)->face_up && table.card(card)->face != hidden_face;
        if (can && static_cast<int>(covered.size()) < m.count) covered.push_back(card);
      }
    }
    if (!m.card.empty()) covered = {find_card(table, m.card)};
    if (covered.empty())
      throw Failure{bad_call, "the table has no covered card whose face is known: name one with --card"};
    return begun(reveal(covered, 1), covered.size());
  }
  const auto open = [&] { return chosen(table, m, true); };
  if (m.motion == "shake") return begun(shake(open()), open().size());
  if (m.motion == "pulse") return begun(pulse(open()), open().size());
  if (m.motion == "collect") return begun(collect(open(), zone_or("zone", any_zone)), open().size());
  if (m.motion == "finale") return begun(finale(), table.card_count());
  return {field.performances().deal(), table.card_count()};
}

Feel feel_named(const std::string& name) {
  if (name == "brisk") return {};
  if (name == "springy") return springy();
  if (name == "calm") return calm();
  if (name == "reduced") return reduced({});
  if (!std::filesystem::exists(name)) {
    throw Failure{
        bad_call,
        fmt::format("'{}' is no feel: brisk, springy, calm, reduced, or a feel file is expected", name)};
  }
  return or_fail(load_feel(name));
}

}  // namespace apsidon::tool
