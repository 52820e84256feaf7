// apsidon draw: a table at rest as a picture.
#include <fmt/format.h>

#include "apsidon/draw/paint.hpp"
#include "apsidon/draw/picture_sketch.hpp"
#include "common.hpp"

namespace apsidon::tool {
namespace {

struct Options {
  TableOptions table;
  std::string out = "table.png";
  bool outlines = false;
};

int run(const Options& options) {
  const Playfield field = load_playfield(options.table);
  Picture picture = paint(field.frame(), field.table().deck());
  if (options.outlines) {
    PictureSketch sketch(picture);
    field.sketch(sketch);
  }
  make_folder_of(options.out);
  picture.write_png(options.out);
  print(fmt::format("{}: {}x{} pixels, plan '{}', card {}x{} px\n", options.out, picture.width(),
                    picture.height(), field.plan().name, number(double{field.card_size().width}),
                    number(double{field.card_size().height})));
  if (field.fits()) return yes;
  fmt::print(stderr, "apsidon draw: the window {} is too small to show a card\n", options.table.window);
  return no;
}

}  // namespace

void add_draw(CommandLine& line) {
  Words& words = line.verb("draw", "The table at rest, as a PNG");
  auto options = std::make_shared<Options>();
  options->table.add_to(words);
  words.text("--out", options->out, "FILE", "The file to write, table.png unless stated")
      .flag("--outlines", options->outlines, "With areas, hit shapes and middles drawn over it")
      .example("apsidon draw data/potting-bench.table.json --window 1280x800 --out bench.png")
      .does([options] { return run(*options); });
}

}  // namespace apsidon::tool
