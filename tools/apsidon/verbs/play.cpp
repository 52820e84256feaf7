// apsidon play: a table in a window.
#include <SDL.h>
#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <filesystem>
#include <limits>
#include <tuple>

#include "apsidon/files/feel_file.hpp"
#include "apsidon/files/input_log.hpp"
#include "apsidon/files/read_file.hpp"
#include "apsidon/files/table_file.hpp"
#include "apsidon/files/write_file.hpp"
#include "apsidon/sdl/sdl_window.hpp"
#include "bench/bench_view.hpp"
#include "bench/lone_bench.hpp"
#include "bench/saved_knobs.hpp"
#include "shared/common.hpp"
#include "shared/motions.hpp"
#include "window/log_player.hpp"
#include "window/watched_files.hpp"

namespace apsidon::tool {
namespace {

namespace fs = std::filesystem;

struct PlayOptions {
  std::string table;
  std::string window = "1280x800";
  std::string card;
  std::string art;
  std::string feel;
  std::string log;
  std::string record;
  std::string shots;
  std::uint64_t seed = 0;
  int frames = 0;
  bool full_screen = false;
  bool reduced_motion = false;
  bool no_deal = false;
  bool bench = false;
  bool trust = false;
};

double seconds_since(std::chrono::steady_clock::time_point begin) {
  return std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
}

/// Whether a key of this name has just been pressed, by itself.
bool pressed(const SDL_Event& event, const char* name) {
  constexpr std::uint16_t others = KMOD_CTRL | KMOD_ALT | KMOD_GUI;
  return event.type == SDL_KEYDOWN && event.key.repeat == 0 && (event.key.keysym.mod & others) == 0 &&
         event.key.keysym.sym == SDL_GetKeyFromName(name);
}

/// How long frames took, for whoever asks for so many of them.
struct Spent {
  double core = 0;
  double drawing = 0;
  double presenting = 0;
  double worst = 0;  ///< of one frame
  std::uint64_t frames = 0;
  double first = 0, last = 0;  ///< when they were shown

  void add(double now, double in_core, const SdlFrameTimes& times) {
    if (frames == 0) first = now;
    last = now;
    core += in_core;
    drawing += times.drawing;
    presenting += times.presenting;
    worst = std::max(worst, in_core + times.drawing + times.presenting);
    ++frames;
  }
  [[nodiscard]] std::string text() const {
    const double n = std::max(static_cast<double>(frames), 1.0) / 1000;
    return fmt::format(
        "{} frames drawn: core {:.3f} ms, drawing {:.2f} ms, presenting {:.2f} ms on average; the "
        "longest {:.2f} ms; {:.1f} frames a second\n",
        frames, core / n, drawing / n, presenting / n, worst * 1000,
        last > first ? static_cast<double>(frames - 1) / (last - first) : 0.0);
  }
};

/// The window, the table in it, and the files that both are made from.
class Session {
 public:
  explicit Session(const PlayOptions& options)
      : options_(options),
        feel_file_(feel_file_of(options)),
        setup_(load_setup({.file = options.table, .trust = options.trust})),
        player_(options.log.empty() ? std::nullopt
                                    : std::optional<LogPlayer>(or_fail(load_log(options.log, setup_)))),
        window_({.title = "Apsidon",
                 .size = player_ ? player_->options(0).window : parse_size("--window", options.window),
                 .full_screen = options.full_screen}),
        bench_(window_),
        files_({options.table, deck_of(options.table), options.art, feel_file_}) {
    reload();
    window_.set_event_filter([this](const SDL_Event& event) { return take(event); });
    window_.set_overlay([this](SDL_Renderer* renderer) { bench_.panel().draw(renderer); });
    bench_.panel().open(options.bench);
    begun_ = setup_;
    log_.table = fingerprint(begun_);
    log_.options = player_ ? player_->options(window_.now()) : window_.options();
    if (!player_) log_.options.feel = feel();
    field_.emplace(setup_, log_.options);
    if (!options.record.empty())
      field_->set_recorder(Recorder([this](const Input& input) { log_.inputs.push_back(input); }));
    if (player_) {
      size_ = window_.options().window;
    } else if (options.seed > 0 && setup_.round.stock) {
      field_->start_round(options.seed, true);
    } else if (!options.no_deal) {
      field_->performances().deal();
    }
  }

