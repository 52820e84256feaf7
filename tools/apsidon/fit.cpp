// apsidon fit: which windows a table works in, how large its cards are there, and what gives first.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "apsidon/draw/paint.hpp"
#include "apsidon/draw/sheets.hpp"
#include "common.hpp"
#include "shapes.hpp"

namespace apsidon::tool {
namespace {

struct Options {
  std::string table;
  std::vector<std::string> windows;
  float least = 44;
  std::string out;
  std::string sheet = "1280x800";
  Format format = Format::text;
};

struct Row {
  std::string name;
  Size window;
  Size card;
  std::string plan;
  bool works = false;
  std::string gives = {};  ///< the zone whose needs leave the cards no larger
};

/// Zones of one name but for their numbers, "column", belong together: one of them seldom makes a difference
/// alone.
std::string stem_of(const std::string& name) {
  const auto end = name.find_last_not_of("-0123456789");
  return end == std::string::npos ? name : name.substr(0, end + 1);
}

/// The zones without which the cards would grow most: those that give first as the window gets smaller.
std::string tightest_zone(const TableSetup& setup, const Plan& plan, Size window, float width) {
  std::string best;
  float best_width = width * 1.0005f;
  std::vector<Rect> areas(setup.layouts().size());
  std::vector<Rect> panels(setup.panels.size());
  std::set<std::string> stems;
  for (const Zone& zone : setup.table.zones()) stems.insert(stem_of(zone.name));
  for (const std::string& stem : stems) {
    std::vector<ZoneLayout> lighter(setup.layouts().begin(), setup.layouts().end());
    for (const Zone& zone : setup.table.zones()) {
      if (stem_of(zone.name) == stem) lighter[zone.id.value - 1] = {.factor = 0.05f};
    }
    const PlanResult result = solve(plan, lighter, {.size = window}, {.areas = areas, .panels = panels});
    if (result.unsnapped_card.width <= best_width) continue;
    best_width = result.unsnapped_card.width;
    best = stem;
  }
  return best;
}

Row try_window(const TableSetup& setup, std::string name, Size window, float least) {
  std::vector<Rect> areas(setup.layouts().size());
  std::vector<Rect> panels(setup.panels.size());
  const PlanWindow at{.size = window};
  const Plan& plan = setup.plans[best_plan(setup.plans, setup.layouts(), at)];
  const PlanResult result = solve(plan, setup.layouts(), at, {.areas = areas, .panels = panels});
  Row row{.name = std::move(name), .window = window, .card = result.card, .plan = plan.name};
  row.works = result.fits && std::min(result.card.width, result.card.height) >= least;
  row.gives = tightest_zone(setup, plan, window, result.unsnapped_card.width);
  return row;
}

/// The smallest window of these proportions that works, to a px.
std::optional<Size> smallest(const TableSetup& setup, float aspect, float least) {
  const auto works = [&](float width) { return try_window(setup, "", {width, width / aspect}, least).works; };
  float high = 16384;
  if (!works(high)) return std::nullopt;
  float low = 0;
  while (high - low > 1) {
    const float middle = std::floor((low + high) / 2);
    (works(middle) ? high : low) = middle;
  }
  return Size{high, std::ceil(high / aspect)};
}

std::string size_text(Size s) {
  return fmt::format("{}x{}", number(double{s.width}), number(double{s.height}));
}

std::string text_of(const std::vector<Row>& rows) {
  std::string out = fmt::format("{:<24} {:>10}   {:<4} {:>11}   {:<10} {}\n", "window", "px", "fits", "card",
                                "plan", "gives first");
  for (const Row& r : rows) {
    out += fmt::format("{:<24} {:>10}   {:<4} {:>11}   {:<10} {}\n", r.name, size_text(r.window),
                       r.works ? "yes" : "NO", size_text(r.card), r.plan,
                       r.gives.empty() ? "several at once" : r.gives);
  }
  return out;
}

int draw_sheet(const Options& options, const std::vector<Row>& rows) {
  std::vector<Shot> shots;
  std::optional<Deck> deck;
  for (const Row& row : rows) {
    const Playfield field(load_setup({.file = options.table}), {.window = row.window});
    if (!deck) deck = field.table().deck();
    shots.push_back({field.frame(), fmt::format("{} · card {}{}", size_text(row.window), size_text(row.card),
                                                row.works ? "" : " · too small")});
  }
  make_folder_of(options.out);
  contact_sheet(shots, *deck, "Windows that work", parse_size(options.sheet)).write_png(options.out);
  print(fmt::format("{}: {} windows\n", options.out, rows.size()));
  return yes;
}

int run(const Options& options) {
  const TableSetup setup = load_setup({.file = options.table});
  std::vector<Row> rows;
  for (const std::string& window : options.windows) {
    rows.push_back(try_window(setup, "given", parse_size(window), options.least));
  }
  if (options.windows.empty()) {
    for (const Shape& shape : shapes)
      rows.push_back(try_window(setup, std::string(shape.name), shape.size, options.least));
  }
  const bool all = std::all_of(rows.begin(), rows.end(), [](const Row& r) { return r.works; });
  if (!options.out.empty()) draw_sheet(options, rows);
  if (options.format == Format::csv) {
    std::string out = "window,width,height,works,card_width,card_height,plan,gives_first\n";
    for (const Row& r : rows) {
      out += fmt::format("\"{}\",{},{},{},{},{},{},{}\n", r.name, r.window.width, r.window.height, r.works,
                         r.card.width, r.card.height, r.plan, r.gives);
    }
    print(out);
    return all ? yes : no;
  }
  const auto wide = smallest(setup, 16.0f / 10, options.least);
  const auto tall = smallest(setup, 9.0f / 19.5f, options.least);
  if (options.format == Format::json) {
    nlohmann::ordered_json json;
    json["least"] = options.least;
    for (const Row& r : rows) {
      json["windows"].push_back({{"window", r.name},
                                 {"width", r.window.width},
                                 {"height", r.window.height},
                                 {"works", r.works},
                                 {"card", {r.card.width, r.card.height}},
                                 {"plan", r.plan},
                                 {"gives_first", r.gives}});
    }
    if (wide) json["smallest_wide"] = {wide->width, wide->height};
    if (tall) json["smallest_tall"] = {tall->width, tall->height};
    print_json(json);
    return all ? yes : no;
  }
  print(text_of(rows));
  const auto say = [&](const std::optional<Size>& s) { return s ? size_text(*s) : "none up to 16384 px"; };
  print(fmt::format("\nSmallest that works, with cards of at least {} px: {} at 16:10, {} at 9:19.5\n",
                    number(double{options.least}), say(wide), say(tall)));
  const auto failing = std::find_if(rows.begin(), rows.end(), [](const Row& r) { return !r.works; });
  if (failing != rows.end() && !failing->gives.empty()) {
    print(
        fmt::format("To work in {}: let '{}' hold fewer cards (longest), narrow its least strips, scroll it, "
                    "or add a plan "
                    "of that shape.\n",
                    size_text(failing->window), failing->gives));
  }
  return all ? yes : no;
}

}  // namespace

void add_fit(CommandLine& line) {
  Words& words =
      line.verb("fit", "Which windows a table works in, its cards there, and which zone gives first");
  auto options = std::make_shared<Options>();
  words.required_text("table", options->table, "TABLE", "The table file")
      .texts("--window", options->windows, "WxH", "Windows to try; phones to televisions unless stated")
      .number("--least", options->least, 1, 10000, "PX",
              "The narrowest card that can be played with; 44 unless stated")
      .text("--out", options->out, "FILE", "A picture of the table in each window to write")
      .text("--sheet", options->sheet, "WxH", "Size of the picture, 1280x800 unless stated")
      .format(options->format)
      .example("apsidon fit data/potting-bench.table.json")
      .example("apsidon fit data/trellis.table.json --window 320x480 --window 1280x800 --out fit.png")
      .does([options] { return run(*options); });
}

}  // namespace apsidon::tool
