#include "apsidon/files/input_log.hpp"

#include <fmt/format.h>

#include <array>
#include <type_traits>

#include "files/layout_json.hpp"
#include "files/names.hpp"
#include "files/places.hpp"
#include "files/reader.hpp"

namespace apsidon {
namespace {

using namespace files_detail;
using Json = nlohmann::ordered_json;

constexpr double most_px = 1e7;
constexpr double most_seconds = 1e12;

constexpr std::array<std::pair<std::string_view, PointerPhase>, 5> phases{{{"move", PointerPhase::move},
                                                                           {"down", PointerPhase::down},
                                                                           {"up", PointerPhase::up},
                                                                           {"cancel", PointerPhase::cancel},
                                                                           {"leave", PointerPhase::leave}}};
constexpr std::array<std::pair<std::string_view, PointerKind>, 3> kinds{
    {{"mouse", PointerKind::mouse}, {"touch", PointerKind::touch}, {"pen", PointerKind::pen}}};
constexpr std::array<std::pair<std::string_view, Key>, 11> keys{{{"left", Key::left},
                                                                 {"right", Key::right},
                                                                 {"up", Key::up},
                                                                 {"down", Key::down},
                                                                 {"next", Key::next},
                                                                 {"previous", Key::previous},
                                                                 {"act", Key::act},
                                                                 {"second", Key::second},
                                                                 {"cancel", Key::cancel},
                                                                 {"undo", Key::undo},
                                                                 {"redo", Key::redo}}};
constexpr std::array<std::pair<std::string_view, ReasonInput::What>, 4> reasons{
    {{"close_gate", ReasonInput::What::close_gate},
     {"open_gate", ReasonInput::What::open_gate},
     {"hold", ReasonInput::What::hold},
     {"release", ReasonInput::What::release}}};

/// Each kind of line has a key of its own, that says what it is.
struct Writer {
  const Deck& deck;
  Json json = {};

