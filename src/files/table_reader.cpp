#include <fmt/format.h>

#include <algorithm>
#include <array>

#include "apsidon/files/read_file.hpp"
#include "apsidon/files/table_file.hpp"
#include "apsidon/geometry/limits.hpp"
#include "cards/inside.hpp"
#include "files/deck_json.hpp"
#include "files/formation_json.hpp"
#include "files/layout_json.hpp"
#include "files/panel_json.hpp"
#include "files/plan_json.hpp"
#include "files/reader.hpp"
#include "files/rules_json.hpp"
#include "files/zone_json.hpp"
#include "rules/inside.hpp"

namespace apsidon {
namespace {

using namespace files_detail;

constexpr double most_picture_px = 100'000;
/// What repeated zones and panels may multiply their texts to; a file with more text of its own, to that.
constexpr std::size_t most_repeated_text = std::size_t{16} * 1024 * 1024;

class TableReader {
 public:
  TableReader(const Node& top, std::string_view text, const std::filesystem::path& file, OtherFiles others)
      : top_(top),
        most_texts_(std::max(most_repeated_text, text.size())),
        data_(text),
        setup_(read_deck(file, others)) {}

  TableSetup read() {
    top_.expect_keys({"apsidon",      "version",   "name",  "deck",    "zones", "panels",    "links",
                      "waits",        "sentences", "cards", "numbers", "plans", "deal_from", "round",
                      "send_top_of",  "finish",    "names", "won",     "lost",  "art",       "data",
                      "consequences", "moves",     "seats", "turn",    "ids",   "badges"});
    setup_.name = top_.text_or("name", "");
    if (top_.has("art")) {
      const Node art = top_.child("art");
      art.expect_keys({"width", "height"});
      setup_.art_size = {static_cast<float>(art.at("width").number(1, most_picture_px)),
                         static_cast<float>(art.at("height").number(1, most_picture_px))};
    }
    if (top_.has("seats")) read_seats(top_.child("seats"));
    if (top_.has("numbers")) {
      for (const Number& number : read_numbers(top_.child("numbers")))
        (void)setup_.table.set_number(number.name, number.value);
    }
    const auto zones = top_.at("zones").items();
    if (zones.empty()) {
      top_.child("zones").stop(ProblemCode::missing_key, "the table has no zones: at least one is expected");
    }
    // Rules name zones: they are read when all of these are there.
    std::vector<std::pair<std::size_t, Node>> rules;
    for (const Node& zone : zones) {
      const std::size_t first = setup_.table.zones().size();
      read_zones(zone);
      rules.push_back({first, zone});
    }
    for (std::size_t i = 0; i < rules.size(); ++i) {
      const std::size_t end = i + 1 < rules.size() ? rules[i + 1].first : setup_.table.zones().size();
      read_shared_rules(rules[i].second, setup_.table.zones().subspan(rules[i].first, end - rules[i].first));
    }
    if (top_.has("panels")) {
      for (const Node& panel : at_most(top_.child("panels"), most_panels, "panels")) read_panel(panel);
    }
    if (top_.has("links")) {
      for (const Node& link : at_most(top_.child("links"), most_links, "links")) {
        setup_.links.push_back(read_link(link, "neighbours"));
      }
    }
    if (top_.has("waits")) {
      for (const Node& wait : at_most(top_.child("waits"), most_links, "waits")) {
        setup_.waits.push_back(read_link(wait, "slots"));
      }
    }
    if (top_.has("sentences")) read_sentences(top_.child("sentences"));
    if (top_.has("cards")) read_cards(top_.child("cards"));
    if (top_.has("ids")) read_ids(top_.child("ids"));
    const auto plans = at_most(top_.at("plans"), most_plans, "plans");
    if (plans.empty()) {
      top_.child("plans").stop(ProblemCode::missing_key, "the table has no plans: at least one is expected");
    }
    PlanReader reader(setup_, names_);
    for (const Node& plan : plans) setup_.plans.push_back(reader.read(plan));
    if (top_.has("deal_from")) setup_.deal_from = zone_named(top_.child("deal_from"), setup_.table);
    if (top_.has("badges")) setup_.badges = read_badges(top_.child("badges"));
    if (top_.has("round")) setup_.round = read_round(top_.child("round"), setup_);
    if (top_.has("send_top_of")) {
      for (const Node& zone : top_.child("send_top_of").items())
        setup_.send_top_of.push_back(zone_named(zone, setup_.table));
    }
    if (top_.has("names")) read_names(top_.child("names"));
    if (top_.has("finish")) {
      const Node finish = top_.child("finish");
      finish.expect_keys({"into", "by_itself"});
      setup_.finish.into = zones_named(finish.at("into"), setup_.table);
      setup_.finish.by_itself = finish.truth_or("by_itself", false);
    }
    if (top_.has("consequences")) {
      for (const Node& one : at_most(top_.child("consequences"), most_consequences, "consequences")) {
        setup_.consequences.push_back(read_consequence(one, setup_));
        spend(rule_parts_, rules_detail::count_parts(setup_.consequences.back()), most_rule_parts, one,
              "parts of rules, with the zones that they list,");
      }
    }
    if (top_.has("moves")) {
      for (const Node& one : at_most(top_.child("moves"), most_named_moves, "moves"))
        setup_.named_moves.push_back(read_named_move(one, setup_));
    }
    if (top_.has("won")) setup_.won = read_goal(top_.child("won"), setup_);
    if (top_.has("lost")) setup_.lost = read_goal(top_.child("lost"), setup_);
    setup_.data = data_.of(top_);
    top_.guard(ProblemCode::out_of_range, [&] { check(setup_); });
    return std::move(setup_);
  }

