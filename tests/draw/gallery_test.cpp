// What pictures cost in memory, and frames that a client has spoilt.
#include <fmt/format.h>
#include <sys/stat.h>

#include <catch2/catch.hpp>
#include <chrono>
#include <cmath>
#include <filesystem>
#include <fstream>
#include <limits>
#include <optional>
#include <string>
#include <vector>

#include "apsidon/draw/gallery.hpp"
#include "apsidon/draw/paint.hpp"
#include "apsidon/files/table_file.hpp"
#include "apsidon/geometry/error.hpp"
#include "apsidon/play/playfield.hpp"
#include "support/allocations.hpp"
#include "support/process.hpp"

using namespace apsidon;
using namespace apsidon::test;
namespace fs = std::filesystem;

namespace {

/// The most memory that this process has had, or has now, MiB.
double mebibytes(const std::string& what) {
  std::ifstream in("/proc/self/status");
  for (std::string line; std::getline(in, line);) {
    if (line.starts_with(what + ":")) return std::stod(line.substr(what.size() + 1)) / 1024;
  }
  return 0;
}

/// As many copies of one picture: 0.png, 1.png …
void copies_of(const Picture& picture, int copies, const Scratch& folder) {
  picture.write_png((folder / "0.png").string());
  for (int i = 1; i < copies; ++i) fs::copy_file(folder / "0.png", folder / fmt::format("{}.png", i));
}

}  // namespace

TEST_CASE("draw: pixels of pictures are kept up to 256 MiB, the others are read again") {
  constexpr int copies = 9;
  const Scratch folder;
  copies_of(Picture({4096, 4096}), copies, folder);  // 64 MiB each
  const Gallery gallery(Art{.pattern = "{face}.png"}, folder / "");
  const double before = mebibytes("VmRSS");
  for (int i = 0; i < copies; ++i) {
    const std::string name = fmt::format("{}.png", i);
    REQUIRE(gallery.surface(name) != nullptr);
    CHECK(*gallery.size_of(name) == Size{4096, 4096});
  }
  if (!keeps_freed_memory) CHECK(mebibytes("VmRSS") - before < 320);
  // The last is there still, the first has to be read again; and when it has gone from the disk, it is said.
  fs::remove(folder / fmt::format("{}.png", copies - 1));
  fs::remove(folder / "0.png");
  CHECK(gallery.surface(fmt::format("{}.png", copies - 1)) != nullptr);
  CHECK(*gallery.size_of("0.png") == Size{4096, 4096});
  CHECK(gallery.problems().empty());
  CHECK(gallery.surface("0.png") == nullptr);
  REQUIRE(gallery.problems().size() == 1);
  CHECK(gallery.problems()[0].code == ProblemCode::cannot_read);
}

TEST_CASE("draw: the pictures of an art have at most 536870912 px in all, also those that are broken") {
  const Scratch folder;
  Picture({1, 1}).write_png((folder / "small.png").string());
  // Of 8192x8192 px, says their head, after which nothing comes: eight of them are as many as may be.
  const std::string head("\x89PNG\r\n\x1A\n\0\0\0\x0DIHDR\0\0\x20\0\0\0\x20\0\x08\x06\0\0\0", 29);
  for (int i = 0; i < 9; ++i) std::ofstream(folder / fmt::format("{}.png", i)) << head;
  const Gallery gallery(Art{.pattern = "{face}.png"}, folder / "");
  for (int i = 0; i < 8; ++i)
    CHECK(gallery.size_of(fmt::format("{}.png", i)).error()[0].code == ProblemCode::not_png);
  const Problem refused = gallery.size_of("8.png").error()[0];
  CHECK(refused.code == ProblemCode::too_large);
  CHECK_THAT(refused.message, Catch::StartsWith("it has 8192x8192 px, with which the art's pictures come to "
                                                "603979776: at most 536870912 in all are expected"));
  CHECK(gallery.size_of("small.png").error()[0].code == ProblemCode::too_large);
  // One that is asked for again counts once.
  const Gallery again(Art{.pattern = "{face}.png"}, folder / "");
  for (int i = 0; i < 20; ++i) CHECK(again.surface("0.png") == nullptr);
  CHECK(again.size_of("small.png").has_value());
}

TEST_CASE("draw: a picture for which there is no memory is told as that, and the others are drawn") {
  if (keeps_freed_memory) return;  // the address sanitizer wants more memory than this gives
  const Scratch folder;
  copies_of(Picture({8192, 8192}), 1, folder);  // 256 MiB
  std::ofstream(folder / "art.json")
      << R"({"apsidon": "art", "version": 1, "pattern": "0.png", "key_colour": "#FF00FF"})";
  const Ran ran =
      run("/bin/bash",
          {"-c", fmt::format("ulimit -v 460000; exec {} faces {} --art {} --out {}", quoted(tool_program()),
                             quoted(source("data/glasshouse.deck.json").string()),
                             quoted((folder / "art.json").string()), quoted((folder / "out.png").string()))});
  CAPTURE(ran.out, ran.err, ran.code);
  CHECK((ran.code == 1 || ran.code == 3));
  CHECK_THAT(ran.out + ran.err, Catch::Contains("enough memory"));
}

