#pragma once
// What the panels show. Not installed.
#include <algorithm>
#include <cstdint>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "apsidon/play/setup.hpp"

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
  /// Whether it shows this already, or is no panel of the table.
  [[nodiscard]] bool shows(PanelId id, std::string_view text, float fill, PanelTone tone) const {
    const PanelSetup* shown = panel(id);
    return !shown ||
           (shown->text == text && shown->fill == std::clamp(fill, 0.0f, 1.0f) && shown->tone == tone);
  }
  /// A stale id changes nothing.
  void show(PanelId id, std::string text, float fill, PanelTone tone) {
    if (!panel(id)) return;
    panels_[id.value - 1].text = std::move(text);
    panels_[id.value - 1].fill = std::clamp(fill, 0.0f, 1.0f);
    panels_[id.value - 1].tone = tone;
    ++revision_;
  }
  [[nodiscard]] std::uint64_t revision() const { return revision_; }

 private:
  std::vector<PanelSetup> panels_;
  std::uint64_t revision_ = 0;
};

}  // namespace apsidon::play_detail
