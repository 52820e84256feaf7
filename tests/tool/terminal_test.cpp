// What a stranger's file says reaches a terminal as text and as nothing else.
#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>
#include <nlohmann/json.hpp>
#include <regex>
#include <string>
#include <vector>

#include "apsidon/files/result.hpp"
#include "support/process.hpp"

using namespace apsidon;
using namespace apsidon::test;
using Json = nlohmann::json;

namespace {

// ESC ] sets the title of a window, U+009B is ESC [ in one character, U+202E turns what follows round.
const std::string hostile = "a\x1b]0;owned\x07 \xC2\x9B[31m \xE2\x80\xAE drow\nno: all is well";

/// Whether a terminal would show all of it, and do nothing.
bool is_harmless(const std::string& text) {
  for (const char c : text) {
    const auto byte = static_cast<unsigned char>(c);
    if ((byte < 0x20 && c != '\n') || byte == 0x7F) return false;
  }
  for (const char* sign : {"\xC2\x9B", "\xE2\x80\xAE", "\xE2\x81\xA6", "\xE2\x80\xA8", "\xE2\x80\x8F"}) {
    if (holds(text, sign)) return false;
  }
  return true;
}

Json demo() { return Json::parse(contents(source(potting_bench))); }

}  // namespace

TEST_CASE("files: printable text has no controls, directions or broken bytes, and is else as it was") {
  CHECK(printable("a\x1b[31mb") == "a\\x1b[31mb");
  CHECK(printable("a\nb") == "a\\x0ab");
  CHECK(printable("a\nb", true) == "a\nb");
  CHECK(printable("\x7f\xC2\x85\xE2\x80\xAE\xE2\x81\xA6\xE2\x80\xA8\xE2\x80\x8E\xD8\x9C\xEF\xBB\xBF") ==
        "\\x7f\\u0085\\u202e\\u2066\\u2028\\u200e\\u061c\\ufeff");
  CHECK(printable("\x9b\xff"
                  "a\xE2\x80") ==
        "\\x9b\\xff"
        "a\\xe2\\x80");
  CHECK(printable("Gr\xC3\xBC\xC3\x9F"
                  "e \xE2\x9C\x93 \xF0\x9F\x8C\xB1 \xD7\xA9") ==
        "Gr\xC3\xBC\xC3\x9F"
        "e \xE2\x9C\x93 \xF0\x9F\x8C\xB1 \xD7\xA9");
  CHECK(printable("") == "");
  // In the texts of JSON it is the same character.
  CHECK(Json::parse("\"" + printable("\xE2\x80\xAE") + "\"") == Json("\xE2\x80\xAE"));
  CHECK(is_harmless(printable(hostile, true)));
}

TEST_CASE("files: a problem is one line, whatever its file is called") {
  const std::string said = describe(
      Problem{.code = ProblemCode::not_json, .file = "a\nb: all is well\x1b[2J", .message = "c\xE2\x80\xAE"});
  CHECK(said == "a\\x0ab: all is well\\x1b[2J: c\\u202e [not-json]");
}

/// What opens a window while this lives opens one that nobody sees.
struct NoDisplay {
  NoDisplay() { ::setenv("SDL_VIDEODRIVER", "dummy", 1); }
  NoDisplay(const NoDisplay&) = delete;
  NoDisplay& operator=(const NoDisplay&) = delete;
  ~NoDisplay() { ::unsetenv("SDL_VIDEODRIVER"); }
};

