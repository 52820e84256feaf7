#include <fmt/format.h>

#include <algorithm>
#include <optional>
#include <vector>

#include "apsidon/files/table_file.hpp"
#include "files/deck_json.hpp"
#include "files/layout_json.hpp"
#include "files/panel_json.hpp"
#include "files/plan_json.hpp"
#include "files/rules_json.hpp"
#include "files/zone_json.hpp"

namespace apsidon {
namespace {

using namespace files_detail;
using Json = nlohmann::ordered_json;

Json json_of(const Card& card, const TableSetup& setup, bool open, Verbatim& verbatim) {
  const Deck& deck = setup.table.deck();
  const Card plain;
  const bool moved = card.cell != plain.cell || card.at != plain.at;
  const auto data = setup.card_data.find(card.id);
  const bool bare = data == setup.card_data.end() || data->second.empty();
  const Numbers numbers = setup.table.numbers(card.id);
  if (card.key == 0 && !card.sideways && card.face_up == open && !moved && bare && numbers.empty())
    return deck.text(card.face);
  Json json;
  json["face"] = deck.text(card.face);
  if (card.key != 0) json["key"] = card.key;
  if (card.face_up != open) json["face_up"] = card.face_up;
  if (card.sideways) json["sideways"] = true;
  if (card.cell != plain.cell) json["cell"] = card.cell;
  if (card.at != plain.at) json["at"] = {decimal(card.at.x), decimal(card.at.y)};
  if (!numbers.empty()) json["numbers"] = files_detail::json_of(numbers);
  if (!bare) json["data"] = verbatim.stand_in(data->second);
  return json;
}

/// An array of open cards, or the covered ones below the open ones where a zone lies so.
Json cards_json(const TableSetup& setup, const Zone& zone, Verbatim& verbatim) {
  const Table& table = setup.table;
  std::size_t covered = 0;
  while (covered < zone.cards.size() && !table.card(zone.cards[covered])->face_up) ++covered;
  Json lower = Json::array();
  Json upper = Json::array();
  for (std::size_t i = 0; i < zone.cards.size(); ++i) {
    const bool open = i >= covered;
    (open ? upper : lower).push_back(json_of(*table.card(zone.cards[i]), setup, open, verbatim));
  }
  if (covered == 0) return upper;
  Json json;
  json["covered"] = lower;
  if (!upper.empty()) json["open"] = upper;
  return json;
}

/// Adds a key that is not there yet: looking for it would cost all that are.
void add(Json& object, const std::string& key, Json value) {
  object.get_ref<Json::object_t&>().emplace_back(key, std::move(value));
}

/// The ids of the cards, zone by zone, where reading would give others: it gives 1, 2, 3 in the order of
/// the zones' names.
std::optional<Json> ids_of(const Table& table) {
  std::vector<const Zone*> zones;
  for (const Zone& zone : table.zones()) zones.push_back(&zone);
  std::sort(zones.begin(), zones.end(), [](const Zone* a, const Zone* b) { return a->name < b->name; });
  Json cards = Json::object();
  std::uint32_t next = 0;
  bool as_read = true;
  for (const Zone* zone : zones) {
    Json own = Json::array();
    for (const CardId card : zone->cards) {
      own.push_back(card.value);
      as_read = as_read && card.value == ++next;
    }
    if (!own.empty()) add(cards, zone->name, std::move(own));
  }
  if (as_read && table.last_id().value == next) return std::nullopt;
  return Json{{"last", table.last_id().value}, {"cards", cards}};
}

}  // namespace

std::string write_table(const TableSetup& setup) {
  const Table& table = setup.table;
  Verbatim verbatim;
  Json json;
  json["apsidon"] = "table";
  json["version"] = 1;
  if (!setup.name.empty()) json["name"] = setup.name;
  json["deck"] = json_of(table.deck(), verbatim);
  if (!setup.art_size.empty()) {
    json["art"] = {{"width", decimal(setup.art_size.width)}, {"height", decimal(setup.art_size.height)}};
  }
  for (const Seat& seat : table.seats()) {
    const Numbers numbers = table.numbers(seat.id);
    json["seats"].push_back(numbers.empty() ? Json(seat.name)
                                            : Json{{"name", seat.name}, {"numbers", json_of(numbers)}});
  }
  for (const SeatId seat : table.turn()) json["turn"].push_back(table.seats()[seat.value - 1].name);
  if (const Numbers numbers = table.numbers(); !numbers.empty()) json["numbers"] = json_of(numbers);
  Json zones = Json::array();
  Json cards = Json::object();
  for (const Zone& zone : table.zones()) {
    Json entry;
    entry["name"] = zone.name;
    if (zone.key != 0) entry["key"] = zone.key;
    if (zone.seat) entry["seat"] = table.seats()[zone.seat.value - 1].name;
    if (const Numbers numbers = table.numbers(zone.id); !numbers.empty()) entry["numbers"] = json_of(numbers);
    write_zone(entry, setup.behaviour_of(zone.id), table, zone.recycled);
    const auto data = setup.zone_data.find(zone.id);
    if (data != setup.zone_data.end() && !data->second.empty())
      entry["data"] = verbatim.stand_in(data->second);
    zones.push_back(std::move(entry));
    if (!zone.cards.empty()) add(cards, zone.name, cards_json(setup, zone, verbatim));
  }
  json["zones"] = std::move(zones);
  json["cards"] = std::move(cards);
  if (const auto ids = ids_of(table)) json["ids"] = *ids;
  for (const PanelSetup& panel : setup.panels)
    json["panels"].push_back(files_detail::json_of(panel, table, verbatim));
  for (const auto& [a, b] : setup.links) json["links"].push_back({table.zone(a)->name, table.zone(b)->name});
  for (const auto& [a, b] : setup.waits) json["waits"].push_back({table.zone(a)->name, table.zone(b)->name});
  for (const auto& [rule, text] : setup.sentences) json["sentences"][rule] = text;
  json["plans"] = Json::array();
  for (const Plan& plan : setup.plans) json["plans"].push_back(json_of(plan, setup));
  if (setup.deal_from) json["deal_from"] = table.zone(setup.deal_from)->name;
  if (!setup.badges.empty()) json["badges"] = files_detail::json_of(setup.badges);
  if (setup.round.stock) json["round"] = json_of(setup.round, table);
  for (const ZoneId zone : setup.send_top_of) json["send_top_of"].push_back(table.zone(zone)->name);
  if (!setup.finish.into.empty()) {
    for (const ZoneId zone : setup.finish.into) json["finish"]["into"].push_back(table.zone(zone)->name);
    if (setup.finish.by_itself) json["finish"]["by_itself"] = true;
  }
  if (!setup.names.card.empty()) json["names"]["card"] = setup.names.card;
  for (const auto& [word, spoken] : setup.names.words) json["names"]["words"][word] = spoken;
  for (const Consequence& one : setup.consequences) json["consequences"].push_back(json_of(one, table));
  for (const NamedMove& move : setup.named_moves) json["moves"].push_back(json_of(move, table));
  if (setup.won.kind != GoalKind::none) json["won"] = json_of(setup.won, table);
  if (setup.lost.kind != GoalKind::none) json["lost"] = json_of(setup.lost, table);
  if (!setup.data.empty()) json["data"] = verbatim.stand_in(setup.data);
  return verbatim.written(json);
}

}  // namespace apsidon
