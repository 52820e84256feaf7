// A deck from a file can be written and read again as the same.
#include "apsidon/files/table_file.hpp"
#include "fuzz.hpp"

using namespace apsidon;
using namespace apsidon::fuzz;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  const auto deck = parse_deck(text_of(data, size), "deck.json");
  if (!deck) return expect_sentence(deck.error()), 0;
  const auto again = parse_deck(write_deck(*deck), "again.json");
  expect(again.has_value(), "a deck that was written is read");
  expect(*again == *deck, "a deck reads back as the same");
  for (std::uint32_t i = 0; i <= static_cast<std::uint32_t>(deck->face_count()) && i < 2000; ++i)
    expect(deck->find(deck->text({i})) == FaceId{i}, "a face is found by its text");
  return 0;
}
