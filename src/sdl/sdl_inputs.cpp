#include "apsidon/sdl/sdl_inputs.hpp"
#include "geometry/hide.hpp"

#include <SDL.h>

#include <algorithm>
#include <array>
#include <vector>

namespace apsidon {
namespace {

struct CloseController {
  void operator()(SDL_GameController* controller) const { SDL_GameControllerClose(controller); }
};
using Controller = std::unique_ptr<SDL_GameController, CloseController>;

std::optional<Key> key_of(const SDL_Keysym& sym) {
  const bool shift = (sym.mod & KMOD_SHIFT) != 0;
  const bool control = (sym.mod & KMOD_CTRL) != 0;
  if (control) {
    if (sym.sym == SDLK_z) return shift ? Key::redo : Key::undo;
    if (sym.sym == SDLK_y) return Key::redo;
    return std::nullopt;
  }
  switch (sym.sym) {
    case SDLK_LEFT:
      return Key::left;
    case SDLK_RIGHT:
      return Key::right;
    case SDLK_UP:
      return Key::up;
    case SDLK_DOWN:
      return Key::down;
    case SDLK_TAB:
      return shift ? Key::previous : Key::next;
    case SDLK_RETURN:
    case SDLK_KP_ENTER:
    case SDLK_SPACE:
      return shift ? Key::second : Key::act;
    case SDLK_ESCAPE:
      return Key::cancel;
    case SDLK_s:
      return shift ? Key::send_top : Key::send;
    default:
      return std::nullopt;
  }
}

std::optional<Key> key_of_button(std::uint8_t button) {
  switch (button) {
    case SDL_CONTROLLER_BUTTON_DPAD_LEFT:
      return Key::left;
    case SDL_CONTROLLER_BUTTON_DPAD_RIGHT:
      return Key::right;
    case SDL_CONTROLLER_BUTTON_DPAD_UP:
      return Key::up;
    case SDL_CONTROLLER_BUTTON_DPAD_DOWN:
      return Key::down;
    case SDL_CONTROLLER_BUTTON_LEFTSHOULDER:
      return Key::previous;
    case SDL_CONTROLLER_BUTTON_RIGHTSHOULDER:
      return Key::next;
    case SDL_CONTROLLER_BUTTON_A:
      return Key::act;
    case SDL_CONTROLLER_BUTTON_B:
      return Key::cancel;
    case SDL_CONTROLLER_BUTTON_X:
      return Key::send;
    case SDL_CONTROLLER_BUTTON_Y:
      return Key::second;
    case SDL_CONTROLLER_BUTTON_BACK:
      return Key::undo;
    case SDL_CONTROLLER_BUTTON_START:
      return Key::redo;
    default:
      return std::nullopt;
  }
}

std::optional<PointerButton> button_of(std::uint8_t button) {
  switch (button) {
    case SDL_BUTTON_LEFT:
      return PointerButton::primary;
    case SDL_BUTTON_MIDDLE:
      return PointerButton::middle;
    case SDL_BUTTON_RIGHT:
      return PointerButton::secondary;
    case SDL_BUTTON_X1:
      return PointerButton::back;
    case SDL_BUTTON_X2:
      return PointerButton::forward;
    default:
      return std::nullopt;
  }
}

/// Events have the low 32 bits of the milliseconds, which come round after 49 days.
double seconds_of(std::uint32_t timestamp) {
  constexpr std::uint64_t round = std::uint64_t{1} << 32;
  const std::uint64_t now = SDL_GetTicks64();
  std::uint64_t time = (now & ~(round - 1)) | timestamp;
  if (time > now + round / 2 && time >= round) time -= round;
  return static_cast<double>(time) / 1000;
}

}  // namespace

struct SdlInputs::Impl {
  SDL_Window* window;
  std::vector<SDL_FingerID> fingers = {};  // by pointer - 1
  std::vector<char> down = {};
  std::vector<Controller> controllers = {};
  std::array<int, 2> pushed{};  // the left stick, -1, 0 or 1

  std::optional<Input> mouse(PointerPhase phase, std::int32_t x, std::int32_t y, std::uint32_t which,
                             double time, PointerButton button = PointerButton::primary) const {
    if (which == SDL_TOUCH_MOUSEID) return std::nullopt;
    const int held = SDL_GetModState();
    return PointerInput{.phase = phase,
                        .at = {static_cast<float>(x), static_cast<float>(y)},
                        .time = time,
                        .button = button,
                        .shift = (held & KMOD_SHIFT) != 0,
                        .control = (held & (KMOD_CTRL | KMOD_GUI)) != 0};
  }

  std::optional<Input> finger(const SDL_TouchFingerEvent& event, PointerPhase phase, double time) {
    auto at = std::find(fingers.begin(), fingers.end(), event.fingerId);
    if (at == fingers.end()) {
      if (phase != PointerPhase::down) return std::nullopt;
      // The place of a finger that was lifted is free again.
      const auto free = std::find(down.begin(), down.end(), 0);
      const auto place = static_cast<std::size_t>(free - down.begin());
      fingers.resize(std::max(fingers.size(), place + 1));
      down.resize(fingers.size());
      fingers[place] = event.fingerId;
      at = fingers.begin() + static_cast<std::ptrdiff_t>(place);
    }
    const auto place = static_cast<std::size_t>(at - fingers.begin());
    if (down[place] == 0 && phase != PointerPhase::down) return std::nullopt;
    down[place] = phase == PointerPhase::up ? 0 : 1;
    int width = 0, height = 0;
    SDL_GetWindowSize(window, &width, &height);
    return PointerInput{.phase = phase,
                        .at = {event.x * static_cast<float>(width), event.y * static_cast<float>(height)},
                        .time = time,
                        .pointer = static_cast<std::uint32_t>(place + 1),
                        .kind = PointerKind::touch};
  }

