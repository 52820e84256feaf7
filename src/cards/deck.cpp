#include "apsidon/cards/deck.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "apsidon/geometry/error.hpp"

namespace apsidon {
namespace {

void check_name(std::string_view what, std::string_view name) {
  if (name.empty() || name.find_first_of(" -\t\n") != std::string_view::npos) {
    throw Error(fmt::format("deck: {} '{}': a name without spaces and '-' is expected", what, name));
  }
}

}  // namespace

Deck::Deck(DeckOptions options) : options_(std::move(options)) {
  const auto& suits = options_.suits;
  const auto& ranks = options_.ranks;
  if (suits.empty()) throw Error("deck: no suits: at least one is expected");
  if (ranks.empty()) throw Error("deck: no ranks: at least one is expected");
  if (options_.copies < 1) {
    throw Error(fmt::format("deck: copies is {}: 1 or more is expected", options_.copies));
  }
  if (suits.size() > 10'000 || ranks.size() > 10'000) {
    throw Error(fmt::format("deck: {} suits and {} ranks: at most 10000 of each are expected", suits.size(),
                            ranks.size()));
  }
  for (std::size_t i = 0; i < suits.size(); ++i) {
    check_name("suit", suits[i].name);
    for (std::size_t j = 0; j < i; ++j) {
      if (suits[j].name == suits[i].name) {
        throw Error(
            fmt::format("deck: suit '{}' is named twice: distinct names are expected", suits[i].name));
      }
    }
    const auto same = [&](const Suit& s) { return s.colour == suits[i].colour; };
    colours_.push_back(static_cast<int>(std::find_if(suits.begin(), suits.end(), same) - suits.begin()));
  }
  for (std::size_t i = 0; i < ranks.size(); ++i) {
    check_name("rank", ranks[i]);
    if (std::find(ranks.begin(), ranks.begin() + static_cast<std::ptrdiff_t>(i), ranks[i]) !=
        ranks.begin() + static_cast<std::ptrdiff_t>(i)) {
      throw Error(fmt::format("deck: rank '{}' is named twice: distinct names are expected", ranks[i]));
    }
  }
}

FaceId Deck::face(int suit, int rank) const {
  if (suit < 0 || suit >= suit_count() || rank < 0 || rank >= rank_count()) return hidden_face;
  return {static_cast<std::uint32_t>(suit * rank_count() + rank + 1)};
}

std::vector<FaceId> Deck::faces() const {
  std::vector<FaceId> all;
  all.reserve(static_cast<std::size_t>(face_count()));
  for (std::uint32_t i = 1; i <= static_cast<std::uint32_t>(face_count()); ++i) all.push_back({i});
  return all;
}

bool Deck::has(FaceId face) const {
  return face != hidden_face && face.value <= static_cast<std::uint32_t>(face_count());
}

int Deck::suit_of(FaceId face) const {
  return has(face) ? static_cast<int>(face.value - 1) / rank_count() : -1;
}

int Deck::rank_of(FaceId face) const {
  return has(face) ? static_cast<int>(face.value - 1) % rank_count() : -1;
}

int Deck::colour_of(FaceId face) const {
  return has(face) ? colours_[static_cast<std::size_t>(suit_of(face))] : -1;
}

std::string Deck::text(FaceId face) const {
  if (!has(face)) return "hidden";
  return options_.suits[static_cast<std::size_t>(suit_of(face))].name + '-' +
         options_.ranks[static_cast<std::size_t>(rank_of(face))];
}

std::optional<FaceId> Deck::find(std::string_view text) const {
  if (text == "hidden") return hidden_face;
  const auto dash = text.find('-');
  if (dash == std::string_view::npos) return std::nullopt;
  const auto rank = find_rank(text.substr(dash + 1));
  if (!rank) return std::nullopt;
  for (int s = 0; s < suit_count(); ++s) {
    if (options_.suits[static_cast<std::size_t>(s)].name == text.substr(0, dash)) return face(s, *rank);
  }
  return std::nullopt;
}

std::optional<int> Deck::find_rank(std::string_view name) const {
  const auto it = std::find(options_.ranks.begin(), options_.ranks.end(), name);
  if (it == options_.ranks.end()) return std::nullopt;
  return static_cast<int>(it - options_.ranks.begin());
}

}  // namespace apsidon
