// SDL's events as inputs of a table.
#include "apsidon/sdl/sdl_inputs.hpp"

#include <SDL.h>

#include <catch2/catch.hpp>
#include <memory>

using namespace apsidon;

namespace {

/// A window that is on no display.
class HiddenWindow {
 public:
  HiddenWindow() {
    SDL_SetHint(SDL_HINT_VIDEODRIVER, "dummy");
    REQUIRE(SDL_Init(SDL_INIT_VIDEO) == 0);
    window_ = SDL_CreateWindow("test", 0, 0, 400, 300, 0);
    REQUIRE(window_);
  }
  HiddenWindow(const HiddenWindow&) = delete;
  HiddenWindow& operator=(const HiddenWindow&) = delete;
  ~HiddenWindow() {
    SDL_DestroyWindow(window_);
    SDL_Quit();
  }
  [[nodiscard]] SDL_Window* get() const { return window_; }

 private:
  SDL_Window* window_ = nullptr;
};

SDL_Event event_of(std::uint32_t type) {
  SDL_Event event{};
  event.type = type;
  event.common.timestamp = SDL_GetTicks();
  return event;
}

SDL_Event key(SDL_Keycode code, std::uint16_t mod = 0) {
  SDL_Event event = event_of(SDL_KEYDOWN);
  event.key.keysym.sym = code;
  event.key.keysym.mod = mod;
  return event;
}

SDL_Event finger(std::uint32_t type, SDL_FingerID id, float x, float y) {
  SDL_Event event = event_of(type);
  event.tfinger.fingerId = id;
  event.tfinger.x = x;
  event.tfinger.y = y;
  return event;
}

template <class What>
What as(const std::optional<Input>& input) {
  REQUIRE(input);
  REQUIRE(std::holds_alternative<What>(*input));
  return std::get<What>(*input);
}

}  // namespace

TEST_CASE("sdl: a mouse is pointer 0, and what SDL makes of a finger besides is left out") {
  const HiddenWindow window;
  SdlInputs inputs(window.get());
  SDL_Event motion = event_of(SDL_MOUSEMOTION);
  motion.motion.x = 30;
  motion.motion.y = 40;
  const auto moved = as<PointerInput>(inputs.read(motion));
  CHECK(moved.at == Vec2{30, 40});
  CHECK(moved.pointer == 0);
  CHECK(moved.time == Approx(SdlInputs::now()).margin(0.5));
  motion.motion.which = SDL_TOUCH_MOUSEID;
  CHECK_FALSE(inputs.read(motion));
  SDL_Event press = event_of(SDL_MOUSEBUTTONDOWN);
  press.button.button = SDL_BUTTON_RIGHT;
  CHECK(as<PointerInput>(inputs.read(press)).button == PointerButton::secondary);
  press.button.button = 9;
  CHECK_FALSE(inputs.read(press));
}

TEST_CASE("sdl: fingers are pointers by the order in which they come down, and their places are used again") {
  const HiddenWindow window;
  SdlInputs inputs(window.get());
  const auto pointer = [&](const SDL_Event& event) { return as<PointerInput>(inputs.read(event)); };
  const auto first = pointer(finger(SDL_FINGERDOWN, 77, 0.5f, 0.5f));
  CHECK(first.pointer == 1);
  CHECK(first.kind == PointerKind::touch);
  CHECK(first.at == Vec2{200, 150});
  CHECK(pointer(finger(SDL_FINGERDOWN, 12, 0, 1)).pointer == 2);
  CHECK(pointer(finger(SDL_FINGERMOTION, 77, 0.25f, 0)).at == Vec2{100, 0});
  CHECK(pointer(finger(SDL_FINGERUP, 77, 0, 0)).phase == PointerPhase::up);
  CHECK_FALSE(inputs.read(finger(SDL_FINGERMOTION, 77, 0, 0)));
  CHECK(pointer(finger(SDL_FINGERDOWN, 99, 0, 0)).pointer == 1);
  CHECK_FALSE(inputs.read(finger(SDL_FINGERUP, 1234, 0, 0)));
}

TEST_CASE("sdl: keys, pads and sticks mean the keys of a table") {
  const HiddenWindow window;
  SdlInputs inputs(window.get());
  const auto means = [&](const SDL_Event& event) { return as<KeyInput>(inputs.read(event)).key; };
  CHECK(means(key(SDLK_LEFT)) == Key::left);
  CHECK(means(key(SDLK_TAB)) == Key::next);
  CHECK(means(key(SDLK_TAB, KMOD_LSHIFT)) == Key::previous);
  CHECK(means(key(SDLK_SPACE)) == Key::act);
  CHECK(means(key(SDLK_RETURN, KMOD_RSHIFT)) == Key::second);
  CHECK(means(key(SDLK_ESCAPE)) == Key::cancel);
  CHECK(means(key(SDLK_z, KMOD_LCTRL)) == Key::undo);
  CHECK(means(key(SDLK_z, static_cast<std::uint16_t>(KMOD_LCTRL | KMOD_LSHIFT))) == Key::redo);
  CHECK(means(key(SDLK_s)) == Key::send);
  CHECK_FALSE(inputs.read(key(SDLK_q)));
  SDL_Event held = key(SDLK_DOWN);
  held.key.repeat = 1;
  CHECK(as<KeyInput>(inputs.read(held)).repeat);
  SDL_Event button = event_of(SDL_CONTROLLERBUTTONDOWN);
  button.cbutton.button = SDL_CONTROLLER_BUTTON_A;
  CHECK(means(button) == Key::act);
  SDL_Event stick = event_of(SDL_CONTROLLERAXISMOTION);
  stick.caxis.axis = SDL_CONTROLLER_AXIS_LEFTX;
  const auto push = [&](int value) {
    stick.caxis.value = static_cast<std::int16_t>(value);
    return inputs.read(stick);
  };
  CHECK_FALSE(push(9000));
  CHECK(as<KeyInput>(push(30'000)).key == Key::right);
  CHECK_FALSE(push(28'000));  // once a push
  CHECK_FALSE(push(15'000));
  CHECK_FALSE(push(0));
  CHECK(as<KeyInput>(push(-30'000)).key == Key::left);
}

TEST_CASE("sdl: the window's own events are resizes, lost attention and the background") {
  const HiddenWindow window;
  SdlInputs inputs(window.get());
  const auto of_window = [&](std::uint8_t what) {
    SDL_Event event = event_of(SDL_WINDOWEVENT);
    event.window.event = what;
    return inputs.read(event);
  };
  CHECK(as<ResizeInput>(of_window(SDL_WINDOWEVENT_SIZE_CHANGED)).window == Size{400, 300});
  CHECK(as<PointerInput>(of_window(SDL_WINDOWEVENT_LEAVE)).phase == PointerPhase::leave);
  (void)as<BlurInput>(of_window(SDL_WINDOWEVENT_FOCUS_LOST));
  const auto hidden = as<ReasonInput>(of_window(SDL_WINDOWEVENT_MINIMIZED));
  CHECK(hidden.what == ReasonInput::What::hold);
  const auto back = as<ReasonInput>(of_window(SDL_WINDOWEVENT_RESTORED));
  CHECK(back.what == ReasonInput::What::release);
  CHECK(back.reason == hidden.reason);
  CHECK_FALSE(of_window(SDL_WINDOWEVENT_MOVED));
  CHECK_FALSE(inputs.read(event_of(SDL_USEREVENT)));
}
