#include <catch2/catch.hpp>
#include <map>

#include "support/process.hpp"

using namespace apsidon::test;

TEST_CASE("examples: each prints what is written down for it") {
  for (const std::string name : {"first_drag", "table_from_file"}) {
    CAPTURE(name);
    const auto picture = std::filesystem::temp_directory_path() / "apsidon-table.png";
    std::filesystem::remove(picture);
    const auto outcome = run(std::filesystem::path(APSIDON_EXAMPLES) / ("example_" + name),
                             {source("data/potting-bench.table.json").string(), picture.string()});
    CHECK(outcome.code == 0);
    CHECK(outcome.err.empty());
    CHECK(outcome.out == contents(source("tests/examples/" + name + ".expected")));
    CHECK((name != "table_from_file" || contents(picture).starts_with("\x89PNG")));
  }
}

TEST_CASE(
    "examples: small games and a form play to their ends, say what is written down, and leave a picture") {
  for (const std::string name :
       {"dusk_packets", "changing_bench", "slow_sales", "grafting_frame", "swept_labels", "card_form"}) {
    CAPTURE(name);
    const auto picture = std::filesystem::temp_directory_path() / ("apsidon-" + name + ".png");
    std::filesystem::remove(picture);
    const auto outcome =
        run(std::filesystem::path(APSIDON_EXAMPLES) / ("example_" + name), {picture.string()});
    CHECK(outcome.code == 0);
    CHECK(outcome.err.empty());
    CHECK(outcome.out == contents(source("tests/examples/" + name + ".expected")));
    CHECK(contents(picture).starts_with("\x89PNG"));
    CHECK(lines_of(contents(source("examples/" + name + ".cpp"))).size() < 120);
  }
}

TEST_CASE("examples: a part by itself, a game that is saved, and a renderer of one's own, each short") {
  for (const std::string name :
       {"game_loop", "layout_alone", "motion_alone", "hit_alone", "rules_alone", "sold_pairs", "market_day",
        "four_growers", "counted_hits", "compost_race", "seed_fair", "saved_game", "seed_server",
        "own_renderer", "fan_picture", "own_layout", "frame_numbers"}) {
    CAPTURE(name);
    const auto picture = std::filesystem::temp_directory_path() / "apsidon-own-renderer.png";
    std::filesystem::remove(picture);
    const std::map<std::string, std::string> tables{{"saved_game", "data/potting-bench.table.json"},
                                                    {"seed_server", "data/seed-drawer-start.table.json"}};
    const std::string argument = (tables.contains(name) ? source(tables.at(name)) : picture).string();
    const auto outcome = run(std::filesystem::path(APSIDON_EXAMPLES) / ("example_" + name), {argument});
    CHECK(outcome.code == 0);
    CHECK(outcome.err.empty());
    CHECK(outcome.out == contents(source("tests/examples/" + name + ".expected")));
    const bool draws = name.starts_with("own_") || name == "fan_picture" || name == "frame_numbers";
    CHECK((!draws || contents(picture).starts_with("\x89PNG")));
    // The numbers of a frame are many, a renderer draws more than cards, a window is acted, and five are
    // whole games.
    const bool long_one = name == "frame_numbers" || name == "own_renderer" || name == "game_loop" ||
                          name == "market_day" || name == "four_growers" || name == "counted_hits" ||
                          name == "compost_race" || name == "seed_fair";
    CHECK(lines_of(contents(source("examples/" + name + ".cpp"))).size() < (long_one ? 140u : 80u));
  }
}

namespace {

/// The fenced blocks of a page, each with its language.
std::vector<std::pair<std::string, std::string>> blocks_of(const std::string& page) {
  std::vector<std::pair<std::string, std::string>> blocks;
  bool inside = false;
  for (const std::string& line : lines_of(page)) {
    if (line.starts_with("```")) {
      inside = !inside;
      if (inside) blocks.emplace_back(line.substr(3), "");
    } else if (inside) {
      blocks.back().second += line + "\n";
    }
  }
  return blocks;
}

/// However far it is indented.
std::string straight(const std::string& text) {
  std::string out;
  for (const std::string& line : lines_of(text))
    out += line.substr(std::min(line.find_first_not_of(' '), line.size())) + "\n";
  return out;
}

}  // namespace

