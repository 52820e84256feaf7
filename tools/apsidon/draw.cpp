// apsidon draw: a table at rest as a picture.
#include <fmt/format.h>

#include <algorithm>
#include <filesystem>

#include "apsidon/art/art_file.hpp"
#include "apsidon/draw/paint.hpp"
#include "apsidon/draw/picture_sketch.hpp"
#include "common.hpp"

namespace apsidon::tool {
namespace {

struct Options {
  TableOptions table;
  std::string out = "table.png";
  std::string art;
  bool outlines = false;
  std::vector<std::string> layers = {};
};

/// Passes on what is drawn in some layers.
class ChosenLayers final : public Sketch {
 public:
  ChosenLayers(Sketch& to, const std::vector<std::string>& layers) : to_(to), layers_(layers) {}

  void line(std::string_view layer, Vec2 from, Vec2 to) override {
    if (chosen(layer)) to_.line(layer, from, to);
  }
  void box(std::string_view layer, const Rect& box) override {
    if (chosen(layer)) to_.box(layer, box);
  }
  void quad(std::string_view layer, const Quad& quad) override {
    if (chosen(layer)) to_.quad(layer, quad);
  }
  void point(std::string_view layer, Vec2 at) override {
    if (chosen(layer)) to_.point(layer, at);
  }
  void label(std::string_view layer, Vec2 at, std::string_view text) override {
    if (chosen(layer)) to_.label(layer, at, text);
  }

 private:
  [[nodiscard]] bool chosen(std::string_view layer) const {
    return std::find(layers_.begin(), layers_.end(), layer) != layers_.end();
  }

  Sketch& to_;
  const std::vector<std::string>& layers_;
};

int run(const Options& options) {
  const Playfield field = load_playfield(options.table);
  std::optional<Gallery> gallery;
  if (!options.art.empty()) {
    gallery.emplace(or_fail(load_art(options.art)), std::filesystem::path(options.art).parent_path());
  }
  Picture picture = paint(field.frame(), field.table().deck(), gallery ? &*gallery : nullptr);
  std::vector<std::string> layers = options.layers;
  if (options.outlines && layers.empty()) layers = {sketch_layers.begin(), sketch_layers.end()};
  if (!layers.empty()) {
    PictureSketch sketch(picture);
    ChosenLayers chosen(sketch, layers);
    field.sketch(chosen);
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
      .text("--art", options->art, "ART", "Cards drawn from the pictures of this art file")
      .flag("--outlines", options->outlines,
            "With areas, panels, hit shapes, middles, strips, insertion points and ids drawn over it")
      .choices("--layer", options->layers, {sketch_layers.begin(), sketch_layers.end()}, "LAYER",
               "Only this layer of the outlines; may be given several times")
      .example("apsidon draw data/potting-bench.table.json --window 1280x800 --out bench.png")
      .does([options] { return run(*options); });
}

}  // namespace apsidon::tool
