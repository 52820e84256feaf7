// apsidon fit: which windows a table works in, how large its cards are there, and what leaves them no larger.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "apsidon/draw/paint.hpp"
#include "apsidon/studio/sheets.hpp"
#include "shared/common.hpp"
#include "shared/shapes.hpp"

namespace apsidon::tool {
namespace {

struct FitOptions {
  std::string table;
  std::vector<std::string> windows;
  float least = 44;
  std::string out;
  std::string sheet = "1280x800";
  bool trust = false;
  Format format = Format::text;
};

/// What leaves the cards no larger in a window, and what to change.
struct Limit {
  std::string by = {};      ///< "width", "height", or "largest_width"
  std::string what = {};    ///< a zone, or several of one name, or a panel; empty where none decides alone
  std::string change = {};  ///< what would make the cards larger
};

struct Row {
  std::string name;
  Size window;
  Size card;
  std::string plan;
  bool works = false;
  Limit limit = {};
};

/// Finds what decides how large cards are: what leaves them smallest when there is nothing else.
class LimitFinder {
 public:
  LimitFinder(const TableSetup& setup, const Plan& plan, Size window)
      : setup_(setup), plan_(plan), window_(window), width_(width_with(plan, setup.layouts(), window)) {}

  Limit find() {
    if (plan_.largest_width > 0 && width_ >= plan_.largest_width - 0.02f) {
      return {.by = "largest_width",
              .change = fmt::format("a larger 'largest_width' of the plan than {}",
                                    number(double{plan_.largest_width}))};
    }
    Limit limit{.by = direction()};
    try_zones(limit);
    try_panels(limit);
    if (limit.what.empty()) try_without(limit);
    if (limit.what.empty()) limit.change = "smaller gaps and a smaller margin, or a plan of that shape";
    return limit;
  }

 private:
  float width_with(const Plan& plan, std::span<const ZoneLayout> zones, Size window) const {
    std::vector<Rect> areas(zones.size());
    std::vector<Rect> panels(setup_.panels.size());
    return solve(plan, zones, {.size = window}, areas, panels).unsnapped_card.width;
  }

  /// Of the window, the side whose growth makes the cards grow.
  [[nodiscard]] std::string direction() const {
    constexpr float more = 1.02f;
    const float wider = width_with(plan_, setup_.layouts(), {window_.width * more, window_.height});
    const float higher = width_with(plan_, setup_.layouts(), {window_.width, window_.height * more});
    return wider >= higher ? "width" : "height";
  }

  /// The plan without what some panels take.
  template <class Goes>
  [[nodiscard]] Plan without_panels(Goes goes) const {
    Plan plan = plan_;
    const auto shrink = [&](PlanNode& node, const auto& self) -> void {
      if (node.kind == PlanKind::panel && goes(node.panel)) node.width = node.height = {};
      for (PlanNode& part : node.parts) self(part, self);
    };
    shrink(plan.root, shrink);
    return plan;
  }

  /// How wide cards would be if there were only these zones, `changed` as stated.
  template <class Change>
  [[nodiscard]] float width_with_only(const std::vector<ZoneId>& zones, Change changed) const {
    constexpr float smallest_factor = 0.05f;
    std::vector<ZoneLayout> others(setup_.layouts().begin(), setup_.layouts().end());
    for (ZoneLayout& place : others) place = {.factor = smallest_factor, .off_table = place.off_table};
    for (const ZoneId zone : zones) others[zone.value - 1] = changed(setup_.layout_of(zone));
    return width_with(without_panels([](PanelId) { return true; }), others, window_);
  }

  void try_zones(Limit& limit) {
    std::map<std::string, std::vector<ZoneId>> groups;
    for (const Zone& zone : setup_.table.zones()) groups[stem_of(zone.name)].push_back(zone.id);
    for (const auto& [stem, zones] : groups) {
      const float alone = width_with_only(zones, [](const ZoneLayout& place) { return place; });
      if (alone >= least_) continue;
      least_ = alone;
      limit.what = zones.size() == 1 ? setup_.table.zone(zones.front())->name
                                     : fmt::format("{} zones '{}'", zones.size(), stem);
      limit.change = change_for(zones, alone);
    }
  }