TEST_CASE("examples: each chapter of the guide quotes its program, which prints and draws what is said") {
  const std::vector<std::pair<std::string, std::string>> chapters{
      {"1-one-card", "one_card"},       {"2-a-table", "a_table"},    {"3-a-plan", "a_plan"},
      {"4-the-loop", "the_loop"},       {"5-the-hand", "the_hand"},  {"6-rules", "rules_and_why_not"},
      {"7-motion", "motion_and_sound"}, {"8-drawing", "drawing_it"}, {"9-keeping", "keeping_it"},
      {"10-several", "several"}};
  const auto picture = std::filesystem::temp_directory_path() / "apsidon-guide.png";
  const std::string list = contents(source("docs/guide/README.md"));
  for (const auto& [chapter, program] : chapters) {
    CAPTURE(chapter);
    const std::string page = contents(source("docs/guide/" + chapter + ".md"));
    const std::string code = contents(source("examples/guide/" + program + ".cpp"));
    CHECK(list.find("](" + chapter + ".md)") != std::string::npos);
    CHECK(page.find("](" + chapter + ".png)") != std::string::npos);
    CHECK(page.find("](../../examples/guide/" + program + ".cpp)") != std::string::npos);
    CHECK(page.find("## What goes wrong most often") != std::string::npos);
    CHECK(contents(source("docs/guide/" + chapter + ".png")).starts_with("\x89PNG"));
    CHECK(lines_of(code).size() < 60);
    const auto blocks = blocks_of(page);
    CHECK(blocks.size() >= 2);
    for (const auto& [language, text] : blocks) {
      CAPTURE(text);
      CHECK(language == "cpp");
      CHECK(straight(code).find(straight(text)) != std::string::npos);
    }
    std::filesystem::remove(picture);
    const auto outcome =
        run(std::filesystem::path(APSIDON_EXAMPLES) / ("example_" + program), {picture.string()});
    CHECK(outcome.code == 0);
    CHECK(outcome.err.empty());
    CHECK(outcome.out == contents(source("tests/examples/" + program + ".expected")));
    CHECK(contents(picture).starts_with("\x89PNG"));
  }
}

TEST_CASE(
    "examples: the programs of the README and the loops of the pages are those in examples/, to the letter") {
  std::string examples;
  for (const char* name : {"readme", "game_loop", "own_renderer"})
    examples += straight(contents(source("examples/" + std::string(name) + ".cpp")));
  int programs = 0;
  for (const char* page : {"README.md", "docs/play.md", "docs/drawing.md"}) {
    int on_page = 0;
    for (const auto& [language, text] : blocks_of(contents(source(page)))) {
      if (language != "cpp" || (page != std::string("README.md") && on_page > 0)) continue;
      ++on_page;
      CAPTURE(page, text);
      CHECK(examples.find(straight(text)) != std::string::npos);
    }
    programs += on_page;
  }
  CHECK(programs == 4);
  // What else it says is done by tests/linking/readme.sh.
  CHECK(lines_of(contents(source("README.md"))).size() <= 150);
}

TEST_CASE("examples: the first program of the README draws its picture") {
  const auto folder = std::filesystem::temp_directory_path() / "apsidon-readme";
  std::filesystem::create_directories(folder);
  std::filesystem::remove(folder / "hand.png");
  const auto outcome =
      run("/bin/sh", {"-c", "cd " + folder.string() + " && " + APSIDON_EXAMPLES + "/example_readme"});
  CHECK(outcome.code == 0);
  CHECK(contents(folder / "hand.png").starts_with("\x89PNG"));
}
