#include <algorithm>
#include <catch2/catch.hpp>
#include <cctype>
#include <fstream>
#include <map>
#include <nlohmann/json.hpp>

#include "support/process.hpp"

using apsidon::test::potting_bench;
using apsidon::test::tool;

namespace {

const std::vector<std::string> zones{"stock",    "waste",    "pot-1",    "pot-2",    "column-1",
                                     "column-2", "column-3", "column-4", "column-5", "column-6",
                                     "column-7", "bed-1",    "bed-2",    "bed-3",    "bed-4"};

const std::map<char, std::string> reasons{
    {'Y', "allowed"},     {'=', "same-zone"},        {'.', "drop-nothing"},  {'o', "not-empty"},
    {'m', "too-many"},    {'c', "not-same-colour"},  {'r', "not-rank-down"}, {'s', "not-same-suit"},
    {'u', "not-rank-up"}, {'k', "not-rank-on-empty"}};

/// Written down by hand from the rules of the game: what each card that may be picked up finds in each zone,
/// in the order of `zones`: stock and waste, two pots, seven columns, four beds.
const std::map<std::string, std::string> by_hand{
    {"reed-2", ".=oY rcrcrcc sYsk"},      {"marigold-9", "..=Y crcYcrr sssk"},
    {"reed-13", "..om =crcrcc mmmm"},     {"fern-12", "..om =crcrcc mmmm"},
    {"reed-11", "..oY =crcrcc susk"},     {"poppy-9", "..om c=cYcrr mmmm"},
    {"marigold-8", "..om c=crcrr mmmm"},  {"poppy-7", "..om c=crcrr mmmm"},
    {"marigold-6", "..oY c=crcrr sssk"},  {"fern-10", "..om Yc=crcc mmmm"},
    {"reed-9", "..om rc=crcc mmmm"},      {"fern-8", "..oY rc=crcc ussk"},
    {"marigold-11", "..om crc=crr mmmm"}, {"poppy-10", "..oY crc=crr ssuk"},
    {"reed-7", "..om rcYc=cc mmmm"},      {"fern-6", "..om rcrc=cc mmmm"},
    {"reed-5", "..om rcrc=cc mmmm"},      {"fern-4", "..oY rcrc=cc Yssk"},
    {"marigold-5", "..oY cYcrc=r sssk"},  {"poppy-4", "..om crcrcY= mmmm"},
    {"marigold-3", "..oY crcrcr= sssk"},  {"fern-3", "..oY rcrcYcc =ssk"},
    {"reed-1", "..oY rcrcrcc s=sY"},      {"poppy-2", "..oY crcrcrY ss=k"},
};

/// The cards that lie open and may not be picked up; all others are covered.
const std::map<std::string, std::string> not_picked{{"poppy-8", "not-top"},
                                                    {"poppy-13", "not-top"},
                                                    {"fern-1", "not-top"},
                                                    {"fern-2", "not-top"},
                                                    {"poppy-1", "not-top"}};

std::string expected_reason(const std::string& face, const std::string& from, std::size_t to) {
  const auto row = by_hand.find(face);
  if (row == by_hand.end()) {
    const auto open = not_picked.find(face);
    return open != not_picked.end() ? open->second : from == "stock" ? "pick-nothing" : "face-down";
  }
  std::string codes = row->second;
  std::erase(codes, ' ');
  return reasons.at(codes.at(to));
}

/// Whether the sentence has the name, at its start with a capital letter.
bool names(const std::string& sentence, const std::string& name) {
  return sentence.find(name) != std::string::npos ||
         (sentence.substr(1, name.size() - 1) == name.substr(1) &&
          std::tolower(static_cast<unsigned char>(sentence[0])) == name[0]);
}

}  // namespace

