// Changes of whole zones: shuffles, cuts, recycling, gathering.
#include <algorithm>
#include <tuple>
#include <utility>

#include "apsidon/cards/random.hpp"
#include "apsidon/cards/table.hpp"
#include "cards/inside.hpp"

namespace apsidon {

Verdict Table::shuffle(ZoneId id, std::uint64_t seed) {
  if (!zone(id)) return {.reason = Reason::unknown_zone, .zone = id};
  Zone& z = zones_[id.value - 1];
  Random64 random(seed);
  const std::vector<CardId> before = z.cards;
  std::vector<std::pair<int, Vec2>> places;
  for (const CardId card : z.cards) places.emplace_back(find(card)->cell, find(card)->at);
  apsidon::shuffle(std::span(z.cards), random);
  if (z.cards == before) return {};
  // Cells and free positions stay where they are; who lies there is another.
  for (std::size_t i = 0; i < places.size(); ++i)
    std::tie(find(z.cards[i])->cell, find(z.cards[i])->at) = places[i];
  renumber(z, 0);
  touch(z);
  return {};
}

Verdict Table::scatter(ZoneId id, std::uint64_t seed) {
  if (!zone(id)) return {.reason = Reason::unknown_zone, .zone = id};
  Zone& z = zones_[id.value - 1];
  Random64 random(seed);
  for (const CardId card : z.cards) {
    Vec2& at = find(card)->at;
    at.x = random.unit();
    at.y = random.unit();
  }
  if (!z.cards.empty()) touch(z);
  return {};
}

Verdict Table::conceal(ZoneId id) {
  if (!zone(id)) return {.reason = Reason::unknown_zone, .zone = id};
  Zone& z = zones_[id.value - 1];
  bool changed = false;
  for (const CardId card : z.cards) {
    Card& c = *find(card);
    changed = changed || c.face_up || c.face != hidden_face;
    lay(c, false);
    c.face = hidden_face;
  }
  if (changed) touch(z);
  return {};
}

Verdict Table::cut(ZoneId id, std::size_t count) {
  if (!zone(id)) return {.reason = Reason::unknown_zone, .zone = id};
  Zone& z = zones_[id.value - 1];
  if (count > z.cards.size()) return {.reason = Reason::unknown_index, .zone = id};
  if (count == 0 || count == z.cards.size()) return {};
  std::rotate(z.cards.begin(), z.cards.end() - static_cast<std::ptrdiff_t>(count), z.cards.end());
  renumber(z, 0);
  touch(z);
  return {};
}

Verdict Table::recycle(ZoneId from, ZoneId to) {
  if (!zone(from) || !zone(to)) return {.reason = Reason::unknown_zone, .zone = zone(from) ? to : from};
  if (from == to) return {.reason = Reason::unknown_index, .zone = to};
  Zone& source = zones_[from.value - 1];
  Zone& target = zones_[to.value - 1];
  if (source.cards.empty()) return {};
  const std::size_t first = target.cards.size();
  for (auto it = source.cards.rbegin(); it != source.cards.rend(); ++it) {
    Card& c = *find(*it);
    lay(c, !c.face_up);
    target.cards.push_back(*it);
  }
  source.cards.clear();
  ++target.recycled;
  renumber(target, first);
  touch(source);
  touch(target);
  return {};
}

ZoneContents Table::contents_of(ZoneId id) const {
  const Zone* z = zone(id);
  if (!z) return {};
  ZoneContents out{.zone = id, .recycled = z->recycled};
  std::vector<std::pair<CardId, Numbers>> numbered;
  const auto note = [&](CardId of, Numbers own) {
    if (!own.empty()) numbered.emplace_back(of, std::move(own));
  };
  note({}, numbers(id));
  out.cards.reserve(z->cards.size());
  for (const CardId card_id : z->cards) {
    const Card& c = *card(card_id);
    out.cards.push_back(
        {.card = card_id, .face_up = c.face_up, .sideways = c.sideways, .cell = c.cell, .at = c.at});
    if (!numbers_.empty()) note(card_id, numbers(card_id));
  }
  out.numbers = std::move(numbered);
  return out;
}

Verdict Table::arrange(std::span<const ZoneContents> contents) {
  return cards_detail::Inside::arrange(*this, contents, nullptr);
}

std::size_t Table::take(ZoneId from, ZoneId to, std::size_t count, bool face_up) {
  if (!zone(from) || !zone(to) || from == to) return 0;
  Zone& source = zones_[from.value - 1];
  Zone& target = zones_[to.value - 1];
  const std::size_t taken = std::min(count, source.cards.size());
  if (taken == 0) return 0;
  const std::size_t first = target.cards.size();
  for (std::size_t i = 0; i < taken; ++i) {
    lay(*find(source.cards.back()), face_up);
    target.cards.push_back(source.cards.back());
    source.cards.pop_back();
  }
  renumber(target, first);
  touch(source);
  touch(target);
  return taken;
}

Verdict Table::gather(std::span<const CardId> wanted, ZoneId to, bool keeps_sides) {
  if (!zone(to)) return {.reason = Reason::unknown_zone, .zone = to};
  if (wanted.empty()) return {};
  std::vector<bool> named(cards_.size(), false);
  for (const CardId id : wanted) {
    const auto s = slot(id);
    if (!s || named[*s]) return {.reason = Reason::unknown_card, .card = id};
    named[*s] = true;
  }
  for (Zone& z : zones_) {
    const auto is_named = [&](CardId id) { return named[*slot(id)]; };
    if (std::erase_if(z.cards, is_named) == 0) continue;
    renumber(z, 0);
    if (z.id != to) touch(z);
  }
  Zone& target = zones_[to.value - 1];
  const std::size_t first = target.cards.size();
  for (const CardId id : wanted) {
    Card& c = *find(id);
    lay(c, c.face_up && keeps_sides);
    c.sideways = false;
    target.cards.push_back(id);
  }
  renumber(target, first);
  touch(target);
  return {};
}

Verdict Table::swap(CardId a, CardId b) {
  Card* one = find(a);
  Card* other = find(b);
  if (!one || !other) return {.reason = Reason::unknown_card, .card = one ? b : a};
  if (a == b) return {};
  std::swap(zones_[one->zone.value - 1].cards[one->index], zones_[other->zone.value - 1].cards[other->index]);
  std::swap(one->zone, other->zone);
  std::swap(one->index, other->index);
  std::swap(one->cell, other->cell);
  std::swap(one->at, other->at);
  touch(zones_[one->zone.value - 1]);
  if (one->zone != other->zone) touch(zones_[other->zone.value - 1]);
  return {};
}

Verdict Table::remove(CardId id) {
  const Card* c = card(id);
  if (!c) return {.reason = Reason::unknown_card, .card = id};
  Zone& home = zones_[c->zone.value - 1];
  const std::size_t place = c->index;
  retire(id);
  home.cards.erase(home.cards.begin() + static_cast<std::ptrdiff_t>(place));
  renumber(home, place);
  touch(home);
  return {};
}

}  // namespace apsidon
