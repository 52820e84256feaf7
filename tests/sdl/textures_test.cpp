// What a graphics card shows of a frame is what is painted of it. The comparison needs a display: it is a
// test of its own that is run under an X server.
#include <SDL.h>

#include <algorithm>
#include <catch2/catch.hpp>
#include <string>

#include "apsidon/draw/paint.hpp"
#include "apsidon/files/table_file.hpp"
#include "apsidon/sdl/sdl_painter.hpp"
#include "support/display.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

constexpr int width = 960, height = 640;

/// How many squares of 8 px differ in their mean colour by more than a tenth.
int differing_squares(const Picture& painted, const std::vector<std::uint8_t>& shown) {
  int squares = 0;
  for (int y = 0; y + 8 <= height; y += 8) {
    for (int x = 0; x + 8 <= width; x += 8) {
      std::array<int, 3> apart{};
      for (int i = 0; i < 64; ++i) {
        const Pixel pixel = painted.pixel(x + i % 8, y + i / 8);
        const auto at = static_cast<std::size_t>(4 * ((y + i / 8) * width + x + i % 8));
        for (std::size_t c = 0; c < 3; ++c) apart[c] += int{pixel[c]} - int{shown[at + c]};
      }
      squares +=
          std::any_of(apart.begin(), apart.end(), [](int sum) { return std::abs(sum) > 64 * 26; }) ? 1 : 0;
    }
  }
  return squares;
}

}  // namespace

TEST_CASE("sdl: what textures show of a frame is what is painted of it") {
  const auto outcome =
      on_a_display({std::filesystem::read_symlink("/proc/self/exe").string(), "on a display: textures"}, 120);
  CAPTURE(outcome.out, outcome.err);
  CHECK(outcome.code == 0);
  CHECK(holds(outcome.out, "All tests passed"));
}

TEST_CASE("on a display: textures", "[.display]") {
  REQUIRE(SDL_Init(SDL_INIT_VIDEO) == 0);
  SDL_Window* window = SDL_CreateWindow("textures", 0, 0, width, height, 0);
  SDL_Renderer* renderer = SDL_CreateRenderer(window, -1, SDL_RENDERER_ACCELERATED);
  REQUIRE(renderer);
  const auto setup = load_table(source(potting_bench));
  REQUIRE(setup);
  const Deck& deck = setup->table.deck();
  Playfield field(*setup, {.window = {width, height}});
  SdlPainter painter(renderer, deck);
  std::vector<std::uint8_t> shown(static_cast<std::size_t>(4 * width * height));
  const auto differing = [&] {
    while (!painter.draw(field.frame(), std::chrono::seconds(1))) continue;
    SDL_RenderReadPixels(renderer, nullptr, SDL_PIXELFORMAT_RGBA32, shown.data(), 4 * width);
    return differing_squares(Painter(deck).paint(field.frame()), shown);
  };
  const auto card_of = [&](const char* zone) {
    return field.table().zone(*field.table().find_zone(zone))->cards.back();
  };
  const auto middle = [&](CardId card) { return field.where().resting_pose(card)->centre; };
  CHECK(differing() == 0);
  // Cards that turn over, each at another angle.
  for (const char* zone : {"column-1", "column-2", "column-3", "column-4"}) {
    CHECK(field.edits().flip(card_of(zone), false));
    field.advance_to(field.now() + 0.04);
  }
  CHECK(differing() < 12);
  field.advance_to(10);
  // One that is dragged, with the marks of where it may go, and its shadow.
  const Vec2 at = middle(card_of("column-5"));
  field.pointer({.phase = PointerPhase::down, .at = at, .time = 10});
  field.pointer({.phase = PointerPhase::move, .at = middle(card_of("column-7")), .time = 10.1});
  field.advance_to(11);
  CHECK(differing() < 12);
  SDL_DestroyRenderer(renderer);
  SDL_DestroyWindow(window);
  SDL_Quit();
}
