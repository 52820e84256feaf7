#include "apsidon/sdl/sdl_window.hpp"

#include <SDL.h>
#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <optional>
#include <string_view>

#include "apsidon/geometry/error.hpp"
#include "apsidon/play/hand_group.hpp"
#include "apsidon/play/where_group.hpp"
#include "apsidon/sdl/sdl_inputs.hpp"
#include "apsidon/sdl/sdl_painter.hpp"
#include "geometry/hide.hpp"

namespace apsidon {
namespace {

struct DestroyWindow {
  void operator()(SDL_Window* window) const { SDL_DestroyWindow(window); }
};
struct DestroyRenderer {
  void operator()(SDL_Renderer* renderer) const { SDL_DestroyRenderer(renderer); }
};

/// SDL is begun with the first window, and ended with the last.
class Sdl {
 public:
  Sdl() {
    SDL_SetHint(SDL_HINT_VIDEO_X11_NET_WM_BYPASS_COMPOSITOR, "0");
    if (SDL_Init(SDL_INIT_VIDEO | SDL_INIT_GAMECONTROLLER) != 0)
      throw Error(fmt::format("window: {}: a display is expected", SDL_GetError()));
    // Where it finds no display SDL takes a way that nobody sees, unless one was asked for.
    const std::string_view driver = SDL_GetCurrentVideoDriver();
    const bool asked = SDL_GetHint(SDL_HINT_VIDEODRIVER) != nullptr;
    if (asked || (driver != "offscreen" && driver != "dummy" && driver != "evdev" && driver != "KMSDRM"))
      return;
    SDL_Quit();
    throw Error("window: there is no display: one is expected, as on a desktop or under xvfb-run");
  }
  Sdl(const Sdl&) = delete;
  Sdl& operator=(const Sdl&) = delete;
  ~Sdl() { SDL_QuitSubSystem(SDL_INIT_VIDEO | SDL_INIT_GAMECONTROLLER); }
};

double seconds_between(std::chrono::steady_clock::time_point from, std::chrono::steady_clock::time_point to) {
  return std::chrono::duration<double>(to - from).count();
}

constexpr double frame_seconds = 1.0 / 60;

std::uint32_t full_screen_flag(bool full) { return full ? std::uint32_t{SDL_WINDOW_FULLSCREEN_DESKTOP} : 0u; }

}  // namespace

struct SdlWindow::Impl {
  Sdl sdl = {};
  std::unique_ptr<SDL_Window, DestroyWindow> window = {};
  std::unique_ptr<SDL_Renderer, DestroyRenderer> renderer = {};
  std::optional<SdlInputs> inputs = {};
  std::optional<SdlPainter> painter = {};
  std::optional<Deck> deck = {};
  const Gallery* gallery = nullptr;
  std::function<bool(const SDL_Event&)> filter = {};
  std::function<void(SDL_Renderer*)> overlay = {};
  bool closed = false;
  bool synchronised = false;  // presenting waits for the display
  bool unfinished = true;
  std::uint64_t shown = 0;  // revision
  std::uint64_t frames = 0;
  double next_at = 0;  // when the next frame is due
  SdlFrameTimes times = {};

  explicit Impl(const SdlWindowOptions& options) {
    const auto length = [](float px) { return std::clamp(static_cast<int>(px), 1, 16384); };
    const std::uint32_t flags = std::uint32_t{SDL_WINDOW_RESIZABLE} | SDL_WINDOW_ALLOW_HIGHDPI |
                                full_screen_flag(options.full_screen);
    window.reset(SDL_CreateWindow(options.title.c_str(), SDL_WINDOWPOS_CENTERED, SDL_WINDOWPOS_CENTERED,
                                  length(options.size.width), length(options.size.height), flags));
    if (!window) throw Error(fmt::format("window: {}: a display with windows is expected", SDL_GetError()));
    renderer.reset(SDL_CreateRenderer(window.get(), -1, SDL_RENDERER_PRESENTVSYNC));
    if (!renderer) renderer.reset(SDL_CreateRenderer(window.get(), -1, SDL_RENDERER_SOFTWARE));
    if (!renderer) throw Error(fmt::format("window: {}: a renderer is expected", SDL_GetError()));
    if (is_emulated()) {
      renderer.reset();
      SDL_SetHint(SDL_HINT_FRAMEBUFFER_ACCELERATION, "0");  // nor for what that has drawn
      renderer.reset(SDL_CreateRenderer(window.get(), -1, SDL_RENDERER_SOFTWARE));
    }
    SDL_RendererInfo info{};
    SDL_GetRendererInfo(renderer.get(), &info);
    synchronised = (info.flags & SDL_RENDERER_PRESENTVSYNC) != 0 && (info.flags & SDL_RENDERER_SOFTWARE) == 0;
    inputs.emplace(window.get());
  }

