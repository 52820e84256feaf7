#pragma once
#include <cstddef>
#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "apsidon/cards/card.hpp"
#include "apsidon/cards/wanted.hpp"
#include "apsidon/core_export.hpp"
#include "apsidon/fwd.hpp"
#include "apsidon/layout/panel_id.hpp"
#include "apsidon/play/event.hpp"
#include "apsidon/play/group.hpp"
#include "apsidon/play/outcome.hpp"
#include "apsidon/play/panel.hpp"

namespace apsidon {

/// What the game itself changes: `field.edits().flip(card, true)`. Not judged, and nothing follows from it. A
/// drag goes on as long as its cards lie together where they were picked up; else it is cancelled.
class APSIDON_CORE_EXPORT EditsGroup : public play_detail::Group {
 public:
  /// On top, or so that the first card of the run gets the index `at`, counted without the run itself.
  Verdict move(const Run& run, ZoneId to, std::optional<std::size_t> at = {});
  /// The two cards exchange their places.
  Verdict swap(CardId a, CardId b);
  /// The card shows this side from now on.
  Verdict flip(CardId card, bool face_up);
  /// The card lies turned by a quarter, or upright.
  Verdict set_sideways(CardId card, bool sideways);
  /// The card lies in this cell of a grid, from 0; -1: as many as lie below it.
  Verdict set_cell(CardId card, int cell);
  /// The card's middle lies here in a free zone, shares of the room the zone leaves.
  Verdict set_position(CardId card, Vec2 at);
  /// The card has this face: what a server tells when it is turned over. Hidden: not known any more.
  Verdict set_face(CardId card, FaceId face);
  /// Another order, the same for the same seed on every platform; to see it, perform `shuffle`.
  Verdict shuffle(ZoneId zone, std::uint64_t seed);
  /// Positions by chance in a free zone, likewise; to see it, perform `scatter`.
  Verdict scatter(ZoneId zone, std::uint64_t seed);
  /// A shuffle that this client cannot see: the cards are covered, and no id tells a face any more.
  Verdict conceal(ZoneId zone);
  /// So many topmost cards go below the others.
  Verdict cut(ZoneId zone, std::size_t count);
  /// A new card on top of a zone, in `card` of the outcome.
  Outcome create(ZoneId zone, const CardOptions& options);
  /// Brings zones to what a server says, as `Table::sync`; cards travel to where they lie now.
  SyncReport sync(std::span<const WantedZone> wanted);
  /// Takes a card off the table: it is sold, or eaten. Only undo brings it back.
  Verdict remove(CardId card);
  /// A number of the table, or of a zone, a card or a seat.
  Verdict set_number(std::string_view name, int value, const NumberOwner& of = {});
  /// It is the turn of these seats. Rules, goals, and who may move are asked anew.
  Verdict set_turn(std::span<const SeatId> seats);
  /// What the game changes belongs to the player's last move in undo. After this it is a move of its own.
  Verdict mark_move();
  /// What a panel shows. A fill that is no number is refused, others are cut to 0 to 1; one that is bound to
  /// a countdown stays so.
  Verdict set_panel(PanelId panel, std::string text, float fill = 1);
  /// How a panel is drawn: neutral, good or bad.
  Verdict set_tone(PanelId panel, PanelTone tone);
  /// Has a countdown fill a bar from now on: by the share that is left, frame by frame, without a call of the
  /// game or an input in the log. None ends that.
  Verdict bind_fill(PanelId panel, CountdownId countdown);

  // How zones lie and are played, while they are: cards glide to where they rest then, by the feel's `shift`.
  // Both are refused when anything is out of its range, which the verdict names, before it is changed.

  /// `where().behaviour(zone)` has what it is now.
  Verdict set_behaviour(ZoneId zone, const ZoneBehaviour& behaviour);
  /// At least one, and each places every zone of the table.
  Verdict set_plans(std::vector<Plan> plans);

 private:
  friend struct play_detail::Groups;
  using Group::Group;
};

}  // namespace apsidon