 private:
  /// The items of a list, no more than that.
  static std::vector<Node> at_most(const Node& list, std::size_t most, std::string_view what) {
    if (list.json().is_array() && list.json().size() > most) {
      list.stop(ProblemCode::too_many,
                fmt::format("{} {}: at most {} are expected", list.json().size(), what, most));
    }
    return list.items();
  }

  /// Adds to what the file comes to in all: what is short by itself multiplies where it is repeated.
  static void spend(std::size_t& spent, std::size_t more, std::size_t most, const Node& where,
                    std::string_view what) {
    spent += more;
    if (spent <= most) return;
    where.stop(ProblemCode::too_many,
               fmt::format("the file comes to {} {} down to here: at most {} in all are expected", spent,
                           what, most));
  }

  /// Rules are read once for all the zones that an object repeats, and are one in memory.
  void read_shared_rules(const Node& node, std::span<const Zone> zones) {
    if (zones.empty()) return;
    const ZoneId first = zones.front().id;
    ZoneRules& rules = setup_.rules_of(first);
    read_zone_rules(node, setup_, {first, zones.size()}, rules, setup_.handling_of(first));
    spend(rule_parts_, rules_detail::count_parts(rules) * zones.size(), most_rule_parts, node,
          "parts of rules, with the zones that they list,");
    for (const Zone& zone : zones.subspan(1)) {
      setup_.rules_of(zone.id) = rules;
      setup_.handling_of(zone.id) = setup_.handling_of(first);
    }
  }

  Deck read_deck(const std::filesystem::path& file, OtherFiles others) {
    const Node deck = top_.at("deck");
    if (deck.json().is_string()) {
      const auto path = other_file(file.parent_path(), deck.text(), others);
      if (!path) deck.stop(path.error().front().code, path.error().front().message);
      auto loaded = load_deck(*path);
      if (loaded) return *std::move(loaded);
      const Problem& problem = loaded.error().front();
      if (problem.code != ProblemCode::cannot_read) throw Stop{problem};
      // Said of the table: that is where the name is put right.
      deck.stop(problem.code, fmt::format("the deck '{}': {}", shown(problem.file), problem.message));
    }
    deck.expect_form(deck.json().is_object(), "the name of a deck file, or an object with the deck itself,");
    return deck_from(deck, data_);
  }

