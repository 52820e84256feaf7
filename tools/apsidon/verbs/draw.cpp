// apsidon draw: a table at rest, or with a pointer on it, as a picture.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <filesystem>

#include "apsidon/art/art_file.hpp"
#include "apsidon/draw/draw_sketch.hpp"
#include "apsidon/draw/paint.hpp"
#include "shared/common.hpp"

namespace apsidon::tool {
namespace {

struct DrawOptions {
  TableOptions table;
  std::string out = "table.png";
  std::string art;
  std::string hover;
  std::string drag;
  std::string to;
  bool outlines = false;
  bool transparent = false;
  std::vector<std::string> layers = {};
};

/// A mouse that rests at a point: what it hovers has risen, and its larger picture has come.
std::string hover(Playfield& field, Vec2 at) {
  field.pointer({.phase = PointerPhase::move, .at = at, .time = 1});
  field.advance_to(3);
  const CardId card = field.hand().hovered();
  if (!card) {
    throw Failure{no, fmt::format("nothing is hovered at {:g},{:g}: 'hover' and 'zoom' of a zone say whose "
                                  "cards are, 'apsidon probe' what lies there",
                                  at.x, at.y)};
  }
  return fmt::format("hovered: {}\n", card_text(field.table(), card));
}

/// A mouse that has pressed at a point and stands still at another.
std::string drag(Playfield& field, Vec2 from, Vec2 to) {
  field.pointer({.phase = PointerPhase::down, .at = from, .time = 1});
  constexpr int steps = 8;
  for (int i = 1; i <= steps; ++i) {
    const float share = static_cast<float>(i) / steps;
    field.pointer(
        {.phase = PointerPhase::move, .at = from + (to - from) * share, .time = 1 + double{share} * 0.25});
  }
  while (const auto e = field.next_event(1.27)) {  // it leans into its way still
    if (e->kind == EventKind::pick_refused) throw Failure{no, describe(e->verdict, field.table())};
  }
  const Run run = field.hand().held();
  if (run.count == 0) {
    const bool card = bool(field.where().hit(from).card);
    throw Failure{
        no, card ? fmt::format("{:g},{:g} is too near {:g},{:g} for a drag", to.x, to.y, from.x, from.y)
                 : fmt::format("no card lies at {:g},{:g}: 'apsidon probe' tells what does", from.x, from.y)};
  }
  std::string out = fmt::format("held: {}", card_text(field.table(), run.first));
  if (run.count > 1) out += fmt::format(" and {} on it", run.count - 1);
  const ZoneId aimed = field.hand().aimed_at();
  out += aimed ? fmt::format("; aimed at {}", field.table().zone(aimed)->name)
               : "; aimed at nothing that takes it";
  return out + fmt::format("; {} places would take it\n", field.hand().targets().size());
}

int run(const DrawOptions& options) {
  expect_ending("--out", options.out, {".png", ".svg", ".pdf"});
  Playfield field = load_playfield(options.table);
  std::string told;
  if (!options.hover.empty() && !options.drag.empty()) {
    throw Failure{bad_call, "--hover and --drag are two pictures: give one of them"};
  }
  if (options.drag.empty() != options.to.empty()) {
    throw Failure{bad_call, "--drag X,Y and --to X,Y belong together: from where, and to where"};
  }
  if (!options.hover.empty()) told = hover(field, parse_point("--hover", options.hover));
  if (!options.drag.empty()) {
    told = drag(field, parse_point("--drag", options.drag), parse_point("--to", options.to));
  }
  std::optional<Gallery> gallery;
  if (!options.art.empty()) {
    gallery.emplace(load_gallery(options.art, options.table.trust));
  }
  const Gallery* const art = gallery ? &*gallery : nullptr;
  const Ground ground = options.transparent ? Ground::transparent : Ground::glasshouse;
  std::vector<std::string> layers = options.layers;
  if (options.outlines && layers.empty()) layers = {sketch_layers.begin(), sketch_layers.end()};
  expect_other_file(options.out, {options.table.file, options.art});
  if (layers.empty()) {
    write_picture(options.out, field.frame(), field.table().deck(), art, ground);
  } else {
    if (!options.out.ends_with(".png"))
      throw Failure{bad_call,
                    "--outlines and --layer are drawn in a PNG: a name that ends in .png is expected"};
    Picture picture = paint(field.frame(), field.table().deck(), art, ground);
    Sketch sketch = field.where().sketch();
    std::erase_if(sketch.marks, [&](const SketchMark& mark) {
      return std::find(layers.begin(), layers.end(), mark.layer) == layers.end();
    });
    draw_sketch(sketch, picture);
    make_folder_of(options.out);
    picture.write_png(options.out);
  }
  const Frame& frame = field.frame();
  const bool pixels = options.out.ends_with(".png");
  const float ratio = pixels ? frame.pixel_ratio : 1;
  print(fmt::format(
      "{}: {}x{} {}, plan '{}', card {}x{} px\n", options.out, std::ceil(frame.window.width * ratio),
      std::ceil(frame.window.height * ratio), pixels ? "pixels" : "px", field.where().plan().name,
      number(double{field.where().card_size().width}), number(double{field.where().card_size().height})));
  print(told);
  const Problems problems = gallery ? gallery->problems() : Problems{};
  for (const Problem& problem : problems) print_error("apsidon draw: " + describe(problem));
  if (field.where().fits()) return problems.empty() ? yes : no;
  print_error(fmt::format("apsidon draw: the window {} is too small to show a card", options.table.window));
  return no;
}

}  // namespace

void add_draw(CommandLine& line) {
  Words& words = line.verb("draw", "The table at rest, or under a pointer, as a PNG, SVG or PDF");
  auto options = std::make_shared<DrawOptions>();
  options->table.add_to(words);
  words.text("--out", options->out, "FILE", "The file to write, .png, .svg or .pdf; table.png unless stated")
      .text("--art", options->art, "ART", "Cards drawn from the pictures of this art file")
      .text("--hover", options->hover, "X,Y", "With a mouse that rests here, and what it hovers")
      .text("--drag", options->drag, "X,Y", "With the card here dragged, its places marked")
      .text("--to", options->to, "X,Y", "  to here")
      .flag("--transparent", options->transparent, "Without the background, to be laid over something else")
      .flag("--outlines", options->outlines,
            "With areas, panels, hit shapes, middles, strips, insertion points and ids drawn over it")
      .choices("--layer", options->layers, {sketch_layers.begin(), sketch_layers.end()}, "LAYER",
               "Only this layer of the outlines; may be given several times")
      .example("apsidon draw data/potting-bench.table.json --window 1280x800 --out bench.png")
      .example("apsidon draw data/market-stall.table.json --hover 640,700 --out hover.png")
      .example("apsidon draw data/trellis.table.json --out trellis.svg")
      .does([options] { return run(*options); });
}

}  // namespace apsidon::tool
