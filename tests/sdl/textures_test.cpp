// What a graphics card shows of a frame is what is painted of it. The comparison needs a display: it is a
// test of its own that is run under an X server.
#include <SDL.h>

#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <string>
#include <vector>

#include "apsidon/draw/paint.hpp"
#include "apsidon/files/table_file.hpp"
#include "apsidon/sdl/sdl_painter.hpp"
#include "support/display.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

constexpr int shown_width = 960, shown_height = 640;

/// How many squares of 8 px differ in their mean colour by more than a tenth.
int differing_squares(const Picture& painted, const std::vector<std::uint8_t>& shown) {
  int squares = 0;
  for (int y = 0; y + 8 <= shown_height; y += 8) {
    for (int x = 0; x + 8 <= shown_width; x += 8) {
      std::array<int, 3> apart{};
      for (int i = 0; i < 64; ++i) {
        const Pixel pixel = painted.pixel(x + i % 8, y + i / 8);
        const auto at = static_cast<std::size_t>(4 * ((y + i / 8) * shown_width + x + i % 8));
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
  const auto outcome = on_a_display({std::filesystem::read_symlink("/proc/self/exe").string(),
                                     "sdl: what textures show is what is painted when a display is there"},
                                    120);
  CAPTURE(outcome.out, outcome.err);
  CHECK(outcome.code == 0);
  CHECK(holds(outcome.out, "All tests passed"));
}

TEST_CASE("sdl: what textures show is what is painted when a display is there", "[.display]") {
  REQUIRE(SDL_Init(SDL_INIT_VIDEO) == 0);
  SDL_Window* window = SDL_CreateWindow("textures", 0, 0, shown_width, shown_height, 0);
  SDL_Renderer* renderer = SDL_CreateRenderer(window, -1, SDL_RENDERER_ACCELERATED);
  REQUIRE(renderer);
  const auto setup = load_table(source("data/market-stall.table.json"));
  REQUIRE(setup);
  const Deck& deck = setup->table.deck();
  Playfield field(*setup, {.window = {shown_width, shown_height}});
  SdlPainter painter(renderer, deck);
  std::vector<std::uint8_t> shown(static_cast<std::size_t>(4 * shown_width * shown_height));
  const auto differing_in = [&](const Frame& frame) {
    while (!painter.draw(frame, std::chrono::seconds(1))) continue;
    SDL_RenderReadPixels(renderer, nullptr, SDL_PIXELFORMAT_RGBA32, shown.data(), 4 * shown_width);
    return differing_squares(Painter(deck).paint(frame), shown);
  };
  const auto differing = [&] { return differing_in(field.frame()); };
  const auto card_of = [&](const char* zone) {
    return field.table().zone(*field.table().find_zone(zone))->cards.back();
  };
  const auto middle = [&](CardId card) { return field.where().resting_pose(card)->centre; };
  CHECK(differing() == 0);
  // Cards that turn over, each at another angle.
  for (const char* zone : {"seller-left", "seller-top", "seller-right", "hand"}) {
    CHECK(field.edits().flip(card_of(zone), false));
    field.advance_to(field.now() + 0.04);
  }
  CHECK(differing() < 12);
  field.advance_to(10);
  // One that is dragged, with its shadow.
  const Vec2 at = middle(card_of("hand"));
  field.pointer({.phase = PointerPhase::down, .at = at, .time = 10});
  field.pointer({.phase = PointerPhase::move, .at = middle(card_of("stall-2")), .time = 10.1});
  field.advance_to(11);
  CHECK(differing() == 0);
  field.pointer({.phase = PointerPhase::cancel, .at = at, .time = 11});
  // A larger picture is drawn as such, and not from the small one.
  CHECK(field.hand().preview(field.table().zone(*field.table().find_zone("hand"))->cards[3]));
  field.advance_to(14);
  CHECK(differing() == 0);
  // Every mark, on cards and on outlines.
  Frame marked = field.frame();
  for (std::size_t i = 0; i < marked.items.size(); ++i)
    marked.items[i].marks = {
        .legal_target = i % 3 == 0, .aimed_at = i % 6 == 0, .refused = i % 3 == 1, .focus = i % 3 == 2};
  marked.revision += 1000;
  CHECK(differing_in(marked) == 0);
  SDL_DestroyRenderer(renderer);
  SDL_DestroyWindow(window);
  // SDL stays: a driver that it unloads has no name any more by which its leaks are known.
}