  int run() {
    if (!options_.shots.empty()) make_folder_of(options_.shots + "/x");
    int shown = 0;
    constexpr double longest_sleep = 0.08;  // seconds until changed files, logs and the bench are looked at
    while (window_.next(*field_, window_.now() + longest_sleep)) {
      if (player_) player_->feed(*field_, window_.now());
      double in_core = 0;  // what is made of its events is not
      const auto timed = [&](const auto& work) {
        const auto begin = std::chrono::steady_clock::now();
        auto made = work();
        in_core += seconds_since(begin);
        return made;
      };
      const double now = window_.now();
      while (const auto event = timed([&] { return field_->next_event(now); })) hear(*event);
      (void)timed([&] { return field_->frame().revision; });
      make_room();
      answer(bench_.panel().is_needed() ? bench_.update(*field_, setup_, player_ ? &*player_ : nullptr)
                                        : BenchRequests{});
      const std::uint64_t before = window_.frames();
      window_.show(*field_);
      if (window_.frames() > before) {
        spent_.add(window_.now(), in_core, window_.times());
        bench_.panel().note_frame((in_core + window_.times().drawing + window_.times().presenting) * 1000,
                                  in_core * 1000);
        if (options_.frames > 0) shoot(++shown);
      }
      if (files_.changed()) look_again();
      if (options_.frames > 0 && (shown >= options_.frames || waited_long_enough())) break;
    }
    if (!options_.record.empty()) {
      make_folder_of(options_.record);
      write_file(options_.record, write_log(log_, begun_));
      print(fmt::format("{}: {} inputs\n", options_.record, log_.inputs.size()));
    }
    if (options_.frames > 0) print(spent_.text());
    return yes;
  }

 private:
  /// Keys of the session's own: F11 for the whole screen, F12 for a picture, N for a new round.
  bool take(const SDL_Event& event) {
    if (bench_.panel().take(event)) return true;
    if (pressed(event, "F11")) window_.set_full_screen(!window_.full_screen());
    if (pressed(event, "F12")) take_picture();
    if (pressed(event, "N")) new_round();
    return pressed(event, "F11") || pressed(event, "F12") || pressed(event, "N");
  }

  /// Into the working folder, under a name that is free.
  void take_picture() {
    const std::string stem = fs::path(options_.table).stem().stem().string();
    std::string name;
    for (int i = 1; name.empty() || fs::exists(name); ++i) name = fmt::format("{}-{}.png", stem, i);
    window_.picture(*field_).write_png(name);
    say("saved: " + name, true);
  }

  void hear(const Event& event) {
    bench_.hear(event, *field_);
    if (plays_back()) return;  // what followed then is in the log
    if (event.kind == EventKind::tapped && event.panel) {
      const std::string& button = field_->where().panels()[event.panel.value - 1].name;
      if (button == "undo") (void)field_->moves().undo();
      if (button == "redo") (void)field_->moves().redo();
      if (button == "new") new_round_ = true;
    }
    const PanelId undo = field_->where().find_panel("undo").value_or(PanelId{});
    if (const bool can = field_->moves().can_undo(); undo && field_->switches().is_off(undo) == can)
      can ? field_->switches().switch_on(undo) : field_->switches().switch_off(undo);
    if (event.kind == EventKind::won || event.kind == EventKind::lost || event.kind == EventKind::no_moves)
      say(describe(event, *field_), event.kind == EventKind::won);
  }

  [[nodiscard]] bool plays_back() const { return player_ && player_->at() < player_->length(); }

  /// The table lies beside the bench; a session that is played back has its own size.
  void make_room() {
    if (plays_back()) return;
    const PlayfieldOptions now = window_.options();
    const Insets wanted = bench_.panel().insets(now.window);
    if (wanted == insets_ && now.window == size_) return;
    insets_ = wanted;
    size_ = now.window;
    field_->resize(now.window, now.pixel_ratio, window_.now(), wanted);
  }

  void new_round() {
    if (setup_.round.stock) {
      field_->start_round(++rounds_ + options_.seed, true);
    } else {
      field_->start_over(setup_);
      field_->performances().deal();
    }
  }

  void answer(const BenchRequests& requests) {
    if (requests.deal) field_->performances().deal();
    if (requests.new_round || std::exchange(new_round_, false)) new_round();
    if (requests.run_log) player_->run(*requests.run_log);
    if (requests.log_at) player_->go_to(*requests.log_at, setup_, field_, window_.now());
    if (requests.save_table) {
      const std::string text = or_fail(read_file(options_.table));
      const SavedKnobs saved =
          with_knobs(text, load_setup({.file = options_.table, .trust = options_.trust}), setup_);
      write_file(options_.table, saved.text);
      files_.pass_over_changes();
      std::string sentence = "saved: " + options_.table;
      for (const std::string& left : saved.left_out) {
        print_error("apsidon play: " + printable(left));
        sentence += "\n" + left;
      }
      say(sentence, saved.left_out.empty());
    }
    if (requests.save_feel) {
      const std::string name = feel_file_.empty() ? feel_beside(options_.table) : feel_file_;
      write_file(name, write_feel(field_->performances().feel()));
      say("saved: " + name +
              (feel_file_.empty() && options_.feel.empty() ? ", with which the table is played from now on"
                                                           : ""),
          true);
    }
  }