  /// Where they would leave the cards much larger with one card each, their longest is what matters.
  [[nodiscard]] std::string change_for(const std::vector<ZoneId>& zones, float alone) const {
    const float one_each = width_with_only(zones, [](ZoneLayout place) {
      place.longest = std::min(place.longest, 1);
      place.longest_covered = 0;
      return place;
    });
    const ZoneLayout& place = setup_.layout_of(zones.front());
    if (traits_of(place.kind).inserts == Inserts::in_rows) return "fewer rows in it, or smaller gaps";
    if (one_each > alone * 1.05f)
      return fmt::format("a smaller longest than {}, narrower least strips, or scrolling", place.longest);
    if (place.factor > 1) return fmt::format("a smaller factor than {}", number(double{place.factor}));
    return zones.size() > 1 ? "fewer of them in a row in a plan of that shape, or smaller gaps"
                            : "smaller gaps and a smaller margin";
  }

  /// Panels take what they say, in px too.
  void try_panels(Limit& limit) {
    std::vector<ZoneLayout> none(setup_.layouts().begin(), setup_.layouts().end());
    for (ZoneLayout& place : none) place = {.factor = 0.05f, .off_table = place.off_table};
    for (std::uint32_t i = 1; i <= setup_.panels.size(); ++i) {
      const Plan only = without_panels([i](PanelId panel) { return panel.value != i; });
      const float alone = width_with(only, none, window_);
      if (alone >= least_) continue;
      least_ = alone;
      limit.what = fmt::format("panel '{}'", setup_.panels[i - 1].name);
      limit.change = fmt::format("a smaller {} of it", limit.by);
    }
  }

  /// Where nothing decides alone: what leaves the cards largest when it is not there.
  void try_without(Limit& limit) {
    float most = width_ * 1.25f;
    for (std::uint32_t i = 1; i <= setup_.panels.size(); ++i) {
      const Plan plan = without_panels([i](PanelId panel) { return panel.value == i; });
      const float without = width_with(plan, setup_.layouts(), window_);
      if (without <= most) continue;
      most = without;
      limit.what = fmt::format("panel '{}'", setup_.panels[i - 1].name);
      limit.change = fmt::format("a smaller {} of it", limit.by);
    }
  }

