// Plays a whole game in a real window: pointer and keys go through the X server, fingers through SDL.
#include <SDL.h>
#include <SDL_syswm.h>
#include <X11/extensions/XTest.h>
#include <X11/keysym.h>
#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <map>
#include <memory>
#include <string>

#include "apsidon/files/table_file.hpp"
#include "apsidon/sdl/sdl_window.hpp"
#include "games/strategies.hpp"

namespace {

using namespace apsidon;

struct Asked {
  std::string game;
  std::string table;
  std::uint64_t seed = 1;
  Size window = {};
  games::Means means = games::Means::mouse;
  std::string shots = {};  // a folder, or empty
};

/// Somebody at the window: what they do is seen by the game only when the window tells it.
template <class Game>
class AtTheWindow final : public games::Player {
 public:
  /// The table goes so many times faster than the clock, so that a round takes less than a minute.
  static constexpr double speed = 8;

  AtTheWindow(Game& game, SdlWindow& window, const Asked& asked)
      : Player(game, asked.means),
        game_(game),
        window_(window),
        asked_(asked),
        server_(XOpenDisplay(nullptr)) {
    SDL_SysWMinfo info;
    SDL_VERSION(&info.version);
    SDL_GetWindowWMInfo(window.window(), &info);
    at_ = info.info.x11.window;
    game.field().time().set_speed(speed);
  }

  void wait(double seconds) override {
    const double until = window_.now() + seconds / speed;
    do {
      window_.redraw();  // a window at rest takes its time
      if (!window_.next(game_.field())) throw Error("the window was closed");
      game_.go_to(window_.now());
      const std::uint64_t before = window_.frames();
      window_.show(game_.field());
      if (window_.frames() > before) shoot();
    } while (window_.now() < until);
  }

 protected:
  bool send(const Input& input) override {
    if (const auto* pointer = std::get_if<PointerInput>(&input)) point(*pointer);
    if (const auto* key = std::get_if<KeyInput>(&input)) press(key->key);
    wait(0.02);
    return true;
  }

 private:
  void point(const PointerInput& pointer) {
    if (means() == games::Means::touch) return touch(pointer);
    int x = 0, y = 0;
    ::Window child = 0;
    XTranslateCoordinates(server_.get(), at_, DefaultRootWindow(server_.get()),
                          static_cast<int>(std::lround(pointer.at.x)),
                          static_cast<int>(std::lround(pointer.at.y)), &x, &y, &child);
    XTestFakeMotionEvent(server_.get(), -1, x, y, CurrentTime);
    if (pointer.phase == PointerPhase::down || pointer.phase == PointerPhase::up)
      XTestFakeButtonEvent(server_.get(), 1, pointer.phase == PointerPhase::down ? True : False, CurrentTime);
    XSync(server_.get(), False);
  }

  void touch(const PointerInput& pointer) {
    SDL_Event event{};
    event.type = pointer.phase == PointerPhase::down ? std::uint32_t{SDL_FINGERDOWN}
                 : pointer.phase == PointerPhase::up ? std::uint32_t{SDL_FINGERUP}
                                                     : std::uint32_t{SDL_FINGERMOTION};
    event.tfinger.timestamp = SDL_GetTicks();
    event.tfinger.fingerId = 7;
    event.tfinger.x = pointer.at.x / asked_.window.width;
    event.tfinger.y = pointer.at.y / asked_.window.height;
    SDL_PushEvent(&event);
  }

  void press(Key key) {
    static const std::map<Key, KeySym> keys{{Key::next, XK_Tab}, {Key::act, XK_space}};
    const KeyCode code = XKeysymToKeycode(server_.get(), keys.at(key));
    XTestFakeKeyEvent(server_.get(), code, True, CurrentTime);
    XTestFakeKeyEvent(server_.get(), code, False, CurrentTime);
    XSync(server_.get(), False);
  }

  /// A picture of every 40th frame.
  void shoot() {
    if (asked_.shots.empty() || window_.frames() % 40 != 0) return;
    window_.picture(game_.field())
        .write_png(std::filesystem::path(asked_.shots) / fmt::format("{:05}.png", window_.frames()));
  }

  struct Close {
    void operator()(Display* server) const { XCloseDisplay(server); }
  };
  Game& game_;
  SdlWindow& window_;
  const Asked& asked_;
  std::unique_ptr<Display, Close> server_;
  ::Window at_ = 0;
};

template <class Game, class Play>
int play(const Asked& asked, Play how) {
  const auto setup = load_table(asked.table);
  if (!setup) throw Error(describe(setup.error().front()));
  SdlWindow window({.title = asked.game, .size = asked.window});
  Game game(*setup, asked.seed, window.options());
  AtTheWindow<Game> player(game, window, asked);
  how(game, player, *setup);
  player.wait(12);  // the finale, and the box
  if (!asked.shots.empty())
    window.picture(game.field()).write_png(std::filesystem::path(asked.shots) / "end.png");
  const auto box = game.field().where().find_panel("over");
  fmt::print("{}; {}; {} frames in {:.0f} s; {}\n", game.score(), game.over() ? "over" : "not over",
             window.frames(), window.now(),
             box && !game.field().switches().is_hidden(*box) ? "the box shows" : "there is no box");
  return 0;
}

}  // namespace

/// GAME TABLE SEED WIDTHxHEIGHT mouse|touch|keys [SHOTS]
int main(int argc, char** argv) {
  if (argc < 6) return 2;
  Asked asked{.game = argv[1], .table = argv[2], .seed = std::stoull(argv[3])};
  const std::string size = argv[4], means = argv[5];
  asked.window = {std::stof(size), std::stof(size.substr(size.find('x') + 1))};
  asked.means = means == "touch"  ? games::Means::touch
                : means == "keys" ? games::Means::keys
                                  : games::Means::mouse;
  if (argc > 6) std::filesystem::create_directories(asked.shots = argv[6]);
  try {
    if (asked.game == "potting-bench")
      return play<games::PottingBench>(asked, [](auto& game, auto& player, const TableSetup& setup) {
        games::play(game, player, setup.rulebook());
      });
    const auto by_itself = [](auto& game, auto& player, const TableSetup&) { games::play(game, player); };
    if (asked.game == "seed-drawer") return play<games::SeedDrawer>(asked, by_itself);
    if (asked.game == "market-stall") return play<games::MarketStall>(asked, by_itself);
    if (asked.game == "trellis") return play<games::Trellis>(asked, by_itself);
  } catch (const std::exception& error) {
    fmt::print(stderr, "{}\n", error.what());
  }
  return 1;
}
