// An art from a file can be written, read again as the same, asked for every face, and checked, pixels too.
#include "apsidon/art/art_file.hpp"
#include "apsidon/studio/check_art.hpp"
#include "fuzz.hpp"

using namespace apsidon;
using namespace apsidon::fuzz;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  const auto art = parse_art(text_of(data, size), "art.json");
  if (!art) return expect_sentence(art.error()), 0;
  const auto again = parse_art(write_art(*art), "again.json");
  expect(again.has_value(), "an art that was written is read");
  expect(*again == *art, "an art reads back as the same");
  static const Deck deck = standard_deck(2);
  for (const FaceId face : deck.faces()) {
    (void)part_of(*art, deck, face);
    (void)picture_of(*art, deck, ShownCard{.face = face, .box = {{0, 0}, {50, 70}}});
  }
  // Pictures with what the file has in it for their pixels.
  constexpr int width = 120, height = 80;
  const auto pixels_of = [&](const std::string&) {
    Pixels pixels{.width = width, .height = height};
    for (std::size_t i = 0; i < std::size_t{width} * height; ++i) {
      const std::uint8_t byte = data[i % std::max<std::size_t>(size, 1)];
      pixels.all.push_back({byte, byte, byte, static_cast<std::uint8_t>(byte % 3 == 0 ? 0 : 255)});
    }
    return pixels;
  };
  const auto size_of = [](const std::string& name) {
    return name.size() % 2 == 0 ? Result<Size>(Size{width, height})
                                : Result<Size>(Problem{.message = "not there"});
  };
  const auto lettered = [&](const std::string& word) { return std::vector<Pixels>{pixels_of(word)}; };
  if (size > 0)
    (void)check_art(*art, deck, {.size_of = size_of, .pixels_of = pixels_of, .lettered = lettered});
  return 0;
}
