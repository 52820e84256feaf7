#include "apsidon/files/input_log.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <iterator>
#include <vector>

#include "apsidon/files/read_file.hpp"
#include "apsidon/files/table_file.hpp"
#include "apsidon/geometry/limits.hpp"
#include "apsidon/play/gate_group.hpp"
#include "apsidon/play/moves_group.hpp"
#include "apsidon/play/time_group.hpp"
#include "files/input_json.hpp"
#include "files/layout_json.hpp"
#include "files/option_json.hpp"
#include "files/rules_json.hpp"
#include "files/verbatim.hpp"
#include "rules/inside.hpp"

namespace apsidon {
namespace {

using namespace files_detail;
using namespace play_detail;
using Json = nlohmann::ordered_json;

/// A line of text; what is not UTF-8 in it is replaced, so that every log can be read.
std::string line_of(const Json& json) { return dumped(json) + "\n"; }

/// Which table a session is played with, whose zones and faces are told by their names: another one after
/// starting over with it, and that of a snapshot after going back to it.
class TablesInUse {
 public:
  explicit TablesInUse(const TableSetup& first) : used_{{0, &first}} {}

  [[nodiscard]] const TableSetup& now() const { return *used_.back().table; }
  void follow(const Input& input) {
    if (is_answer(input)) return;
    ++inputs_;
    if (const auto* over = as<StartOverInput>(input)) used_.push_back({inputs_, over->setup.get()});
    const auto* back = as<RestoreInput>(input);
    if (!back) return;
    const auto after = std::upper_bound(used_.begin(), used_.end(), back->inputs,
                                        [](std::uint64_t n, const Used& used) { return n < used.since; });
    used_.push_back({inputs_, std::prev(after)->table});
  }

 private:
  struct Used {
    std::uint64_t since;  // so many inputs
    const TableSetup* table;
  };

  std::vector<Used> used_;
  std::uint64_t inputs_ = 0;
};

/// What the lines of a log come to in all: a short one may stand for a large table, or for thousands of
/// zones.
class LogBudget {
 public:
  void spend(const Node& node, const Input& input) {
    if (const auto* over = as<StartOverInput>(input)) {
      const Table& table = over->setup->table;
      spend(node, tables_, 4 * table.zones().size() + table.card_count(), most_of_tables,
            "cards of tables, and zones that count as four,");
    }
    if (const auto* zone = as<BehaviourInput>(input)) {
      spend(node, parts_, rules_detail::count_parts(zone->behaviour.rules), most_rule_parts,
            "parts of rules");
    }
  }

 private:
  static constexpr std::size_t most_of_tables = 400'000;

  static void spend(const Node& node, std::size_t& spent, std::size_t more, std::size_t most,
                    std::string_view what) {
    spent += more;
    if (spent <= most) return;
    node.stop(ProblemCode::too_many,
              fmt::format("the log comes to {} {} down to here: at most {} in all are expected", spent, what,
                          most));
  }