  void operator()(const PointerInput& i) {
    json["pointer"] = name_in(phases, i.phase);
    json["at"] = {decimal(i.at.x), decimal(i.at.y)};
    if (i.pointer != 0) json["id"] = i.pointer;
    if (i.kind != PointerKind::mouse) json["kind"] = name_in(kinds, i.kind);
    if (i.button != PointerButton::primary) json["button"] = static_cast<int>(i.button);
  }
  void operator()(const KeyInput& i) {
    json["key"] = name_in(keys, i.key);
    if (i.repeat) json["repeat"] = true;
  }
  void operator()(const ResizeInput& i) {
    json["resize"] = {decimal(i.window.width), decimal(i.window.height)};
    if (i.pixel_ratio != 1) json["pixel_ratio"] = decimal(i.pixel_ratio);
    if (i.insets != Insets{}) {
      json["insets"] = {decimal(i.insets.left), decimal(i.insets.top), decimal(i.insets.right),
                        decimal(i.insets.bottom)};
    }
  }
  void operator()(const BlurInput&) { json["blur"] = true; }
  void operator()(const ReasonInput& i) { json[std::string(name_in(reasons, i.what))] = i.reason; }
  void operator()(const AnswerInput& i) {
    json["answer"] = i.proposal;
    json["reason"] = code_of(i.verdict.reason);
  }
  void operator()(const SyncInput& i) {
    json["sync"] = Json::array();
    for (const WantedZone& zone : i.wanted) {
      Json cards = Json::array();
      for (const WantedCard& wanted : zone.cards) {
        Json card{{"key", wanted.key}};
        if (wanted.face) card["face"] = deck.text(*wanted.face);
        if (wanted.face_up) card["face_up"] = *wanted.face_up;
        if (wanted.sideways) card["sideways"] = *wanted.sideways;
        cards.push_back(card);
      }
      json["sync"].push_back({{"zone", zone.key}, {"cards", cards}});
    }
  }
  void operator()(const UndoInput& i) { json[i.redo ? "redo" : "undo"] = true; }
  void operator()(const RoundInput& i) { json["round"] = i.seed; }
};

float length_of(const Node& node) { return static_cast<float>(node.number(-most_px, most_px)); }

std::uint64_t whole_number(const Node& node) {
  if (!node.json().is_number_unsigned())
    node.stop(ProblemCode::wrong_type, "a whole number from 0 is expected");
  return node.json().get<std::uint64_t>();
}

SyncInput read_sync(const Node& node, const Deck& deck) {
  SyncInput sync;
  for (const Node& zone : node.items()) {
    zone.expect_keys({"zone", "cards"});
    WantedZone wanted{.key = whole_number(zone.at("zone")), .cards = {}};
    for (const Node& card : zone.at("cards").items()) {
      card.expect_keys({"key", "face", "face_up", "sideways"});
      WantedCard c{.key = whole_number(card.at("key"))};
      if (card.has("face")) {
        const std::string face = card.child("face").text();
        c.face = deck.find(face);
        if (!c.face)
          card.child("face").stop(ProblemCode::unknown_name, fmt::format("unknown face '{}'", face));
      }
      if (card.has("face_up")) c.face_up = card.child("face_up").truth();
      if (card.has("sideways")) c.sideways = card.child("sideways").truth();
      wanted.cards.push_back(c);
    }
    sync.wanted.push_back(std::move(wanted));
  }
  return sync;
}

Input read_input(const Node& node, const Deck& deck) {
  Input input;
  const auto only = [&](std::initializer_list<std::string_view> more) {
    std::vector<std::string_view> all{"time"};
    all.insert(all.end(), more.begin(), more.end());
    node.expect_keys(std::span<const std::string_view>(all));
  };
  if (node.has("pointer")) {
    only({"pointer", "at", "id", "kind", "button"});
    PointerInput p{.phase = named(node.child("pointer"), "phase", node.child("pointer").text(), phases)};
    p.at = node.at("at").point(-most_px, most_px);
    if (node.has("id")) p.pointer = static_cast<std::uint32_t>(whole_number(node.child("id")));
    if (node.has("kind"))
      p.kind = named(node.child("kind"), "kind of pointer", node.child("kind").text(), kinds);
    p.button = static_cast<PointerButton>(node.whole_or("button", 0, 0, 4));
    input = p;
  } else if (node.has("key")) {
    only({"key", "repeat"});
    input = KeyInput{.key = named(node.child("key"), "key", node.child("key").text(), keys),
                     .repeat = node.truth_or("repeat", false)};
  } else if (node.has("resize")) {
    only({"resize", "pixel_ratio", "insets"});
    const Vec2 size = node.child("resize").point(0, most_px);
    ResizeInput r{.window = {size.x, size.y}, .pixel_ratio = node.number_or("pixel_ratio", 1, 0.01, 100)};
    if (node.has("insets")) {
      const auto sides = node.child("insets").items();
      if (sides.size() != 4) node.child("insets").stop(ProblemCode::wrong_type, "four numbers are expected");
      r.insets = {length_of(sides[0]), length_of(sides[1]), length_of(sides[2]), length_of(sides[3])};
    }
    input = r;
  } else if (node.has("blur")) {
    only({"blur"});
    input = BlurInput{};
  } else if (node.has("answer")) {
    only({"answer", "reason"});
    AnswerInput a{.proposal = whole_number(node.child("answer"))};
    const std::string reason = node.text_or("reason", "allowed");
    std::vector<std::string> codes;
    for (int i = 0; i < reason_count; ++i) {
      codes.emplace_back(code_of(static_cast<Reason>(i)));
      if (codes.back() == reason) a.verdict.reason = static_cast<Reason>(i);
    }
    if (code_of(a.verdict.reason) != reason) node.child("reason").stop_unknown("reason", reason, codes);
    input = a;
  } else if (node.has("sync")) {
    only({"sync"});
    input = read_sync(node.child("sync"), deck);
  } else if (node.has("undo") || node.has("redo")) {
    const bool redo = node.has("redo");
    only({redo ? "redo" : "undo"});
    input = UndoInput{.redo = redo};
  } else if (node.has("round")) {
    only({"round"});
    input = RoundInput{.seed = whole_number(node.child("round"))};
  } else {
    const auto it =
        std::find_if(reasons.begin(), reasons.end(), [&](const auto& r) { return node.has(r.first); });
    if (it == reasons.end()) {
      node.stop(ProblemCode::missing_key,
                "no input: one of 'pointer', 'key', 'resize', 'blur', 'close_gate', 'open_gate', 'hold', "
                "'release', 'answer', 'sync', 'undo', 'redo', 'round' is expected");
    }
    only({it->first});
    input = ReasonInput{it->second, node.child(it->first).text(), 0};
  }
  const double time = node.at("time").number(-most_seconds, most_seconds);
  std::visit([&](auto& i) { i.time = time; }, input);
  return input;
}

InputLog read_head(const Node& node) {
  expect_kind(node, "input-log");
  node.expect_keys({"apsidon", "version", "window", "pixel_ratio", "start_time"});
  InputLog log;
  if (node.has("window")) {
    const Vec2 size = node.child("window").point(0, most_px);
    log.window = {size.x, size.y};
  }
  log.pixel_ratio = node.number_or("pixel_ratio", 1, 0.01, 100);
  if (node.has("start_time")) log.start_time = node.child("start_time").number(-most_seconds, most_seconds);
  return log;
}

}  // namespace

std::string write_log(const InputLog& log, const Deck& deck) {
  Json head{{"apsidon", "input-log"}, {"version", 1}};
  head["window"] = {decimal(log.window.width), decimal(log.window.height)};
  if (log.pixel_ratio != 1) head["pixel_ratio"] = decimal(log.pixel_ratio);
  if (log.start_time != 0) head["start_time"] = log.start_time;
  std::string out = head.dump() + "\n";
  for (const Input& input : log.inputs) {
    Writer writer{deck};
    writer.json["time"] = time_of(input);
    std::visit(writer, input);
    out += writer.json.dump() + "\n";
  }
  return out;
}

Result<InputLog> parse_log(std::string_view text, const std::filesystem::path& file, const Deck& deck) {
  InputLog log;
  bool head = true;
  std::size_t line = 0;
  double last = 0;
  for (std::size_t at = 0; at < text.size();) {
    const std::size_t end = std::min(text.find('\n', at), text.size());
    const std::string_view one = text.substr(at, end - at);
    at = end + 1;
    ++line;
    if (one.find_first_not_of(" \t\r") == std::string_view::npos) continue;
    // Each line is a document of its own; its place is that in the log.
    const auto placed = [&](Problem problem) {
      problem.line = line;
      return problem;
    };
    if (const auto deep = too_deep(one)) return placed(nested_too_deep(one, *deep, file));
    nlohmann::json json;
    try {
      json = nlohmann::json::parse(one);
    } catch (const nlohmann::json::exception& e) {
      return placed(not_json(one, file, e));
    }
    const Places places = find_places(one);
    try {
      const Node node(json, "");
      if (head) {
        log = read_head(node);
        last = log.start_time;
      } else {
        const Input input = read_input(node, deck);
        if (time_of(input) < last) {
          node.child("time").stop(
              ProblemCode::out_of_range,
              fmt::format("{} is before {}: inputs are expected in order of time", time_of(input), last));
        }
        last = time_of(input);
        log.inputs.push_back(input);
      }
    } catch (const Stop& stop) {
      return placed(located(stop, one, places, file));
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

Result<InputLog> load_log(const std::filesystem::path& file, const Deck& deck) {
  const auto text = read_text(file);
  return text ? parse_log(*text, file, deck) : Result<InputLog>(text.error());
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
  if (e.performance) json["performance"] = e.performance.value;
  if (e.timer) json["timer"] = e.timer.value;
  if (e.countdown) json["countdown"] = e.countdown.value;
  if (!e.name.empty()) json["name"] = e.name;
  return json.dump();
}

}  // namespace apsidon
