#include "apsidon/cards/deck.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "apsidon/geometry/error.hpp"
#include "apsidon/geometry/limits.hpp"
#include "geometry/options.hpp"

namespace apsidon {
namespace {

/// Names by their places. They are kept in the options.
using Places = std::map<std::string_view, int>;

/// Takes a name, or throws Error when it is none, or was taken.
void take_name(std::string_view what, std::string_view name, Places& places) {
  geometry_detail::check_name(fmt::format("deck: {}", what), name);
  if (name.empty() || name.find_first_of(" -") != std::string_view::npos) {
    throw Error(fmt::format("deck: {} '{}': a name without spaces and '-' is expected", what, name));
  }
  if (!places.emplace(name, static_cast<int>(places.size())).second) {
    throw Error(fmt::format("deck: {} '{}' is named twice: distinct names are expected", what, name));
  }
}

std::optional<int> place_in(const Places& places, std::string_view name) {
  const auto it = places.find(name);
  return it == places.end() ? std::nullopt : std::optional(it->second);
}

void check_count(std::string_view what, std::size_t count) {
  constexpr std::size_t most = 10'000;
  if (count > most)
    throw Error(fmt::format("deck: {} {}: at most {} of each are expected", count, what, most));
}

}  // namespace

struct Deck::MadeOf {
  explicit MadeOf(DeckOptions given) : options(std::move(given)) {
    if (options.suits.empty()) throw Error("deck: no suits: at least one is expected");
    if (options.ranks.empty()) throw Error("deck: no ranks: at least one is expected");
    geometry_detail::check_name("deck: name", options.name);
    if (options.copies < 1 || options.copies > static_cast<int>(most_faces)) {
      throw Error(fmt::format("deck: copies is {}: 1 to {} is expected", options.copies, most_faces));
    }
    check_count("suits", options.suits.size());
    check_count("ranks", options.ranks.size());
    check_count("jokers", options.jokers.size());
    if (options.suits.size() * options.ranks.size() > most_faces) {
      throw Error(fmt::format("deck: {} suits of {} ranks: at most {} faces are expected",
                              options.suits.size(), options.ranks.size(), most_faces));
    }
    take_suits();
    take_jokers();
    take_sets();
  }

  void take_suits() {
    const std::size_t rank_count = options.ranks.size();
    traits.resize(options.suits.size() * rank_count + options.jokers.size() + 1);
    for (std::size_t i = 0; i < options.suits.size(); ++i) {
      const Suit& suit = options.suits[i];
      take_name("suit", suit.name, suits);
      geometry_detail::check_name("deck: colour", suit.colour);
      const int colour = colours.emplace(suit.colour, static_cast<int>(i)).first->second;
      for (std::size_t rank = 0; rank < rank_count; ++rank) {
        traits[i * rank_count + rank + 1] = {
            .suit = static_cast<int>(i), .rank = static_cast<int>(rank), .colour = colour, .known = true};
      }
    }
    for (const std::string& rank : options.ranks) take_name("rank", rank, ranks);
  }

  void take_jokers() {
    const std::size_t suit_count = options.suits.size();
    const std::size_t first = suit_count * options.ranks.size() + 1;
    for (std::size_t i = 0; i < options.jokers.size(); ++i) {
      const Joker& joker = options.jokers[i];
      take_name("joker", joker.name, jokers);
      if (joker.name == "hidden")
        throw Error("deck: joker 'hidden': that word is for faces that are not known");
      geometry_detail::check_name("deck: colour", joker.colour);
      // A colour of the suits, or of a joker before, or one of its own.
      const int colour = joker.colour.empty()
                             ? -1
                             : colours.emplace(joker.colour, static_cast<int>(suit_count + i)).first->second;
      traits[first + i] = {.colour = colour, .known = true};
    }
  }

  void take_sets() {
    for (std::size_t i = 0; i < options.sets.size(); ++i) {
      if (options.sets[i].faces.empty()) throw Error("deck: a set has no faces: at least one is expected");
      for (const std::string& text : options.sets[i].faces) {
        const auto face = find(text);
        if (!face || *face == hidden_face) {
          throw Error(fmt::format("deck: a set has '{}': a face of the deck is expected", text));
        }
        int& of_face = traits[face->value].set;
        if (of_face >= 0) throw Error(fmt::format("deck: '{}' is in two sets: one is expected", text));
        of_face = static_cast<int>(i);
      }
    }
    // A face that no set names makes one with itself.
    for (std::size_t face = 1; face < traits.size(); ++face) {
      if (traits[face].set < 0) traits[face].set = static_cast<int>(options.sets.size() + face);
    }
  }

  [[nodiscard]] std::optional<FaceId> find(std::string_view text) const {
    if (text == "hidden") return hidden_face;
    const auto id = [](std::size_t number) { return FaceId{static_cast<std::uint32_t>(number + 1)}; };
    const std::size_t rank_count = options.ranks.size();
    const auto dash = text.find('-');
    if (dash == std::string_view::npos) {
      const auto joker = place_in(jokers, text);
      if (!joker) return std::nullopt;
      return id(options.suits.size() * rank_count + static_cast<std::size_t>(*joker));
    }
    const auto suit = place_in(suits, text.substr(0, dash));
    const auto rank = place_in(ranks, text.substr(dash + 1));
    if (!suit || !rank) return std::nullopt;
    return id(static_cast<std::size_t>(*suit) * rank_count + static_cast<std::size_t>(*rank));
  }

  DeckOptions options;
  std::vector<FaceTraits> traits = {};
  Places suits = {};
  Places ranks = {};
  Places jokers = {};
  std::map<std::string_view, int> colours = {};  // the first suit of each, then the first joker
};

Deck::Deck(DeckOptions options)
    : made_of_(std::make_shared<const MadeOf>(std::move(options))),
      traits_(made_of_->traits.data()),
      suits_(static_cast<int>(made_of_->options.suits.size())),
      ranks_(static_cast<int>(made_of_->options.ranks.size())),
      jokers_(static_cast<int>(made_of_->options.jokers.size())),
      suit_backs_(made_of_->options.suit_backs) {}

const DeckOptions& Deck::options() const { return made_of_->options; }

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

bool Deck::belong_together(FaceId a, FaceId b) const {
  return traits(a).set >= 0 && traits(a).set == traits(b).set;
}

std::optional<int> Deck::compare_ranks(FaceId a, FaceId b, Ace ace) const {
  if (rank_of(a) < 0 || rank_of(b) < 0) return std::nullopt;
  const auto place = [&](FaceId face) {
    return ace == Ace::high && rank_of(face) == 0 ? rank_count() : rank_of(face);
  };
  return place(a) < place(b) ? -1 : place(a) > place(b) ? 1 : 0;
}

std::string Deck::text(FaceId face) const {
  if (!has(face)) return "hidden";
  if (is_joker(face)) return options().jokers[static_cast<std::size_t>(joker_index(face))].name;
  return options().suits[static_cast<std::size_t>(suit_of(face))].name + '-' +
         options().ranks[static_cast<std::size_t>(rank_of(face))];
}

std::optional<FaceId> Deck::find(std::string_view text) const { return made_of_->find(text); }

std::optional<int> Deck::find_rank(std::string_view name) const { return place_in(made_of_->ranks, name); }

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
