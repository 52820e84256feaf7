#pragma once
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "apsidon/cards/ids.hpp"
#include "apsidon/core_export.hpp"

namespace apsidon {

struct Suit {
  std::string name = {};    ///< not empty, without spaces or '-': "fern"
  std::string colour = {};  ///< suits of one colour say the same word: "green"

  friend bool operator==(const Suit&, const Suit&) = default;
};

/// What a deck is made from.
struct DeckOptions {
  std::string name = {};         ///< for people; may be empty
  std::vector<Suit> suits = {};  ///< at least one, names distinct
  std::vector<std::string> ranks =
      {};                 ///< lowest first; at least one, distinct, not empty, without spaces or '-'
  int copies = 1;         ///< how many cards of each face a game has, >= 1
  std::string data = {};  ///< the client's own JSON object, kept verbatim; empty for none

  friend bool operator==(const DeckOptions&, const DeckOptions&) = default;
};

/// The faces of a game: every rank in every suit. A face's text is its suit and rank, "fern-7".
class APSIDON_CORE_EXPORT Deck {
 public:
  /// Throws Error when an option is out of the range stated beside it.
  explicit Deck(DeckOptions options);

  [[nodiscard]] const DeckOptions& options() const { return options_; }
  [[nodiscard]] int suit_count() const { return static_cast<int>(options_.suits.size()); }
  [[nodiscard]] int rank_count() const { return static_cast<int>(options_.ranks.size()); }
  [[nodiscard]] int face_count() const { return suit_count() * rank_count(); }

  /// The face of this suit and rank, each counted from 0 in the order of the options; hidden when out of
  /// range.
  [[nodiscard]] FaceId face(int suit, int rank) const;
  /// All faces, suit by suit, lowest rank first.
  [[nodiscard]] std::vector<FaceId> faces() const;
  [[nodiscard]] bool has(FaceId face) const;

  /// Position in the options, from 0; -1 for a hidden or foreign face.
  [[nodiscard]] int suit_of(FaceId face) const;
  [[nodiscard]] int rank_of(FaceId face) const;
  /// Suits of one colour give the same number; -1 for a hidden or foreign face.
  [[nodiscard]] int colour_of(FaceId face) const;

  /// "fern-7"; "hidden" for a face that is not known.
  [[nodiscard]] std::string text(FaceId face) const;
  /// The face with this text, `hidden_face` for "hidden"; nothing when there is none. O(suits + ranks).
  [[nodiscard]] std::optional<FaceId> find(std::string_view text) const;
  /// The place of this rank name in the options; nothing when there is none.
  [[nodiscard]] std::optional<int> find_rank(std::string_view name) const;

  friend bool operator==(const Deck& a, const Deck& b) { return a.options_ == b.options_; }

 private:
  DeckOptions options_;
  std::vector<int> colours_;  // by suit
};

}  // namespace apsidon
