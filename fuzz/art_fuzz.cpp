// An art from a file can be written, read again as the same, and asked for every face.
#include "apsidon/art/art_file.hpp"
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
    (void)back_of(*art, deck, face);
  }
  (void)check_art(*art, deck, [](const std::string& name) {
    return name.size() % 2 == 0 ? Result<Size>(Size{300, 200})
                                : Result<Size>(Problem{.message = "not there"});
  });
  return 0;
}
