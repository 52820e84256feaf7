#include "play/reads/panel_text.hpp"

#include <algorithm>
#include <charconv>
#include <optional>
#include <string_view>

#include "rules/sentence.hpp"

namespace apsidon::play_detail {
namespace {

std::optional<std::string> number_text(const Table& table, std::string_view name, const NumberOwner& owner) {
  const Numbers numbers = table.numbers(owner);
  const bool there =
      std::any_of(numbers.begin(), numbers.end(), [&](const Number& number) { return number.name == name; });
  // How many cards lie in a zone is always known.
  if (!there && !(owner.zone && name == "cards")) return std::nullopt;
  return std::to_string(table.number(name, owner));
}

/// "points of south": of the zone of this name, or else the seat.
std::optional<std::string> number_of(const Table& table, std::string_view text) {
  constexpr std::string_view of = " of ";
  const std::size_t at = text.find(of);
  if (at == std::string_view::npos) return std::nullopt;
  const std::string_view name = text.substr(0, at);
  const std::string_view owner = text.substr(at + of.size());
  if (const auto zone = table.find_zone(owner)) return number_text(table, name, *zone);
  const auto seat = table.find_seat(owner);
  return seat ? number_text(table, name, *seat) : std::nullopt;
}

/// What a name in braces stands for.
std::optional<std::string> named_number(const PanelSetup& panel, const Table& table, std::string_view name) {
  if (panel.seat) {
    if (auto own = number_text(table, name, panel.seat)) return own;
  }
  auto of_table = number_text(table, name, {});
  return of_table ? of_table : number_of(table, name);
}

/// 0 for what no number is called, and is none.
int value_of(const PanelSetup& panel, const Table& table, const std::string& name) {
  const std::string text = named_number(panel, table, name).value_or(name);
  int value = 0;
  std::from_chars(text.data(), text.data() + text.size(), value);
  return value;
}

}  // namespace

void say_panel(const PanelSetup& panel, const Table& table, std::string& out) {
  out = panel.text;
  if (out.find('{') == std::string::npos) return;
  out = filled_in(panel.text, [&](std::string_view name) { return named_number(panel, table, name); });
}

float filled_share(const PanelSetup& panel, const Table& table) {
  const int full = value_of(panel, table, panel.full_at);
  if (full <= 0) return 0;
  const double share = static_cast<double>(value_of(panel, table, panel.filled_by)) / full;
  return static_cast<float>(std::clamp(share, 0.0, 1.0));
}

}  // namespace apsidon::play_detail