  /// Whether a graphics library only does as if there was a graphics card: SDL's own way is faster then.
  [[nodiscard]] bool is_emulated() const {
    using GetString = const unsigned char* (*)(unsigned);
    constexpr unsigned renderer_name = 0x1F01;
    if (!SDL_GL_GetCurrentContext()) return false;
    const auto get_string = reinterpret_cast<GetString>(SDL_GL_GetProcAddress("glGetString"));
    const unsigned char* found = get_string ? get_string(renderer_name) : nullptr;
    const std::string_view name = found ? reinterpret_cast<const char*>(found) : "";
    return name.find("llvmpipe") != std::string_view::npos || name.find("softpipe") != std::string_view::npos;
  }

  void take(const SDL_Event& event, const std::function<void(const Input&)>& hear, Playfield* field) {
    if (filter && filter(event)) return;
    if (event.type == SDL_QUIT) closed = true;
    if (event.type == SDL_WINDOWEVENT && event.window.event == SDL_WINDOWEVENT_EXPOSED) unfinished = true;
    if (event.type == SDL_RENDER_TARGETS_RESET || event.type == SDL_RENDER_DEVICE_RESET) painter.reset();
    if (event.type == SDL_MOUSEWHEEL && field) return scroll(event.wheel, *field);
    if (const auto input = inputs->read(event)) hear(*input);
  }

  /// A wheel scrolls the zone below the mouse, if there is more of it than shows.
  static void scroll(const SDL_MouseWheelEvent& wheel, Playfield& field) {
    int x = 0, y = 0;
    SDL_GetMouseState(&x, &y);
    const ZoneId zone = field.where().hit({static_cast<float>(x), static_cast<float>(y)}).zone;
    if (!zone) return;
    const float step = field.where().card_size().height / 3;
    const float turned = wheel.y != 0 ? -wheel.preciseY : wheel.preciseX;
    field.where().scroll_to(zone, field.where().offset(zone) + turned * step);
  }

  /// How long nothing has to be done, ms; -1 for ever.
  [[nodiscard]] int wait(double next_due) const {
    const bool hidden = (SDL_GetWindowFlags(window.get()) & (SDL_WINDOW_HIDDEN | SDL_WINDOW_MINIMIZED)) != 0;
    if (hidden) return 500;  // what is drawn now is not seen
    const double now = SdlInputs::now();
    if (!unfinished && next_due > now) {
      constexpr double longest = 1e6;  // seconds: more is for ever
      return next_due - now > longest ? -1 : static_cast<int>(std::ceil((next_due - now) * 1000));
    }
    if (synchronised) return 0;
    return std::clamp(static_cast<int>((next_at - now) * 1000), 0, 16);
  }