  std::size_t tables_ = 0;
  std::size_t parts_ = 0;
};

Json head_of(const InputLog& log, const TableSetup& setup) {
  const PlayfieldOptions& o = log.options;
  const PlayfieldOptions plain;
  Json head{{"apsidon", "input-log"}, {"version", 1}};
  head["table"] = log.table.empty() ? fingerprint(setup) : log.table;
  head["window"] = {decimal(o.window.width), decimal(o.window.height)};
  if (o.pixel_ratio != 1) head["pixel_ratio"] = decimal(o.pixel_ratio);
  if (o.insets != Insets{}) {
    head["insets"] = {decimal(o.insets.left), decimal(o.insets.top), decimal(o.insets.right),
                      decimal(o.insets.bottom)};
  }
  if (o.start_time != 0) head["start_time"] = o.start_time;
  if (o.corner_radius != plain.corner_radius) head["corner_radius"] = decimal(o.corner_radius);
  if (o.most_undos != plain.most_undos) head["most_undos"] = o.most_undos;
  if (const auto seats = setup.table.seats(); o.seat && o.seat.value <= seats.size())
    head["seat"] = seats[o.seat.value - 1].name;
  if (o.feel != plain.feel) head["feel"] = json_of(o.feel);
  if (o.thresholds != plain.thresholds) head["thresholds"] = json_of(o.thresholds);
  if (o.drag != plain.drag) head["drag"] = json_of(o.drag);
  if (o.hover != plain.hover) head["hover"] = json_of(o.hover);
  return head;
}

InputLog read_head(const Node& node, const TableSetup& setup) {
  expect_kind(node, "input-log");
  node.expect_keys({"apsidon", "version", "table", "window", "pixel_ratio", "insets", "start_time",
                    "corner_radius", "seat", "most_undos", "feel", "thresholds", "drag", "hover"});
  InputLog log;
  log.table = node.text_or("table", "");  // an initialiser that throws has g++ 12 destroy the others twice
  PlayfieldOptions& o = log.options;
  if (node.has("window")) {
    const Vec2 size = node.child("window").point(0, most_px);
    o.window = {size.x, size.y};
  }
  o.pixel_ratio = node.number_or("pixel_ratio", 1, least_pixel_ratio, most_pixel_ratio);
  if (node.has("insets")) {
    const auto sides = node.child("insets").items();
    if (sides.size() != 4) node.child("insets").stop(ProblemCode::wrong_type, "four numbers are expected");
    const auto length = [&](std::size_t i) { return static_cast<float>(sides[i].number(0, most_px)); };
    o.insets = {length(0), length(1), length(2), length(3)};
  }
  if (node.has("start_time")) o.start_time = node.child("start_time").number(-most_seconds, most_seconds);
  o.corner_radius = node.number_or("corner_radius", o.corner_radius, 0, 0.5);
  if (node.has("seat")) o.seat = seat_named(node.child("seat"), setup.table);
  constexpr double most_undos = 1e15;
  if (node.has("most_undos"))
    o.most_undos = static_cast<std::size_t>(node.child("most_undos").number(1, most_undos));
  if (node.has("feel")) read_into(node.child("feel"), o.feel);
  if (node.has("thresholds")) read_into(node.child("thresholds"), o.thresholds);
  if (node.has("drag")) read_into(node.child("drag"), o.drag);
  if (node.has("hover")) read_into(node.child("hover"), o.hover);
  return log;
}

}  // namespace

namespace {

/// FNV-1a, 64 bits.
std::string hash_of(std::string_view text) {
  std::uint64_t hash = 14695981039346656037u;
  for (const char c : text) hash = (hash ^ static_cast<unsigned char>(c)) * 1099511628211u;
  return fmt::format("{:016x}", hash);
}

}  // namespace

std::string fingerprint(const TableSetup& setup) { return hash_of(write_table(setup)); }

std::string fingerprint(const Playfield& field) {
  const Table& table = field.table();
  std::string text;
  for (const Zone& zone : table.zones()) {
    text += fmt::format("{} {}:", zone.name, zone.recycled);
    for (const CardId id : zone.cards) {
      const Card& card = *table.card(id);
      text += fmt::format(" {},{},{},{},{},{},{}", id.value, card.face.value, card.face_up, card.sideways,
                          card.cell, card.at.x, card.at.y);
    }
    text += '\n';
  }
  text += fmt::format("{}\n", static_cast<int>(field.moves().standing()));
  for (const Proposal& waiting : field.moves().waiting()) text += fmt::format("{} ", waiting.id);
  for (const std::string& reason : field.gate().reasons()) text += "\ngate " + reason;
  for (const std::string& reason : field.time().reasons()) text += "\nclock " + reason;
  return hash_of(text);
}

std::string write_input(const Input& input, const TableSetup& setup) {
  return dumped(json_of(any_of(input), setup));
}

Result<Input> parse_input(std::string_view text, const TableSetup& setup) {
  return read_json<Input>(text, "input", [&](const Node& node) { return input_of(read_input(node, setup)); });
}

std::string write_log(const InputLog& log, const TableSetup& setup) {
  std::string out = line_of(head_of(log, setup));
  TablesInUse tables(setup);
  for (const Input& input : log.inputs) {
    out += line_of(json_of(any_of(input), tables.now()));
    tables.follow(input);
  }
  return out;
}

Result<InputLog> parse_log(std::string_view text, const std::filesystem::path& file,
                           const TableSetup& setup) {
  InputLog log;
  bool head = true;
  std::size_t line = 0;
  double last = 0;
  TablesInUse tables(setup);
  LogBudget budget;
  for (std::size_t at = 0; at < text.size();) {
    const std::size_t end = std::min(text.find('\n', at), text.size());
    const std::string_view one = text.substr(at, end - at);
    at = end + 1;
    ++line;
    if (one.find_first_not_of(" \t\r") == std::string_view::npos) continue;
    // Each line is a document of its own; its place is that in the log.
    const auto read = read_json<bool>(one, file, [&](const Node& node) {
      if (head) {
        log = read_head(node, setup);
        last = log.options.start_time;
        if (!log.table.empty() && log.table != fingerprint(setup)) {
          node.child("table").stop(
              ProblemCode::misplaced,
              fmt::format(
                  "the log is of a session with another table ({}; this one is {}): the table with which "
                  "it began is expected",
                  log.table, fingerprint(setup)));
        }
        return true;
      }
      Input input = input_of(read_input(node, tables.now()));
      const Node time = node.at("time");
      if (time_of(input) < last) {
        time.stop(ProblemCode::out_of_range,
                  fmt::format("{} is before {}: inputs are expected in order of time", time_of(input), last));
      }
      last = time_of(input);
      budget.spend(node, input);
      tables.follow(input);
      log.inputs.push_back(std::move(input));
      return true;
    });
    if (!read) {
      Problem problem = read.error().front();
      problem.line = line;
      return problem;
    }
    head = false;
  }
  if (head) {
    return Problem{.code = ProblemCode::not_json,
                   .file = file.string(),
                   .message = "the log is empty: a line with \"apsidon\": \"input-log\" is expected"};
  }
  return log;
}

Result<InputLog> load_log(const std::filesystem::path& file, const TableSetup& setup) {
  const auto text = read_file(file);
  return text ? parse_log(*text, file, setup) : Result<InputLog>(text.error());
}

std::string event_line(const Event& e, const Table& table) {
  Json json;
  json["time"] = e.time;
  json["event"] = name_of(e.kind);
  if (e.card) json["card"] = e.card.value;
  if (e.count > 1) json["count"] = e.count;
  if (const Zone* from = table.zone(e.from)) json["from"] = from->name;
  if (const Zone* to = table.zone(e.to)) json["to"] = to->name;
  if (e.panel) json["panel"] = e.panel.value;
  if (e.proposal != 0) json["proposal"] = e.proposal;
  if (!e.verdict) json["reason"] = code_of(e.verdict.reason);
  if (e.cause != CancelCause::none) json["cause"] = name_of(e.cause);
  if (e.flicked) json["flicked"] = true;
  for (const CardId card : e.cards) json["cards"].push_back(card.value);
  if (!e.verdict.rule.empty()) json["rule"] = e.verdict.rule;
  if (e.performance) json["performance"] = e.performance.value;
  if (e.countdown) json["countdown"] = e.countdown.value;
  if (!e.name.empty()) json["name"] = e.name;
  return dumped(json);
}

}  // namespace apsidon
