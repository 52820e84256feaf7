// A recipe or an art beside pictures of any size, some of them no pictures, which change while they are
// shown: what can be drawn is drawn, the rest has a sentence.
#include <array>

#include "apsidon/art/art_file.hpp"
#include "apsidon/draw/gallery.hpp"
#include "apsidon/draw/paint.hpp"
#include "apsidon/files/write_file.hpp"
#include "apsidon/geometry/error.hpp"
#include "apsidon/studio/check_art.hpp"
#include "apsidon/studio/compose.hpp"
#include "apsidon/studio/recipe.hpp"
#include "apsidon/studio/sheets.hpp"
#include "bytes.hpp"
#include "fuzz.hpp"

using namespace apsidon;
using namespace apsidon::fuzz;

namespace {

constexpr std::array<const char*, 4> names{"a.png", "b.png", "c.png", "d.png"};

void put(const std::filesystem::path& file, FuzzedDataProvider& from) {
  std::error_code error;
  std::filesystem::remove_all(file, error);
  switch (from.ConsumeIntegralInRange(0, 7)) {
    case 0:
      return;  // it is not there
    case 1:
      std::filesystem::create_directory(file);
      return;
    case 2:
      return write_file(file, "\x89PNG\r\n\x1A\n" + from.ConsumeRandomLengthString(100));
    default: {
      Pixels pixels{.width = from.ConsumeIntegralInRange(1, 90),
                    .height = from.ConsumeIntegralInRange(1, 90)};
      const auto step = from.ConsumeIntegral<std::uint8_t>();
      for (int i = 0; i < pixels.width * pixels.height; ++i) {
        const auto byte = static_cast<std::uint8_t>(i * step);
        pixels.all.push_back({byte, step, byte, static_cast<std::uint8_t>(byte % 3 == 0 ? 0 : 255)});
      }
      Picture::of(pixels).write_png(file);
    }
  }
}

bool is_small(Size card) { return card.width * card.height < 100 * 150; }

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  static const OwnFolder folder;
  static const Deck deck({.suits = {{"fern", "green"}, {"moss", "green"}}, .ranks = {"1", "2", "3"}});
  FuzzedDataProvider from(data, size);
  for (const char* name : names) put(folder.path() / name, from);
  const char* changing = from.PickValueInArray(names);
  const auto kept = from.ConsumeIntegralInRange<std::size_t>(0, 40);
  const std::string text =
      from.ConsumeBytesAsString(from.remaining_bytes() - std::min(kept, from.remaining_bytes()));

  if (const auto recipe = parse_recipe(text, folder.path() / "recipe.json");
      recipe && is_small(recipe->card)) {
    const ComposedSheet sheet = compose_sheet(deck, *recipe, folder.path(), "sheet.png");
    expect(sheet.picture.width() > 0, "a sheet has pixels");
    const std::size_t drawn = deck.faces().size() - std::min(deck.faces().size(), sheet.nameless.size());
    expect(sheet.nameless.size() <= deck.faces().size() && drawn <= deck.faces().size(),
           "a face is nameless once");
  }
  const auto art = parse_art(text, folder.path() / "art.json");
  if (!art) return expect_sentence(art.error()), 0;
  const Gallery gallery(*art, folder.path());
  const auto look = [&] {
    for (const ArtFinding& finding : check_art(gallery, deck))
      expect(!finding.message.empty() && finding.message.size() < 5000, "a finding is a sentence");
    for (const FaceId face : deck.faces())
      (void)paint_card(deck, {.face = face, .box = {{0, 0}, {50, 70}}}, 1, &gallery);
    (void)proof_sheet(deck, {200, 150}, 1, &gallery);
    if (is_small(art->card)) (void)compose_sheet(deck, {20, 28}, "packed.png", &gallery);
  };
  look();
  put(folder.path() / changing, from);
  look();
  if (const Problems problems = gallery.problems(); !problems.empty()) expect_sentence(problems);
  return 0;
}