  /// False once it is closed.
  bool wait_and_take(int milliseconds, const std::function<void(const Input&)>& hear, Playfield* field) {
    SDL_Event event;
    if (SDL_WaitEventTimeout(&event, milliseconds) != 0) {
      do {
        take(event, hear, field);
      } while (SDL_PollEvent(&event) != 0);
    }
    return !closed;
  }
};

SdlWindow::SdlWindow(const SdlWindowOptions& options) : impl_(geometry_detail::hide<Impl>(options)) {}

PlayfieldOptions SdlWindow::options() const {
  const ResizeInput size = impl_->inputs->size();
  return {.window = size.window, .pixel_ratio = size.pixel_ratio, .start_time = size.time};
}

bool SdlWindow::next(Playfield& field, double latest) {
  const auto hear = [&](const Input& input) { (void)field.input(input); };
  // What was drawn meanwhile may not have been shown yet.
  const double due = field.frame().revision == impl_->shown ? field.next_due() : field.now();
  return impl_->wait_and_take(impl_->wait(std::min(due, latest)), hear, &field);
}

bool SdlWindow::next(const std::function<void(const Input&)>& hear, double next_due) {
  return impl_->wait_and_take(impl_->wait(next_due), hear, nullptr);
}

void SdlWindow::show(const Playfield& field) { show(field.frame(), field.table().deck()); }

void SdlWindow::show(const Frame& frame, const Deck& deck) {
  Impl& w = *impl_;
  if (frame.revision == w.shown && !w.unfinished) return;
  if (!w.synchronised && SdlInputs::now() < w.next_at) return;
  w.next_at = std::max(w.next_at + frame_seconds, SdlInputs::now());
  using Steady = std::chrono::steady_clock;
  const auto begin = Steady::now();
  draw(frame, deck);
  const auto drawn = Steady::now();
  SDL_RenderPresent(w.renderer.get());
  w.times = {seconds_between(begin, drawn), seconds_between(drawn, Steady::now())};
  w.shown = frame.revision;
  ++w.frames;
}

void SdlWindow::draw(const Frame& frame, const Deck& deck) {
  Impl& w = *impl_;
  if (!w.painter || !w.deck || *w.deck != deck) {
    w.deck = deck;
    w.painter.emplace(w.renderer.get(), *w.deck, w.gallery);
  }
  w.unfinished = !w.painter->draw(frame);
  if (w.overlay) w.overlay(w.renderer.get());
}

double SdlWindow::now() const { return SdlInputs::now(); }

void SdlWindow::set_gallery(const Gallery* gallery) {
  if (!gallery && !impl_->gallery) return;  // what was drawn without pictures is still right
  impl_->gallery = gallery;
  impl_->painter.reset();
  redraw();
}

void SdlWindow::set_full_screen(bool full) {
  SDL_SetWindowFullscreen(impl_->window.get(), full_screen_flag(full));
}
bool SdlWindow::full_screen() const {
  return (SDL_GetWindowFlags(impl_->window.get()) & SDL_WINDOW_FULLSCREEN_DESKTOP) != 0;
}
void SdlWindow::close() { impl_->closed = true; }
void SdlWindow::redraw() { impl_->unfinished = true; }
void SdlWindow::set_event_filter(std::function<bool(const SDL_Event&)> filter) {
  impl_->filter = std::move(filter);
}
void SdlWindow::set_overlay(std::function<void(SDL_Renderer*)> draw) {
  impl_->overlay = std::move(draw);
  redraw();
}

Picture SdlWindow::picture(const Playfield& field) {
  // What was presented may be gone: it is drawn again, until all of its cards are there.
  for (impl_->unfinished = true; impl_->unfinished;) draw(field.frame(), field.table().deck());
  Pixels pixels;
  SDL_GetRendererOutputSize(impl_->renderer.get(), &pixels.width, &pixels.height);
  pixels.all.resize(static_cast<std::size_t>(pixels.width) * static_cast<std::size_t>(pixels.height));
  SDL_RenderReadPixels(impl_->renderer.get(), nullptr, SDL_PIXELFORMAT_RGBA32, pixels.all.data(),
                       4 * pixels.width);
  impl_->unfinished = true;
  return Picture::of(pixels);
}

SdlFrameTimes SdlWindow::times() const { return impl_->times; }
std::uint64_t SdlWindow::frames() const { return impl_->frames; }
SDL_Window* SdlWindow::window() const { return impl_->window.get(); }
SDL_Renderer* SdlWindow::renderer() const { return impl_->renderer.get(); }

}  // namespace apsidon
