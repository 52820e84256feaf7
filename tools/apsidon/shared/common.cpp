#include "shared/common.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <filesystem>
#include <numbers>

#include "apsidon/art/art_file.hpp"
#include "apsidon/files/nearest.hpp"
#include "apsidon/files/table_file.hpp"
#include "apsidon/files/write_file.hpp"

namespace apsidon::tool {
namespace {

/// "12.5x7" into two numbers by the sign between them.
std::optional<std::pair<float, float>> parse_pair(const std::string& text, char between) {
  const auto at = text.find(between);
  if (at == std::string::npos) return std::nullopt;
  float values[2] = {0, 0};
  const std::string_view parts[2] = {std::string_view(text).substr(0, at),
                                     std::string_view(text).substr(at + 1)};
  for (int i = 0; i < 2; ++i) {
    const char* end = parts[i].data() + parts[i].size();
    const auto [rest, error] = std::from_chars(parts[i].data(), end, values[i]);
    if (error != std::errc() || rest != end || !std::isfinite(values[i])) return std::nullopt;
  }
  return std::pair{values[0], values[1]};
}

std::string hint(const std::string& found, const std::vector<std::string>& names) {
  const auto near = nearest_name(found, names);
  return near ? fmt::format("did you mean '{}'?", *near)
              : fmt::format("one like '{}' is expected", names.front());
}

}  // namespace

void TableOptions::add_to(Words& words) {
  words.required_text("table", file, "TABLE", "The table file")
      .text("--window", window, "WxH", "Size of the window in px, 1280x800 unless stated")
      .number("--pixel-ratio", pixel_ratio, 0.1, 8, "RATIO",
              "Device pixels in a px, 0.1 to 8; 1 unless stated")
      .flag("--trust", trust,
            "The deck and the art that the files name may lie anywhere, not only beside them");
}

Size parse_size(const std::string& option, const std::string& text) {
  const auto pair = parse_pair(text, 'x');
  const auto good = [](float v) { return v >= 1 && v <= 16384; };
  if (!pair || !good(pair->first) || !good(pair->second)) {
    throw Failure{bad_call,
                  fmt::format("{} '{}': a size like 1280x800, each 1 to 16384, is expected", option, text)};
  }
  return {pair->first, pair->second};
}

Vec2 parse_point(const std::string& option, const std::string& text) {
  const auto pair = parse_pair(text, ',');
  if (!pair) throw Failure{bad_call, fmt::format("{} '{}': a point like 640,400 is expected", option, text)};
  return {pair->first, pair->second};
}

OtherFiles others_of(bool trust) { return trust ? OtherFiles::anywhere : OtherFiles::within; }

TableSetup load_setup(const TableOptions& options) {
  return or_fail(load_table(options.file, others_of(options.trust)));
}

Gallery load_gallery(const std::string& art, bool trust) {
  return Gallery(or_fail(load_art(art)), std::filesystem::path(art).parent_path(), others_of(trust));
}

std::string csv(const std::string& text) {
  // Spreadsheets take a cell that begins so for a formula, and run it.
  const bool formula = !text.empty() && std::string_view("=+-@\t\r").find(text.front()) != std::string::npos;
  const std::string cell = (formula ? "'" : "") + text;
  if (cell.find_first_of(",\"\n\r") == std::string::npos) return cell;
  std::string out = "\"";
  for (const char c : cell) out += c == '"' ? std::string("\"\"") : std::string(1, c);
  return out + '"';
}

void expect_other_file(const std::string& out, const std::vector<std::string>& read) {
  std::error_code error;
  for (const std::string& file : read) {
    if (file.empty() || !std::filesystem::equivalent(out, file, error)) continue;
    throw Failure{bad_call, fmt::format("'{}' is what it is made from: another name is expected", out)};
  }
}

Playfield load_playfield(const TableOptions& options) {
  const Size window = parse_size("--window", options.window);
  return Playfield(load_setup(options), {.window = window, .pixel_ratio = options.pixel_ratio});
}

ZoneId find_zone(const Table& table, const std::string& text) {
  if (const auto zone = table.find_zone(text)) return *zone;
  std::vector<std::string> names;
  for (const Zone& zone : table.zones()) names.push_back(zone.name);
  throw Failure{bad_call, fmt::format("unknown zone '{}': {}", text, hint(text, names))};
}

CardId find_card(const Table& table, const std::string& text) {
  const auto colon = text.rfind(':');
  if (colon != std::string::npos) {
    const Zone& zone = *table.zone(find_zone(table, text.substr(0, colon)));
    const std::string place = text.substr(colon + 1);
    std::size_t i = 0;
    if (place == "top") {
      i = zone.cards.size() - 1;
    } else if (std::from_chars(place.data(), place.data() + place.size(), i).ptr !=
                   place.data() + place.size() ||
               place.empty()) {
      throw Failure{bad_call,
                    fmt::format("'{}': a place like {}:0 or {}:top is expected", text, zone.name, zone.name)};
    }
    if (i < zone.cards.size()) return zone.cards[i];
    throw Failure{bad_call, fmt::format("'{}': {} has {} cards", text, zone.name, zone.cards.size())};
  }
  std::uint32_t id = 0;
  if (std::from_chars(text.data(), text.data() + text.size(), id).ptr == text.data() + text.size() &&
      !text.empty()) {
    if (table.card({id})) return {id};
    throw Failure{bad_call, fmt::format("card {} is not on the table: 1 to {} are", id, table.card_count())};
  }
  const Deck& deck = table.deck();
  const auto face = deck.find(text);
  std::vector<std::string> names;
  for (const FaceId f : deck.faces()) names.push_back(deck.text(f));
  if (!face) throw Failure{bad_call, fmt::format("unknown card '{}': {}", text, hint(text, names))};
  std::vector<std::string> found;
  CardId last;
  for (const Zone& zone : table.zones()) {
    for (const CardId card : zone.cards) {
      if (table.card(card)->face != *face) continue;
      last = card;
      found.push_back(card_text(table, card));
    }
  }
  if (found.empty()) throw Failure{bad_call, fmt::format("no card on the table shows '{}'", text)};
  if (found.size() > 1) {
    throw Failure{bad_call, fmt::format("'{}' is shown by {} cards: name one by its id: {}", text,
                                        found.size(), fmt::format("{}", fmt::join(found, ", ")))};
  }
  return last;
}

std::string stem_of(const std::string& name) {
  const auto end = name.find_last_not_of("-0123456789");
  return end == std::string::npos ? name : name.substr(0, end + 1);
}

std::string card_text(const Table& table, CardId id) {
  const Card& card = *table.card(id);
  return fmt::format("{} (card {}, {}:{})", table.deck().text(card.face), id.value,
                     table.zone(card.zone)->name, card.index);
}

double rounded(double value, double step) { return std::round(value / step) * step + 0.0; }

std::string number(double value) {
  std::string text = fmt::format("{:.2f}", rounded(value));
  while (text.back() == '0') text.pop_back();
  if (text.back() == '.') text.pop_back();
  return text;
}

double degrees(float radians) { return double{radians} * 180 / std::numbers::pi; }

void print_json(const nlohmann::ordered_json& json) { print(json.dump(2) + '\n'); }

nlohmann::ordered_json json_of_verb(const std::string& verb) { return {{"apsidon", verb}, {"version", 1}}; }

nlohmann::ordered_json json_of_size(Size size) {
  return {{"width", rounded(double{size.width})}, {"height", rounded(double{size.height})}};
}

std::string opened_json(const std::string& verb, const std::string& rows) {
  std::string head = json_of_verb(verb).dump();
  head.back() = ',';
  return fmt::format("{}\"{}\":[", head, rows);
}

void expect_ending(const std::string& option, const std::string& file,
                   const std::vector<std::string>& endings) {
  if (std::any_of(endings.begin(), endings.end(), [&](const std::string& e) { return file.ends_with(e); }))
    return;
  throw Failure{bad_call, fmt::format("{} '{}': a name that ends in {} is expected", option, file,
                                      fmt::join(endings, ", "))};
}

void write_picture(const std::string& file, const Frame& frame, const Deck& deck, const Gallery* gallery,
                   Ground ground) {
  make_folder_of(file);
  if (file.ends_with(".svg")) return write_file(file, paint_svg(frame, deck, gallery, ground));
  if (file.ends_with(".pdf")) return write_file(file, paint_pdf(frame, deck, gallery, ground));
  const double width = std::ceil(double{frame.window.width} * double{frame.pixel_ratio});
  const double height = std::ceil(double{frame.window.height} * double{frame.pixel_ratio});
  if (width > most_side || height > most_side || width * height > static_cast<double>(most_pixels)) {
    throw Failure{
        bad_call,
        fmt::format("'{}' would have {}x{} device pixels: at most {} a side, and {} in all, are expected: "
                    "a smaller --window or --pixel-ratio, or an .svg",
                    file, width, height, most_side, most_pixels)};
  }
  paint(frame, deck, gallery, ground).write_png(file);
}

void make_folder_of(const std::string& file) {
  const auto folder = std::filesystem::path(file).parent_path();
  if (folder.empty()) return;
  std::error_code error;
  std::filesystem::create_directories(folder, error);
  if (error)
    throw Failure{bad_file,
                  fmt::format("{}: the folder cannot be made: {}", folder.string(), error.message())};
}

}  // namespace apsidon::tool
