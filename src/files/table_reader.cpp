#include <fmt/format.h>

#include <map>
#include <set>

#include "apsidon/files/table_file.hpp"
#include "files/deck_json.hpp"
#include "files/names.hpp"
#include "files/reader.hpp"

namespace apsidon {
namespace {

using namespace files_detail;

constexpr int most_zones = 10'000;
constexpr int most_cards = 100'000;

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

/// The only key of an object like {"at-most": 3}.
std::string only_key(const Node& node, std::string_view what) {
  if (!node.json().is_object() || node.json().size() != 1) {
    node.stop(ProblemCode::wrong_type,
              fmt::format("a {} is expected: a word, or an object with exactly one key", what));
  }
  return node.json().begin().key();
}

class TableReader {
 public:
  TableReader(const Node& top, const Places& places, std::string_view text, const std::filesystem::path& file)
      : top_(top), places_(places), text_(text), file_(file), setup_(read_deck()) {}

  TableSetup read() {
    top_.expect_keys({"apsidon", "version", "name", "deck", "zones", "cards", "plans", "deal_from", "data"});
    setup_.name = top_.text_or("name", "");
    const auto zones = top_.at("zones").items();
    if (zones.empty()) {
      top_.child("zones").stop(ProblemCode::missing_key, "the table has no zones: at least one is expected");
    }
    for (const Node& zone : zones) read_zones(zone);
    if (top_.has("cards")) read_cards(top_.child("cards"));
    const auto plans = top_.at("plans").items();
    if (plans.empty()) {
      top_.child("plans").stop(ProblemCode::missing_key, "the table has no plans: at least one is expected");
    }
    for (const Node& plan : plans) read_plan(plan);
    if (top_.has("deal_from")) setup_.deal_from = zone_named(top_.child("deal_from"));
    setup_.data = data_text(top_, places_, text_);
    return std::move(setup_);
  }

 private:
  Deck read_deck() {
    const Node deck = top_.at("deck");
    if (deck.json().is_string()) {
      auto loaded = load_deck(file_.parent_path() / deck.text());
      if (loaded) return *std::move(loaded);
      const Problem& problem = loaded.error().front();
      if (problem.code != ProblemCode::cannot_read) throw Stop{problem};
      // Said of the table: that is where the name is put right.
      deck.stop(problem.code, fmt::format("the deck '{}': {}", problem.file, problem.message));
    }
    deck.expect_keys({"name", "suits", "ranks", "copies", "data"});
    return deck_from(deck, data_text(deck, places_, text_));
  }

  std::vector<std::string> zone_names() const {
    std::vector<std::string> names;
    for (const Zone& zone : setup_.table.zones()) names.push_back(zone.name);
    return names;
  }

  ZoneId zone_named(const Node& node) const {
    const std::string name = node.text();
    const auto zone = setup_.table.find_zone(name);
    if (!zone) node.stop_unknown("zone", name, zone_names());
    return *zone;
  }

  void read_zones(const Node& node) {
    node.expect_keys({"id", "repeat", "key", "layout", "longest", "pick", "drop"});
    ZoneSetup zone{.name = node.at("id").text(),
                   .layout = node.has("layout") ? read_layout(node.child("layout")) : Layout{},
                   .longest = node.whole_or("longest", 1, 0, most_cards),
                   .pick = node.has("pick") ? read_pick(node.child("pick")) : PickRule{},
                   .drop = node.has("drop") ? read_rule(node.child("drop")) : rule::nothing()};
    if (node.has("key")) zone.key = node.child("key").key_number();
    if (!node.has("repeat")) return add(node, zone);

    const int repeat = node.child("repeat").whole(1, most_zones);
    if (zone.key != 0) {
      node.child("key").stop(
          ProblemCode::repeated_name,
          "a repeated zone cannot share one key: write the zones one by one to give them keys");
    }
    const std::string base = zone.name;
    for (int i = 1; i <= repeat; ++i) {
      zone.name = fmt::format("{}-{}", base, i);
      add(node, zone);
      groups_[base].push_back(*setup_.table.find_zone(zone.name));
    }
  }