  std::vector<std::string> zone_names() const {
    std::vector<std::string> names;
    for (const Zone& zone : setup_.table.zones()) names.push_back(zone.name);
    return names;
  }

  void read_panel(const Node& node) {
    PanelSetup panel = files_detail::read_panel(node, setup_.table);
    panel.data = data_.of(node);
    const auto add = [&] { node.guard(ProblemCode::repeated_name, [&] { setup_.add_panel(panel); }); };
    if (!node.has("repeat")) {
      panel.text = node.text_or("text", "");
      return add();
    }
    const int repeat = node.child("repeat").whole(1, static_cast<int>(most_panels));
    const std::string base = panel.name;
    spend(texts_, static_cast<std::size_t>(repeat) * panel.data.size(), most_texts_, node,
          "bytes of text that is repeated");
    const std::vector<std::string> texts = repeated_texts(node, static_cast<std::size_t>(repeat));
    for (int i = 1; i <= repeat; ++i) {
      panel.name = nth_name(base, i);
      panel.text = texts[static_cast<std::size_t>(i - 1)];
      add();
    }
  }

  /// One text for each: as they are listed, or one for all in which {n} is the number.
  std::vector<std::string> repeated_texts(const Node& node, std::size_t count) {
    std::vector<std::string> texts;
    if (!node.has("text")) return std::vector<std::string>(count);
    const Node text = node.child("text");
    text.expect_form(text.json().is_string() || text.json().is_array(),
                     "a text for all, or an array with one for each,");
    if (text.json().is_array()) {
      for (const Node& one : text.items()) texts.push_back(one.text());
      if (texts.size() == count) return texts;
      text.stop(ProblemCode::wrong_type,
                fmt::format("{} texts for {} panels: one for each is expected, or one text for all",
                            texts.size(), count));
    }
    const std::string each = text.text();
    spend(texts_, count * each.size(), most_texts_, text, "bytes of text that is repeated");
    for (std::size_t n = 1; n <= count; ++n) {
      std::string one = each;
      if (const auto at = one.find("{n}"); at != std::string::npos) one.replace(at, 3, std::to_string(n));
      texts.push_back(std::move(one));
    }
    return texts;
  }

  std::pair<ZoneId, ZoneId> read_link(const Node& node, std::string_view what) {
    const auto both = node.items();
    if (both.size() != 2) {
      node.stop(ProblemCode::wrong_type, fmt::format("{} zones: two {} are expected", both.size(), what));
    }
    return {zone_named(both[0], setup_.table), zone_named(both[1], setup_.table)};
  }

  void read_names(const Node& node) {
    node.expect_keys({"card", "words"});
    setup_.names.card = node.text_or("card", "");
    if (!node.has("words")) return;
    const Node words = node.child("words");
    if (!words.json().is_object()) {
      words.stop(ProblemCode::wrong_type, "an object with a text for each word is expected");
    }
    for (const auto& item : words.json().items())
      setup_.names.words[item.key()] = words.child(item.key()).text();
  }

  void read_sentences(const Node& node) {
    if (!node.json().is_object()) {
      node.stop(ProblemCode::wrong_type, "an object with sentences by the names of rules is expected");
    }
    for (const auto& item : node.json().items()) setup_.sentences[item.key()] = node.child(item.key()).text();
  }

