#include "apsidon/cards/table.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <unordered_set>
#include <utility>

#include "apsidon/geometry/error.hpp"
#include "apsidon/geometry/limits.hpp"
#include "cards/inside.hpp"
#include "geometry/options.hpp"

namespace apsidon {

Table::Table(Deck deck) : deck_(std::move(deck)) {}

ZoneId Table::create_zone(std::string name, const ZoneOptions& options) {
  const std::uint64_t key = options.key;
  const int recycled = options.recycled;
  if (name.empty()) throw Error("zone: the name is empty: a name is expected");
  geometry_detail::check_name("zone: name", name);
  if (zones_.size() >= most_zones) {
    throw Error(fmt::format("zone '{}': the table has {} zones: no more are expected", name, most_zones));
  }
  if (find_zone(name)) {
    throw Error(fmt::format("zone '{}': the table has one of that name: a new name is expected", name));
  }
  if (key != 0 && find_zone_by_key(key)) {
    throw Error(fmt::format("zone '{}': key {} is taken by zone '{}': a new key is expected", name, key,
                            zone(*find_zone_by_key(key))->name));
  }
  const ZoneId id{static_cast<std::uint32_t>(zones_.size() + 1)};
  if (recycled < 0 || recycled > 1'000'000) {
    throw Error(fmt::format("zone '{}': recycled {} times: 0 to 1000000 is expected", name, recycled));
  }
  if (options.seat && options.seat.value > seats_.size()) {
    throw Error(fmt::format("zone '{}': seat {}: a seat of the table, or none, is expected", name,
                            options.seat.value));
  }
  const Numbers numbers = cards_detail::checked(options.numbers, fmt::format("zone '{}'", name), true);
  zone_by_name_.emplace(name, id);
  if (key != 0) zone_by_key_.emplace(key, id);
  zones_.push_back({.id = id,
                    .name = std::move(name),
                    .key = key,
                    .cards = {},
                    .recycled = recycled,
                    .seat = options.seat,
                    .revision = 0});
  set_numbers(id, numbers);
  touch(zones_.back());
  return id;
}

void cards_detail::Inside::check_new(const Table& table, std::span<const CardOptions> cards) {
  std::unordered_set<std::uint64_t> keys;
  for (const CardOptions& card : cards) {
    table.check_new(card);
    if (cards.size() > 1 && card.key != 0 && !keys.insert(card.key).second)
      throw Error(fmt::format("card: key {} is given twice: a key of its own is expected", card.key));
  }
  if (table.card_count() + cards.size() > most_cards) {
    throw Error(fmt::format("card: {} cards on a table that has {}: at most {} in all are expected",
                            cards.size(), table.card_count(), most_cards));
  }
}

void Table::check_new(const CardOptions& options) const {
  if (options.face != hidden_face && !deck_.has(options.face)) {
    throw Error(fmt::format("card: face {} is not in the deck: 1 to {}, or hidden, is expected",
                            options.face.value, deck_.face_count()));
  }
  if (options.key != 0 && card_by_key_.contains(options.key)) {
    throw Error(fmt::format("card: key {} is taken: a new key is expected", options.key));
  }
  if (options.cell < -1 || options.cell > static_cast<int>(most_cards)) {
    throw Error(fmt::format("card: cell {}: -1 to {} is expected", options.cell, most_cards));
  }
  if (!is_finite(options.at))
    throw Error("card: its position is not finite: shares of the room are expected");
  if (!options.numbers.empty()) (void)cards_detail::checked(options.numbers, "card");
}

CardId Table::create_card(ZoneId zone_id, const CardOptions& options) {
  if (!zone(zone_id)) {
    throw Error(
        fmt::format("card: zone {} is not on the table: a zone of this table is expected", zone_id.value));
  }
  cards_detail::Inside::check_new(*this, std::span(&options, 1));
  const CardId id = add_card(options);
  Zone& home = zones_[zone_id.value - 1];
  home.cards.push_back(id);
  renumber(home, home.cards.size() - 1);
  touch(home);
  return id;
}

/// The numbers of a card, which has none any more.
Numbers cards_detail::Inside::take_numbers(Table& table, CardId id) {
  Numbers numbers = table.numbers(id);
  if (!numbers.empty()) table.set_numbers(id, {});
  return numbers;
}

void cards_detail::Inside::give_ids(Table& table, std::span<const CardId> ids, CardId last) {
  if (ids.size() != table.card_count()) {
    throw Error(
        fmt::format("table: {} ids: {}, one for each card, are expected", ids.size(), table.card_count()));
  }
  std::vector<CardId> sorted(ids.begin(), ids.end());
  std::sort(sorted.begin(), sorted.end());
  for (std::size_t i = 0; i < sorted.size(); ++i) {
    if (!sorted[i] || sorted[i].value > last.value) {
      throw Error(fmt::format("table: card id {}: 1 to {} is expected", sorted[i].value, last.value));
    }
    if (i > 0 && sorted[i] == sorted[i - 1]) {
      throw Error(fmt::format("table: card id {} is given twice: each is expected once", sorted[i].value));
    }
  }
  // Slots are in the order of ids, as in a table from which no card has gone.
  std::vector<Card> cards(sorted.size());
  std::vector<std::uint32_t> slots(last.value, ~std::uint32_t{0});
  std::vector<std::pair<CardId, Numbers>> numbers;
  std::size_t next = 0;
  for (const std::uint32_t from : table.slot_of_) {
    if (from >= table.cards_.size() || !table.cards_[from].id) continue;
    const CardId id = ids[next++];
    if (Numbers own = take_numbers(table, table.cards_[from].id); !own.empty())
      numbers.emplace_back(id, std::move(own));
    const auto to =
        static_cast<std::uint32_t>(std::lower_bound(sorted.begin(), sorted.end(), id) - sorted.begin());
    cards[to] = table.cards_[from];
    cards[to].id = id;
    slots[id.value - 1] = to;
    table.zones_[cards[to].zone.value - 1].cards[cards[to].index] = id;
    if (cards[to].key != 0) table.card_by_key_[cards[to].key] = id;
  }
  table.cards_ = std::move(cards);
  table.slot_of_ = std::move(slots);
  table.free_slots_.clear();
  table.used_ids_ = 0;
  for (const auto& [id, own] : numbers) table.set_numbers(id, own);
  table.retired_.clear();
}

void cards_detail::give_ids(Table& table, std::span<const CardId> ids, CardId last) {
  Inside::give_ids(table, ids, last);
}

void cards_detail::Inside::give_ids_after(Table& table, CardId last) {
  if (last.value <= table.used_ids_) return;
  const std::uint32_t more = last.value - table.used_ids_;
  const auto renamed = [&](CardId id) { return CardId{id.value + more}; };
  std::vector<std::pair<CardId, Numbers>> numbers;
  for (Card& c : table.cards_) {
    if (!c.id) continue;
    if (Numbers own = take_numbers(table, c.id); !own.empty())
      numbers.emplace_back(renamed(c.id), std::move(own));
    c.id = renamed(c.id);
  }
  for (const auto& [id, own] : numbers) table.set_numbers(id, own);
  table.retired_.clear();
  for (Zone& z : table.zones_) {
    for (CardId& id : z.cards) id = renamed(id);
  }
  for (auto& [key, id] : table.card_by_key_) id = renamed(id);
  table.used_ids_ = last.value;
}

void cards_detail::Inside::keep_ids_ahead_of(Table& table, CardId last) {
  // Numbers that no card has belong to no slot.
  if (last.value > table.last_id().value)
    table.slot_of_.resize(last.value - table.used_ids_, ~std::uint32_t{0});
}

const Zone* Table::zone(ZoneId id) const {
  return id && id.value <= zones_.size() ? &zones_[id.value - 1] : nullptr;
}

std::optional<ZoneId> Table::find_zone(std::string_view name) const {
  const auto it = zone_by_name_.find(name);
  return it == zone_by_name_.end() ? std::nullopt : std::optional(it->second);
}

std::vector<ZoneId> Table::find_group(std::string_view name) const {
  std::vector<ZoneId> group;
  for (const Zone& zone : zones_) {
    const std::string_view own = zone.name;
    const bool generated = own.size() > name.size() + 1 && own.starts_with(name) && own[name.size()] == '-' &&
                           own.find_first_not_of("0123456789-", name.size()) == std::string_view::npos;
    if (generated) group.push_back(zone.id);
  }
  return group;
}

std::optional<ZoneId> Table::find_zone_by_key(std::uint64_t key) const {
  const auto it = zone_by_key_.find(key);
  return it == zone_by_key_.end() ? std::nullopt : std::optional(it->second);
}

Card* Table::find(CardId id) { return const_cast<Card*>(std::as_const(*this).card(id)); }

std::optional<CardId> Table::find_card_by_key(std::uint64_t key) const {
  const auto it = card_by_key_.find(key);
  return it == card_by_key_.end() ? std::nullopt : std::optional(it->second);
}

std::optional<CardId> Table::top(ZoneId id) const {
  const Zone* z = zone(id);
  return z && !z->cards.empty() ? std::optional(z->cards.back()) : std::nullopt;
}

Run Table::run_from(CardId first) const {
  const Card* c = card(first);
  return c ? Run{first, zone(c->zone)->cards.size() - c->index} : Run{first, 0};
}

std::span<const CardId> Table::cards_of(const Run& run) const {
  const Card* c = card(run.first);
  if (!c) return {};
  const std::span<const CardId> all = zone(c->zone)->cards;
  return run.count <= all.size() - c->index ? all.subspan(c->index, run.count) : std::span<const CardId>{};
}

Verdict Table::move(const Run& run, ZoneId to) {
  const Card* first = card(run.first);
  const Zone* target = zone(to);
  if (!first || !target) return move(run, to, 0);
  const std::size_t own = first->zone == to ? std::min(run.count, target->cards.size()) : 0;
  return move(run, to, target->cards.size() - own);
}

Verdict Table::move(const Run& run, ZoneId to, std::size_t at) {
  const Card* first = card(run.first);
  if (!first) return {.reason = Reason::unknown_card, .card = run.first};
  if (!zone(to)) return {.reason = Reason::unknown_zone, .card = run.first, .zone = to};
  const bool within = first->zone == to;
  Zone& source = zones_[first->zone.value - 1];
  Zone& target = zones_[to.value - 1];
  const std::size_t from = first->index;
  const std::size_t room = target.cards.size() - (within ? std::min(run.count, target.cards.size()) : 0);
  if (run.count == 0 || run.count > source.cards.size() - from || at > room) {
    return {.reason = Reason::unknown_index, .card = run.first, .zone = run.count == 0 ? source.id : to};
  }
  if (within && at == from) return {};

  const auto begin = source.cards.begin() + static_cast<std::ptrdiff_t>(from);
  const auto end = begin + static_cast<std::ptrdiff_t>(run.count);
  const auto target_at = static_cast<std::ptrdiff_t>(at);
  if (within) {
    if (at < from) {
      std::rotate(source.cards.begin() + target_at, begin, end);
    } else {
      std::rotate(begin, end, source.cards.begin() + target_at + static_cast<std::ptrdiff_t>(run.count));
    }
    renumber(source, std::min(at, from));
  } else {
    target.cards.insert(target.cards.begin() + target_at, begin, end);
    source.cards.erase(begin, end);
    renumber(source, from);
    renumber(target, at);
    touch(target);
  }
  touch(source);
  return {};
}

Verdict Table::flip(CardId id, bool face_up) {
  Card* c = find(id);
  if (!c) return {.reason = Reason::unknown_card, .card = id};
  cards_detail::Inside::forget_opened(*this, id);
  return change(*c, c->face_up, face_up);
}

Verdict Table::set_face(CardId id, FaceId face) {
  Card* c = find(id);
  if (!c) return {.reason = Reason::unknown_card, .card = id};
  if (face != hidden_face && !deck_.has(face))
    return {.reason = Reason::unknown_face, .card = id, .zone = c->zone};
  return change(*c, c->face, face);
}

Verdict Table::set_sideways(CardId id, bool sideways) {
  Card* c = find(id);
  if (!c) return {.reason = Reason::unknown_card, .card = id};
  return change(*c, c->sideways, sideways);
}

Verdict Table::set_cell(CardId id, int cell) {
  Card* c = find(id);
  if (!c) return {.reason = Reason::unknown_card, .card = id};
  if (cell < -1 || cell > static_cast<int>(most_cards))
    return {.reason = Reason::unknown_index, .card = id, .zone = c->zone};
  return change(*c, c->cell, cell);
}

Verdict Table::set_position(CardId id, Vec2 at) {
  Card* c = find(id);
  if (!c) return {.reason = Reason::unknown_card, .card = id};
  if (!is_finite(at)) return {.reason = Reason::unknown_index, .card = id, .zone = c->zone};
  return change(*c, c->at, Vec2{std::clamp(at.x, 0.0f, 1.0f), std::clamp(at.y, 0.0f, 1.0f)});
}

template <class Value>
Verdict Table::change(const Card& card, Value& of_card, const Value& value) {
  if (of_card == value) return {};
  of_card = value;
  touch(zones_[card.zone.value - 1]);
  return {};
}

CardId Table::add_card(const CardOptions& options) {
  slot_of_.push_back(0);
  const CardId id{used_ids_ + static_cast<std::uint32_t>(slot_of_.size())};
  keep(id, options);
  return id;
}

/// Gives a card that lies nowhere yet a slot.
void Table::keep(CardId id, const CardOptions& options) {
  std::uint32_t at = static_cast<std::uint32_t>(cards_.size());
  if (free_slots_.empty()) {
    cards_.emplace_back();
  } else {
    at = free_slots_.back();
    free_slots_.pop_back();
  }
  slot_of_[id.value - used_ids_ - 1] = at;
  cards_[at] = {.id = id,
                .face = options.face,
                .key = options.key,
                .face_up = options.face_up,
                .sideways = options.sideways,
                .cell = options.cell,
                .at = {std::clamp(options.at.x, 0.0f, 1.0f), std::clamp(options.at.y, 0.0f, 1.0f)},
                .zone = {},
                .index = 0};
  if (options.key != 0) card_by_key_.emplace(options.key, id);
  if (!options.numbers.empty()) set_numbers(id, cards_detail::sorted(options.numbers));
}

void Table::retire(CardId id) {
  constexpr std::size_t most_at_once = 10'000;  // a game makes and takes away no more of them in one move
  const std::size_t at = *slot(id);
  if (retired_.size() >= 2 * most_at_once) retired_.erase(retired_.begin(), retired_.begin() + most_at_once);
  retired_.emplace_back(id, cards_detail::Inside::options_of(*this, id));
  set_numbers(id, {});
  if (cards_[at].key != 0) card_by_key_.erase(cards_[at].key);
  cards_[at] = {};
  free_slots_.push_back(static_cast<std::uint32_t>(at));
}

void Table::renumber(Zone& zone, std::size_t from) {
  for (std::size_t i = from; i < zone.cards.size(); ++i) {
    Card& c = *find(zone.cards[i]);
    if (c.zone && c.zone != zone.id) c.cell = -1;
    c.zone = zone.id;
    c.index = i;
  }
}

void Table::touch(Zone& zone) { zone.revision = ++revision_; }

CardOptions cards_detail::Inside::options_of(const Table& table, CardId id) {
  const Card& card = *table.card(id);
  return {.face = card.face,
          .key = card.key,
          .face_up = card.face_up,
          .sideways = card.sideways,
          .cell = card.cell,
          .at = card.at,
          .numbers = table.numbers(id)};
}

}  // namespace apsidon
