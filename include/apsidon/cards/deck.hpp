#pragma once
#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "apsidon/cards/ids.hpp"
#include "apsidon/cards/random.hpp"
#include "apsidon/core_export.hpp"

namespace apsidon {

/// A suit of a deck.
struct Suit {
  std::string name = {};    ///< not empty, without spaces or '-': "fern"
  std::string colour = {};  ///< suits of one colour say the same word: "green"

  friend bool operator==(const Suit&, const Suit&) = default;
};

/// A face of no suit and no rank.
struct Joker {
  std::string name = {};    ///< not empty, without spaces or '-', not "hidden": "moth"
  std::string colour = {};  ///< a colour of the suits, or one of its own, or none

  friend bool operator==(const Joker&, const Joker&) = default;
};

/// Faces that belong together in a matching game.
struct FaceSet {
  std::vector<std::string> faces = {};  ///< their texts; at least one
  bool special = false;                 ///< stands in for another set

  friend bool operator==(const FaceSet&, const FaceSet&) = default;
};

/// What a deck is made from.
struct DeckOptions {
  std::string name = {};         ///< for people; may be empty
  std::vector<Suit> suits = {};  ///< at least one, names distinct
  std::vector<std::string> ranks =
      {};                          ///< lowest first; at least one, distinct, not empty, without spaces or '-'
  std::vector<Joker> jokers = {};  ///< names distinct
  std::vector<FaceSet> sets = {};  ///< no face in two of them
  int copies = 1;                  ///< how many cards of each face a game has, [1, 1000000]
  bool suit_backs = false;         ///< the backs of its suits differ: a covered card tells its suit
  std::string data = {};           ///< the client's own JSON object, kept verbatim; empty for none

  friend bool operator==(const DeckOptions&, const DeckOptions&) = default;
};

/// What a face is, in numbers, for whoever asks of many faces. Of what it lacks: -1.
struct FaceTraits {
  int suit = -1;       ///< its place in the options, from 0
  int rank = -1;       ///< likewise
  int colour = -1;     ///< suits and jokers of one colour have the same number
  int set = -1;        ///< the set that it belongs to; of a face that no set of the deck names, its own
  bool known = false;  ///< whether it is a face of the deck

  friend bool operator==(const FaceTraits&, const FaceTraits&) = default;
};

/// Whether the lowest rank counts as the highest when faces are compared.
enum class Ace : std::uint8_t { low, high };

/// The faces of a game: every rank in every suit, then the jokers. A face's text is its suit and rank,
/// "fern-7", or the name of the joker. It never changes: copies share what they are made of.
class APSIDON_CORE_EXPORT Deck {
 public:
  /// Throws Error when an option is out of the range stated beside it.
  explicit Deck(DeckOptions options);
  // To move one is to copy it, so that none is ever without its faces.
  /// O(1).
  Deck(const Deck&) = default;
  /// O(1).
  Deck& operator=(const Deck&) = default;

  /// What it was made from.
  [[nodiscard]] const DeckOptions& options() const;
  [[nodiscard]] int suit_count() const { return suits_; }    ///< one or more
  [[nodiscard]] int rank_count() const { return ranks_; }    ///< one or more
  [[nodiscard]] int joker_count() const { return jokers_; }  ///< 0 for none
  /// How many different faces there are, jokers with them.
  [[nodiscard]] int face_count() const { return suit_count() * rank_count() + joker_count(); }

  /// The face of this suit and rank, each counted from 0 in the order of the options; hidden when out of
  /// range.
  [[nodiscard]] FaceId face(int suit, int rank) const;
  /// The joker of this place in the options, from 0; hidden when out of range.
  [[nodiscard]] FaceId joker(int index) const;
  /// False for a hidden or foreign face.
  [[nodiscard]] bool is_joker(FaceId face) const;
  /// All faces, suit by suit, lowest rank first, then the jokers.
  [[nodiscard]] std::vector<FaceId> faces() const;
  /// Whether it is a face of this deck; false for a hidden one.
  [[nodiscard]] bool has(FaceId face) const;

  /// All that the next four say, at once.
  [[nodiscard]] const FaceTraits& traits(FaceId face) const {
    return traits_[face.value <= static_cast<std::uint32_t>(face_count()) ? face.value : 0];
  }
  /// Position in the options, from 0; -1 for a joker, and for a hidden or foreign face.
  [[nodiscard]] int suit_of(FaceId face) const { return traits(face).suit; }
  /// Likewise of the rank, the lowest is 0.
  [[nodiscard]] int rank_of(FaceId face) const { return traits(face).rank; }
  /// Suits and jokers of one colour give the same number; -1 for a joker without one, and for a hidden or
  /// foreign face.
  [[nodiscard]] int colour_of(FaceId face) const { return traits(face).colour; }
  /// The suit that the back of a card with this face tells, from 0; -1 where the deck's backs are alike, for
  /// a joker, and for a hidden or foreign face.
  [[nodiscard]] int back_suit_of(FaceId face) const { return suit_backs_ ? suit_of(face) : -1; }
  /// Whether both are known and of one set.
  [[nodiscard]] bool belong_together(FaceId a, FaceId b) const;
  /// -1, 0 or 1: whether the rank of `a` is below, that of, or above that of `b`; nothing where one has no
  /// rank.
  [[nodiscard]] std::optional<int> compare_ranks(FaceId a, FaceId b, Ace ace = Ace::low) const;

  /// "fern-7"; "hidden" for a face that is not known.
  [[nodiscard]] std::string text(FaceId face) const;
  /// The face with this text, `hidden_face` for "hidden"; nothing when there is none. O(log faces).
  [[nodiscard]] std::optional<FaceId> find(std::string_view text) const;
  /// The place of this rank name in the options; nothing when there is none.
  [[nodiscard]] std::optional<int> find_rank(std::string_view name) const;

  friend bool operator==(const Deck& a, const Deck& b) {
    return a.made_of_ == b.made_of_ || a.options() == b.options();
  }

 private:
  struct APSIDON_CORE_NO_EXPORT MadeOf;
  [[nodiscard]] int joker_index(FaceId face) const;

  std::shared_ptr<const MadeOf> made_of_;
  const FaceTraits* traits_ = nullptr;  // by FaceId; the first is of hidden and foreign faces
  int suits_ = 0;
  int ranks_ = 0;
  int jokers_ = 0;
  bool suit_backs_ = false;
};

/// The usual 52: clubs, diamonds, hearts and spades, ace to ten, jack, queen, king; with so many jokers, [0,
/// 4], and copies. Throws Error when a number is out of its range.
[[nodiscard]] APSIDON_CORE_EXPORT Deck standard_deck(int jokers = 0, int copies = 1);

/// The faces for a matching game: those of `sets` sets, `special` of them special ones, chosen and put in
/// order by the generator. Whole sets only, none twice. Throws Error when the deck has too few of either
/// kind.
[[nodiscard]] APSIDON_CORE_EXPORT std::vector<FaceId> matching_faces(const Deck& deck, std::size_t sets,
                                                                     std::size_t special, Random64& random);

}  // namespace apsidon