  void read_zones(const Node& node) {
    expect_zone_keys(node);
    ZoneSetup zone;
    zone.name = node.at("name").name();
    read_zone_layout(node, zone.layout);
    zone.recycled = recycled_of(node);
    if (node.has("seat")) zone.seat = seat_named(node.child("seat"), setup_.table);
    if (node.has("numbers")) zone.numbers = read_numbers(node.child("numbers"), true);
    if (node.has("key")) zone.key = node.child("key").key_number();
    if (node.has("formation") && node.has("repeat")) {
      node.child("repeat").stop(ProblemCode::wrong_type,
                                "a formation repeats its zone already: one of the two is expected");
    }
    const std::size_t first = setup_.table.zones().size();
    const std::string data = data_.of(node);
    add_zones(node, zone);
    const auto made = setup_.table.zones().subspan(first);
    spend(longest_, made.size() * static_cast<std::size_t>(zone.layout.longest), most_longest, node,
          "cards that zones hold at their longest,");
    spend(texts_, made.size() * data.size(), most_texts_, node, "bytes of text that is repeated");
    if (data.empty()) return;
    for (const Zone& one : made) setup_.zone_data[one.id] = data;
  }

  /// As many as it repeats, or as its formation has slots.
  void add_zones(const Node& node, const ZoneSetup& zone) {
    if (node.has("formation")) return add(node, zone, formation_from(node.child("formation")));
    if (!node.has("repeat")) return add(node, zone);

    const int repeat = node.child("repeat").whole(1, static_cast<int>(most_zones));
    if (zone.key != 0) {
      node.child("key").stop(
          ProblemCode::repeated_name,
          "a repeated zone cannot share one key: write the zones one by one to give them keys");
    }
    ZoneSetup one = zone;
    for (int i = 1; i <= repeat; ++i) {
      one.name = nth_name(zone.name, i);
      add(node, one);
      names_.groups[zone.name].push_back(*setup_.table.find_zone(one.name));
    }
  }

  void add(const Node& node, const ZoneSetup& zone, const Formation& formation) {
    if (zone.key != 0) {
      node.child("key").stop(ProblemCode::repeated_name,
                             "the slots of a formation cannot share one key: none is expected");
    }
    if (setup_.table.zones().size() + formation.at.size() > most_zones) {
      node.stop(ProblemCode::too_many, fmt::format("more than {} zones: fewer are expected", most_zones));
    }
    names_.formations[zone.name] =
        node.guard(ProblemCode::repeated_name, [&] { return setup_.add_formation(zone, formation); });
  }

  void add(const Node& node, const ZoneSetup& zone) {
    if (setup_.table.zones().size() >= most_zones) {
      node.stop(ProblemCode::too_many, fmt::format("more than {} zones: fewer are expected", most_zones));
    }
    node.guard(ProblemCode::repeated_name, [&] { setup_.add(zone); });
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
      contents.expect_form(contents.json().is_object(),
                           "an array of open cards, or an object with 'covered', 'open' or 'deck',");
      contents.expect_keys({"covered", "open", "deck"});
      if (contents.has("deck")) read_whole_deck(contents.child("deck"), *zone);
      for (const bool open : {false, true}) {
        const std::string_view key = open ? "open" : "covered";
        if (!contents.has(key)) continue;
        for (const Node& card : contents.child(key).items()) read_card(card, *zone, open);
      }
    }
  }

  void read_whole_deck(const Node& node, ZoneId zone) {
    node.expect_keys({"packs", "jokers", "open"});
    const WholeDeck whole{.packs = node.whole_or("packs", 1, 1, static_cast<int>(most_cards)),
                          .jokers = node.truth_or("jokers", true),
                          .face_up = node.truth_or("open", false)};
    node.guard(ProblemCode::out_of_range, [&] { setup_.add_deck(zone, whole); });
  }

  /// Names, or objects with a name and numbers; then whose turn it is.
  void read_seats(const Node& node) {
    for (const Node& seat : at_most(node, most_seats, "seats")) {
      const bool bare = seat.json().is_string();
      seat.expect_form(bare || seat.json().is_object(), "a name, or an object with a 'name',");
      if (!bare) seat.expect_keys({"name", "numbers"});
      const Numbers numbers =
          !bare && seat.has("numbers") ? files_detail::read_numbers(seat.child("numbers")) : Numbers{};
      const std::string name = bare ? seat.name() : seat.at("name").name();
      seat.guard(ProblemCode::repeated_name, [&] { return setup_.table.create_seat(name, numbers); });
    }
    if (!top_.has("turn")) return;
    std::vector<SeatId> turn;
    for (const Node& seat : at_most(top_.child("turn"), most_seats, "seats"))
      turn.push_back(seat_named(seat, setup_.table));
    (void)setup_.table.set_turn(turn);
  }

