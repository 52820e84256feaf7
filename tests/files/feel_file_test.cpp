#include <catch2/catch.hpp>

#include "apsidon/files/feel_file.hpp"
#include "support/process.hpp"
#include "support/schema.hpp"

using namespace apsidon;
using namespace apsidon::test;

TEST_CASE("files: the three feels stand in files, valid by the schema, and are the built-in ones") {
  const Schema schema("feel");
  for (const Feel& feel : {Feel{}, springy(), calm()}) {
    const auto file = source("data/" + feel.name + ".feel.json");
    CAPTURE(file.string());
    CHECK(schema.accepts(nlohmann::json::parse(contents(file))));
    const auto read = load_feel(file);
    if (!read) FAIL(describe(read.error()[0]));
    CHECK(*read == feel);
    CHECK_NOTHROW(check(*read));
    CHECK(*parse_feel(write_feel(feel), "x") == feel);
    CHECK(schema.accepts(nlohmann::json::parse(write_feel(feel))));
  }
}

TEST_CASE("files: a feel says only what differs, and what is wrong in it is said with its place") {
  const std::string head = R"({"apsidon": "feel", "version": 1, )";
  const auto read = parse_feel(head + R"("move": {"seconds": 0.5, "curve": "step-end"},
                                         "deal": {"stagger": 0.2, "cues": [{"name": "snap", "at": 0.5}]}})",
                               "x");
  REQUIRE(read.has_value());
  CHECK(read->move.glide.seconds == 0.5f);
  CHECK(read->move.glide.curve == Easing::parse("step-end"));
  CHECK(read->move.glide.lift == Feel{}.move.glide.lift);
  CHECK(read->deal.cues == std::vector<Cue>{{"snap", 0.5f}});
  const auto problem = [&](const std::string& inside) {
    const auto feel = parse_feel(head + inside + "}", "x.feel.json");
    REQUIRE_FALSE(feel.has_value());
    return describe(feel.error()[0]);
  };
  const auto says = [&](const std::string& inside, const std::string& part) {
    CAPTURE(problem(inside));
    CHECK(problem(inside).find(part) != std::string::npos);
  };
  says(R"("mvoe": {})", "'mvoe'");
  says(R"("mvoe": {})", "'move'");
  says(R"("move": {"curve": "easy"})", "x.feel.json:1:53: /move/curve: easing 'easy': linear, ease");
  says(R"("move": {"spring": {"period": 0}})", "/move/spring/period");
  says(R"("move": {"flip_from": 0.8, "flip_to": 0.2})", "/move/flip_to: 0.2: 0.8 to 1");
  says(R"("deal": {"by": "size"})", "order");
}
