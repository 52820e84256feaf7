#pragma once
#include <cstdint>
#include <functional>
#include <map>
#include <span>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "apsidon/cards/table.hpp"
#include "apsidon/core_export.hpp"
#include "apsidon/layout/plan.hpp"
#include "apsidon/play/handling.hpp"
#include "apsidon/play/panel.hpp"
#include "apsidon/play/zone_behaviour.hpp"
#include "apsidon/rules/describe.hpp"
#include "apsidon/rules/goal.hpp"
#include "apsidon/rules/rulebook.hpp"

namespace apsidon {

/// A zone with all that a playfield needs to know of it.
struct ZoneSetup {
  std::string name = {};                ///< not empty, unique in the table
  std::uint64_t key = 0;                ///< the game's own number; 0 for none
  ZoneLayout layout = {};               ///< lies as one place for one card, unless stated
  ZoneRules rules = {};                 ///< gives and takes nothing, unless stated
  ZoneHandling handling = {};           ///< these three can be changed later: a ZoneBehaviour
  int recycled = 0;                     ///< how often a waste was recycled into it already
  SeatId seat = {};                     ///< to whom it belongs; none: to nobody
  Numbers numbers = {};                 ///< those of the zone that are not 0
  std::vector<CardOptions> cards = {};  ///< bottom to top
};

/// How many cards a zone gets when a round is dealt, the covered ones first.
struct DealtZone {
  ZoneId zone = {};  ///< which one
  int covered = 0;   ///< [0, 100000]
  int open = 0;      ///< [0, 100000]

  friend bool operator==(const DealtZone&, const DealtZone&) = default;
};

/// How a round begins: all cards of the table are shuffled, covered and upright, onto the stock; then every
/// zone gets what is stated, in this order, each card from the top.
struct RoundPlan {
  ZoneId stock = {};                  ///< none: a round cannot be dealt
  std::vector<DealtZone> zones = {};  ///< in the order of dealing

  friend bool operator==(const RoundPlan&, const RoundPlan&) = default;
};

/// A corner of an upright card.
enum class Corner : std::uint8_t { top_left, top_right, bottom_left, bottom_right };

/// A number of cards that shows on them while it is not 0.
struct Badge {
  std::string number = {};          ///< what it is called
  Corner at = Corner::bottom_left;  ///< several at one corner stand side by side

  friend bool operator==(const Badge&, const Badge&) = default;
};

/// How a game ends that is as good as won: what is left goes to its zones, card after card.
struct FinishPlan {
  std::vector<ZoneId> into = {};  ///< none: nothing is offered
  bool by_itself = false;         ///< as soon as it can; else when the game asks for it

  friend bool operator==(const FinishPlan&, const FinishPlan&) = default;
};

/// A deck that is laid out whole.
struct WholeDeck {
  int packs = 1;         ///< at least 1, and no more than the deck's copies
  bool jokers = true;    ///< with its jokers
  bool face_up = false;  ///< which side shows

  friend bool operator==(const WholeDeck&, const WholeDeck&) = default;
};

/// Everything that a playfield starts from. A table file reads as one; in code, `add` the zones, then set the
/// plans:
///
///     TableSetup setup(Deck({.suits = {{"fern", "green"}}, .ranks = {"1", "2", "3"}}));
///     const ZoneId hand = setup.add({.name = "hand", .layout = {.kind = HandLayout{}, .longest = 9}});
///     setup.plans = {{.root = down({zone(hand, 1)})}};
struct APSIDON_CORE_EXPORT TableSetup {
  /// A table without zones, for cards of this deck.
  explicit TableSetup(Deck deck) : table(std::move(deck)) {}

  /// Creates the zone and its cards. Throws Error on misuse, before anything is changed.
  ZoneId add(const ZoneSetup& zone);
  /// Lays a whole deck on top of a zone, every face once per pack. Throws Error on misuse, before anything is
  /// changed.
  void add_deck(ZoneId zone, const WholeDeck& deck = {});
  /// Creates a panel. Throws Error when its name is empty or taken, or its fill out of its range.
  PanelId add_panel(const PanelSetup& panel);
  /// Creates one zone per slot, "trellis-2-3" after `zone`'s name, with their links and for whom they wait;
  /// gives the node that places them.
  PlanNode add_formation(const ZoneSetup& zone, const Formation& formation);

  /// Gives the function of all rules and goals in code of this name, in whatever zones and files they are
  /// named: those of a table that was read have none. Throws Error when the table names no such, or the
  /// function is empty.
  void bind(std::string_view of, RuleFunction judge);
  /// The same of consequences and named moves in code, and of layouts.
  void bind(std::string_view of, FollowFunction follow);
  /// Of layouts in code.
  void bind(std::string_view of, CustomFunctions functions);
  /// What is named and has no function yet, in the order of the alphabet. Such rules refuse, as `unbound`;
  /// such goals are not reached; nothing follows from such consequences; such moves are refused; such layouts
  /// lie as spreads.
  [[nodiscard]] std::vector<std::string> unbound() const;

