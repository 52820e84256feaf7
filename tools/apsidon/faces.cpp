// apsidon faces: a proof sheet of every face with its name.
#include <fmt/format.h>

#include "apsidon/draw/sheets.hpp"
#include "apsidon/files/table_file.hpp"
#include "common.hpp"

namespace apsidon::tool {
namespace {

struct Options {
  std::string deck;
  std::string out = "faces.png";
  std::string sheet = "1280x800";
  float pixel_ratio = 1;
};

int run(const Options& options) {
  const Deck deck = or_fail(load_deck(options.deck));
  const Picture sheet = proof_sheet(deck, parse_size(options.sheet), options.pixel_ratio);
  make_folder_of(options.out);
  sheet.write_png(options.out);
  print(fmt::format("{}: {} faces, {} suits of {} ranks\n", options.out, deck.face_count(), deck.suit_count(),
                    deck.rank_count()));
  return yes;
}

}  // namespace

void add_faces(CommandLine& line) {
  Words& words = line.verb("faces", "A proof sheet of every face of a deck with its name, as a PNG");
  auto options = std::make_shared<Options>();
  words.required_text("deck", options->deck, "DECK", "The deck file")
      .text("--out", options->out, "FILE", "The file to write, faces.png unless stated")
      .text("--sheet", options->sheet, "WxH", "Size of the sheet, 1280x800 unless stated")
      .number("--pixel-ratio", options->pixel_ratio, 0.1, 8, "RATIO",
              "Device pixels in a px, 0.1 to 8; 1 unless stated")
      .example("apsidon faces data/glasshouse.deck.json --out faces.png")
      .does([options] { return run(*options); });
}

}  // namespace apsidon::tool