  /// The ids that the cards had when the table was written.
  void read_ids(const Node& node) {
    node.expect_keys({"cards", "last"});
    constexpr double most = 4e9;
    const auto number = [&](const Node& n) { return CardId{static_cast<std::uint32_t>(n.number(1, most))}; };
    const Node cards = node.at("cards");
    std::vector<CardId> ids(setup_.table.card_count());
    for (const Zone& zone : setup_.table.zones()) {
      const auto own = cards.has(zone.name) ? cards.child(zone.name).items() : std::vector<Node>{};
      if (own.size() != zone.cards.size()) {
        cards.stop(ProblemCode::missing_key,
                   fmt::format("{} ids for the {} cards of '{}': one for each is expected", own.size(),
                               zone.cards.size(), zone.name));
      }
      for (std::size_t i = 0; i < own.size(); ++i) ids[zone.cards[i].value - 1] = number(own[i]);
    }
    const CardId last = number(node.at("last"));
    // An id is a place in a list: those far beyond the cards are a mistake, not a long game.
    if (last.value > ids.size() + 10'000'000) {
      node.child("last").stop(
          ProblemCode::out_of_range,
          fmt::format("{} for {} cards: an id nearer to it is expected", last.value, ids.size()));
    }
    node.guard(ProblemCode::repeated_name, [&] { cards_detail::give_ids(setup_.table, ids, last); });
    std::map<CardId, std::string> data;
    for (auto& [card, text] : setup_.card_data) data[ids[card.value - 1]] = std::move(text);
    setup_.card_data = std::move(data);
  }

  void read_card(const Node& node, ZoneId zone, bool open) {
    CardOptions card{.face_up = open};
    Node face = node;
    node.expect_form(node.json().is_string() || node.json().is_object(),
                     "a face, or an object with a 'face',");
    if (node.json().is_object()) {
      node.expect_keys({"face", "key", "face_up", "sideways", "cell", "at", "data", "numbers"});
      face = node.at("face");
      if (node.has("numbers")) card.numbers = read_numbers(node.child("numbers"));
      if (node.has("key")) card.key = node.child("key").key_number();
      card.face_up = node.truth_or("face_up", open);
      card.sideways = node.truth_or("sideways", false);
      card.cell = node.whole_or("cell", -1, 0, static_cast<int>(most_cards));
      if (node.has("at")) card.at = node.child("at").point(0, 1);
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
    if (setup_.table.card_count() >= most_cards) {
      node.stop(ProblemCode::too_many, fmt::format("more than {} cards: fewer are expected", most_cards));
    }
    const CardId made =
        node.guard(ProblemCode::repeated_name, [&] { return setup_.table.create_card(zone, card); });
    if (std::string data = data_.of(node); !data.empty()) setup_.card_data[made] = std::move(data);
  }

  const Node& top_;
  const std::size_t most_texts_;
  std::size_t rule_parts_ = 0;
  std::size_t longest_ = 0;
  std::size_t texts_ = 0;
  DataTexts data_;
  TableSetup setup_;
  PlanNames names_;
};

}  // namespace

Result<TableSetup> parse_table(std::string_view text, const std::filesystem::path& file, OtherFiles others) {
  return read_document<TableSetup>(
      text, file, "table", [&](const Node& top) { return TableReader(top, text, file, others).read(); });
}

Result<TableSetup> load_table(const std::filesystem::path& file, OtherFiles others) {
  const auto text = read_file(file);
  return text ? parse_table(*text, file, others) : Result<TableSetup>(text.error());
}

}  // namespace apsidon