  // What a zone was added with, by its id. The id is one of the table.

  /// How it lies.
  [[nodiscard]] const ZoneLayout& layout_of(ZoneId zone) const { return layouts_[zone.value - 1]; }
  /// To be changed until a playfield is made of it.
  [[nodiscard]] ZoneLayout& layout_of(ZoneId zone) { return layouts_[zone.value - 1]; }
  /// What it gives and takes.
  [[nodiscard]] const ZoneRules& rules_of(ZoneId zone) const { return rules_[zone.value - 1]; }
  /// To be changed until a playfield is made of it.
  [[nodiscard]] ZoneRules& rules_of(ZoneId zone) { return rules_[zone.value - 1]; }
  /// What a hand may do with it.
  [[nodiscard]] const ZoneHandling& handling_of(ZoneId zone) const { return handling_[zone.value - 1]; }
  /// To be changed until a playfield is made of it.
  [[nodiscard]] ZoneHandling& handling_of(ZoneId zone) { return handling_[zone.value - 1]; }
  /// All three at once.
  [[nodiscard]] ZoneBehaviour behaviour_of(ZoneId zone) const {
    return {.layout = layout_of(zone), .rules = rules_of(zone), .handling = handling_of(zone)};
  }
  /// Sets all three at once.
  void set_behaviour(ZoneId zone, ZoneBehaviour options);
  /// For `solve` and the like, by ZoneId - 1.
  [[nodiscard]] std::span<const ZoneLayout> layouts() const { return layouts_; }
  /// For judging without a playfield. Valid until the set-up changes.
  [[nodiscard]] Rulebook rulebook() const {
    return {.zones = rules_,
            .links = links,
            .waits = waits,
            .consequences = consequences,
            .named_moves = named_moves,
            .won = &won,
            .lost = &lost};
  }

  std::string name = {};                ///< for people
  Size art_size = {};                   ///< of a card's picture, px of its own; empty when it is not known
  Table table;                          ///< the cards, where they lie, whose turn it is
  std::vector<PanelSetup> panels = {};  ///< by PanelId - 1
  std::vector<std::pair<ZoneId, ZoneId>> links = {};  ///< neighbouring slots of formations
  std::vector<std::pair<ZoneId, ZoneId>> waits = {};  ///< slots that wait: the first for the second
  std::vector<Consequence> consequences = {};         ///< what follows a move, looked for in this order
  std::vector<NamedMove> named_moves = {};            ///< what may be done beside moving cards
  /// What is said when a rule in code, or the game itself, refuses: by the name in the verdict. Placeholders:
  /// `{card}`, `{onto}`, `{zone}`, `{wanted}`, `{found}`, and what the verdict tells beside, by its name.
  std::map<std::string, std::string, std::less<>> sentences = {};
  std::vector<Plan> plans = {};          ///< at least one; the one that gives the larger card is used
  ZoneId deal_from = {};                 ///< where a deal's cards come from; none: from above the window
  std::vector<Badge> badges = {};        ///< numbers that show on their cards
  RoundPlan round = {};                  ///< how a round begins
  std::vector<ZoneId> send_top_of = {};  ///< whose top cards the key `send_top` sends, the first that goes
  FinishPlan finish = {};                ///< how a game ends that is as good as won
  Names names = {};       ///< how its cards and zones are spoken of, where a client has no names of its own
  Goal won = {};          ///< how it lies when the game is won
  Goal lost = {};         ///< how it lies when the game is lost
  std::string data = {};  ///< the client's own JSON object, kept verbatim; empty for none
  // Likewise of a zone, of a card; a panel has its own with it.
  std::map<ZoneId, std::string> zone_data = {};  ///< by zone
  std::map<CardId, std::string> card_data = {};  ///< by card

 private:
  std::vector<ZoneLayout> layouts_ = {};  // by ZoneId - 1, as the next two
  std::vector<ZoneRules> rules_ = {};
  std::vector<ZoneHandling> handling_ = {};
};

/// The same table with a round dealt by a seed: the same on every platform. Faces are known to the client
/// here; a stock with too few cards deals what it has. Without a round plan the table is as it was.
[[nodiscard]] APSIDON_CORE_EXPORT TableSetup dealt(const TableSetup& setup, std::uint64_t seed);

/// Throws Error when the plans do not place every zone once, or any option is out of its range.
APSIDON_CORE_EXPORT void check(const TableSetup& setup);
/// The same of other plans for the set-up.
APSIDON_CORE_EXPORT void check(std::span<const Plan> plans, const TableSetup& setup);
/// The same of what a zone of the set-up would be instead. O(nodes of its rules).
APSIDON_CORE_EXPORT void check(const ZoneBehaviour& options, ZoneId zone, const TableSetup& setup);

}  // namespace apsidon