  /// A stick that is pushed far counts once, until it has come back.
  std::optional<Input> stick(const SDL_ControllerAxisEvent& event, double time) {
    const bool across = event.axis == SDL_CONTROLLER_AXIS_LEFTX;
    if (!across && event.axis != SDL_CONTROLLER_AXIS_LEFTY) return std::nullopt;
    constexpr int far = 20'000, near = 12'000;
    int& was = pushed[across ? 0 : 1];
    const int is = event.value > far ? 1 : event.value < -far ? -1 : std::abs(event.value) < near ? 0 : was;
    if (is == was) return std::nullopt;
    was = is;
    if (is == 0) return std::nullopt;
    const Key key = across ? (is > 0 ? Key::right : Key::left) : (is > 0 ? Key::down : Key::up);
    return KeyInput{.key = key, .time = time};
  }

  std::optional<Input> of_window(const SDL_WindowEvent& event, double time) const {
    const auto reason = [&](ReasonInput::What what) {
      return ReasonInput{.what = what, .reason = "background", .time = time};
    };
    switch (event.event) {
      case SDL_WINDOWEVENT_SIZE_CHANGED: {
        ResizeInput size = this->size();
        size.time = time;
        return size;
      }
      case SDL_WINDOWEVENT_LEAVE:
        return PointerInput{.phase = PointerPhase::leave, .time = time};
      case SDL_WINDOWEVENT_FOCUS_LOST:
        return BlurInput{.time = time};
      case SDL_WINDOWEVENT_HIDDEN:
      case SDL_WINDOWEVENT_MINIMIZED:
        return reason(ReasonInput::What::hold);
      case SDL_WINDOWEVENT_SHOWN:
      case SDL_WINDOWEVENT_RESTORED:
        return reason(ReasonInput::What::release);
      default:
        return std::nullopt;
    }
  }

  [[nodiscard]] ResizeInput size() const {
    int width = 0, height = 0, pixels = 0;
    SDL_GetWindowSize(window, &width, &height);
    SDL_GetWindowSizeInPixels(window, &pixels, nullptr);
    const float ratio = width > 0 && pixels > 0 ? static_cast<float>(pixels) / static_cast<float>(width) : 1;
    return {.window = {static_cast<float>(width), static_cast<float>(height)}, .pixel_ratio = ratio};
  }
};

SdlInputs::SdlInputs(SDL_Window* window) : impl_(geometry_detail::hide<Impl>(Impl{.window = window})) {}

std::optional<Input> SdlInputs::read(const SDL_Event& event) {
  const double time = seconds_of(event.common.timestamp);
  switch (event.type) {
    case SDL_MOUSEMOTION:
      return impl_->mouse(PointerPhase::move, event.motion.x, event.motion.y, event.motion.which, time);
    case SDL_MOUSEBUTTONDOWN:
    case SDL_MOUSEBUTTONUP: {
      const auto button = button_of(event.button.button);
      if (!button) return std::nullopt;
      const bool down = event.type == SDL_MOUSEBUTTONDOWN;
      return impl_->mouse(down ? PointerPhase::down : PointerPhase::up, event.button.x, event.button.y,
                          event.button.which, time, *button);
    }
    case SDL_FINGERDOWN:
      return impl_->finger(event.tfinger, PointerPhase::down, time);
    case SDL_FINGERMOTION:
      return impl_->finger(event.tfinger, PointerPhase::move, time);
    case SDL_FINGERUP:
      return impl_->finger(event.tfinger, PointerPhase::up, time);
    case SDL_KEYDOWN: {
      const auto key = key_of(event.key.keysym);
      if (!key) return std::nullopt;
      return KeyInput{.key = *key, .time = time, .repeat = event.key.repeat != 0};
    }
    case SDL_CONTROLLERDEVICEADDED:
      impl_->controllers.emplace_back(SDL_GameControllerOpen(event.cdevice.which));
      return std::nullopt;
    case SDL_CONTROLLERDEVICEREMOVED:
      std::erase_if(impl_->controllers, [](const Controller& controller) {
        return !controller || SDL_GameControllerGetAttached(controller.get()) == SDL_FALSE;
      });
      return std::nullopt;
    case SDL_CONTROLLERBUTTONDOWN: {
      const auto key = key_of_button(event.cbutton.button);
      return key ? std::optional<Input>(KeyInput{.key = *key, .time = time}) : std::nullopt;
    }
    case SDL_CONTROLLERAXISMOTION:
      return impl_->stick(event.caxis, time);
    case SDL_APP_WILLENTERBACKGROUND:
      return ReasonInput{.what = ReasonInput::What::hold, .reason = "background", .time = time};
    case SDL_APP_DIDENTERFOREGROUND:
      return ReasonInput{.what = ReasonInput::What::release, .reason = "background", .time = time};
    case SDL_WINDOWEVENT:
      return impl_->of_window(event.window, time);
    default:
      return std::nullopt;
  }
}

ResizeInput SdlInputs::size() const {
  ResizeInput size = impl_->size();
  size.time = now();
  return size;
}

double SdlInputs::now() { return static_cast<double>(SDL_GetTicks64()) / 1000; }

}  // namespace apsidon
