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
  if (suits.size() * ranks.size() > 1'000'000) {
    throw Error(fmt::format("deck: {} suits of {} ranks: at most 1000000 faces are expected", suits.size(),
                            ranks.size()));
  }
  traits_.resize(suits.size() * ranks.size() + options_.jokers.size() + 1);
  for (std::size_t i = 0; i < suits.size(); ++i) {
    check_name("suit", suits[i].name);
    for (std::size_t j = 0; j < i; ++j) {
      if (suits[j].name == suits[i].name) {
        throw Error(
            fmt::format("deck: suit '{}' is named twice: distinct names are expected", suits[i].name));
      }
    }
    const auto same = [&](const Suit& s) { return s.colour == suits[i].colour; };
    const auto colour = std::find_if(suits.begin(), suits.end(), same) - suits.begin();
    for (std::size_t rank = 0; rank < ranks.size(); ++rank) {
      traits_[i * ranks.size() + rank + 1] = {.suit = static_cast<int>(i),
                                              .rank = static_cast<int>(rank),
                                              .colour = static_cast<int>(colour),
                                              .known = true};
    }
  }
  for (std::size_t i = 0; i < ranks.size(); ++i) {
    check_name("rank", ranks[i]);
    if (std::find(ranks.begin(), ranks.begin() + static_cast<std::ptrdiff_t>(i), ranks[i]) !=
        ranks.begin() + static_cast<std::ptrdiff_t>(i)) {
      throw Error(fmt::format("deck: rank '{}' is named twice: distinct names are expected", ranks[i]));
    }
  }
  take_jokers();
  take_sets();
}

void Deck::take_jokers() {
  const auto& suits = options_.suits;
  const auto& jokers = options_.jokers;
  if (jokers.size() > 10'000) {
    throw Error(fmt::format("deck: {} jokers: at most 10000 are expected", jokers.size()));
  }
  for (std::size_t i = 0; i < jokers.size(); ++i) {
    check_name("joker", jokers[i].name);
    if (jokers[i].name == "hidden")
      throw Error("deck: joker 'hidden': that word is for faces that are not known");
    for (std::size_t j = 0; j < i; ++j) {
      if (jokers[j].name != jokers[i].name) continue;
      throw Error(
          fmt::format("deck: joker '{}' is named twice: distinct names are expected", jokers[i].name));
    }
    // A colour of the suits, or of a joker before, or one of its own.
    const auto same = [&](const auto& other) { return other.colour == jokers[i].colour; };
    const auto suit = std::find_if(suits.begin(), suits.end(), same);
    const auto joker = std::find_if(jokers.begin(), jokers.end(), same);
    const std::size_t first = suits.size() * options_.ranks.size() + 1;
    const auto colour = suit != suits.end()
                            ? suit - suits.begin()
                            : static_cast<std::ptrdiff_t>(suits.size()) + (joker - jokers.begin());
    traits_[first + i] = {.colour = jokers[i].colour.empty() ? -1 : static_cast<int>(colour), .known = true};
  }
}

void Deck::take_sets() {
  for (std::size_t i = 0; i < options_.sets.size(); ++i) {
    if (options_.sets[i].faces.empty()) throw Error("deck: a set has no faces: at least one is expected");
    for (const std::string& text : options_.sets[i].faces) {
      const auto face = find(text);
      if (!face || *face == hidden_face) {
        throw Error(fmt::format("deck: a set has '{}': a face of the deck is expected", text));
      }
      int& of_face = traits_[face->value].set;
      if (of_face >= 0) throw Error(fmt::format("deck: '{}' is in two sets: one is expected", text));
      of_face = static_cast<int>(i);
    }
  }
}

FaceId Deck::joker(int index) const {
  if (index < 0 || index >= joker_count()) return hidden_face;
  return {static_cast<std::uint32_t>(suit_count() * rank_count() + index + 1)};
}

bool Deck::is_joker(FaceId face) const {
  return has(face) && face.value > static_cast<std::uint32_t>(suit_count() * rank_count());
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

int Deck::joker_index(FaceId face) const {
  return static_cast<int>(face.value) - suit_count() * rank_count() - 1;
}

bool Deck::belong_together(FaceId a, FaceId b) const { return set_of(a) >= 0 && set_of(a) == set_of(b); }

std::optional<int> Deck::compare_ranks(FaceId a, FaceId b, Ace ace) const {
  if (rank_of(a) < 0 || rank_of(b) < 0) return std::nullopt;
  const auto place = [&](FaceId face) {
    return ace == Ace::high && rank_of(face) == 0 ? rank_count() : rank_of(face);
  };
  return place(a) < place(b) ? -1 : place(a) > place(b) ? 1 : 0;
}

std::string Deck::text(FaceId face) const {
  if (!has(face)) return "hidden";
  if (is_joker(face)) return options_.jokers[static_cast<std::size_t>(joker_index(face))].name;
  return options_.suits[static_cast<std::size_t>(suit_of(face))].name + '-' +
         options_.ranks[static_cast<std::size_t>(rank_of(face))];
}

std::optional<FaceId> Deck::find(std::string_view text) const {
  if (text == "hidden") return hidden_face;
  const auto dash = text.find('-');
  if (dash == std::string_view::npos) {
    for (int i = 0; i < joker_count(); ++i) {
      if (options_.jokers[static_cast<std::size_t>(i)].name == text) return joker(i);
    }
    return std::nullopt;
  }
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

Deck standard_deck(int jokers, int copies) {
  if (jokers < 0 || jokers > 4) throw Error(fmt::format("deck: {} jokers: 0 to 4 are expected", jokers));
  DeckOptions options{
      .name = "Standard",
      .suits = {{"clubs", "black"}, {"diamonds", "red"}, {"hearts", "red"}, {"spades", "black"}},
      .ranks = {"A", "2", "3", "4", "5", "6", "7", "8", "9", "10", "J", "Q", "K"},
      .copies = copies};
  for (int i = 1; i <= jokers; ++i)
    options.jokers.push_back({fmt::format("joker{}", i), i % 2 == 1 ? "black" : "red"});
  return Deck(std::move(options));
}

std::vector<FaceId> matching_faces(const Deck& deck, std::size_t sets, std::size_t special,
                                   Random64& random) {
  std::vector<const FaceSet*> ordinary;
  std::vector<const FaceSet*> specials;
  for (const FaceSet& set : deck.options().sets) (set.special ? specials : ordinary).push_back(&set);
  if (special > sets || special > specials.size() || sets - special > ordinary.size()) {
    throw Error(fmt::format("matching faces: {} sets, {} of them special: at most {} and {} are expected",
                            sets, special, ordinary.size() + specials.size(), specials.size()));
  }
  shuffle(std::span(ordinary), random);
  shuffle(std::span(specials), random);
  ordinary.resize(sets - special);
  ordinary.insert(ordinary.end(), specials.begin(), specials.begin() + static_cast<std::ptrdiff_t>(special));
  std::vector<FaceId> faces;
  for (const FaceSet* set : ordinary) {
    for (const std::string& text : set->faces) faces.push_back(*deck.find(text));
  }
  shuffle(std::span(faces), random);
  return faces;
}

}  // namespace apsidon
