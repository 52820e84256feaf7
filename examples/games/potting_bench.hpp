#pragma once
#include <fmt/format.h>

#include "game.hpp"

namespace games {

/// A patience. All its rules are in the table file; what is left to do is to count.
class PottingBench : public Game {
 public:
  PottingBench(const TableSetup& setup, std::uint64_t seed, const PlayfieldOptions& options = {})
      : Game(dealt(setup, seed), options) {
    field().performances().deal();
  }

  [[nodiscard]] std::string score() const override {
    return fmt::format("{} of 52 cards in the beds", in_beds());
  }

 protected:
  void hear(const Event& event) override {
    if (event.kind == EventKind::won) finish(true, "The bench is cleared");
    if (event.kind == EventKind::no_moves) finish(false, "Nothing goes any more");
  }

 private:
  [[nodiscard]] std::size_t in_beds() const {
    std::size_t cards = 0;
    for (int i = 1; i <= 4; ++i) cards += cards_in(fmt::format("bed-{}", i));
    return cards;
  }
};

}  // namespace games
