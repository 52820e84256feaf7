// Seats, whose turn it is, and numbers.
#include <fmt/format.h>

#include <algorithm>
#include <utility>

#include "apsidon/geometry/error.hpp"
#include "apsidon/geometry/limits.hpp"
#include "cards/inside.hpp"
#include "geometry/options.hpp"
#include "geometry/thrown.hpp"

namespace apsidon {
namespace {

/// Zones, cards and seats each have numbers of their own; that of none is the table.
std::uint64_t key_of(const NumberOwner& owner) {
  const auto key = [](std::uint64_t kind, std::uint32_t id) { return (kind << 32) | id; };
  if (owner.card) return key(2, owner.card.value);
  if (owner.zone) return key(1, owner.zone.value);
  return owner.seat.value;
}

constexpr std::string_view counted_name = "cards";

bool comes_before(const Number& number, std::string_view name) { return number.name < name; }

void check_number(std::string_view whose, std::string_view name, int value, bool of_zone) {
  if (name.empty()) throw Error(fmt::format("{}: a number has no name: one is expected", whose));
  geometry_detail::check_name(fmt::format("{}: name of a number", whose), name);
  if (of_zone && name == counted_name) {
    throw Error(fmt::format("{}: its cards are counted by the table: another name than '{}' is expected",
                            whose, name));
  }
  geometry_detail::check_range(fmt::format("{}: number '{}'", whose, name), value, -largest_number,
                               largest_number);
}

}  // namespace

Numbers cards_detail::sorted(const Numbers& numbers) {
  const auto by_name = [](const Number& a, const Number& b) { return a.name < b.name; };
  if (std::is_sorted(numbers.begin(), numbers.end(), by_name)) return numbers;
  std::vector<Number> all(numbers.begin(), numbers.end());
  std::sort(all.begin(), all.end(), by_name);
  return all;
}

Numbers cards_detail::checked(const Numbers& numbers, std::string_view whose, bool of_zone) {
  if (numbers.size() > most_numbers) {
    throw Error(fmt::format("{}: {} numbers: at most {} are expected", whose, numbers.size(), most_numbers));
  }
  for (const Number& number : numbers) check_number(whose, number.name, number.value, of_zone);
  const Numbers all = sorted(numbers);
  const auto same = [](const Number& a, const Number& b) { return a.name == b.name; };
  if (const Number* twice = std::adjacent_find(all.begin(), all.end(), same); twice != all.end()) {
    throw Error(fmt::format("{}: number '{}' is given twice: each is expected once", whose, twice->name));
  }
  return all;
}

SeatId Table::create_seat(std::string name, Numbers numbers) {
  if (name.empty()) throw Error("seat: the name is empty: a name is expected");
  geometry_detail::check_name("seat: name", name);
  if (seats_.size() >= most_seats) {
    throw Error(fmt::format("seat '{}': the table has {} seats: no more are expected", name, most_seats));
  }
  if (find_seat(name)) {
    throw Error(fmt::format("seat '{}': the table has one of that name: a new name is expected", name));
  }
  numbers = cards_detail::checked(numbers, fmt::format("seat '{}'", name));
  const SeatId id{static_cast<std::uint32_t>(seats_.size() + 1)};
  seats_.push_back({.id = id, .name = std::move(name)});
  set_numbers(id, numbers);
  own_revision_ = ++revision_;
  return id;
}

std::optional<SeatId> Table::find_seat(std::string_view name) const {
  const auto it = std::find_if(seats_.begin(), seats_.end(), [&](const Seat& s) { return s.name == name; });
  return it == seats_.end() ? std::nullopt : std::optional(it->id);
}

bool Table::is_on_turn(SeatId seat) const { return std::binary_search(turn_.begin(), turn_.end(), seat); }

Verdict Table::set_turn(std::span<const SeatId> seats) {
  std::vector<SeatId> turn(seats.begin(), seats.end());
  std::sort(turn.begin(), turn.end());
  turn.erase(std::unique(turn.begin(), turn.end()), turn.end());
  if (!turn.empty() && (!turn.front() || turn.back().value > seats_.size()))
    return {.reason = Reason::unknown_seat};
  if (turn == turn_) return {};
  turn_ = std::move(turn);
  own_revision_ = ++revision_;
  return {};
}

Numbers Table::numbers(const NumberOwner& of) const {
  if (numbers_.empty()) return {};
  const auto it = numbers_.find(key_of(of));
  return it == numbers_.end() ? Numbers{} : it->second;
}

int Table::number(std::string_view name, const NumberOwner& of) const {
  if (of.zone && name == counted_name)
    return zone(of.zone) ? static_cast<int>(zone(of.zone)->cards.size()) : 0;
  if (numbers_.empty()) return 0;
  const auto own = numbers_.find(key_of(of));
  if (own == numbers_.end()) return 0;
  const auto it = std::lower_bound(own->second.begin(), own->second.end(), name, comes_before);
  return it != own->second.end() && it->name == name ? it->value : 0;
}

Verdict Table::check_owner(const NumberOwner& owner) const {
  if (owner.card && !card(owner.card)) return {.reason = Reason::unknown_card, .card = owner.card};
  if (owner.zone && !zone(owner.zone)) return {.reason = Reason::unknown_zone, .zone = owner.zone};
  if (owner.seat.value > seats_.size()) return {.reason = Reason::unknown_seat};
  return {};
}

Verdict Table::set_number(std::string_view name, int value, const NumberOwner& of) {
  if (const Verdict verdict = check_owner(of); !verdict) return verdict;
  const bool of_zone = static_cast<bool>(of.zone) && !of.card;
  if (auto problem = geometry_detail::thrown_by([&] { check_number("table", name, value, of_zone); })) {
    return {.reason = Reason::out_of_range, .arguments = {{"problem", *std::move(problem)}}};
  }
  const Numbers now = numbers(of);
  std::vector<Number> all(now.begin(), now.end());
  const auto it = std::lower_bound(all.begin(), all.end(), name, comes_before);
  if (it != all.end() && it->name == name) {
    if (it->value == value) return {};
    it->value = value;
  } else {
    if (all.size() >= most_numbers) {
      return {.reason = Reason::out_of_range,
              .arguments = {{"problem", fmt::format("table: number '{}' is one more than {}: no more are "
                                                    "expected",
                                                    name, most_numbers)}}};
    }
    all.insert(it, {std::string(name), value});
  }
  set_numbers(of, std::move(all));
  if (of.card) {
    touch(zones_[card(of.card)->zone.value - 1]);
  } else if (of.zone) {
    touch(zones_[of.zone.value - 1]);
  } else {
    own_revision_ = ++revision_;
  }
  return {};
}

void Table::set_numbers(const NumberOwner& owner, const Numbers& numbers) {
  if (numbers.empty()) {
    if (!numbers_.empty()) numbers_.erase(key_of(owner));
  } else {
    numbers_[key_of(owner)] = numbers;
  }
}

void Table::lay(Card& card, bool face_up) {
  card.face_up = face_up;
  (void)forget_opened(card.id);
}

bool Table::forget_opened(CardId card) {
  if (numbers_.empty() || number(opened_number, card) == 0) return false;
  const Numbers now = numbers(card);
  std::vector<Number> others(now.begin(), now.end());
  std::erase_if(others, [](const Number& number) { return number.name == opened_number; });
  set_numbers(card, std::move(others));
  return true;
}

void cards_detail::Inside::forget_opened(Table& table, CardId id) {
  if (table.forget_opened(id)) table.touch(table.zones_[table.card(id)->zone.value - 1]);
}

std::vector<CardId> cards_detail::Inside::opened_cards(const Table& table) {
  std::vector<std::pair<int, CardId>> opened;
  if (!table.numbers_.empty()) {
    for (auto it = table.numbers_.lower_bound(key_of(CardId{1})); it != table.numbers_.end(); ++it) {
      const CardId card{static_cast<std::uint32_t>(it->first)};
      const int as = table.number(opened_number, card);
      if (as > 0 && table.card(card) && table.card(card)->face_up) opened.emplace_back(as, card);
    }
  }
  std::sort(opened.begin(), opened.end());
  std::vector<CardId> cards;
  for (const auto& [as, card] : opened) cards.push_back(card);
  return cards;
}

}  // namespace apsidon