  void say(const std::string& sentence, bool good = false) {
    bench_.panel().set_message(sentence, good);
    window_.redraw();
  }

  /// All of the files, or none where one cannot be read.
  void reload() {
    TableSetup setup = load_setup({.file = options_.table, .trust = options_.trust});
    std::optional<Gallery> gallery;
    if (!options_.art.empty()) gallery.emplace(load_gallery(options_.art, options_.trust));
    setup_ = std::move(setup);
    window_.set_gallery(nullptr);
    gallery_ = std::move(gallery);
    window_.set_gallery(gallery_ ? &*gallery_ : nullptr);
  }

  /// The file in which a table has its deck; empty where that is in the table itself.
  static std::string deck_of(const std::string& table) {
    const auto json = nlohmann::json::parse(or_fail(read_file(table)), nullptr, false);
    const auto deck = json.is_object() ? json.value("deck", nlohmann::json()) : nlohmann::json();
    return deck.is_string() ? (fs::path(table).parent_path() / deck.get<std::string>()).string() : "";
  }

  /// "potting-bench.feel.json" of "potting-bench.table.json".
  static std::string feel_beside(const std::string& table) {
    constexpr std::string_view ending = ".table.json";
    const bool usual = table.ends_with(ending);
    return (usual ? table.substr(0, table.size() - ending.size()) : table) + ".feel.json";
  }
  /// The file that was asked for, or that lies beside the table; none for a feel by its name.
  static std::string feel_file_of(const PlayOptions& options) {
    std::error_code error;
    if (!options.feel.empty()) return fs::is_regular_file(options.feel, error) ? options.feel : "";
    const std::string beside = feel_beside(options.table);
    return fs::is_regular_file(beside, error) ? beside : "";
  }

  [[nodiscard]] Feel feel() const {
    const std::string& name = options_.feel.empty() ? feel_file_ : options_.feel;
    Feel feel = name.empty() ? Feel{} : feel_named(name);
    return options_.reduced_motion ? reduced(feel) : feel;
  }

  /// A saved change shows at once; a file that cannot be read leaves the table as it is.
  void look_again() {
    try {
      const TableSetup before = setup_;
      reload();
      if (!keep_position(before)) field_->start_over(setup_);
      field_->performances().set_feel(feel());
      say("");
    } catch (const Failure& failure) {
      print_error("apsidon play: " + (failure.lines ? failure.message : printable(failure.message)));
      say(failure.message);
    }
  }

  /// Where the file still has the same zones, panels and cards, only how they lie and are played has changed:
  /// the game goes on.
  bool keep_position(const TableSetup& before) {
    const auto same = [](const auto& a, const auto& b, const auto& name) {
      return std::equal(a.begin(), a.end(), b.begin(), b.end(),
                        [&](const auto& x, const auto& y) { return name(x) == name(y); });
    };
    const auto zone = [](const Zone& z) { return std::pair(z.name, z.cards); };
    const auto panel = [](const PanelSetup& p) {
      return std::tuple(p.name, p.kind, p.round, p.hidden, p.off);
    };
    if (!(before.table.deck() == setup_.table.deck()) ||
        !same(before.table.zones(), setup_.table.zones(), zone) ||
        !same(before.panels, setup_.panels, panel) ||
        !same(field_->table().zones(), setup_.table.zones(), [](const Zone& z) { return z.name; })) {
      return false;
    }
    for (const Zone& z : setup_.table.zones()) {
      if (!field_->edits().set_behaviour(z.id, setup_.behaviour_of(z.id))) return false;
    }
    field_->edits().set_plans(setup_.plans);
    set_what_differs(before);
    return true;
  }

  /// What the file says otherwise of its cards and panels than before; what the game made of the rest stays.
  void set_what_differs(const TableSetup& before) {
    for (const Zone& z : setup_.table.zones()) {
      for (const CardId id : z.cards) {
        const Card &was = *before.table.card(id), &is = *setup_.table.card(id);
        if (was.face != is.face) (void)field_->edits().set_face(id, is.face);
        if (was.face_up != is.face_up) (void)field_->edits().flip(id, is.face_up);
        if (was.sideways != is.sideways) (void)field_->edits().set_sideways(id, is.sideways);
      }
    }
    for (std::uint32_t i = 0; i < setup_.panels.size(); ++i) {
      const PanelSetup &was = before.panels[i], &is = setup_.panels[i];
      if (was.text != is.text || was.fill != is.fill) field_->edits().set_panel({i + 1}, is.text, is.fill);
      if (was.tone != is.tone) field_->edits().set_tone({i + 1}, is.tone);
    }
  }

