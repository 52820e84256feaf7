// apsidon film: an animation of a table, as a contact sheet or as numbers.
#include <fmt/format.h>

#include <cmath>

#include "apsidon/draw/sheets.hpp"
#include "common.hpp"

namespace apsidon::tool {
namespace {

struct Options {
  TableOptions table;
  std::string motion = "deal";
  std::string out = "film.png";
  std::string sheet = "1280x800";
  int shots = 12;
  double rate = 60;
  Format format = Format::text;
};

constexpr double longest = 600;  ///< seconds; a film that goes on longer is cut there

struct Sample {
  double time = 0;
  CardId card;
  Pose pose;
};

/// The poses of all cards at every step of the film, the last of them at rest.
std::vector<Sample> sample(Playfield& field, double rate) {
  std::vector<Sample> samples;
  const double end = std::min(field.settles_at(), longest);
  const auto steps = static_cast<long>(std::ceil(end * rate - 1e-9));
  for (long i = 0; i <= steps; ++i) {
    const double time = std::min(static_cast<double>(i) / rate, end);
    field.advance_to(time);
    for (const Zone& zone : field.table().zones()) {
      for (const CardId card : zone.cards) samples.push_back({time, card, *field.live_pose(card)});
    }
  }
  return samples;
}

std::string csv_of(const Playfield& field, const std::vector<Sample>& samples) {
  std::string out = "time,card,face,zone,x,y,rotation_deg,scale,flip_deg,lift,opacity\n";
  for (const Sample& s : samples) {
    const Card& card = *field.table().card(s.card);
    out += fmt::format("{:.4f},{},{},{},{},{},{},{},{},{},{}\n", s.time, s.card.value,
                       field.table().deck().text(card.face), field.table().zone(card.zone)->name,
                       s.pose.centre.x, s.pose.centre.y, degrees(s.pose.rotation), s.pose.scale,
                       degrees(s.pose.flip), s.pose.lift, s.pose.opacity);
  }
  return out;
}

nlohmann::ordered_json json_of(const Playfield& field, const std::vector<Sample>& samples) {
  auto frames = nlohmann::ordered_json::array();
  for (const Sample& s : samples) {
    if (frames.empty() || frames.back()["time"] != s.time) {
      nlohmann::ordered_json frame;
      frame["time"] = s.time;
      frame["cards"] = nlohmann::ordered_json::array();
      frames.push_back(frame);
    }
    nlohmann::ordered_json c;
    c["card"] = s.card.value;
    c["face"] = field.table().deck().text(field.table().card(s.card)->face);
    c["x"] = s.pose.centre.x;
    c["y"] = s.pose.centre.y;
    c["rotation_deg"] = degrees(s.pose.rotation);
    c["scale"] = s.pose.scale;
    c["flip_deg"] = degrees(s.pose.flip);
    c["lift"] = s.pose.lift;
    c["opacity"] = s.pose.opacity;
    frames.back()["cards"].push_back(c);
  }
  return frames;
}

int draw_sheet(Playfield& field, const Options& options) {
  const double end = std::min(field.settles_at(), longest);
  std::vector<Shot> shots;
  for (int i = 0; i < options.shots; ++i) {
    const double time = options.shots == 1 ? end : end * i / (options.shots - 1);
    field.advance_to(time);
    shots.push_back({field.frame(), fmt::format("{:.2f} s", time)});
  }
  const Picture sheet =
      contact_sheet(shots, field.table().deck(), fmt::format("{}, {:.2f} s", options.motion, end),
                    parse_size(options.sheet));
  make_folder_of(options.out);
  sheet.write_png(options.out);
  print(fmt::format("{}: {} of {} cards in {:.2f} s, {} shots\n", options.out, options.motion,
                    field.table().card_count(), end, options.shots));
  return yes;
}

int run(const Options& options) {
  Playfield field = load_playfield(options.table);
  field.deal();
  if (options.format == Format::text) return draw_sheet(field, options);
  const std::vector<Sample> samples = sample(field, options.rate);
  options.format == Format::csv ? print(csv_of(field, samples)) : print_json(json_of(field, samples));
  return yes;
}

}  // namespace

void add_film(CommandLine& line) {
  Words& words = line.verb("film", "A motion of the table, as a contact sheet or as poses over time");
  auto options = std::make_shared<Options>();
  options->table.add_to(words);
  words.choice("--motion", options->motion, {"deal"}, "MOTION", "What to film: deal")
      .text("--out", options->out, "FILE", "The contact sheet to write, film.png unless stated")
      .text("--sheet", options->sheet, "WxH", "Size of the contact sheet, 1280x800 unless stated")
      .number("--shots", options->shots, 1, 100, "N", "Pictures on the sheet, 1 to 100; 12 unless stated")
      .number("--rate", options->rate, 1, 1000, "HZ",
              "Steps a second of json and csv, 1 to 1000; 60 unless stated")
      .format(options->format)
      .example("apsidon film data/potting-bench.table.json --out deal.png")
      .example("apsidon film data/potting-bench.table.json --format csv --rate 30 > deal.csv")
      .does([options] { return run(*options); });
}

}  // namespace apsidon::tool
