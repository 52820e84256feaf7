#include "apsidon/play/describe.hpp"

#include <fmt/args.h>
#include <fmt/format.h>

#include <algorithm>
#include <initializer_list>
#include <utility>

#include "apsidon/cards/table.hpp"
#include "apsidon/geometry/error.hpp"
#include "apsidon/play/hand_group.hpp"
#include "apsidon/play/playfield.hpp"
#include "apsidon/play/rules_group.hpp"
#include "apsidon/play/where_group.hpp"
#include "play/reads/panel_text.hpp"
#include "rules/sentence.hpp"

namespace apsidon {
namespace {

using Arguments = std::initializer_list<std::pair<const char*, std::string>>;

std::string fill(const std::string& text, Arguments arguments) {
  fmt::dynamic_format_arg_store<fmt::format_context> args;
  for (const auto& [name, value] : arguments) args.push_back(fmt::arg(name, value));
  return fmt::vformat(text, args);
}

/// The client's names, or else the table's.
const Names& names_of(const Playfield& field, const Phrases& reasons) {
  return reasons.names == Names{} ? field.rules().names() : reasons.names;
}

/// By the face that lies open, if one does.
std::string card_text(CardId id, FaceId open, const Table& table, const EventPhrases& phrases,
                      const Names& names) {
  if (table.deck().has(open)) return spoken(open, table.deck(), names);
  return table.card(id) ? phrases.covered : id ? fmt::format("card {}", id.value) : "";
}

std::string zone_text(ZoneId id, const Table& table, const Names& names) {
  return table.zone(id) ? spoken(table.zone(id)->name, names) : "";
}

std::string panel_text(PanelId id, const Playfield& field, const Names& names) {
  if (!id || id.value > field.where().panels().size()) return "";
  const PanelSetup& panel = field.where().panels()[id.value - 1];
  if (panel.text.empty()) return spoken(panel.name, names);
  std::string text;
  play_detail::say_panel(panel, field.table(), text);
  return text;
}

/// Whose turn it is: "south", "south and north".
std::string turn_text(const Table& table, const EventPhrases& phrases, const Names& names) {
  std::string text;
  for (const SeatId seat : table.turn()) {
    const std::string name = spoken(table.seats()[seat.value - 1].name, names);
    text = text.empty() ? name : fill(phrases.both, {{"one", text}, {"other", name}});
  }
  return text.empty() ? phrases.nobody : text;
}

EventPhrases english_events() {
  EventPhrases p;
  const auto say = [&](EventKind kind, std::string text) {
    p.by_kind[static_cast<std::size_t>(kind)] = std::move(text);
  };
  say(EventKind::pick_refused, "{why}");
  say(EventKind::picked_up, "{card} picked up from {from}.");
  say(EventKind::dropped, "{card} laid on {to}.");
  say(EventKind::refused, "{why}");
  say(EventKind::cancelled, "{card} put back.");
  say(EventKind::superseded, "{why}");
  say(EventKind::exchanged, "{card} exchanged, to {to}.");
  say(EventKind::flipped, "{card} flipped in {from}.");
  say(EventKind::face_changed, "{card} shows another face.");
  say(EventKind::reoriented, "{card} turned by a quarter in {from}.");
  say(EventKind::selected, "{card} chosen.");
  say(EventKind::deselected, "{card} not chosen any more.");
  say(EventKind::taken, "{to} takes {card}.");
  say(EventKind::drawn, "{from} gives {count} to {to}.");
  say(EventKind::recycled, "{from} recycled into {to}.");
  say(EventKind::played, "{name}.");
  say(EventKind::turn_passed, "It is the turn of {turn}.");
  say(EventKind::matched, "{count} cards belong together.");
  say(EventKind::unmatched, "These cards do not belong together.");
  say(EventKind::may_finish, "All that is left can be finished.");
  say(EventKind::won, "The game is won.");
  say(EventKind::lost, "The game is lost.");
  say(EventKind::no_moves, "No moves are left.");
  say(EventKind::undone, "Undone.");
  say(EventKind::redone, "Redone.");
  say(EventKind::emptied, "{from} is empty.");
  say(EventKind::time_up, "Time is up.");
  return p;
}

}  // namespace

const EventPhrases& default_event_phrases() {
  static const EventPhrases phrases = english_events();
  return phrases;
}

void check(const EventPhrases& phrases) {
  const auto check_one = [](const std::string& what, const std::string& text, Arguments arguments) {
    try {
      (void)fill(text, arguments);
    } catch (const fmt::format_error& e) {
      std::string names;
      for (const auto& [name, value] : arguments)
        names += fmt::format("{}{{{}}}", names.empty() ? "" : ", ", name);
      throw Error(fmt::format("phrase for {}: '{}': {}; {} is expected", what, text, e.what(), names));
    }
  };
  for (std::size_t i = 0; i < phrases.by_kind.size(); ++i) {
    check_one(std::string(name_of(static_cast<EventKind>(i))), phrases.by_kind[i],
              {{"card", ""},
               {"count", ""},
               {"from", ""},
               {"to", ""},
               {"panel", ""},
               {"why", ""},
               {"name", ""},
               {"turn", ""}});
  }
  check_one("a card that was moved meanwhile", phrases.moved_meanwhile, {{"card", ""}});
  check_one("two seats on turn", phrases.both, {{"one", ""}, {"other", ""}});
  check_one("a run", phrases.run, {{"card", ""}, {"more", ""}});
  const Arguments of_focus{{"card", ""}, {"position", ""}, {"count", ""}, {"zone", ""}, {"panel", ""}};
  check_one("a focused card", phrases.focus_card, of_focus);
  check_one("a focused zone", phrases.focus_zone, of_focus);
  check_one("a focused panel", phrases.focus_panel, of_focus);
}

std::string describe(const Verdict& verdict, const Playfield& field, const Phrases& reasons) {
  const std::string_view own = field.rules().sentence(verdict.rule);
  const bool by_table = !own.empty() && !reasons.by_rule.contains(verdict.rule);
  const Names& names = names_of(field, reasons);
  if (!by_table && names == reasons.names) return describe(verdict, field.table(), reasons);
  Phrases with = reasons;
  if (by_table) with.by_rule.emplace(verdict.rule, own);
  with.names = names;
  return describe(verdict, field.table(), with);
}

std::string describe(const Event& event, const Playfield& field, const EventPhrases& phrases,
                     const Phrases& reasons) {
  const auto i = static_cast<std::size_t>(event.kind);
  if (i >= phrases.by_kind.size() || phrases.by_kind[i].empty()) return {};
  const Table& table = field.table();
  const Names& names = names_of(field, reasons);
  std::string card = card_text(event.card, event.face, table, phrases, names);
  Verdict verdict = event.verdict;
  if (event.decided_face) verdict.face = event.decided_face;
  if (event.onto_face) verdict.onto_face = event.onto_face;
  if (event.count > 1 && event.kind != EventKind::drawn) {
    card = fill(phrases.run, {{"card", card}, {"more", fmt::format("{}", event.count - 1)}});
  }
  const Card* now = table.card(event.card);
  const bool moved = event.kind == EventKind::cancelled && event.cause == CancelCause::by_game &&
                     (!now || now->zone != event.from);
  const std::string& text = moved ? phrases.moved_meanwhile : phrases.by_kind[i];
  return as_sentence(fill(text, {{"card", card},
                                 {"count", fmt::format("{}", event.count)},
                                 {"from", zone_text(event.from, table, names)},
                                 {"to", zone_text(event.to, table, names)},
                                 {"panel", panel_text(event.panel, field, names)},
                                 {"why", describe(verdict, field, reasons)},
                                 {"name", spoken(event.name, names)},
                                 {"turn", turn_text(table, phrases, names)}}));
}

std::string describe_focus(const Playfield& field, const EventPhrases& phrases, const Phrases& reasons) {
  const Names& names = names_of(field, reasons);
  const Hit on = field.hand().focused();
  const Table& table = field.table();
  const Card* card = table.card(on.card);
  const Zone* zone = table.zone(on.zone);
  if (!card && !zone && !on.panel) return {};
  const FaceId open = card && card->face_up ? card->face : hidden_face;
  const std::string& text = card ? phrases.focus_card : zone ? phrases.focus_zone : phrases.focus_panel;
  std::string out = as_sentence(fill(text, {{"card", card_text(on.card, open, table, phrases, names)},
                                            {"position", fmt::format("{}", card ? card->index + 1 : 0)},
                                            {"count", fmt::format("{}", zone ? zone->cards.size() : 0)},
                                            {"zone", zone ? spoken(zone->name, names) : ""},
                                            {"panel", panel_text(on.panel, field, names)}}));
  const auto add = [&](bool is, const std::string& phrase) {
    if (is && !phrase.empty()) out += "; " + phrase;
  };
  if (card && field.hand().held().count == 0) {
    const auto all = field.hand().selection();
    const bool chosen = std::find(all.begin(), all.end(), on.card) != all.end();
    add(chosen, phrases.chosen);
    add(!chosen && field.rules().judge_select(on.card).allowed(), phrases.may_choose);
    add(field.rules().judge_pick(on.card).verdict.allowed(), phrases.may_pick);
  }
  return out + ".";
}

}  // namespace apsidon
