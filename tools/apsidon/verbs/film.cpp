// apsidon film: what happens to a table, as a contact sheet, a moving picture, or numbers.
#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

#include "apsidon/draw/paint.hpp"
#include "apsidon/files/feel_file.hpp"
#include "apsidon/files/write_file.hpp"
#include "apsidon/studio/moving.hpp"
#include "apsidon/studio/sheets.hpp"
#include "shared/common.hpp"
#include "shared/motions.hpp"
#include "shared/progress.hpp"

namespace apsidon::tool {
namespace {

struct FilmOptions {
  TableOptions table;
  std::string motion = "deal";
  std::string feel;
  std::string art;
  std::string zone;
  std::string card;
  int count = 3;
  std::string out = "film.png";
  std::string sheet = "1280x800";
  int shots = 12;
  double rate = 0;
  std::uint64_t seed = 1;
  Format format = Format::text;
};

constexpr double longest = 600;  ///< seconds; a film that goes on longer is cut there

Motions motions_of(const FilmOptions& options) {
  return {.motion = options.motion,
          .zone = options.zone,
          .card = options.card,
          .count = options.count,
          .seed = options.seed};
}

/// The table when it begins, to how many cards it happens, and when all is over and at rest.
struct Film {
  Playfield field;
  std::size_t cards = 0;
  double end = 0;
};

Film begun(const FilmOptions& options) {
  Playfield field = load_playfield(options.table);
  if (!options.feel.empty()) field.performances().set_feel(feel_named(options.feel));
  const Begun motion = begin(field, motions_of(options));
  const double end = std::min(field.time().settles_at(), longest);
  return {std::move(field), motion.cards, end};
}

std::optional<Gallery> gallery_of(const FilmOptions& options) {
  return options.art.empty() ? std::nullopt : std::optional(load_gallery(options.art, options.table.trust));
}

std::string summary(const FilmOptions& options, const Film& film) {
  return fmt::format("{}: {} of {} {} in {:.2f} s", options.out, options.motion, film.cards,
                     film.cards == 1 ? "card" : "cards", film.end);
}

struct Sample {
  double time = 0;
  CardId card;
  Pose pose;
};

/// Calls `with(time, field)` at every step of the film, the last of them at its end.
template <class With>
void watch(Film& film, double rate, With with) {
  const auto steps = static_cast<long>(std::ceil(film.end * rate - 1e-9));
  Progress progress("frame", static_cast<std::size_t>(steps) + 1);
  for (long i = 0; i <= steps; ++i) {
    const double time = std::min(static_cast<double>(i) / rate, film.end);
    film.field.advance_to(time);
    with(time, film.field);
    progress.step();
  }
}

// The numbers go out as they come: of a long film at a high rate they are too many to be kept.

void print_csv(Film film, double rate) {
  print("time,card,face,zone,x,y,rotation_deg,scale,flip_deg,lift,opacity\n");
  watch(film, rate, [&](double time, const Playfield& field) {
    for (const Zone& zone : field.table().zones()) {
      for (const CardId id : zone.cards) {
        const Pose pose = *field.where().live_pose(id);
        print(fmt::format("{:.4f},{},{},{},{},{},{},{},{},{},{}\n", time, id.value,
                          csv(field.table().deck().text(field.table().card(id)->face)), csv(zone.name),
                          pose.centre.x, pose.centre.y, degrees(pose.rotation), pose.scale,
                          degrees(pose.flip), pose.lift, pose.opacity));
      }
    }
  });
}

nlohmann::ordered_json json_of(double time, Playfield& field) {
  nlohmann::ordered_json frame;
  frame["time"] = time;
  frame["events"] = nlohmann::ordered_json::array();
  while (const auto event = field.next_event(time)) {
    nlohmann::ordered_json e{{"time", event->time}, {"event", std::string(name_of(event->kind))}};
    if (event->card) e["card"] = event->card.value;
    if (!event->name.empty()) e["name"] = event->name;
    frame["events"].push_back(e);
  }
  frame["cards"] = nlohmann::ordered_json::array();
  for (const Zone& zone : field.table().zones()) {
    for (const CardId id : zone.cards) {
      const Pose pose = *field.where().live_pose(id);
      nlohmann::ordered_json c;
      c["card"] = id.value;
      c["face"] = field.table().deck().text(field.table().card(id)->face);
      c["zone"] = zone.name;
      c["x"] = pose.centre.x;
      c["y"] = pose.centre.y;
      c["rotation_deg"] = degrees(pose.rotation);
      c["scale"] = pose.scale;
      c["flip_deg"] = degrees(pose.flip);
      c["lift"] = pose.lift;
      c["opacity"] = pose.opacity;
      frame["cards"].push_back(c);
    }
  }
  return frame;
}

void print_frames(Film film, double rate) {
  bool first = true;
  print(opened_json("film", "frames"));
  watch(film, rate, [&](double time, Playfield& field) {
    print((std::exchange(first, false) ? "\n" : ",\n") + json_of(time, field).dump());
  });
  print("\n]}\n");
}

std::string title_of(const FilmOptions& options, double end) {
  const TableSetup setup = load_setup(options.table);
  const std::string feel = options.feel.empty() ? Feel{}.name : feel_named(options.feel).name;
  return fmt::format("{}{}, {} feel, {:.2f} s", setup.name.empty() ? "" : setup.name + ": ", options.motion,
                     feel, end);
}

void draw_sheet(const FilmOptions& options) {
  Film film = begun(options);
  const auto gallery = gallery_of(options);
  std::vector<Shot> shots;
  for (int i = 0; i < options.shots; ++i) {
    const double time = options.shots == 1 ? film.end : film.end * i / (options.shots - 1);
    film.field.advance_to(time);
    shots.push_back({.frame = film.field.frame(), .caption = fmt::format("{:.2f} s", time)});
  }
  contact_sheet(shots, film.field.table().deck(), title_of(options, film.end),
                parse_size("--sheet", options.sheet), 1, gallery ? &*gallery : nullptr)
      .write_png(options.out);
  print(fmt::format("{}, {} shots\n", summary(options, film), options.shots));
}

void draw_webp(const FilmOptions& options, double rate) {
  Film film = begun(options);
  const auto gallery = gallery_of(options);
  Painter painter(film.field.table().deck(), gallery ? &*gallery : nullptr);
  std::optional<MovingPicture> moving;
  double end = 0;
  int frames = 0;
  watch(film, rate, [&](double time, const Playfield& field) {
    const Picture picture = painter.paint(field.frame());
    if (!moving) moving.emplace(picture.width(), picture.height());
    if (frames > 0 && time - end < 0.002) return;  // the last one, all but at the time of the one before
    moving->add(picture, time);
    end = time;
    ++frames;
  });
  moving->write(options.out, end + 0.8);  // it rests a little before it begins again
  print(fmt::format("{}, {} frames\n", summary(options, film), frames));
}

void draw_svg(const FilmOptions& options, double rate) {
  Film film = begun(options);
  const auto gallery = gallery_of(options);
  std::vector<Shot> frames;
  watch(film, rate, [&](double time, const Playfield& field) {
    frames.push_back({.frame = field.frame(), .seconds = time});
  });
  write_file(options.out, moving_svg(frames, film.field.table().deck(), gallery ? &*gallery : nullptr));
  print(fmt::format("{}, {} frames\n", summary(options, film), frames.size()));
}

int run(const FilmOptions& options) {
  if (options.format == Format::csv) {
    print_csv(begun(options), options.rate > 0 ? options.rate : 60);
    return yes;
  }
  if (options.format == Format::json) {
    print_frames(begun(options), options.rate > 0 ? options.rate : 60);
    return yes;
  }
  expect_ending("--out", options.out, {".png", ".webp", ".svg"});
  expect_other_file(options.out, {options.table.file, options.art});
  make_folder_of(options.out);
  const double rate = options.rate > 0 ? options.rate : 25;
  constexpr double most = 120;  // a moving picture keeps all its frames until it is written
  if (rate > most && !options.out.ends_with(".png")) {
    throw Failure{bad_call, fmt::format("--rate {}: at most {} is expected of a moving picture", rate, most)};
  }
  if (options.out.ends_with(".webp")) {
    draw_webp(options, rate);
  } else if (options.out.ends_with(".svg")) {
    draw_svg(options, rate);
  } else {
    draw_sheet(options);
  }
  return yes;
}

}  // namespace

void add_film(CommandLine& line) {
  Words& words =
      line.verb("film", "What happens to a table: a contact sheet, a moving picture, or every pose");
  auto options = std::make_shared<FilmOptions>();
  options->table.add_to(words);
  words
      .choice("--motion", options->motion, {motion_names.begin(), motion_names.end()}, "MOTION",
              "What happens: " + all_motions() + "; deal unless stated")
      .text("--feel", options->feel, "FEEL",
            "brisk, springy, calm, reduced, or a feel file; brisk unless stated")
      .text("--art", options->art, "ART", "Cards drawn from the pictures of this art file")
      .text("--zone", options->zone, "ZONE", "Where it happens: what is shuffled, gathered or drawn to")
      .text("--card", options->card, "CARD", "To which card: of flip, shake, pulse, reveal, collect")
      .number("--count", options->count, 1, 1000, "N",
              "How many cards are drawn, shown or collected; 3 unless stated")
      .number("--seed", options->seed, 0, 1'000'000'000'000'000, "N", "Of a shuffle; 1 unless stated")
      .text("--out", options->out, "FILE",
            "film.png, a contact sheet, unless stated; or a moving .webp or .svg")
      .text("--sheet", options->sheet, "WxH", "Size of the contact sheet, px; 1280x800 unless stated")
      .number("--shots", options->shots, 1, 100, "N", "How many pictures on the sheet, 12 unless stated")
      .number("--rate", options->rate, 0, 1000, "HZ",
              "Frames a second, 25 in moving pictures and 60 in numbers unless stated")
      .format(options->format)
      .example("apsidon film data/potting-bench.table.json --motion shuffle --feel calm --out shuffle.webp")
      .does([options] { return run(*options); });
}

}  // namespace apsidon::tool
