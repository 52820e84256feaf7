// What the plan has lie over what.
#include <algorithm>

#include "play/keeps/arrangement.hpp"

namespace apsidon::play_detail {

void Arrangement::find_layers(const TableSetup& setup) {
  std::fill(layers_.begin(), layers_.end(), 0);
  const auto note = [&](const PlanNode& node, int layer, const auto& self) -> void {
    if (node.kind == PlanKind::zone) layers_[node.zone.value - 1] = layer;
    for (const FormationSlot& slot : node.places) layers_[slot.zone.value - 1] = layer;
    for (std::size_t i = 0; i < node.parts.size(); ++i)
      self(node.parts[i], layer + (node.kind == PlanKind::layers ? static_cast<int>(i) : 0), self);
  };
  note(setup.plans[*plan_].root, 0, note);
  from_below_.clear();
  for (std::uint32_t i = 1; i <= layers_.size(); ++i) from_below_.push_back({i});
  std::stable_sort(from_below_.begin(), from_below_.end(),
                   [&](ZoneId a, ZoneId b) { return layer(a) < layer(b); });
  for (std::uint32_t i = 0; i < from_below_.size(); ++i) ranks_[from_below_[i].value - 1] = i + 1;
}

void Arrangement::find_overlays(const TableSetup& setup) {
  std::fill(overlay_of_.begin(), overlay_of_.end(), PanelId{});
  std::fill(panel_over_.begin(), panel_over_.end(), 0);
  for (const Overlay& overlay : setup.plans[*plan_].overlays) {
    panel_over_[overlay.panel.value - 1] = 1;
    const auto note = [&](const PlanNode& node, const auto& self) -> void {
      if (node.kind == PlanKind::panel) {
        overlay_of_[node.panel.value - 1] = overlay.panel;
        panel_over_[node.panel.value - 1] = 1;
      }
      for (const PlanNode& part : node.parts) self(part, self);
    };
    note(overlay.inside, note);
  }
}

PanelId Arrangement::overlay_of(PanelId panel) const {
  return panel && panel.value <= overlay_of_.size() ? overlay_of_[panel.value - 1] : PanelId{};
}

}  // namespace apsidon::play_detail
