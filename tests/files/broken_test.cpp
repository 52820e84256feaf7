// Broken files: those of data/broken with the one error that each must give, and random damage to good ones.
#include <algorithm>
#include <catch2/catch.hpp>
#include <set>

#include "apsidon/files/nearest.hpp"
#include "apsidon/files/table_file.hpp"
#include "support/process.hpp"
#include "support/property.hpp"

using namespace apsidon;
using namespace apsidon::test;

TEST_CASE("files: each broken table gives the one error that is written down for it") {
  // What the tool says of each, one a line: "FILE:LINE:COLUMN: POINTER: … [CODE]".
  std::set<std::string> told;
  for (const std::string& line : lines_of(contents(source("data/broken/expected.txt")))) {
    const std::string file = line.substr(0, line.find(':'));
    CAPTURE(file);
    const auto result = parse_table(contents(source("data/broken/" + file)), file);
    REQUIRE_FALSE(result.has_value());
    REQUIRE(result.error().size() == 1);
    CHECK(describe(result.error()[0]) == line);
    const auto outcome = tool({"draw", "data/broken/" + file, "--out", "/nonexistent/x.png"});
    CHECK(outcome.code == 3);
    CHECK(outcome.out.empty());
    CHECK(lines_of(outcome.err).size() == 1);
    told.insert(file);
  }
  std::size_t files = 0;
  for (const auto& entry : std::filesystem::directory_iterator(source("data/broken"))) {
    if (entry.path().extension() == ".json") ++files;
  }
  CHECK(told.size() == files);
  CHECK(files >= 25);
}

TEST_CASE("files: what cannot be read says so") {
  const auto missing = load_table(source("data/nowhere.table.json"));
  REQUIRE_FALSE(missing.has_value());
  CHECK(missing.error()[0].code == ProblemCode::cannot_read);
  CHECK(missing.error()[0].message == "the file cannot be read: check its path and its permissions");
  CHECK(load_table(source("data")).error()[0].message == "this is a folder: a file is expected");
  CHECK_FALSE(load_deck(source("data/market-stall.table.json")).has_value());
  CHECK(parse_deck("[1]", "x").error()[0].code == ProblemCode::wrong_format);
}

TEST_CASE("files: a damaged file gives a table or one located error, never a crash or a hang") {
  const std::string good = contents(source("data/potting-bench.table.json"));
  int broken = 0;
  for_all("damage", 4, [&](Random& r) {
    std::string text = good;
    const int cuts = r.between(1, 3);
    for (int i = 0; i < cuts; ++i) {
      const std::size_t at = r.below(text.size());
      const std::size_t length = 1 + r.below(r.chance(0.2f) ? 200 : 4);
      const char* const pieces[] = {"",  "{",  "}",     "[",    "]",  "\"",   ",",
                                    ":", "-1", "1e300", "null", "\\", "\xff", "\"fern-1\""};
      if (r.chance(0.5f)) text.erase(at, length);
      text.insert(std::min(at, text.size()), pieces[r.below(14)]);
    }
    const auto result = parse_table(text, source("data/damaged.table.json"));
    if (result) return;
    ++broken;
    RC_ASSERT(result.error().size() == 1);
    RC_ASSERT(!result.error()[0].message.empty());
    RC_ASSERT(describe(result.error()[0]).find("damaged.table.json") != std::string::npos);
  });
  CHECK(broken > 100);
}

TEST_CASE("files: the nearest name is found by the fewest edits, or none") {
  const std::vector<std::string> names{"longest", "layout", "pick", "drop"};
  CHECK(nearest_name("longset", names) == "longest");
  CHECK(nearest_name("layot", names) == "layout");
  CHECK(nearest_name("dorp", names) == "drop");
  CHECK_FALSE(nearest_name("zebra-crossing", names).has_value());
  CHECK_FALSE(nearest_name(std::string(1000, 'a'), names).has_value());
  CHECK_FALSE(nearest_name("x", std::vector<std::string>{}).has_value());
}

TEST_CASE("files: every problem code has a name of its own") {
  std::set<std::string_view> codes;
  for (int i = 0; i < problem_code_count; ++i) codes.insert(code_of(static_cast<ProblemCode>(i)));
  CHECK(codes.size() == static_cast<std::size_t>(problem_code_count));
}