  const TableSetup& setup_;
  const Plan& plan_;
  Size window_;
  float width_;
  float least_ = width_ * 1.25f;  // what alone leaves the cards larger than that does not decide
};

Row try_window(const TableSetup& setup, std::string name, Size window, float least) {
  std::vector<Rect> areas(setup.layouts().size());
  std::vector<Rect> panels(setup.panels.size());
  const PlanWindow at{.size = window};
  const Plan& plan = setup.plans[best_plan(setup.plans, setup.layouts(), at)];
  const PlanResult result = solve(plan, setup.layouts(), at, areas, panels);
  Row row{.name = std::move(name), .window = window, .card = result.card, .plan = plan.name};
  row.works = result.fits && std::min(result.card.width, result.card.height) >= least;
  return row;
}

void find_limits(const TableSetup& setup, std::vector<Row>& rows) {
  for (Row& row : rows) {
    const Plan& plan = setup.plans[best_plan(setup.plans, setup.layouts(), {.size = row.window})];
    row.limit = LimitFinder(setup, plan, row.window).find();
  }
}

std::string text_of(const Limit& limit) {
  return limit.what.empty() ? limit.by : fmt::format("{}: {}", limit.by, limit.what);
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
                                "plan", "decided by");
  for (const Row& r : rows) {
    out += fmt::format("{:<24} {:>10}   {:<4} {:>11}   {:<10} {}\n", r.name, size_text(r.window),
                       r.works ? "yes" : "NO", size_text(r.card), r.plan, text_of(r.limit));
  }
  return out;
}

int draw_sheet(const FitOptions& options, const std::vector<Row>& rows) {
  std::vector<Shot> shots;
  std::optional<Deck> deck;
  for (const Row& row : rows) {
    const Playfield field(load_setup({.file = options.table, .trust = options.trust}),
                          {.window = row.window});
    if (!deck) deck = field.table().deck();
    shots.push_back({.frame = field.frame(),
                     .caption = fmt::format("{} · card {}{}", size_text(row.window), size_text(row.card),
                                            row.works ? "" : " · too small")});
  }
  make_folder_of(options.out);
  contact_sheet(shots, *deck, "Windows that work", parse_size("--sheet", options.sheet))
      .write_png(options.out);
  print(fmt::format("{}: {} windows\n", options.out, rows.size()));
  return yes;
}

int run(const FitOptions& options) {
  const TableSetup setup = load_setup({.file = options.table, .trust = options.trust});
  std::vector<Row> rows;
  for (const std::string& window : options.windows) {
    rows.push_back(try_window(setup, "given", parse_size("--window", window), options.least));
  }
  if (options.windows.empty()) {
    for (const Shape& shape : shapes)
      rows.push_back(try_window(setup, std::string(shape.name), shape.size, options.least));
  }
  find_limits(setup, rows);
  const bool all = std::all_of(rows.begin(), rows.end(), [](const Row& r) { return r.works; });
  if (!options.out.empty()) {
    expect_ending("--out", options.out, {".png"});
    draw_sheet(options, rows);
  }
  if (options.format == Format::csv) {
    std::string out = "window,width,height,works,card_width,card_height,plan,limit,what,change\n";
    for (const Row& r : rows) {
      out += fmt::format("{},{},{},{},{},{},{},{},{},{}\n", csv(r.name), r.window.width, r.window.height,
                         r.works, r.card.width, r.card.height, csv(r.plan), r.limit.by, csv(r.limit.what),
                         csv(r.limit.change));
    }
    print(out);
    return all ? yes : no;
  }
  const auto wide = smallest(setup, 16.0f / 10, options.least);
  const auto tall = smallest(setup, 9.0f / 19.5f, options.least);
  if (options.format == Format::json) {
    nlohmann::ordered_json json = json_of_verb("fit");
    json["least"] = options.least;
    for (const Row& r : rows) {
      json["windows"].push_back(
          {{"name", r.name},
           {"window", json_of_size(r.window)},
           {"works", r.works},
           {"card", json_of_size(r.card)},
           {"plan", r.plan},
           {"limit", {{"by", r.limit.by}, {"what", r.limit.what}, {"change", r.limit.change}}}});
    }
    if (wide) json["smallest_wide"] = json_of_size(*wide);
    if (tall) json["smallest_tall"] = json_of_size(*tall);
    print_json(json);
    return all ? yes : no;
  }
  print(text_of(rows));
  const auto say = [&](const std::optional<Size>& s) { return s ? size_text(*s) : "none up to 16384 px"; };
  print(fmt::format("\nSmallest that works, with cards of at least {} px: {} at 16:10, {} at 9:19.5\n",
                    number(double{options.least}), say(wide), say(tall)));
  const auto failing = std::find_if(rows.begin(), rows.end(), [](const Row& r) { return !r.works; });
  if (failing != rows.end()) {
    const Limit& limit = failing->limit;
    const std::string of = limit.what.empty() ? "" : " of " + limit.what;
    print(fmt::format("Too small: {}, by the {}{}. What helps: {}.\n", size_text(failing->window), limit.by,
                      of, limit.change));
  }
  return all ? yes : no;
}

}  // namespace

void add_fit(CommandLine& line) {
  Words& words =
      line.verb("fit", "Which windows a table works in, its cards there, and what leaves them no larger");
  auto options = std::make_shared<FitOptions>();
  words.required_text("table", options->table, "TABLE", "The table file")
      .texts("--window", options->windows, "WxH", "Windows to try; phones to televisions unless stated")
      .number("--least", options->least, 1, 10000, "PX",
              "The narrowest card that can be played with; 44 unless stated")
      .text("--out", options->out, "FILE", "A picture of the table in each window to write")
      .text("--sheet", options->sheet, "WxH", "Size of the picture, 1280x800 unless stated")
      .flag("--trust", options->trust, "The deck that the table names may lie anywhere, not only beside it")
      .format(options->format)
      .example("apsidon fit data/potting-bench.table.json")
      .example("apsidon fit data/trellis.table.json --window 320x480 --window 1280x800 --out fit.png")
      .does([options] { return run(*options); });
}

}  // namespace apsidon::tool
