// apsidon faces: a proof sheet of every face with its name.
#include <fmt/format.h>
#include <fmt/ranges.h>

#include <filesystem>

#include "apsidon/art/art_file.hpp"
#include "apsidon/files/table_file.hpp"
#include "apsidon/files/write_file.hpp"
#include "apsidon/studio/check_art.hpp"
#include "apsidon/studio/compose.hpp"
#include "apsidon/studio/sheets.hpp"
#include "shared/common.hpp"

namespace apsidon::tool {
namespace {

struct FacesOptions {
  std::string deck;
  std::string art;
  std::string recipe;
  std::string compose;
  std::string card = "200x280";
  std::string out = "faces.png";
  std::string sheet = "1280x800";
  float pixel_ratio = 1;
  bool trust = false;
  bool with_fallbacks = false;
};

/// All files that a sheet is made from.
std::vector<std::string> read_by(const FacesOptions& options, const Deck& deck) {
  std::vector<std::string> read{options.deck, options.art, options.recipe};
  const auto add = [&](const std::string& by, const std::string& picture) {
    if (!picture.empty()) read.push_back((std::filesystem::path(by).parent_path() / picture).string());
  };
  if (!options.art.empty()) {
    const Art art = or_fail(load_art(options.art));
    for (const FaceId face : deck.faces()) {
      if (const auto part = part_of(art, deck, face)) add(options.art, part->picture);
    }
    add(options.art, art.back.picture);
    for (const auto& [suit, back] : art.backs) add(options.art, back.picture);
  }
  if (!options.recipe.empty()) {
    const Recipe recipe = or_fail(load_recipe(options.recipe));
    for (const auto* named : {&recipe.suits, &recipe.ranks, &recipe.middles, &recipe.frames}) {
      for (const auto& [name, picture] : *named) add(options.recipe, picture);
    }
    add(options.recipe, recipe.frame);
    add(options.recipe, recipe.back);
  }
  return read;
}

std::string what_lacks(const FacesOptions& options, const ComposedSheet& sheet) {
  const std::string& from = options.recipe.empty() ? options.art : options.recipe;
  std::string out;
  for (const std::string& picture : sheet.missing)
    out += fmt::format("{}: the drawing '{}' is not there or no PNG\n", from, picture);
  if (!sheet.nameless.empty()) {
    out += fmt::format("{}: no picture is there for {}", from, fmt::join(sheet.nameless, ", "));
  }
  if (out.ends_with('\n')) out.pop_back();
  return out;
}

/// A sheet with names in the place of pictures would be taken for finished.
[[noreturn]] void refuse(const FacesOptions& options, const ComposedSheet& sheet) {
  throw Failure{no,
                fmt::format("{}\nnothing is written; --with-fallbacks writes it all the same, with names in "
                            "their places",
                            what_lacks(options, sheet))};
}

/// Writes the sheet, and beside it the art that describes it.
int compose(const FacesOptions& options, const Deck& deck, const Gallery* gallery) {
  const std::filesystem::path file = options.compose;
  const std::string name = file.filename().string();
  const ComposedSheet sheet = options.recipe.empty()
                                  ? compose_sheet(deck, parse_size("--card", options.card), name, gallery)
                                  : compose_sheet(deck, or_fail(load_recipe(options.recipe)),
                                                  std::filesystem::path(options.recipe).parent_path(), name);
  if (!sheet.whole() && !options.with_fallbacks) refuse(options, sheet);
  make_folder_of(options.compose);
  const std::filesystem::path description = std::filesystem::path(file).replace_extension(".art.json");
  for (const std::filesystem::path& out : {file, description})
    expect_other_file(out.string(), read_by(options, deck));
  sheet.picture.write_png(file);
  write_file(description, write_art(sheet.art));
  print(fmt::format("{}: {} faces and a back, {}x{} pixels\n{}: which cell shows which face\n",
                    options.compose, deck.face_count(), sheet.picture.width(), sheet.picture.height(),
                    description.string()));
  if (!sheet.whole()) print(fmt::format("{}\n", what_lacks(options, sheet)));
  return sheet.whole() ? yes : no;
}

int run(const FacesOptions& options) {
  expect_ending("--out", options.out, {".png"});
  if (!options.compose.empty()) expect_ending("--compose", options.compose, {".png"});
  const Deck deck = or_fail(load_deck(options.deck));
  std::optional<Gallery> gallery;
  std::vector<ArtFinding> findings;
  if (!options.art.empty()) {
    gallery.emplace(load_gallery(options.art, options.trust));
    findings = check_art(*gallery, deck);
  }
  if (!options.compose.empty()) return compose(options, deck, gallery ? &*gallery : nullptr);
  const Picture sheet = proof_sheet(deck, parse_size("--sheet", options.sheet), options.pixel_ratio,
                                    gallery ? &*gallery : nullptr);
  expect_other_file(options.out, {options.deck, options.art});
  make_folder_of(options.out);
  sheet.write_png(options.out);
  for (const ArtFinding& f : findings) {
    print(
        fmt::format("{}{}: {} [{}]\n", options.art, f.face.empty() ? "" : ": " + f.face, f.message, f.code));
  }
  print(fmt::format("{}: {} faces, {} suits of {} ranks{}\n", options.out, deck.face_count(),
                    deck.suit_count(), deck.rank_count(),
                    deck.joker_count() > 0 ? fmt::format(", {} jokers", deck.joker_count()) : ""));
  return findings.empty() ? yes : no;
}

}  // namespace

void add_faces(CommandLine& line) {
  Words& words = line.verb("faces", "A proof sheet of every face of a deck with its name, as a PNG");
  auto options = std::make_shared<FacesOptions>();
  words.required_text("deck", options->deck, "DECK", "The deck file")
      .text("--art", options->art, "ART",
            "Drawn from the pictures of this art file, and what is wrong with them (exit 1)")
      .text("--compose", options->compose, "FILE",
            "Writes all faces as one sheet instead, FILE.png, and the art that describes it, FILE.art.json: "
            "our own, or those of --art, made smaller, or made by --recipe")
      .flag("--with-fallbacks", options->with_fallbacks,
            "Composes although pictures or drawings are missing, with names in their places")
      .text("--recipe", options->recipe, "RECIPE", "Composed from the few drawings that this file names")
      .text("--card", options->card, "WxH", "Size of a card on a composed sheet, px; 200x280 unless stated")
      .text("--out", options->out, "FILE", "The file to write, faces.png unless stated")
      .text("--sheet", options->sheet, "WxH", "Size of the sheet, 1280x800 unless stated")
      .number("--pixel-ratio", options->pixel_ratio, 0.1, 8, "RATIO",
              "Device pixels in a px, 0.1 to 8; 1 unless stated")
      .flag("--trust", options->trust, "The pictures that the art names may lie anywhere, not only beside it")
      .example("apsidon faces data/glasshouse.deck.json --out faces.png")
      .example(
          "apsidon faces data/glasshouse.deck.json --recipe data/drawings/glasshouse.recipe.json --compose "
          "sheet.png")
      .does([options] { return run(*options); });
}

}  // namespace apsidon::tool
