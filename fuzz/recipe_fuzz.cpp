// A recipe from a file is read, or refused with a sentence.
#include "apsidon/studio/recipe.hpp"
#include "fuzz.hpp"

using namespace apsidon;
using namespace apsidon::fuzz;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  const auto recipe = parse_recipe(text_of(data, size), "recipe.json");
  if (!recipe) return expect_sentence(recipe.error()), 0;
  expect(recipe->card.width >= 1 && recipe->card.width <= 2000, "a card has a size that can be drawn");
  expect(!recipe->middle.empty(), "the middle is a box");
  return 0;
}
