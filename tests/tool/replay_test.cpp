#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>

#include "apsidon/files/table_file.hpp"
#include "support/process.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

const std::string session = "data/potting-bench.log";

std::string scratch(const std::string& name) {
  const auto folder = std::filesystem::temp_directory_path() / "apsidon-replay-test";
  std::filesystem::create_directories(folder);
  return (folder / name).string();
}

}  // namespace

TEST_CASE("tool: replay tells what happened in a session, and that it happens again") {
  const std::string events = scratch("bench.events");
  const std::string after = scratch("after.table.json");
  const auto first = tool({"replay", potting_bench, session, "--events", events, "--out", after});
  CHECK(first.code == 0);
  CHECK(first.err.empty());
  CHECK(first.out.find("Reed-2 laid on bed-2.") != std::string::npos);
  CHECK(first.out.find("Bed-4 begins with rank 1; marigold-3 has another.") != std::string::npos);
  CHECK(first.out.find("Fern-10 and 2 on it laid on column-1.") != std::string::npos);

  const auto again = tool({"replay", potting_bench, session, "--check", events});
  CHECK(again.code == 0);
  CHECK(again.out.find("the same events") != std::string::npos);

  // The table afterwards is a table file in which reed-2 lies on its bed.
  const auto table = load_table(after);
  REQUIRE(table.has_value());
  const auto bed = table->table.find_zone("bed-2");
  REQUIRE(bed);
  CHECK(table->table.deck().text(table->table.card(*table->table.top(*bed))->face) == "reed-2");

  std::ofstream(events, std::ios::app) << "{\"time\":99,\"event\":\"rang\"}\n";
  const auto other = tool({"replay", potting_bench, session, "--check", events});
  CHECK(other.code == 1);
  CHECK(other.out.find("the replay has: no more events") != std::string::npos);
}

TEST_CASE("tool: replay stops where it is told to, in mid-drag if so, and draws that moment") {
  const std::string picture = scratch("drag.png");
  std::filesystem::remove(picture);
  const auto drag = tool({"replay", potting_bench, session, "--until", "0.86", "--draw", picture});
  CHECK(drag.code == 0);
  CHECK(drag.out.find("Reed-2 picked up") != std::string::npos);
  CHECK(drag.out.find("laid on") == std::string::npos);
  CHECK(std::filesystem::file_size(picture) > 10'000);
  const auto csv = tool({"replay", potting_bench, session, "--until", "0.86", "--format", "csv"});
  CHECK(csv.out.starts_with("time,event,card,count,from,to,reason\n"));
  CHECK(csv.out.find(",picked-up,52,1,waste,,allowed\n") != std::string::npos);
}

TEST_CASE("tool: replay says what is wrong with a log or a file that is not there") {
  const std::string broken = scratch("broken.log");
  std::ofstream(broken) << "{\"apsidon\": \"input-log\", \"version\": 1}\n{\"time\": 1, \"kye\": \"act\"}\n";
  const auto bad = tool({"replay", potting_bench, broken});
  CHECK(bad.code == 3);
  CHECK(bad.out.empty());
  CHECK(bad.err.find("broken.log:2:") != std::string::npos);
  CHECK(tool({"replay", potting_bench, "nowhere.log"}).code == 3);
  CHECK(tool({"replay", potting_bench, session, "--check", "nowhere.events"}).code == 3);
  CHECK(tool({"replay", potting_bench}).code == 2);
}
