#pragma once
// What is switched off or hidden for now. Not installed.
#include <cstdint>
#include <map>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "apsidon/play/panel.hpp"
#include "apsidon/play/switchable.hpp"
#include "play/decides/off_list.hpp"
#include "play/keeps/reasons.hpp"
#include "play/values/any_input.hpp"

namespace apsidon::play_detail {

/// Cards, zones and panels that are switched off, and those that are hidden, by reasons; and what the game
/// has marked by names.
///
/// Invariant: a thing is off exactly while a reason switches it off or hides it, and hidden exactly while one
/// hides it; `off` lists the cards and zones that are off. What ends at a time is marked until then.
class Switches {
 public:
  /// Panels may begin hidden or switched off: for the reason "".
  explicit Switches(std::span<const PanelSetup> panels);
  /// Takes over the reasons that last, of zones and panels that another table has, too: a round has ended.
  /// `now` gives what one of the table before is called now.
  template <class Now>
  void take_over(const Switches& before, Now now) {
    const auto take = [&](const Held& from, Held& to) {
      for (const auto& [what, reasons] : from) {
        const Switchable is = now(what);
        if (is == Switchable{}) continue;
        for (const std::string& reason : reasons.lasting()) to[is].give(reason, true);
      }
    };
    take(before.off_, off_);
    take(before.hidden_, hidden_);
    for (const Held* held : {&off_, &hidden_}) {
      for (const auto& [what, reasons] : *held) list_.set(what, first_reason(what));
    }
  }

  /// Returns whether what is off or hidden has changed. `own`: the time on the table's clock.
  bool turn(const SwitchInput& input, double own);
  /// When the next mark ends, on the table's clock; infinity when none does.
  [[nodiscard]] double due() const;
  void end_marks(double own);
  /// Calls `with` for each thing that is marked, with its names.
  template <class With>
  void each_marked(With with) const {
    for (const auto& [what, names] : marks_) with(what, names.all());
  }
  [[nodiscard]] std::span<const std::string> marks_of(Switchable what) const { return of(marks_, what); }

  [[nodiscard]] bool is_off(Switchable what) const {
    return !empty() && (off_.contains(what) || hidden_.contains(what));
  }
  [[nodiscard]] bool is_hidden(Switchable what) const { return !hidden_.empty() && hidden_.contains(what); }
  [[nodiscard]] std::span<const std::string> reasons_off(Switchable what) const { return of(off_, what); }
  [[nodiscard]] std::span<const std::string> reasons_hidden(Switchable what) const {
    return of(hidden_, what);
  }
  [[nodiscard]] bool empty() const { return off_.empty() && hidden_.empty(); }
  [[nodiscard]] const OffList& off() const { return list_; }
  /// The first reason for which a thing is off; none while it is not.
  [[nodiscard]] std::optional<std::string> first_reason(Switchable what) const;
  [[nodiscard]] std::uint64_t revision() const { return revision_; }

 private:
  using Held = std::map<Switchable, Reasons>;

  static std::span<const std::string> of(const Held& held, Switchable what) {
    const auto it = held.find(what);
    return it == held.end() ? std::span<const std::string>{} : it->second.all();
  }
  static bool change(Held& held, Switchable what, bool give, std::string_view reason, bool lasts = false);

  Held off_ = {};  // only things with a reason
  Held hidden_ = {};
  Held marks_ = {};
  std::map<std::pair<Switchable, std::string>, double> ends_ = {};  // of marks that end by themselves
  OffList list_ = {};
  std::uint64_t revision_ = 0;
};

}  // namespace apsidon::play_detail
