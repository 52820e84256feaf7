// The tool on what nobody should hand it: it says what is wrong on one line, and writes nothing that is half.
#include <sys/resource.h>
#include <sys/stat.h>
#include <catch2/catch.hpp>

#include <filesystem>
#include <fstream>

#include "apsidon/draw/gallery.hpp"
#include "apsidon/files/table_file.hpp"
#include "support/allocations.hpp"
#include "support/process.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

void put(const std::filesystem::path& file, const std::string& bytes) {
  std::ofstream(file, std::ios::binary) << bytes;
}

/// The first bytes of a PNG of this size, and no more.
std::string png_of(std::uint32_t width, std::uint32_t height) {
  std::string bytes("\x89PNG\r\n\x1A\n\0\0\0\x0DIHDR", 16);
  for (const std::uint32_t n : {width, height}) {
    for (int shift = 24; shift >= 0; shift -= 8) bytes += static_cast<char>(n >> shift & 255);
  }
  return bytes + std::string("\x08\x06\0\0\0", 5);
}

}  // namespace

TEST_CASE("tool: numbers that are none are a bad call, whichever option they are for") {
  const std::string bench = "data/potting-bench.table.json";
  for (const std::vector<std::string>& call :
       {std::vector<std::string>{"draw", bench, "--pixel-ratio", "nan"},
        {"film", bench, "--rate", "inf"},
        {"film", bench, "--seed", "1.5"},
        {"film", bench, "--shots", "1e3"},
        {"film", bench, "--seed", "-1"},
        {"check", bench, "--finger", "nan"},
        {"replay", bench, "data/potting-bench.log", "--until", "nan"},
        {"place", bench, "--window", "nanx100"}}) {
    CAPTURE(call.back());
    const Ran out = tool(call);
    CHECK(out.code == 2);
    CHECK(holds(out.err, "is expected"));
    CHECK(out.out.empty());
  }
}

TEST_CASE("tool: output that cannot be written is a failure with its reason") {
  const Ran out = run("/bin/sh", {"-c", tool_program() + " place data/potting-bench.table.json > /dev/full"});
  CHECK(out.code == 3);
  CHECK(holds(out.err, "the output cannot be written: No space left on device"));
  for (const std::vector<std::string>& call :
       {std::vector<std::string>{"draw", "data/trellis.table.json", "--out", "/proc/none/a.png"},
        {"film", "data/trellis.table.json", "--shots", "1", "--out", "/proc/none/a.png"},
        {"faces", "data/glasshouse.deck.json", "--out", "/proc/none/a.png"},
        {"curve", "ease", "--out", "/proc/none/a.png"}}) {
    CAPTURE(call[0]);
    const Ran refused = tool(call);
    CHECK(refused.code == 3);
    CHECK(holds(refused.err, "/proc/none"));
  }
}

