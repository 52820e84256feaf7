#pragma once
// What is switched off or hidden for now. Not installed.
#include <cstdint>
#include <map>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "apsidon/play/input.hpp"
#include "apsidon/play/panel.hpp"
#include "apsidon/play/switchable.hpp"
#include "play/reasons.hpp"

namespace apsidon::play_detail {

/// Cards, zones and panels that are switched off, and those that are hidden, by reasons.
///
/// Invariant: a thing is off exactly while a reason switches it off or hides it, and hidden exactly while one
/// hides it; `cards_off` and `zones_off` list what is off, each once.
class Switches {
 public:
  /// Panels may begin hidden or switched off: for the reason "".
  explicit Switches(std::span<const PanelSetup> panels);

  /// Returns whether anything has changed.
  bool turn(const SwitchInput& input);

  [[nodiscard]] bool is_off(Switchable what) const {
    return !empty() && (off_.contains(what) || hidden_.contains(what));
  }
  [[nodiscard]] bool is_hidden(Switchable what) const { return !hidden_.empty() && hidden_.contains(what); }
  [[nodiscard]] std::span<const std::string> reasons_off(Switchable what) const { return of(off_, what); }
  [[nodiscard]] std::span<const std::string> reasons_hidden(Switchable what) const {
    return of(hidden_, what);
  }
  [[nodiscard]] bool empty() const { return off_.empty() && hidden_.empty(); }
  [[nodiscard]] std::span<const CardId> cards_off() const { return cards_off_; }
  [[nodiscard]] std::span<const ZoneId> zones_off() const { return zones_off_; }
  [[nodiscard]] std::uint64_t revision() const { return revision_; }

 private:
  using Held = std::map<Switchable, Reasons>;

  static std::span<const std::string> of(const Held& held, Switchable what) {
    const auto it = held.find(what);
    return it == held.end() ? std::span<const std::string>{} : it->second.all();
  }
  static bool change(Held& held, Switchable what, bool give, std::string_view reason);
  void list();

  Held off_ = {};  // only things with a reason
  Held hidden_ = {};
  std::vector<CardId> cards_off_ = {};
  std::vector<ZoneId> zones_off_ = {};
  std::uint64_t revision_ = 0;
};

}  // namespace apsidon::play_detail
