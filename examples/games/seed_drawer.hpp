#pragma once
#include <fmt/format.h>

#include "game.hpp"

namespace games {

/// A matching game in threes. The table file says how cards are opened and compared; here are the lantern and
/// the daylight.
class SeedDrawer : public Game {
 public:
  SeedDrawer(const TableSetup& setup, std::uint64_t seed, const PlayfieldOptions& options = {})
      : Game(dealt(setup, seed), options) {
    daylight_ = field().time().add_countdown(180, true);
    show();
  }

  [[nodiscard]] std::string score() const override {
    return fmt::format("{} of {} sets found, {:.0f} seconds of daylight left", sets(), all_sets,
                       field().time().seconds_left(daylight_));
  }

 protected:
  void hear(const Event& event) override {
    if (event.kind == EventKind::tapped && event.panel == panel("lantern")) light();
    if (event.kind == EventKind::ended && event.performance == lantern_) field().gate().open("lantern");
    if (event.kind == EventKind::matched) field().time().extend_countdown(daylight_, 8);
    if (event.kind == EventKind::time_up) {
      field().gate().close("night");
      finish(false, "It is dark");
    }
    if (event.kind == EventKind::won) {
      field().time().hold_countdown(daylight_, "found");
      field().switches().hide(zone("drawer"));
      finish(true, "All seeds are found");
    }
    show();
  }

 private:
  static constexpr int all_sets = 10;
  static constexpr int columns = 6;

  /// Shows one row of covered cards for two seconds: the first, the second and the third that has some.
  void light() {
    if (lanterns_ == 0 || field().performances().running(lantern_)) return;
    std::vector<std::vector<CardId>> rows(5);
    for (const CardId id : field().table().zone(zone("drawer"))->cards) {
      const Card& card = *field().table().card(id);
      if (!card.face_up && card.cell >= 0)
        rows[static_cast<std::size_t>(card.cell / columns) % 5].push_back(id);
    }
    std::erase_if(rows, [](const auto& row) { return row.empty(); });
    if (rows.empty()) return;
    field().gate().close("lantern");
    lantern_ = field().performances().perform(
        reveal(rows[static_cast<std::size_t>(3 - lanterns_) % rows.size()], 2));
    --lanterns_;
  }

  [[nodiscard]] std::size_t sets() const { return cards_in("found") / 3; }

  void show() {
    field().edits().set_panel(panel("daylight"), "Daylight",
                              static_cast<float>(field().time().share_left(daylight_)));
    field().edits().set_panel(panel("lantern"), fmt::format("Lantern · {} left", lanterns_));
    field().edits().set_panel(panel("sets"), fmt::format("{} of {} sets", sets(), all_sets));
  }

  CountdownId daylight_ = {};
  PerformanceId lantern_ = {};
  int lanterns_ = 3;
};

}  // namespace games
