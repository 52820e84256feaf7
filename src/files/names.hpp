#pragma once
// The words of table files for rules, picks and places in a plan: one list each for reader and writer. Not
// installed.
#include <array>
#include <string_view>
#include <utility>

#include "apsidon/play/setup.hpp"
#include "files/reader.hpp"
#include "play/values/fields.hpp"

namespace apsidon::files_detail {

inline constexpr std::array<std::pair<std::string_view, RuleKind>, 27> rule_names{{
    {"anything", RuleKind::anything},
    {"nothing", RuleKind::nothing},
    {"rank-down", RuleKind::rank_down},
    {"rank-up", RuleKind::rank_up},
    {"same-suit", RuleKind::same_suit},
    {"same-colour", RuleKind::same_colour},
    {"same-rank", RuleKind::same_rank},
    {"together", RuleKind::together},
    {"suit", RuleKind::of_suit},
    {"rank-at-least", RuleKind::rank_at_least},
    {"from", RuleKind::from},
    {"on-empty", RuleKind::on_empty},
    {"rank-on-empty", RuleKind::rank_on_empty},
    {"at-most", RuleKind::at_most},
    {"at-least", RuleKind::at_least},
    {"sum", RuleKind::sum},
    {"sequence", RuleKind::sequence},
    {"all", RuleKind::all},
    {"any", RuleKind::any},
    {"not", RuleKind::negate},
    {"neighbours", RuleKind::neighbours},
    {"each-neighbour", RuleKind::each_neighbour},
    {"waited-for", RuleKind::waited_for},
    {"number", RuleKind::number},
    {"on-turn", RuleKind::on_turn},
    {"own-zone", RuleKind::own_zone},
    {"own", RuleKind::own},
}};
static_assert(rule_names.size() == static_cast<std::size_t>(RuleKind::own) + 1, "each kind has its word");

/// Whether a rule is written as an object with its argument rather than as a bare word.
constexpr bool has_argument(RuleKind kind) {
  return kind == RuleKind::rank_on_empty || kind == RuleKind::at_most || kind == RuleKind::all ||
         kind == RuleKind::any || kind == RuleKind::negate || kind == RuleKind::of_suit ||
         kind == RuleKind::rank_at_least || kind == RuleKind::from || kind == RuleKind::neighbours ||
         kind == RuleKind::each_neighbour || kind == RuleKind::waited_for || kind == RuleKind::number ||
         kind == RuleKind::at_least || kind == RuleKind::sum || kind == RuleKind::own;
}

inline constexpr std::array<std::pair<std::string_view, RowLinks>, 2> row_links_names{
    {{"all", RowLinks::all}, {"between", RowLinks::between}}};
/// Whether a slot waits for those above it.
inline constexpr std::array<std::pair<std::string_view, bool>, 2> waits_names{
    {{"below", false}, {"above", true}}};

inline constexpr std::array<std::pair<std::string_view, GoalKind>, 4> goal_names{{
    {"all-in", GoalKind::all_in},
    {"filled", GoalKind::filled},
    {"empty", GoalKind::empty},
    {"when", GoalKind::when},
}};

inline constexpr std::array<std::pair<std::string_view, Corner>, 4> corner_names{
    {{"top-left", Corner::top_left},
     {"top-right", Corner::top_right},
     {"bottom-left", Corner::bottom_left},
     {"bottom-right", Corner::bottom_right}}};

/// Of whom a number is that a rule compares, beside the table, a zone and a seat by their names.
inline constexpr std::array<std::pair<std::string_view, NumberOf>, 7> number_of_names{{
    {"table", NumberOf::owner},
    {"card", NumberOf::card},
    {"onto", NumberOf::onto},
    {"zone", NumberOf::zone},
    {"from", NumberOf::from},
    {"seat", NumberOf::seat},
    {"player", NumberOf::player},
}};

inline constexpr std::array<std::pair<std::string_view, Compared>, 3> compared_names{
    {{"at_least", Compared::at_least}, {"at_most", Compared::at_most}, {"equal", Compared::equal}}};

inline constexpr std::array<std::pair<std::string_view, PickKind>, 4> pick_names{{
    {"nothing", PickKind::nothing},
    {"top", PickKind::top},
    {"any", PickKind::any},
    {"run", PickKind::run},
}};

inline constexpr std::array<std::pair<std::string_view, MatchEnd>, 3> match_end_names{
    {{"move", MatchEnd::move}, {"vanish", MatchEnd::vanish}, {"stay", MatchEnd::stay}}};

inline constexpr std::array<std::pair<std::string_view, Justify>, 4> justify_names{{
    {"start", Justify::start},
    {"centre", Justify::centre},
    {"end", Justify::end},
    {"spread", Justify::spread},
}};

inline constexpr std::array<std::pair<std::string_view, OverlayHits>, 3> overlay_hits_names{
    {{"own", OverlayHits::own}, {"all", OverlayHits::all}, {"none", OverlayHits::none}}};

inline constexpr std::array<std::pair<std::string_view, Cross>, 4> cross_names{{
    {"stretch", Cross::stretch},
    {"start", Cross::start},
    {"centre", Cross::centre},
    {"end", Cross::end},
}};

inline constexpr std::array<std::pair<std::string_view, PanelKind>, 5> panel_names{{
    {"caption", PanelKind::caption},
    {"counter", PanelKind::counter},
    {"button", PanelKind::button},
    {"bar", PanelKind::bar},
    {"box", PanelKind::box},
}};

/// The value of a word, or a stop that names the nearest.
template <class Value, std::size_t N>
Value named(const Node& node, std::string_view what, const std::string& word,
            const std::array<std::pair<std::string_view, Value>, N>& names) {
  std::vector<std::string> all;
  for (const auto& [name, value] : names) {
    if (name == word) return value;
    all.emplace_back(name);
  }
  node.stop_unknown(what, word, all);
}

template <class Value, std::size_t N>
constexpr std::string_view name_in(const std::array<std::pair<std::string_view, Value>, N>& names,
                                   Value value) {
  for (const auto& [name, v] : names) {
    if (v == value) return name;
  }
  return {};
}

}  // namespace apsidon::files_detail
