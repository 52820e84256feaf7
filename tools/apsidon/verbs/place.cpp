// apsidon place: every card's resting pose, zone by zone in order.
#include <fmt/format.h>

#include <array>

#include "shared/common.hpp"

namespace apsidon::tool {
namespace {

struct PlaceOptions {
  TableOptions table;
  Format format = Format::text;
  std::string zone;
};

bool wanted(const PlaceOptions& options, const Zone& zone) {
  return options.zone.empty() || options.zone == zone.name;
}

std::string_view name_of(Facing facing) {
  static constexpr std::array<std::string_view, 4> names{"bottom", "left", "top", "right"};
  return names[static_cast<std::size_t>(facing)];
}

std::string corners_text(const Rect& area) {
  return fmt::format("{},{} to {},{}", number(double{area.min.x}), number(double{area.min.y}),
                     number(double{area.max.x}), number(double{area.max.y}));
}

nlohmann::ordered_json corners_json(const Rect& area) {
  return {rounded(double{area.min.x}), rounded(double{area.min.y}), rounded(double{area.max.x}),
          rounded(double{area.max.y})};
}

/// Calls `with(panel, area)` for each panel that the plan shows; none where only a zone is wanted.
template <class With>
void each_panel(const Playfield& field, const PlaceOptions& options, With with) {
  if (!options.zone.empty()) return;
  for (std::uint32_t i = 1; i <= field.where().panels().size(); ++i) {
    if (const auto area = field.where().panel_area({i})) with(field.where().panels()[i - 1], *area);
  }
}

std::string text_of(const Playfield& field, const PlaceOptions& options) {
  const Table& table = field.table();
  std::string out = fmt::format("plan '{}', window {}, card {}x{} px; x and y are the middle of the card\n",
                                field.where().plan().name, options.table.window,
                                number(double{field.where().card_size().width}),
                                number(double{field.where().card_size().height}));
  for (const Zone& zone : table.zones()) {
    if (!wanted(options, zone)) continue;
    const Rect area = *field.where().area(zone.id);
    const Facing facing = field.where().facing(zone.id);
    const float offset = field.where().offset(zone.id);
    out += fmt::format("\n{:<12} {:>2} {}   area {}{}{}{}\n", zone.name, zone.cards.size(),
                       zone.cards.size() == 1 ? "card " : "cards", corners_text(area),
                       facing == Facing::bottom ? "" : fmt::format("   facing {}", name_of(facing)),
                       offset == 0 ? "" : fmt::format("   scrolled on by {} px", number(double{offset})),
                       field.where().crowded(zone.id) ? "   crowded" : "");
    for (const CardId id : zone.cards) {
      const Card& card = *table.card(id);
      const Pose pose = *field.where().resting_pose(id);
      out += fmt::format("  {:>3}  card {:<4} {:<12} {:<8} x {:>8}  y {:>8}  turned {:>6}\n", card.index,
                         id.value, table.deck().text(card.face), card.face_up ? "open" : "covered",
                         number(double{pose.centre.x}), number(double{pose.centre.y}),
                         number(degrees(pose.rotation)) + "°");
    }
  }
  bool first = true;
  each_panel(field, options, [&](const PanelSetup& panel, const Rect& area) {
    out += fmt::format("{}{:<12} panel      area {}\n", first ? "\n" : "", panel.name, corners_text(area));
    first = false;
  });
  return out;
}

std::string csv_of(const Playfield& field, const PlaceOptions& options) {
  const Table& table = field.table();
  std::string out = "zone,index,card,face,face_up,x,y,rotation_deg,scale,width,height\n";
  for (const Zone& zone : table.zones()) {
    if (!wanted(options, zone)) continue;
    for (const CardId id : zone.cards) {
      const Card& card = *table.card(id);
      const Pose pose = *field.where().resting_pose(id);
      out += fmt::format("{},{},{},{},{},{},{},{},{},{},{}\n", csv(zone.name), card.index, id.value,
                         csv(table.deck().text(card.face)), card.face_up, number(double{pose.centre.x}),
                         number(double{pose.centre.y}), number(degrees(pose.rotation)),
                         number(double{pose.scale}), number(double{field.where().card_size().width}),
                         number(double{field.where().card_size().height}));
    }
  }
  return out;
}

nlohmann::ordered_json json_of(const Playfield& field, const PlaceOptions& options) {
  const Table& table = field.table();
  nlohmann::ordered_json json = json_of_verb("place");
  json["plan"] = field.where().plan().name;
  json["window"] = json_of_size(field.frame().window);
  json["card"] = json_of_size(field.where().card_size());
  json["zones"] = nlohmann::ordered_json::array();
  for (const Zone& zone : table.zones()) {
    if (!wanted(options, zone)) continue;
    const Rect area = *field.where().area(zone.id);
    nlohmann::ordered_json entry;
    entry["zone"] = zone.name;
    entry["area"] = corners_json(area);
    entry["facing"] = std::string(name_of(field.where().facing(zone.id)));
    entry["offset"] = rounded(double{field.where().offset(zone.id)});
    entry["crowded"] = field.where().crowded(zone.id);
    entry["cards"] = nlohmann::ordered_json::array();
    for (const CardId id : zone.cards) {
      const Card& card = *table.card(id);
      const Pose pose = *field.where().resting_pose(id);
      nlohmann::ordered_json c;
      c["index"] = card.index;
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
  if (!options.zone.empty()) return json;
  json["panels"] = nlohmann::ordered_json::array();
  each_panel(field, options, [&](const PanelSetup& panel, const Rect& area) {
    json["panels"].push_back({{"panel", panel.name}, {"area", corners_json(area)}});
  });
  return json;
}

int run(const PlaceOptions& options) {
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
  if (field.where().fits()) return yes;
  print_error(fmt::format("apsidon place: the window {} is too small to show a card", options.table.window));
  return no;
}

}  // namespace

void add_place(CommandLine& line) {
  Words& words = line.verb("place", "Where every card lies, zone by zone, bottom to top");
  auto options = std::make_shared<PlaceOptions>();
  options->table.add_to(words);
  words.text("--zone", options->zone, "ZONE", "Only this zone")
      .format(options->format)
      .example("apsidon place data/potting-bench.table.json --window 800x1280 --format csv")
      .does([options] { return run(*options); });
}

}  // namespace apsidon::tool