TEST_CASE("tool: judge of every card onto every zone is the matrix written by hand") {
  std::size_t judged = 0;
  for (std::size_t z = 0; z < zones.size(); ++z) {
    const auto outcome = tool({"judge", potting_bench, "--to", zones[z], "--format", "json"});
    const auto rows = nlohmann::json::parse(outcome.out)["judged"];
    bool any = false;
    for (const auto& row : rows) {
      const std::string face = row["face"];
      const std::string reason = row["reason"];
      const std::string sentence = row["sentence"];
      CAPTURE(face, zones[z], sentence);
      CHECK(reason == expected_reason(face, row["from"], z));
      CHECK(row["allowed"] == (reason == "allowed"));
      any = any || reason == "allowed";
      if (row["allowed"]) continue;
      // The sentence names the card, unless that would tell what lies covered, and the zone that decided.
      if (reason == "face-down") {
        CHECK(sentence == "The covered card lies face down.");
        continue;
      }
      if (reason != "drop-nothing" && reason != "pick-nothing" && reason != "not-empty") {
        CHECK(names(sentence, face));
      }
      const std::string decided =
          reason == "not-top" || reason == "pick-nothing" ? std::string(row["from"]) : zones[z];
      CHECK(names(sentence, decided));
      ++judged;
    }
    CHECK(rows.size() == 52);
    CHECK(outcome.code == (any ? 0 : 1));
  }
  CHECK(judged > 400);
}

TEST_CASE("tool: judge lists every legal move, and answers one question with yes or no") {
  const auto all = tool({"judge", potting_bench});
  CHECK(all.code == 0);
  std::size_t yes = 0;
  for (const auto& [face, row] : by_hand)
    yes += static_cast<std::size_t>(std::count(row.begin(), row.end(), 'Y'));
  CHECK(all.out.find("yes: a tap on stock gives 1 to waste\n") != std::string::npos);
  ++yes;  // that tap
  CHECK(apsidon::test::lines_of(all.out).size() == yes + 1);
  CHECK(apsidon::test::lines_of(all.out).back() == std::to_string(yes) + " legal moves");

  const auto one = tool({"judge", potting_bench, "--card", "poppy-9", "--to", "column-4"});
  CHECK(one.code == 0);
  CHECK(one.out.find("yes: poppy-9 (card ") == 0);
  CHECK(one.out.find("with the 3 on it to column-4 (alternative 2 of its rule)") != std::string::npos);
  const auto other = tool({"judge", potting_bench, "--card", "column-1:0", "--to", "bed-2"});
  CHECK(other.code == 1);
  CHECK(other.out.find("takes at most 1 at once here; from reed-13 on there are 3. [too-many]") !=
        std::string::npos);
  const auto csv = tool({"judge", potting_bench, "--card", "reed-2", "--format", "csv"});
  CHECK(apsidon::test::lines_of(csv.out).size() == 16);
  CHECK(apsidon::test::lines_of(csv.out)[0] == "card,face,from,count,to,allowed,reason,alternative");
}

TEST_CASE("tool: judge lists flips, turns and moves of the table's own beside those that go to a zone") {
  const Scratch scratch;
  std::ofstream(scratch / "t.json") << R"({
    "apsidon": "table", "version": 1,
    "deck": {"suits": [{"name": "fern", "colour": "green"}], "ranks": ["1", "2", "3"]},
    "zones": [{"name": "pot", "flip": "anything", "reorient": {"rank-at-least": "2"}, "pick": "any"}],
    "cards": {"pot": ["fern-1"]}, "moves": [{"name": "knock"}],
    "plans": [{"root": {"zone": "pot"}}]})";
  const std::string table = (scratch / "t.json").string();
  const auto text = tool({"judge", table});
  CHECK(text.code == 0);
  CHECK(holds(text.out, "yes: fern-1 (card 1, pot:0) is flipped in pot\n1 legal move\n"));
  CHECK(holds(tool({"judge", table, "--format", "csv"}).out, ",pot,1,,true,allowed,"));
  CHECK(nlohmann::json::parse(tool({"judge", table, "--format", "json"}).out)["judged"].size() == 1);
  CHECK(holds(tool({"judge", "data/seed-drawer.table.json"}).out, " legal moves\n"));
}