  /// Twelve pictures, evenly over all frames.
  void shoot(int frame) {
    if (options_.shots.empty()) return;
    constexpr int shots = 12;
    if (frame * shots / options_.frames == (frame - 1) * shots / options_.frames) return;
    window_.picture(*field_).write_png(fs::path(options_.shots) / fmt::format("frame-{:04}.png", frame));
  }

  /// Nothing may move any more, long before so many frames were drawn.
  [[nodiscard]] bool waited_long_enough() {
    const double now = window_.now();
    if (window_.frames() != seen_) {
      seen_ = window_.frames();
      since_ = now;
    }
    constexpr double quiet = 1;
    return now - since_ > quiet;
  }

  const PlayOptions& options_;
  std::string feel_file_;
  TableSetup setup_;
  std::optional<LogPlayer> player_;
  SdlWindow window_;
  BenchView bench_;
  WatchedFiles files_;
  TableSetup begun_{standard_deck()};  // with which the log begins
  std::optional<Gallery> gallery_ = {};
  std::optional<Playfield> field_ = {};
  InputLog log_ = {};
  Spent spent_ = {};
  bool new_round_ = false;  // a button has asked for it
  std::uint64_t rounds_ = 0;
  Insets insets_ = {};
  Size size_ = {};
  std::uint64_t seen_ = 0;
  double since_ = 0;
};

/// A deck by itself: one of its cards.
int run_card(const PlayOptions& options) {
  const Deck deck = or_fail(load_deck(options.table));
  if (!options.card.empty() && !deck.find(options.card))
    throw Failure{bad_call, fmt::format("--card: '{}' is no face of {}, whose first is {}", options.card,
                                        options.table, deck.text(deck.faces().front()))};
  show_lone_card(deck, {.face = options.card,
                        .window = parse_size("--window", options.window),
                        .feel = options.feel.empty() ? Feel{} : feel_named(options.feel),
                        .frames = options.frames});
  return yes;
}

int run(const PlayOptions& options) {
  try {
    if (options.table.ends_with(".deck.json") || !options.card.empty()) return run_card(options);
    return Session(options).run();
  } catch (const Error& e) {
    throw Failure{no, e.what()};  // no display, as a rule
  }
}

}  // namespace

void add_play(CommandLine& line) {
  Words& words = line.verb("play", "A table in a window, to be played; without anybody: --frames");
  auto options = std::make_shared<PlayOptions>();
  words
      .required_text("table", options->table, "TABLE",
                     "The table file; or a deck file, of which one card shows")
      .text("--window", options->window, "WxH", "Size of the window in px, 1280x800 unless stated")
      .text("--card", options->card, "FACE", "Of a deck file: the card that shows on the bench")
      .text("--art", options->art, "ART", "Cards drawn from the pictures of this art file")
      .text(
          "--feel", options->feel, "FEEL",
          "brisk, springy, calm, reduced, or a feel file; unless stated the one beside the table, else brisk")
      .number("--seed", options->seed, 1, 1'000'000'000'000'000, "N",
              "Deals a round by this seed, where the table has rounds")
      .text("--log", options->log, "LOG", "Plays this session back")
      .text("--record", options->record, "FILE", "Writes the session to this input log")
      .number("--frames", options->frames, 1, 1'000'000, "N",
              "Ends after so many frames, or when all is at rest")
      .text("--shots", options->shots, "FOLDER", "Twelve pictures of these frames, in this folder")
      .flag("--full-screen", options->full_screen, "Over the whole screen")
      .flag("--reduced-motion", options->reduced_motion, "Nothing is ever between two places")
      .flag("--bench", options->bench, "With the bench, which F1 opens and closes")
      .flag("--no-deal", options->no_deal, "Cards lie where they belong from the start")
      .flag("--trust", options->trust, "The files that the table and the art name may lie anywhere")
      .example("apsidon play data/potting-bench.table.json")
      .example("apsidon play data/trellis.table.json --window 390x844 --frames 100 --shots shots")
      .example("apsidon play data/glasshouse.deck.json --card fern-12")
      .does([options] { return run(*options); });
}

}  // namespace apsidon::tool
