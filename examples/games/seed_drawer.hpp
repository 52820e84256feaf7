#pragma once
#include <fmt/format.h>

#include <utility>

#include "game.hpp"

namespace games {

/// A matching game in threes. The table file says how cards are opened and compared; here are the lantern and
/// the daylight.
class SeedDrawer : public Game {
 public:
  SeedDrawer(const TableSetup& setup, std::uint64_t seed, const PlayfieldOptions& options = {})
      : Game(fitted(dealt(setup, seed), columns_in(options.window)), options),
        columns_(columns_in(options.window)) {
    daylight_ = field().time().add_countdown(180, true);
    (void)field().edits().bind_fill(panel("daylight"), daylight_);
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
  static constexpr int compartments = 30;

  /// The drawer has as many compartments in every window: in a tall one they stand in five columns, not in
  /// six.
  static int columns_in(Size window) { return window.height > window.width ? 5 : 6; }

  static TableSetup fitted(TableSetup setup, int columns) {
    const ZoneId drawer = *setup.table.find_zone("drawer");
    setup.set_behaviour(drawer, with_columns(setup.behaviour_of(drawer), columns));
    return setup;
  }
  static ZoneBehaviour with_columns(ZoneBehaviour behaviour, int columns) {
    auto& grid = std::get<GridLayout>(behaviour.layout.kind);
    grid.columns = columns;
    grid.rows = compartments / columns;
    return behaviour;
  }

  void fit(Size window) override {
    if (columns_in(window) == std::exchange(columns_, columns_in(window))) return;
    const ZoneId drawer = zone("drawer");
    (void)field().edits().set_behaviour(drawer, with_columns(field().where().behaviour(drawer), columns_));
  }

  /// Shows one row of covered cards for two seconds: the first, the second and the third that has some.
  void light() {
    if (lanterns_ == 0 || field().performances().running(lantern_)) return;
    std::vector<std::vector<CardId>> rows(compartments / static_cast<std::size_t>(columns_));
    for (const CardId id : field().table().zone(zone("drawer"))->cards) {
      const Card& card = *field().table().card(id);
      if (!card.face_up && card.cell >= 0)
        rows[static_cast<std::size_t>(card.cell / columns_) % rows.size()].push_back(id);
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
    field().edits().set_panel(panel("lantern"), fmt::format("Lantern · {} left", lanterns_));
    field().edits().set_panel(panel("sets"), fmt::format("{} of {} sets", sets(), all_sets));
  }

  CountdownId daylight_ = {};
  PerformanceId lantern_ = {};
  int columns_ = 6;
  int lanterns_ = 3;
};

}  // namespace games
