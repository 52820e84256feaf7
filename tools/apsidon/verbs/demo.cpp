// apsidon demo: all of it on the demo data, told so that a newcomer understands it.
#include <fmt/format.h>

#include <filesystem>
#include <optional>

#include "apsidon/draw/paint.hpp"
#include "apsidon/files/input_log.hpp"
#include "apsidon/files/table_file.hpp"
#include "apsidon/studio/curves.hpp"
#include "apsidon/studio/moving.hpp"
#include "apsidon/studio/sheets.hpp"
#include "shared/common.hpp"

namespace apsidon::tool {
namespace {

namespace fs = std::filesystem;

struct DemoOptions {
  std::string data = "data";
  std::string out = "out/demo";
};

void tell_drawing(const fs::path& table, const std::string& window, const fs::path& out) {
  const Playfield field = load_playfield({.file = table.string(), .window = window});
  paint(field.frame(), field.table().deck()).write_png(out);
  print(fmt::format("   {}: {} cards in {} zones, plan '{}', cards of {}x{} px\n", out.string(),
                    field.table().card_count(), field.table().zones().size(), field.where().plan().name,
                    number(double{field.where().card_size().width}),
                    number(double{field.where().card_size().height})));
}

void tell_verdict(const TableSetup& setup, const std::string& card, const std::string& to) {
  const PickVerdict pick = judge_pick(setup.table, setup.rulebook(), find_card(setup.table, card));
  const Verdict verdict =
      pick.verdict ? judge_drop(setup.table, setup.rulebook(), pick.run, find_zone(setup.table, to))
                   : pick.verdict;
  print(
      fmt::format("   {} to {}: {}\n", card, to, verdict ? "yes." : "no. " + describe(verdict, setup.table)));
}

/// A drag with the pointer, from the middle of a card to the middle of a zone.
void tell_drag(Playfield& field, const std::string& card_name, const std::string& to) {
  const CardId card = find_card(field.table(), card_name);
  const Vec2 from = field.where().live_pose(card)->centre;
  const Vec2 target = field.where().area(find_zone(field.table(), to))->centre();
  double time = field.now() + 0.1;
  field.pointer({.phase = PointerPhase::down, .at = from, .time = time});
  for (int i = 1; i <= 20; ++i) {
    time += 1.0 / 60;
    field.pointer({.phase = PointerPhase::move,
                   .at = from + (target - from) * (static_cast<float>(i) / 20),
                   .time = time});
  }
  field.pointer({.phase = PointerPhase::up, .at = target, .time = time});
  field.advance_to(time);
  while (const auto told = field.next_event(field.time().settles_at())) {
    const Event& event = *told;
    const Zone* zone = field.table().zone(event.to ? event.to : event.from);
    print(fmt::format(
        "   {:.2f} s  {:<10} {} {}\n", event.time, name_of(event.kind),
        field.table().card(event.card) ? field.table().deck().text(field.table().card(event.card)->face) : "",
        zone ? zone->name : ""));
  }
}

/// A draw as a moving picture, and a plot of what it moves by.
void tell_motion(const fs::path& bench, const fs::path& out) {
  Playfield field = load_playfield({.file = bench.string(), .window = "640x400"});
  field.performances().set_feel(springy());
  const Table& table = field.table();
  const PerformanceId drawn =
      field.performances().perform(draw(find_zone(table, "stock"), find_zone(table, "waste"), 3));
  std::optional<MovingPicture> moving;
  int frames = 0;
  for (; field.performances().running(drawn) || frames == 0; ++frames) {
    const double time = frames / 25.0;
    field.advance_to(time);
    const Picture picture = paint(field.frame(), table.deck());
    if (!moving) moving.emplace(picture.width(), picture.height());
    moving->add(picture, time);
  }
  moving->write(out / "draw.webp", frames / 25.0 + 0.8);
  print(fmt::format("   {}: {} frames\n", (out / "draw.webp").string(), frames));
  const Feel feel = springy();
  const std::vector<PlottedCurve> curves{{.name = "move", .spring = feel.move.glide.spring},
                                         {.name = "back, after a drag", .spring = feel.back.spring},
                                         {.name = "deal", .spring = feel.deal.glide.spring}};
  plot_curves(curves, {1280, 800}).write_png(out / "springs.png");
  print(fmt::format("   {}: {} springs\n", (out / "springs.png").string(), curves.size()));
}

void tell_session(const fs::path& table, const fs::path& file) {
  Playfield field = load_playfield({.file = table.string()});
  const InputLog log = or_fail(load_log(file, load_setup({.file = table.string()})));
  for (const Input& input : log.inputs) (void)field.input(input);
  const double end = log.inputs.empty() ? field.now() : time_of(log.inputs.back());
  while (const auto event = field.next_event(end)) {
    const std::string text = describe(*event, field);
    if (!text.empty()) print(fmt::format("   {:6.2f} s  {}\n", event->time, text));
  }
}

int run(const DemoOptions& options) {
  const fs::path data = options.data;
  const fs::path out = options.out;
  const fs::path bench = data / "potting-bench.table.json";
  const fs::path market = data / "market-stall.table.json";
  make_folder_of((out / "x").string());

  print(
      "Apsidon computes where every card of a table is, what a point hits, what may go where, and how cards\n"
      "move. This is what it makes of the demo data.\n\n");
  print("1. A table file, drawn for three windows: the plan finds the largest card that fits.\n");
  tell_drawing(bench, "1280x800", out / "potting-bench.png");
  tell_drawing(bench, "800x1280", out / "potting-bench-tall.png");
  tell_drawing(market, "1280x800", out / "market-stall.png");

  print("\n2. What lies at a point, and what may go where.\n");
  Playfield field = load_playfield({.file = bench.string()});
  const TableSetup setup = or_fail(load_table(bench));
  const Zone& column = *field.table().zone(find_zone(field.table(), "column-5"));
  const CardId card = column.cards[column.cards.size() / 2];
  const Vec2 at = field.where().resting_pose(card)->centre - Vec2{0, field.where().card_size().height * 0.4f};
  print(fmt::format("   at {},{} lies {}\n", number(double{at.x}), number(double{at.y}),
                    card_text(field.table(), field.where().hit(at).card)));
  tell_verdict(setup, "reed-2", "bed-2");
  tell_verdict(setup, "reed-2", "column-6");
  tell_verdict(setup, "poppy-9", "column-4");

  print("\n3. A drag, as a game would see it: pointer inputs go in, events come out.\n");
  tell_drag(field, "reed-2", "bed-2");

  print("\n4. The deal: poses over time, as a contact sheet.\n");
  Playfield film = load_playfield({.file = bench.string()});
  film.performances().deal();
  const double end = film.time().settles_at();
  std::vector<Shot> shots;
  for (int i = 0; i < 12; ++i) {
    film.advance_to(end * i / 11);
    shots.push_back({.frame = film.frame(), .caption = fmt::format("{:.2f} s", end * i / 11)});
  }
  contact_sheet(shots, film.table().deck(), fmt::format("deal, {:.2f} s", end), {1280, 800})
      .write_png(out / "deal.png");
  print(fmt::format("   {}: {} cards in {:.2f} s\n", (out / "deal.png").string(), film.table().card_count(),
                    end));

  print("\n5. Every face of the deck.\n");
  const Deck deck = or_fail(load_deck(data / "glasshouse.deck.json"));
  proof_sheet(deck, {1280, 800}).write_png(out / "faces.png");
  print(fmt::format("   {}: {} faces\n", (out / "faces.png").string(), deck.face_count()));

  print("\n6. Cards in motion: three drawn from the stock, on springs; and the springs themselves.\n");
  tell_motion(bench, out);

  print(
      "\n7. A session from its log: what a mouse, a finger and keys did, as a screen reader would say it.\n");
  tell_session(bench, data / "potting-bench.log");
  print(fmt::format("\nThe pictures are in {}.\n", fs::absolute(out).lexically_normal().string()));
  return yes;
}

}  // namespace

void add_demo(CommandLine& line) {
  Words& words = line.verb("demo", "All of it on the demo data, told step by step");
  auto options = std::make_shared<DemoOptions>();
  words.text("data", options->data, "FOLDER", "The folder of the demo data, data unless stated")
      .text("--out", options->out, "FOLDER", "The folder for the pictures, out/demo unless stated")
      .example("apsidon demo data --out out/demo")
      .does([options] { return run(*options); });
}

}  // namespace apsidon::tool
