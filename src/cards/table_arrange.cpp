// Zones laid anew, and cards that come back for that.
#include <algorithm>
#include <unordered_set>

#include "apsidon/geometry/limits.hpp"
#include "cards/inside.hpp"

namespace apsidon::cards_detail {
namespace {

const KeptCard* find_in(const std::vector<KeptCard>* back, CardId id) {
  if (!back) return nullptr;
  const auto it = std::lower_bound(back->begin(), back->end(), id,
                                   [](const KeptCard& kept, CardId wanted) { return kept.first < wanted; });
  return it != back->end() && it->first == id ? &*it : nullptr;
}

}  // namespace

Verdict Inside::arrange(Table& table, std::span<const ZoneContents> contents,
                        const std::vector<KeptCard>* back) {
  std::vector<bool> named_zones(table.zones_.size(), false);
  std::vector<bool> named(table.cards_.size(), false);
  std::unordered_set<std::uint32_t> coming;
  std::size_t there = 0;
  std::size_t wanted = 0;
  for (const ZoneContents& c : contents) {
    if (!table.zone(c.zone) || named_zones[c.zone.value - 1])
      return {.reason = Reason::unknown_zone, .zone = c.zone};
    named_zones[c.zone.value - 1] = true;
    there += table.zone(c.zone)->cards.size();
    wanted += c.cards.size();
  }
  std::vector<const KeptCard*> kept;
  for (const ZoneContents& c : contents) {
    for (const LyingCard& lying : c.cards) {
      const Verdict unknown{.reason = Reason::unknown_card, .card = lying.card, .zone = c.zone};
      if (const auto s = table.slot(lying.card)) {
        if (named[*s] || !named_zones[table.cards_[*s].zone.value - 1]) return unknown;
        named[*s] = true;
        continue;
      }
      const KeptCard* one = find_in(back, lying.card);
      const bool was_here = lying.card.value > table.used_ids_ && lying.card <= table.last_id();
      if (!one || !was_here || !coming.insert(lying.card.value).second) return unknown;
      kept.push_back(one);
    }
  }
  if (!back && there != wanted) return {.reason = Reason::unknown_index, .zone = contents.front().zone};
  const auto leaves = [&](const Card& card) {
    return named_zones[card.zone.value - 1] && !named[*table.slot(card.id)];
  };
  for (const KeptCard* one : kept) {
    const std::uint64_t key = one->second.key;
    const auto holder = key != 0 ? table.find_card_by_key(key) : std::nullopt;
    if (holder && !leaves(*table.card(*holder)))
      return {.reason = Reason::repeated_key, .card = one->first, .key = key};
  }
  if (table.card_count() + wanted - there > most_cards) return {.reason = Reason::out_of_range};

  std::vector<const ZoneContents*> changed;
  for (const ZoneContents& c : contents) {
    if (table.contents_of(c.zone) != c) changed.push_back(&c);
  }
  std::vector<CardId> leaving;
  for (const Card& card : table.cards_) {
    if (back && card.id && leaves(card)) leaving.push_back(card.id);
  }
  for (const CardId card : leaving) table.retire(card);
  for (const KeptCard* one : kept) table.keep(one->first, one->second);
  for (const ZoneContents* c : changed) {
    Zone& z = table.zones_[c->zone.value - 1];
    z.recycled = c->recycled;
    table.set_numbers(c->zone, {});
    z.cards.clear();
    for (const LyingCard& lying : c->cards) {
      z.cards.push_back(lying.card);
      Card& at = *table.find(lying.card);
      at.zone = c->zone;
      at.index = z.cards.size() - 1;
      at.face_up = lying.face_up;
      at.sideways = lying.sideways;
      at.cell = lying.cell;
      at.at = lying.at;
      if (!table.numbers_.empty()) table.set_numbers(lying.card, {});
    }
    for (const auto& [card, numbers] : c->numbers) {
      const Card* of = table.card(card);
      if (!card) table.set_numbers(c->zone, sorted(numbers));
      if (of && of->zone == c->zone) table.set_numbers(card, sorted(numbers));
    }
    table.touch(z);
  }
  return {};
}

std::optional<CardOptions> Inside::find_retired(const Table& table, CardId id) {
  const auto it = std::find_if(table.retired_.rbegin(), table.retired_.rend(),
                               [&](const KeptCard& kept) { return kept.first == id; });
  return it == table.retired_.rend() ? std::nullopt : std::optional(it->second);
}

Sides Inside::sides_of(const Table& table) {
  Sides sides{.turn = table.turn_, .numbers = {table.numbers()}};
  for (const Seat& seat : table.seats_) sides.numbers.push_back(table.numbers(seat.id));
  return sides;
}

void Inside::set_sides(Table& table, const Sides& sides) {
  if (sides_of(table) == sides) return;
  table.turn_ = sides.turn;
  for (std::size_t i = 0; i < sides.numbers.size(); ++i)
    table.set_numbers(SeatId{static_cast<std::uint32_t>(i)}, sides.numbers[i]);
  table.own_revision_ = ++table.revision_;
}

}  // namespace apsidon::cards_detail
