// Whatever a window is told, a table in it goes on: SDL's events with any numbers in them, without a display.
#include <SDL.h>

#include <cstring>

#include "apsidon/apsidon.hpp"
#include "apsidon/sdl/sdl_inputs.hpp"
#include "apsidon/sdl/sdl_window.hpp"
#include "bytes.hpp"
#include "fuzz.hpp"

using namespace apsidon;
using namespace apsidon::fuzz;

namespace {

TableSetup small() {
  TableSetup setup(Deck({.suits = {{"fern", "green"}}, .ranks = {"1", "2", "3"}}));
  const ZoneId hand = setup.add({.name = "hand",
                                 .layout = {.kind = HandLayout{}},
                                 .rules = {.pick = {.kind = PickKind::any}, .drop = rule::anything()},
                                 .handling = {.hover = HoverKind::raise, .zoom = true}});
  const ZoneId bed =
      setup.add({.name = "bed", .rules = {.pick = {.kind = PickKind::top}, .drop = rule::anything()}});
  for (std::uint32_t i = 1; i <= 3; ++i) setup.table.create_card(hand, {.face = {i}, .face_up = true});
  const PanelId button = setup.add_panel({.name = "done", .kind = PanelKind::button});
  setup.plans = {{.root = down({zone(bed), zone(hand), panel(button, {.cards = 2}, {.cards = 1})})}};
  return setup;
}

/// Not those that hold pointers, which only SDL may make.
constexpr std::uint32_t kinds[] = {SDL_QUIT,
                                   SDL_WINDOWEVENT,
                                   SDL_KEYDOWN,
                                   SDL_KEYUP,
                                   SDL_MOUSEMOTION,
                                   SDL_MOUSEBUTTONDOWN,
                                   SDL_MOUSEBUTTONUP,
                                   SDL_MOUSEWHEEL,
                                   SDL_FINGERDOWN,
                                   SDL_FINGERUP,
                                   SDL_FINGERMOTION,
                                   SDL_CONTROLLERAXISMOTION,
                                   SDL_CONTROLLERBUTTONDOWN,
                                   SDL_CONTROLLERBUTTONUP,
                                   SDL_CONTROLLERDEVICEADDED,
                                   SDL_CONTROLLERDEVICEREMOVED,
                                   SDL_TEXTINPUT,
                                   SDL_RENDER_TARGETS_RESET,
                                   SDL_RENDER_DEVICE_RESET,
                                   SDL_APP_DIDENTERFOREGROUND};

SDL_Event any_event(FuzzedDataProvider& from, SDL_Window* window) {
  SDL_Event event;
  std::memset(&event, 0, sizeof event);
  (void)from.ConsumeData(event.padding, from.ConsumeIntegralInRange<std::size_t>(0, sizeof event.padding));
  event.type = from.PickValueInArray(kinds);
  const bool ours = from.ConsumeIntegralInRange(0, 3) > 0;
  if (ours) event.common.timestamp = SDL_GetTicks();
  if (ours && event.type != SDL_QUIT) event.window.windowID = SDL_GetWindowID(window);
  if (ours && event.type >= SDL_MOUSEMOTION && event.type <= SDL_MOUSEBUTTONUP) {
    event.button.x = from.ConsumeIntegralInRange(0, 120);
    event.button.y = from.ConsumeIntegralInRange(0, 90);
    if (event.type == SDL_MOUSEMOTION) {
      event.motion.x = event.button.x;
      event.motion.y = event.button.y;
    }
    event.motion.which = 0;
    if (event.type != SDL_MOUSEMOTION) event.button.button = SDL_BUTTON_LEFT;
  }
  if (ours && (event.type == SDL_KEYDOWN || event.type == SDL_KEYUP)) {
    event.key.keysym.sym = from.PickValueInArray<SDL_Keycode>(
        {SDLK_LEFT, SDLK_UP, SDLK_TAB, SDLK_RETURN, SDLK_SPACE, SDLK_ESCAPE, SDLK_s, SDLK_z, SDLK_y});
  }
  return event;
}

}  // namespace

extern "C" int LLVMFuzzerInitialize(int*, char***) {
  SDL_setenv("SDL_VIDEODRIVER", "dummy", 1);
  SDL_setenv("SDL_AUDIODRIVER", "dummy", 1);
  return 0;
}

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  static const TableSetup setup = small();
  static SdlWindow window({.size = {120, 90}});
  FuzzedDataProvider from(data, size);
  Playfield field(setup, window.options());
  while (from.remaining_bytes() > 0) {
    for (int i = from.ConsumeIntegralInRange(1, 4); i > 0; --i) {
      SDL_Event event = any_event(from, window.window());
      (void)SDL_PushEvent(&event);
    }
    (void)window.next(field, window.now());
    while (field.next_event(window.now())) {
    }
    window.show(field);
  }
  for (const FrameItem& item : field.frame().items)
    expect(std::isfinite(item.matrix.tx), "a frame is finite");
  expect(field.table().card_count() == 3, "no card is lost");
  expect(field.count_of(NoticeKind::internal) == 0, "the library finds no mistake of its own");
  return 0;
}
