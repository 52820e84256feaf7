#pragma once
#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "game.hpp"

namespace games {

/// A lattice of slots to be filled; the table file says what may be tied where. A card is drawn for each that
/// was tied.
class Trellis : public Game {
 public:
  Trellis(const TableSetup& setup, std::uint64_t seed, const PlayfieldOptions& options = {})
      : Game(dealt(setup, seed), options) {
    field().performances().deal();
    show();
  }

  [[nodiscard]] std::string score() const override {
    return fmt::format("{} of {} slots are empty", empty_slots(), slots);
  }

 protected:
  void hear(const Event& event) override {
    const bool tied = event.kind == EventKind::dropped && event.to != event.from;
    if (tied) drawing_ = field().performances().perform(draw(zone("stock"), zone("hand")));
    if (event.kind == EventKind::ended && event.performance == drawing_ && !over() && fitting().empty())
      finish(false, "Nothing fits any more");
    if (event.kind == EventKind::won) finish(true, "The trellis is full");
    if (event.kind == EventKind::tapped && event.panel && event.panel == panel("hint")) hint();
    show();
  }

 private:
  static constexpr std::size_t slots = 16;

  /// The moves onto the trellis.
  [[nodiscard]] std::vector<Move> fitting() const {
    std::vector<Move> moves = field().rules().legal_moves();
    std::erase_if(moves, [&](const Move& move) { return move.to == zone("hand"); });
    return moves;
  }

  /// The card that fits in most places swells.
  void hint() {
    std::map<CardId, int> places;
    for (const Move& move : fitting()) ++places[move.run.first];
    const auto best = std::max_element(places.begin(), places.end(),
                                       [](const auto& a, const auto& b) { return a.second < b.second; });
    if (best == places.end()) return;
    field().performances().pulse(best->first);
    say(fmt::format("{} fits in {} {}.", field().table().deck().text(field().table().card(best->first)->face),
                    best->second, best->second == 1 ? "place" : "places"));
  }

  [[nodiscard]] std::size_t empty_slots() const {
    std::size_t empty = 0;
    for (const Zone& zone : field().table().zones()) {
      empty += zone.name.starts_with("trellis-") && zone.cards.empty() ? std::size_t{1} : std::size_t{0};
    }
    return empty;
  }

  void show() { field().edits().set_panel(panel("count"), fmt::format("{} slots left", empty_slots())); }

  PerformanceId drawing_ = {};
};

}  // namespace games
