#pragma once
// What the panels show. Not installed.
#include <algorithm>
#include <cmath>
#include <cstdint>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "apsidon/play/setup.hpp"
#include "play/values/any_input.hpp"

namespace apsidon::play_detail {

/// Invariant: a fill is a share from 0 to 1; no panel comes or goes, and none changes its name or kind.
class Panels {
 public:
  explicit Panels(std::vector<PanelSetup> panels) : panels_(std::move(panels)) {}

  [[nodiscard]] const std::vector<PanelSetup>& all() const { return panels_; }
  /// None when no panel has this name.
  [[nodiscard]] PanelId find(std::string_view name) const {
    const auto it =
        std::find_if(panels_.begin(), panels_.end(), [&](const PanelSetup& p) { return p.name == name; });
    return it == panels_.end() ? PanelId{} : PanelId{static_cast<std::uint32_t>(it - panels_.begin() + 1)};
  }
  /// Null when it is no panel of the table.
  [[nodiscard]] const PanelSetup* panel(PanelId id) const {
    return id && id.value <= panels_.size() ? &panels_[id.value - 1] : nullptr;
  }
  /// The countdown whose share fills it; none: its own fill does.
  [[nodiscard]] CountdownId countdown(PanelId id) const {
    return id.value <= bound_.size() ? bound_[id.value - 1] : CountdownId{};
  }
  [[nodiscard]] bool any_bound() const { return !bound_.empty(); }
  /// Calls `with` for each panel that a countdown fills.
  template <class With>
  void each_bound(With with) const {
    for (std::uint32_t i = 0; i < bound_.size(); ++i) {
      if (bound_[i] != CountdownId{}) with(PanelId{i + 1}, bound_[i]);
    }
  }
  /// How many lengths a bar in this area can have: one for each device pixel of its longer side.
  [[nodiscard]] static double steps(const Rect& area, float pixel_ratio) {
    return std::max(std::ceil(double{std::max(area.width(), area.height())} * pixel_ratio), 1.0);
  }
  /// Whether it shows this already.
  [[nodiscard]] bool shows(const PanelInput& input) const {
    const PanelSetup& shown = panels_[input.panel.value - 1];
    return shown.text == input.text && shown.fill == std::clamp(input.fill, 0.0f, 1.0f) &&
           shown.tone == input.tone && countdown(input.panel) == input.countdown;
  }
  void show(const PanelInput& input) {
    PanelSetup& shown = panels_[input.panel.value - 1];
    shown.text = input.text;
    shown.fill = std::clamp(input.fill, 0.0f, 1.0f);
    shown.tone = input.tone;
    if (countdown(input.panel) != input.countdown) {
      bound_.resize(panels_.size());
      bound_[input.panel.value - 1] = input.countdown;
    }
    ++revision_;
  }
  [[nodiscard]] std::uint64_t revision() const { return revision_; }

 private:
  std::vector<PanelSetup> panels_;
  std::vector<CountdownId> bound_ = {};  // by panel; empty while none is
  std::uint64_t revision_ = 0;
};

}  // namespace apsidon::play_detail
