// apsidon place: every card's resting pose, zone by zone in order.
#include <fmt/format.h>

#include "common.hpp"

namespace apsidon::tool {
namespace {

struct Options {
  TableOptions table;
  Format format = Format::text;
  std::string zone;
};

bool wanted(const Options& options, const Zone& zone) {
  return options.zone.empty() || options.zone == zone.name;
}

std::string text_of(const Playfield& field, const Options& options) {
  const Table& table = field.table();
  std::string out =
      fmt::format("plan '{}', window {}, card {}x{} px; x and y are the middle of the card\n",
                  field.plan().name, options.table.window, number(double{field.card_size().width}),
                  number(double{field.card_size().height}));
  for (const Zone& zone : table.zones()) {
    if (!wanted(options, zone)) continue;
    const Rect area = *field.area(zone.id);
    out += fmt::format("\n{:<12} {:>2} {}   area {},{} to {},{}{}\n", zone.name, zone.cards.size(),
                       zone.cards.size() == 1 ? "card " : "cards", number(double{area.min.x}),
                       number(double{area.min.y}), number(double{area.max.x}), number(double{area.max.y}),
                       field.crowded(zone.id) ? "   crowded" : "");
    for (const CardId id : zone.cards) {
      const Card& card = *table.card(id);
      const Pose pose = *field.resting_pose(id);
      out += fmt::format("  {:>3}  card {:<4} {:<12} {:<8} x {:>8}  y {:>8}  turned {:>6}\n", card.place,
                         id.value, table.deck().text(card.face), card.face_up ? "open" : "covered",
                         number(double{pose.centre.x}), number(double{pose.centre.y}),
                         number(degrees(pose.rotation)) + "°");
    }
  }
  return out;
}

std::string csv_of(const Playfield& field, const Options& options) {
  const Table& table = field.table();
  std::string out = "zone,index,card,face,face_up,x,y,rotation_deg,scale,width,height\n";
  for (const Zone& zone : table.zones()) {
    if (!wanted(options, zone)) continue;
    for (const CardId id : zone.cards) {
      const Card& card = *table.card(id);
      const Pose pose = *field.resting_pose(id);
      out += fmt::format("{},{},{},{},{},{},{},{},{},{},{}\n", zone.name, card.place, id.value,
                         table.deck().text(card.face), card.face_up, number(double{pose.centre.x}),
                         number(double{pose.centre.y}), number(degrees(pose.rotation)),
                         number(double{pose.scale}), number(double{field.card_size().width}),
                         number(double{field.card_size().height}));
    }
  }
  return out;
}

nlohmann::ordered_json json_of(const Playfield& field, const Options& options) {
  const Table& table = field.table();
  nlohmann::ordered_json json;
  json["plan"] = field.plan().name;
  json["window"] = options.table.window;
  json["card"] = {{"width", rounded(double{field.card_size().width})},
                  {"height", rounded(double{field.card_size().height})}};
  json["zones"] = nlohmann::ordered_json::array();
  for (const Zone& zone : table.zones()) {
    if (!wanted(options, zone)) continue;
    const Rect area = *field.area(zone.id);
    nlohmann::ordered_json entry;
    entry["zone"] = zone.name;
    entry["area"] = {rounded(double{area.min.x}), rounded(double{area.min.y}), rounded(double{area.max.x}),
                     rounded(double{area.max.y})};
    entry["crowded"] = field.crowded(zone.id);
    entry["cards"] = nlohmann::ordered_json::array();
    for (const CardId id : zone.cards) {
      const Card& card = *table.card(id);
      const Pose pose = *field.resting_pose(id);
      nlohmann::ordered_json c;
      c["index"] = card.place;
      c["card"] = id.value;
      c["face"] = table.deck().text(card.face);
      c["face_up"] = card.face_up;
      c["x"] = rounded(double{pose.centre.x});
      c["y"] = rounded(double{pose.centre.y});
      c["rotation_deg"] = rounded(degrees(pose.rotation));
      c["scale"] = rounded(double{pose.scale});
      entry["cards"].push_back(c);
    }
    json["zones"].push_back(entry);
  }
  return json;
}

int run(const Options& options) {
  const Playfield field = load_playfield(options.table);
  if (!options.zone.empty()) find_zone(field.table(), options.zone);
  switch (options.format) {
    case Format::text:
      print(text_of(field, options));
      break;
    case Format::csv:
      print(csv_of(field, options));
      break;
    case Format::json:
      print_json(json_of(field, options));
      break;
  }
  if (field.fits()) return yes;
  fmt::print(stderr, "apsidon place: the window {} is too small to show a card\n", options.table.window);
  return no;
}

}  // namespace

void add_place(CommandLine& line) {
  Words& words = line.verb("place", "Where every card lies, zone by zone, bottom to top");
  auto options = std::make_shared<Options>();
  options->table.add_to(words);
  words.text("--zone", options->zone, "ZONE", "Only this zone")
      .format(options->format)
      .example("apsidon place data/potting-bench.table.json --window 800x1280 --format csv")
      .does([options] { return run(*options); });
}

}  // namespace apsidon::tool
