#pragma once
#include <fmt/format.h>

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
    if (event.kind == EventKind::dropped && event.from == zone("hand") && event.to != event.from) {
      field().performances().perform(draw(zone("stock"), zone("hand")));
      const bool won = field().moves().standing() == Standing::won;
      if (won || field().rules().legal_moves().empty()) finish(won);
    }
    show();
  }

 private:
  static constexpr std::size_t slots = 16;

  [[nodiscard]] std::size_t empty_slots() const {
    std::size_t empty = 0;
    for (const Zone& zone : field().table().zones()) {
      empty += zone.name.starts_with("trellis-") && zone.cards.empty() ? std::size_t{1} : std::size_t{0};
    }
    return empty;
  }

  void show() { field().edits().set_panel(panel("count"), fmt::format("{} slots left", empty_slots())); }
};

}  // namespace games