TEST_CASE("draw: a pipe in the place of a picture is told as that, not as missing") {
  const Scratch folder;
  REQUIRE(mkfifo((folder / "0.png").c_str(), 0600) == 0);
  std::ofstream(folder / "art.json") << R"({"apsidon": "art", "version": 1, "pattern": "0.png"})";
  const Ran ran = tool({"check", potting_bench, "--art", (folder / "art.json").string()});
  CAPTURE(ran.out, ran.err);
  CHECK(ran.code == 1);
  CHECK(
      holds(ran.out, "the picture '0.png' cannot be shown: this is a pipe or a device: a file is expected"));
  CHECK_FALSE(holds(ran.out, "not there"));
}

TEST_CASE("draw: what is no number in a frame, or beyond all windows, is not drawn, and the rest is") {
  const Playfield field(*load_table(source(potting_bench)), {.window = {640, 400}});
  const Deck& deck = field.table().deck();
  const Frame good = field.frame();
  REQUIRE(good.items.size() > 20);
  const std::size_t last = good.items.size() - 1;
  Frame without = good;
  without.items.pop_back();
  const auto rest = paint(without, deck).pixels().all;
  for (const float bad :
       {std::numeric_limits<float>::quiet_NaN(), std::numeric_limits<float>::infinity(), -3e38f}) {
    const auto drawn = [&](const auto& spoil) {
      Frame frame = good;
      spoil(frame.items[last]);
      return paint(frame, deck).pixels().all;
    };
    CAPTURE(bad);
    CHECK((drawn([&](FrameItem& item) { item.matrix.tx = bad; }) == rest));
    CHECK((drawn([&](FrameItem& item) { item.matrix.a = bad; }) == rest));
    CHECK((drawn([&](FrameItem& item) { item.corners.corners[2].y = bad; }) == rest));
    CHECK((drawn([&](FrameItem& item) { item.size.width = bad; }) == rest));
    CHECK((drawn([&](FrameItem& item) { item.opacity = bad; }) == rest));
    CHECK((drawn([&](FrameItem& item) { item.lift = bad; }) == rest));
    CHECK((drawn([&](FrameItem& item) { item.brightness = bad; }) == rest));

    // Nor is a panel, and a card whose corners have no radius is drawn with sharp ones.
    Frame frame = field.frame();
    const auto plain = paint(frame, deck).pixels().all;
    frame.panels.push_back({.area = {{10, 10}, {bad, 60}}, .kind = PanelKind::button, .text = "sow"});
    CHECK((paint(frame, deck).pixels().all == plain));
    frame.panels = {};
    frame.corner_radius = -bad;
    CHECK_NOTHROW(paint(frame, deck));
  }
}

TEST_CASE("draw: a window of no size, or of far too much, is refused with a sentence or is one pixel") {
  const Deck deck({.suits = {{"fern", "green"}}, .ranks = {"1"}});
  Frame frame{.revision = 1, .window = {40, 30}, .card = {10, 14}};
  Painter painter(deck);
  std::optional<Picture> shown;
  const auto time = std::chrono::milliseconds(3);
  (void)painter.repaint(shown, frame, time);
  CHECK(shown->width() == 40);
  frame.window = {-1e6f, 30};
  (void)painter.repaint(shown, frame, time);
  CHECK(shown->width() == 1);
  CHECK(paint(frame, deck).height() == 30);
  for (const Size bad : {Size{3e38f, 30}, Size{40, std::numeric_limits<float>::quiet_NaN()}}) {
    frame.window = bad;
    frame.pixel_ratio = 0.01f;
    CHECK_THROWS_AS(painter.repaint(shown, frame, time), Error);
    CHECK_THROWS_AS(paint(frame, deck), Error);
    CHECK_THROWS_WITH(paint_svg(frame, deck), Catch::EndsWith("1 to 16384 in either direction is expected"));
    CHECK_THROWS_AS(paint_pdf(frame, deck), Error);
  }
}

TEST_CASE("draw: a painter keeps no more than 256 MiB of cards that grow, and as much of their shadows") {
  const Deck deck({.suits = {{"fern", "green"}}, .ranks = {"1"}});
  Painter painter(deck);
  const double before = mebibytes("VmRSS");
  for (int i = 0; i < 90; ++i) {  // of 8 MiB each and more, and their shadows, too
    const float width = 1500 + 4 * static_cast<float>(i);
    FrameItem card{.face = {1}, .size = {width, 1400}};
    card.corners = corners({.centre = {20, 20}}, card.size);
    (void)painter.paint({.revision = 1, .window = {40, 40}, .card = card.size, .items = {card}});
  }
  if (!keeps_freed_memory) CHECK(mebibytes("VmRSS") - before < 620);
}
