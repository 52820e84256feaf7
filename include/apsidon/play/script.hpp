#pragma once
#include <cstdint>
#include <vector>

#include "apsidon/cards/ids.hpp"
#include "apsidon/core_export.hpp"
#include "apsidon/play/performance_id.hpp"

namespace apsidon {

/// What an act does.
enum class ActKind : std::uint8_t {
  deal,     ///< all cards fly from the stock to where they lie
  gather,   ///< all cards of `from`, or of the whole table, go onto `to` and are covered, unless they keep
            ///< their sides
  scatter,  ///< the cards of `to`, a free zone, get positions by chance, by `seed`
  shuffle,  ///< the cards of `to` get another order, by `seed`
  draw,     ///< `count` cards from the top of `from`, one by one, onto `to`, face up or down
  move,     ///< `cards` go onto `to`, in their order
  flip,     ///< `cards` are flipped face up or down
  shake,    ///< `cards` shake: refused
  pulse,    ///< `cards` swell: hinted
  collect,  ///< `cards` shrink and fade away to `to`, and lie there
  finale,   ///< all cards make a wreath in the middle of the window, and go home
  wait,     ///< nothing, for `seconds`
};

/// One thing that happens to cards.
struct Act {
  ActKind kind = ActKind::wait;    ///< what happens
  ZoneId from = {};                ///< where cards come from
  ZoneId to = {};                  ///< where they go, or where it happens
  std::vector<CardId> cards = {};  ///< of those that name cards
  std::size_t count = 1;           ///< of a draw, cards
  bool face_up = true;             ///< of a draw and a flip: how they lie then
  bool keeps_sides = false;        ///< of a gather
  std::uint64_t seed = 1;          ///< of a shuffle and a scatter: the same seed does the same
  double seconds = 0;              ///< of a wait, [0, 3600]
  std::vector<double> delays =
      {};  ///< by hand: seconds after which each card leaves, in place of the feel's stagger

  friend bool operator==(const Act&, const Act&) = default;
};

/// Acts one after another or at once. The table changes when an act begins; the picture follows.
struct Script {
  /// What it is made of.
  enum class Kind : std::uint8_t { act, sequence, together };

  Kind kind = Kind::act;           ///< one act, or parts
  Act act = {};                    ///< of an act
  std::vector<Script> parts = {};  ///< of sequence and together

  friend bool operator==(const Script&, const Script&) = default;
};

// Short ways to write them.
/// One after another.
[[nodiscard]] APSIDON_CORE_EXPORT Script sequence(std::vector<Script> parts);
/// All at once.
[[nodiscard]] APSIDON_CORE_EXPORT Script together(std::vector<Script> parts);
/// All cards fly from the stock to where the table has them.
[[nodiscard]] APSIDON_CORE_EXPORT Script deal();
/// Cards of one zone, or of all, come together; covered, unless they keep their sides.
[[nodiscard]] APSIDON_CORE_EXPORT Script gather(ZoneId to, ZoneId from = {}, bool keeps_sides = false);
/// The zone's cards get another order, the same for the same seed.
[[nodiscard]] APSIDON_CORE_EXPORT Script shuffle(ZoneId zone, std::uint64_t seed);
/// Straight to positions by chance in a free zone.
[[nodiscard]] APSIDON_CORE_EXPORT Script scatter(ZoneId zone, std::uint64_t seed);
/// A used-up stock gets the cards of `from` back: they are gathered, covered, and shuffled by a seed.
[[nodiscard]] APSIDON_CORE_EXPORT Script reload(ZoneId stock, ZoneId from, std::uint64_t seed);
/// Cards from the top, one by one.
[[nodiscard]] APSIDON_CORE_EXPORT Script draw(ZoneId from, ZoneId to, std::size_t count = 1,
                                              bool face_up = true);
/// Cards onto a zone, in their order.
[[nodiscard]] APSIDON_CORE_EXPORT Script move_cards(std::vector<CardId> cards, ZoneId to);
/// Cards are flipped to this side.
[[nodiscard]] APSIDON_CORE_EXPORT Script flip(std::vector<CardId> cards, bool face_up);
/// Shows cards for so many seconds and covers them again.
[[nodiscard]] APSIDON_CORE_EXPORT Script reveal(std::vector<CardId> cards, double seconds);
/// Refused.
[[nodiscard]] APSIDON_CORE_EXPORT Script shake(std::vector<CardId> cards);
/// Hinted.
[[nodiscard]] APSIDON_CORE_EXPORT Script pulse(std::vector<CardId> cards);
/// Cards shrink and fade away to a zone, and lie there.
[[nodiscard]] APSIDON_CORE_EXPORT Script collect(std::vector<CardId> cards, ZoneId to);
/// All cards make a wreath in the middle of the window, and go home.
[[nodiscard]] APSIDON_CORE_EXPORT Script finale();
/// Nothing, for [0, 3600] seconds.
[[nodiscard]] APSIDON_CORE_EXPORT Script wait(double seconds);

}  // namespace apsidon