  void add(const Node& node, const ZoneSetup& zone) {
    if (setup_.table.zones().size() >= most_zones) {
      node.stop(ProblemCode::too_many, fmt::format("more than {} zones: fewer are expected", most_zones));
    }
    node.guard(ProblemCode::repeated_name, [&] { setup_.add(zone); });
  }

  Layout read_layout(const Node& node) {
    const std::string kind = node.json().is_string() ? node.text() : node.at("kind").text();
    static const std::vector<std::string> kinds{"slot", "pile", "column", "hand", "grid"};
    const Node& n = node;
    Layout layout;
    if (kind == "slot") {
      if (n.json().is_object()) n.expect_keys({"kind"});
    } else if (kind == "pile") {
      if (n.json().is_object()) n.expect_keys({"kind", "thickness", "most_thickness"});
      PileLayout l;
      l.thickness = n.number_or("thickness", l.thickness, 0, 0.2);
      l.most_thickness = n.number_or("most_thickness", l.most_thickness, 0, 1);
      layout = l;
    } else if (kind == "column") {
      if (n.json().is_object()) {
        n.expect_keys({"kind", "open_strip", "covered_strip", "least_open_strip", "least_covered_strip"});
      }
      ColumnLayout l;
      l.open_strip = n.number_or("open_strip", l.open_strip, 0, 1);
      l.covered_strip = n.number_or("covered_strip", l.covered_strip, 0, 1);
      l.least_open_strip = n.number_or("least_open_strip", std::min(l.least_open_strip, l.open_strip), 0, 1);
      l.least_covered_strip =
          n.number_or("least_covered_strip", std::min(l.least_covered_strip, l.covered_strip), 0, 1);
      layout = l;
    } else if (kind == "hand") {
      if (n.json().is_object()) {
        n.expect_keys({"kind", "spacing", "least_spacing", "step_deg", "largest_angle_deg", "raise", "part"});
      }
      HandLayout l;
      l.spacing = n.number_or("spacing", l.spacing, 0, 4);
      l.least_spacing = n.number_or("least_spacing", std::min(l.least_spacing, l.spacing), 0, 4);
      l.step = Angle::degrees(n.has("step_deg") ? n.child("step_deg").number(0, 45) : l.step.degrees());
      l.largest_angle =
          Angle::degrees(n.has("largest_angle_deg") ? n.child("largest_angle_deg").number(0, 160)
                                                    : l.largest_angle.degrees());
      l.raise = n.number_or("raise", l.raise, 0, 2);
      l.part = n.number_or("part", l.part, 0, 2);
      layout = l;
    } else if (kind == "grid") {
      if (n.json().is_object()) n.expect_keys({"kind", "columns", "gap", "least_strip"});
      GridLayout l;
      l.columns = n.whole_or("columns", l.columns, 0, 10'000);
      l.gap = n.number_or("gap", l.gap, 0, 4);
      l.least_strip = n.number_or("least_strip", l.least_strip, 0, 1);
      layout = l;
    } else {
      (n.json().is_string() ? n : n.child("kind")).stop_unknown("layout", kind, kinds);
    }
    n.guard(ProblemCode::out_of_range, [&] { check(layout); });
    return layout;
  }

  PickRule read_pick(const Node& node) {
    if (node.json().is_string()) {
      const PickKind kind = named(node, "pick rule", node.text(), pick_names);
      if (kind == PickKind::run) {
        node.stop(ProblemCode::wrong_type,
                  "'run' wants the rule that links its cards: {\"run\": rule} is expected");
      }
      return {.kind = kind};
    }
    if (only_key(node, "pick rule") != "run") {
      node.stop(ProblemCode::wrong_type,
                "an object that is no {\"run\": rule}: that, or a word, is expected");
    }
    return {.kind = PickKind::run, .link = read_rule(node.child("run"))};
  }

  Rule read_rule(const Node& node) {
    const bool bare = node.json().is_string();
    const std::string word = bare ? node.text() : only_key(node, "rule");
    const RuleKind kind = named(node, "rule", word, rule_names);
    if (bare && has_argument(kind)) {
      node.stop(ProblemCode::wrong_type,
                fmt::format("'{}' wants an argument: {{\"{}\": …}} is expected", word, word));
    }
    if (!bare && !has_argument(kind)) {
      node.stop(ProblemCode::wrong_type, fmt::format("'{}' has no argument: \"{}\" is expected", word, word));
    }
    Rule rule{.kind = kind};
    if (bare) return rule;
    const Node argument = node.child(word);
    if (kind == RuleKind::at_most) rule.number = argument.whole(1, most_cards);
    if (kind == RuleKind::rank_on_empty) {
      const std::string name = argument.text();
      const auto rank = setup_.table.deck().find_rank(name);
      if (!rank) argument.stop_unknown("rank", name, setup_.table.deck().options().ranks);
      rule.number = *rank;
    }
    if (kind == RuleKind::negate) rule.parts.push_back(read_rule(argument));
    if (kind == RuleKind::all || kind == RuleKind::any) {
      for (const Node& part : argument.items()) rule.parts.push_back(read_rule(part));
      argument.guard(ProblemCode::missing_key, [&] { check(rule, setup_.table.deck()); });
    }
    return rule;
  }

  void read_cards(const Node& node) {
    if (!node.json().is_object()) {
      node.stop(ProblemCode::wrong_type, "an object with the cards by zone is expected");
    }
    for (const auto& item : node.json().items()) {
      const Node contents = node.child(item.key());
      const auto zone = setup_.table.find_zone(item.key());
      if (!zone) contents.stop_unknown("zone", item.key(), zone_names());
      if (contents.json().is_array()) {
        for (const Node& card : contents.items()) read_card(card, *zone, true);
        continue;
      }
      contents.expect_keys({"covered", "open"});
      for (const bool open : {false, true}) {
        const std::string_view key = open ? "open" : "covered";
        if (!contents.has(key)) continue;
        for (const Node& card : contents.child(key).items()) read_card(card, *zone, open);
      }
    }
  }

  void read_card(const Node& node, ZoneId zone, bool open) {
    CardOptions card{.face_up = open};
    Node face = node;
    if (node.json().is_object()) {
      node.expect_keys({"face", "key", "face_up", "sideways"});
      face = node.at("face");
      if (node.has("key")) card.key = node.child("key").key_number();
      card.face_up = node.truth_or("face_up", open);
      card.sideways = node.truth_or("sideways", false);
    }
    const Deck& deck = setup_.table.deck();
    const std::string text = face.text();
    const auto found = deck.find(text);
    if (!found) {
      std::vector<std::string> faces;
      for (const FaceId f : deck.faces()) faces.push_back(deck.text(f));
      face.stop_unknown("face", text, faces);
    }
    card.face = *found;
    const int copies = deck.options().copies;
    if (card.face != hidden_face && ++named_[card.face] > copies) {
      face.stop(ProblemCode::too_many, fmt::format("{} is named {} times: the deck has {} of each face", text,
                                                   named_[card.face], copies));
    }
    if (setup_.table.card_count() >= most_cards) {
      node.stop(ProblemCode::too_many, fmt::format("more than {} cards: fewer are expected", most_cards));
    }
    node.guard(ProblemCode::repeated_name, [&] { setup_.table.create_card(zone, card); });
  }

  void read_plan(const Node& node) {
    node.expect_keys({"name", "margin", "aspect", "largest_width", "root"});
    Plan plan{.name = node.text_or("name", ""), .root = {}};
    plan.margin = node.number_or("margin", plan.margin, 0, 10'000);
    plan.aspect = node.number_or("aspect", plan.aspect, 0.05, 20);
    plan.largest_width = node.number_or("largest_width", plan.largest_width, 0, 1e6);
    placed_.clear();
    auto roots = read_plan_node(node.at("root"));
    if (roots.size() != 1)
      node.child("root").stop(ProblemCode::misplaced, "one node is expected at the root of a plan");
    plan.root = std::move(roots.front());
    for (const Zone& zone : setup_.table.zones()) {
      if (!placed_.contains(zone.id)) {
        node.child("root").stop(
            ProblemCode::misplaced,
            fmt::format("zone '{}' has no place: every zone is expected in the plan", zone.name));
      }
    }
    node.guard(ProblemCode::out_of_range, [&] { check(plan, setup_.places); });
    setup_.plans.push_back(std::move(plan));
  }

  PlanNode place(const Node& node, ZoneId id, float share) {
    if (!placed_.insert(id).second) {
      node.stop(ProblemCode::misplaced,
                fmt::format("zone '{}' has a place already: each zone is expected once",
                            setup_.table.zone(id)->name));
    }
    return zone(id, share);
  }

  /// Several nodes for "each", one for all others.
  std::vector<PlanNode> read_plan_node(const Node& node) {
    const bool across = node.has("across");
    const bool down = node.has("down");
    const int kinds = (across ? 1 : 0) + (down ? 1 : 0) + (node.has("zone") ? 1 : 0) +
                      (node.has("each") ? 1 : 0) + (node.has("space") ? 1 : 0);
    if (kinds != 1) {
      node.expect_keys({"across", "down", "zone", "each", "space", "gap", "share", "justify"});
      node.stop(
          ProblemCode::wrong_type,
          fmt::format("{} of 'across', 'down', 'zone', 'each', 'space': exactly one is expected", kinds));
    }
    const float share = node.number_or("share", 0, 0, 1000);
    if (node.has("space")) {
      node.expect_keys({"space", "share"});
      PlanNode gap = space(static_cast<float>(node.child("space").number(0, 1000)));
      gap.share = share;
      return {gap};
    }
    if (node.has("zone")) {
      node.expect_keys({"zone", "share"});
      return {place(node.child("zone"), zone_named(node.child("zone")), share)};
    }
    if (node.has("each")) {
      node.expect_keys({"each", "share"});
      const std::string base = node.child("each").text();
      const auto group = groups_.find(base);
      if (group == groups_.end()) {
        std::vector<std::string> bases;
        for (const auto& [name, ids] : groups_) bases.push_back(name);
        node.child("each").stop_unknown("repeated zone", base, bases);
      }
      std::vector<PlanNode> nodes;
      for (const ZoneId id : group->second) nodes.push_back(place(node.child("each"), id, share));
      return nodes;
    }
    const std::string_view direction = across ? "across" : "down";
    node.expect_keys({direction, "gap", "share", "justify"});
    PlanNode parent{.kind = across ? PlanKind::across : PlanKind::down};
    parent.share = share;
    parent.gap = node.number_or("gap", parent.gap, 0, 100);
    if (node.has("justify")) {
      parent.justify = named(node.child("justify"), "justify", node.child("justify").text(), justify_names);
    }
    for (const Node& part : node.child(direction).items()) {
      for (PlanNode& read : read_plan_node(part)) parent.parts.push_back(std::move(read));
    }
    if (parent.parts.empty())
      node.child(direction).stop(ProblemCode::missing_key, "no parts: at least one is expected");
    return {parent};
  }

  const Node& top_;
  const Places& places_;
  std::string_view text_;
  const std::filesystem::path& file_;
  TableSetup setup_;
  std::map<std::string, std::vector<ZoneId>> groups_;  // repeated zones by the name they share
  std::map<FaceId, int> named_;
  std::set<ZoneId> placed_;
};

}  // namespace

Result<TableSetup> parse_table(std::string_view text, const std::filesystem::path& file) {
  return read_document<TableSetup>(text, file, "table", [&](const Node& top, const Places& places) {
    return TableReader(top, places, text, file).read();
  });
}

Result<TableSetup> load_table(const std::filesystem::path& file) {
  const auto text = read_text(file);
  return text ? parse_table(*text, file) : Result<TableSetup>(text.error());
}

}  // namespace apsidon