TEST_CASE("tool: no verb hands on what a terminal would obey, from words, sentences, names or file names") {
  const Scratch folder;
  Json table = demo();
  table["name"] = hostile;
  table["sentences"]["own rule"] = hostile;
  table["names"]["card"] = hostile + " {rank}";
  table["names"]["words"]["reed"] = hostile;
  table["names"]["words"]["bed-1"] = hostile;
  table["deck"] = source("data/glasshouse.deck.json").string();
  const std::string evil = (folder / "a\n\x1b[2Jb.table.json").string();
  std::ofstream(evil) << table.dump();
  const std::string log = (folder / "evil.log").string();
  // The demo's session: what happens in it is told in the words of the hostile table.
  std::vector<std::string> lines = lines_of(contents(source("data/potting-bench.log")));
  lines[0] = R"({"apsidon": "input-log", "version": 1, "window": [1280, 800]})";
  lines.push_back(Json{{"time", 1e6}, {"perform", {{"act", "wait"}, {"seconds", 0.1}}}}.dump());
  lines.push_back(
      Json{{"time", 1e6}, {"own", hostile}, {"verdict", {{"reason", "own-rule"}, {"rule", hostile}}}}.dump());
  std::ofstream to(log);
  for (const std::string& line : lines) to << line << '\n';
  to.close();
  const std::vector<std::vector<std::string>> calls{
      {"place", evil, "--trust"},
      {"place", evil, "--trust", "--format", "csv"},
      {"place", evil, "--trust", "--format", "json"},
      {"check", evil, "--trust"},
      {"judge", evil, "--trust"},
      {"judge", evil, "--trust", "--card", "reed-2", "--to", "bed-1"},
      {"judge", evil, "--trust", "--card", "reed-2", "--to", "bed-1", "--format", "json"},
      {"judge", evil, "--trust", "--card", hostile},
      {"probe", evil, "--trust", "--at", "640,400"},
      {"probe", evil, "--trust", "--at", hostile},
      {"fit", evil, "--trust"},
      {"replay", evil, log, "--trust"},
      {"replay", evil, log, "--trust", "--sentences"},
      {"replay", evil, hostile, "--trust"},
      {"replay", log, evil},
      {"film", evil, "--trust", "--format", "csv", "--until", "0.1"},
      {"draw", evil, "--trust", "--out", (folder / "a\x1b[2J.png").string()},
      {"draw", evil, "--trust", "--out", "/nowhere\x1b[2J/a.png"},
      {"faces", evil},
      {"play", evil, "--trust", "--frames", "2", "--bench"},
      {"play", evil, "--trust", "--frames", "2", "--log", log},
      {"play", evil, "--trust", "--frames", "2", "--record", (folder / "a\x1b[2J.log").string()},
      {"play", evil, "--trust", "--feel", evil},
      {"play", evil, "--trust", "--art", hostile},
      {"curve", hostile},
      {hostile},
      {"place", evil, hostile},
      {"place", hostile},
  };
  const NoDisplay no_display;
  for (const auto& call : calls) {
    const Ran ran = tool(call);
    CAPTURE(call, ran.code, ran.out, ran.err);
    CHECK(is_harmless(ran.out));
    CHECK(is_harmless(ran.err));
    CHECK_FALSE(holds("\n" + ran.err, "\nno: all is well"));
    CHECK_FALSE(holds("\n" + ran.out, "\nno: all is well"));
    CHECK(ran.code >= 0);
    CHECK(ran.code <= 3);
    if (call.size() > 2 && call[2] == log) {
      CHECK(ran.code == 0);
      CHECK(holds(ran.out, "\\x1b]0;owned\\x07"));
      CHECK(holds(ran.out, "\\u202e"));
    }
  }
}

TEST_CASE("tool: names that would turn the text around them are refused, names from right to left are not") {
  const auto placed = [](const std::string& name) {
    const Scratch folder;
    Json table = demo();
    table["deck"] = source("data/glasshouse.deck.json").string();
    const std::string text = std::regex_replace(table.dump(), std::regex("\"waste\""), Json(name).dump());
    std::ofstream(folder / "t.json") << text;
    return tool({"place", (folder / "t.json").string(), "--trust"});
  };
  CHECK(placed("\xD7\xA2\xD7\xA8\xD7\x95\xD7\x92\xD7\x94").code == 0);
  for (const char* sign : {"\xC2\x9B", "\xE2\x80\xAE", "\xE2\x81\xA7"}) {
    const Ran ran = placed(std::string("bed") + sign);
    CHECK(ran.code == 3);
    CHECK(holds(ran.err, "it has the control character U+"));
  }
}

TEST_CASE("tool: a cell of a table that a spreadsheet would take for a formula is a text") {
  const Scratch folder;
  Json table = demo();
  table["deck"] = source("data/glasshouse.deck.json").string();
  const std::string formula = "=HYPERLINK(\"a\",1)";
  std::ofstream(folder / "t.json") << std::regex_replace(table.dump(), std::regex("\"waste\""),
                                                         Json(formula).dump());
  const Ran ran =
      tool({"judge", (folder / "t.json").string(), "--trust", "--format", "csv", "--to", formula});
  CAPTURE(ran.out, ran.err);
  CHECK(holds(ran.out, R"x(,"'=HYPERLINK(""a"",1)",)x"));
}

TEST_CASE("tool: everything that is printed goes through the words that leave nothing in it") {
  int files = 0;
  for (const auto& entry : std::filesystem::recursive_directory_iterator(source("tools/apsidon"))) {
    const std::string name = entry.path().filename().string();
    if (entry.path().extension() != ".cpp" && entry.path().extension() != ".hpp") continue;
    ++files;
    // words.cpp has the two that print; progress.cpp counts on a terminal, of words of its own.
    if (name == "words.cpp" || name == "progress.cpp") continue;
    const std::string text = contents(entry.path());
    CAPTURE(name);
    for (const char* way :
         {"fmt::print(", "std::cout", "std::cerr", "printf(", "fputs(", "std::puts", "fwrite(", "std::clog"})
      CHECK_FALSE(holds(text, way));
  }
  CHECK(files > 30);
}

TEST_CASE(
    "tool: a picture of more pixels than there may be is a bad call, and a file for which there is no memory "
    "says so") {
  const Ran wide = tool({"draw", potting_bench, "--window", "16384x16384", "--pixel-ratio", "8", "--out",
                         "/tmp/apsidon-wide.png"});
  CHECK(wide.code == 2);
  CHECK(holds(wide.err, "device pixels"));
}
