#include <catch2/catch.hpp>

#include "support/process.hpp"

using namespace apsidon::test;

TEST_CASE("examples: each prints what is written down for it") {
  for (const std::string name : {"first_drag", "readme"}) {
    CAPTURE(name);
    const auto picture = std::filesystem::temp_directory_path() / "apsidon-readme.png";
    std::filesystem::remove(picture);
    const auto outcome = run(std::filesystem::path(APSIDON_EXAMPLES) / ("example_" + name),
                             {source("data/potting-bench.table.json").string(), picture.string()});
    CHECK(outcome.code == 0);
    CHECK(outcome.err.empty());
    CHECK(outcome.out == contents(source("tests/examples/" + name + ".expected")));
    CHECK((name != "readme" || contents(picture).starts_with("\x89PNG")));
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
  for (const std::string name : {"layout_alone", "motion_alone", "hit_alone", "rules_alone", "saved_game",
                                 "own_renderer", "fan_picture", "own_layout", "frame_numbers"}) {
    CAPTURE(name);
    const auto picture = std::filesystem::temp_directory_path() / "apsidon-own-renderer.png";
    std::filesystem::remove(picture);
    const std::string argument =
        (name == "saved_game" ? source("data/potting-bench.table.json") : picture).string();
    const auto outcome = run(std::filesystem::path(APSIDON_EXAMPLES) / ("example_" + name), {argument});
    CHECK(outcome.code == 0);
    CHECK(outcome.err.empty());
    CHECK(outcome.out == contents(source("tests/examples/" + name + ".expected")));
    const bool draws = name.starts_with("own_") || name == "fan_picture" || name == "frame_numbers";
    CHECK((!draws || contents(picture).starts_with("\x89PNG")));
    // The numbers of a frame are many.
    CHECK(lines_of(contents(source("examples/" + name + ".cpp"))).size() <
          (name == "frame_numbers" ? 140u : 80u));
  }
}

TEST_CASE("examples: the program in the README is the one in examples/, to the letter") {
  const std::string program = contents(source("examples/readme.cpp"));
  const std::string body = program.substr(program.find("#include"));
  CHECK(contents(source("README.md")).find(body) != std::string::npos);
}