TEST_CASE("tool: what a file says reaches the terminal without its control characters, and is cut") {
  const Scratch scratch;
  put(scratch / "t.json", std::string(R"({"apsidon": "\u001b[31m)") + std::string(100'000, 'x') + R"("})");
  const Ran out = tool({"place", (scratch / "t.json").string()});
  CHECK(out.code == 3);
  CHECK(out.err.size() < 1000);
  CHECK_FALSE(holds(out.err, "\x1b"));
  const Ran named = tool({"place", "\x1b[31mnone.json"});
  CHECK(named.code == 3);
  CHECK_FALSE(holds(named.err, "\x1b"));
}

TEST_CASE("tool: a table that names a deck elsewhere is refused, unless it is trusted") {
  const Ran out = tool({"place", "docs/layouts/hand.table.json"});
  CHECK(out.code == 3);
  CHECK(holds(out.err,
              "leads out of the folder: a name within the folder is expected [outside]: --trust allows it"));
  CHECK(tool({"place", "docs/layouts/hand.table.json", "--trust"}).code == 0);
  CHECK(tool({"judge", "docs/layouts/hand.table.json", "--trust"}).code == 1);
  CHECK(tool({"fit", "docs/layouts/hand.table.json", "--trust"}).code == 1);
}

TEST_CASE("tool: a pipe is refused at once, and nothing is read for ever") {
  const Scratch scratch;
  REQUIRE(mkfifo((scratch / "pipe").c_str(), 0600) == 0);
  const std::string pipe = (scratch / "pipe").string();
  for (const std::vector<std::string>& call :
       {std::vector<std::string>{"place", pipe},
        {"faces", pipe},
        {"replay", "data/potting-bench.table.json", pipe},
        {"replay", "data/potting-bench.table.json", "data/potting-bench.log", "--check", pipe},
        {"film", "data/trellis.table.json", "--feel", pipe},
        {"draw", "data/trellis.table.json", "--art", pipe},
        {"place", "/dev/zero"}}) {
    CAPTURE(call[0], call.back());
    const Ran out = tool(call);
    CHECK(out.code == 3);
    CHECK(holds(out.err, "this is a pipe or a device"));
  }
}

TEST_CASE("tool: a film of a thousand frames a second goes out as it comes, and takes no memory") {
  for (const std::string format : {"csv", "json"}) {
    const Ran film = tool({"film", "data/potting-bench.table.json", "--rate", "1000", "--format", format});
    CHECK(film.code == 0);
    CHECK(film.out.size() > 8'000'000);
    rusage used{};
    REQUIRE(::getrusage(RUSAGE_CHILDREN, &used) == 0);
    CHECK((keeps_freed_memory || used.ru_maxrss < 200'000));  // kB, of the largest of this test's processes
  }
}

TEST_CASE("tool: what is read is not written over") {
  const Scratch scratch;
  const auto copy = [&](const std::string& name) {
    std::filesystem::copy(source("data/" + name), scratch / name);
    return (scratch / name).string();
  };
  const std::string deck = copy("glasshouse.deck.json");
  const std::string table = copy("trellis.table.json");
  const std::string before = contents(table);
  CHECK(tool({"draw", table, "--out", table}).code == 2);
  CHECK(tool({"film", table, "--out", table}).code == 2);
  CHECK(contents(table) == before);
  const std::string sheet = (scratch / "s.png").string();
  REQUIRE(tool({"faces", deck, "--compose", sheet, "--card", "40x56"}).code == 0);
  const std::string picture = contents(sheet);
  const std::string art = (scratch / "s.art.json").string();
  CHECK(holds(tool({"faces", deck, "--art", art, "--compose", sheet, "--card", "20x28"}).err,
              "is what it is made from"));
  CHECK(contents(sheet) == picture);
}

TEST_CASE("draw: a picture that is no PNG, a broken, a huge or a distant one is told as what it is") {
  const Scratch scratch;
  put(scratch / "photo.png", "\xFF\xD8\xFF\xE0 and so on");
  put(scratch / "drawing.png", "<svg xmlns='http://www.w3.org/2000/svg'/>");
  put(scratch / "cut.png", png_of(20, 20));
  put(scratch / "bomb.png", png_of(22'000, 22'000));
  put(scratch / "wide.png", png_of(16'000, 16'000));
  std::filesystem::create_directory(scratch / "art");
  put(scratch / "outside.png", png_of(1, 1));
  put(scratch / "long.png", png_of(20000, 10));
  std::filesystem::create_symlink("loop", scratch / "loop");
  const Gallery gallery({}, scratch / "");
  const auto why = [&](const std::string& name) {
    const auto size = gallery.size_of(name);
    return size ? std::string("read") : size.error()[0].message;
  };
  CHECK(why("photo.png") == "it is a JPEG: a PNG is expected");
  CHECK(why("drawing.png") == "it is an SVG: a PNG is expected");
  CHECK(why("cut.png") == "it is broken: a whole PNG is expected");
  CHECK(holds(why("bomb.png"), "it has 22000x22000 px: at most 16384 a side"));
  CHECK(holds(why("wide.png"), "67108864 in all"));
  CHECK(holds(why("none.png"), "cannot be read"));
  CHECK(holds(why("long.png"), "it has 20000x10 px: at most 16384 a side"));
  CHECK(gallery.problems().size() == 7);
  CHECK(gallery.pictures().size() == 7);
  const Gallery within({}, scratch / "art");
  CHECK(within.size_of("../outside.png").error()[0].code == ProblemCode::outside);
  // The tool says so of an art, and that it is there.
  put(scratch / "a.art.json", R"({"apsidon": "art", "version": 1, "pattern": "photo.png"})");
  const Ran check = tool({"check", "data/trellis.table.json", "--art", (scratch / "a.art.json").string()});
  CHECK(check.code == 1);
  CHECK(holds(check.out, "the picture 'photo.png' cannot be shown: it is a JPEG"));
  const Ran drawn = tool({"draw", "data/trellis.table.json", "--art", (scratch / "a.art.json").string(),
                          "--out", (scratch / "o.png").string()});
  CHECK(drawn.code == 1);
  CHECK(holds(drawn.err, "it is a JPEG"));
}

TEST_CASE("tool: cells of csv with commas and quotes are in quotes") {
  const Scratch scratch;
  TableSetup setup(glasshouse());
  setup.add({.name = "a, \"b\"", .cards = {{.face = {1}}}});
  setup.plans = {{.root = across({zone({1})})}};
  put(scratch / "t.json", write_table(setup));
  const auto lines = lines_of(tool({"place", (scratch / "t.json").string(), "--format", "csv"}).out);
  REQUIRE(lines.size() == 2);
  CHECK(lines[1].starts_with("\"a, \"\"b\"\"\",0,1,"));
}

TEST_CASE("tool: check says which face is on a table more often than its deck has it") {
  const Scratch scratch;
  TableSetup setup(glasshouse());
  setup.add({.name = "slot", .cards = {{.face = {1}}, {.face = {1}}}});
  setup.plans = {{.root = across({zone({1})})}};
  put(scratch / "t.json", write_table(setup));
  const Ran out = tool({"check", (scratch / "t.json").string()});
  CHECK(out.code == 1);
  CHECK(holds(out.out, "fern-1 is on the table 2 times, and the deck has 1"));
}
