// The ranges that the headers of art and drawing state: see style/stated_numbers.txt.
#include <catch2/catch.hpp>
#include <fstream>
#include <limits>

#include "apsidon/art/art_file.hpp"
#include "apsidon/draw/gallery.hpp"
#include "apsidon/studio/compose.hpp"
#include "apsidon/studio/moving.hpp"
#include "apsidon/studio/recipe.hpp"
#include "support/process.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// Whether an art or a recipe with this inside is read; if not, it is for this value.
bool is_read(const std::string& kind, const std::string& inside, const std::string& pointer) {
  const std::string text = R"({"apsidon": ")" + kind + R"(", "version": 1, )" + inside + "}";
  const auto said = [&](const auto& read) {
    if (read) return true;
    CAPTURE(inside, describe(read.error()[0]));
    CHECK(holds(describe(read.error()[0]), pointer));
    return false;
  };
  return kind == "art" ? said(parse_art(text, "x")) : said(parse_recipe(text, "x"));
}

}  // namespace

TEST_CASE("studio: columns of a sheet, cards of a recipe and its marks have their ranges") {
  for (const auto& [value, good] : std::vector<std::pair<std::string, bool>>{
           {"1", true}, {"10000", true}, {"0", false}, {"10001", false}}) {
    CHECK(is_read("art",
                  R"("sheets": [{"picture": "a.png", "cell": {"width": 1, "height": 1}, "columns": )" +
                      value + "}]",
                  "/sheets/0/columns") == good);
  }
  for (const auto& [value, good] : std::vector<std::pair<std::string, bool>>{
           {"1", true}, {"2000", true}, {"0.5", false}, {"2001", false}}) {
    CHECK(is_read("recipe", R"("card": {"height": 200, "width": )" + value + "}", "/card/width") == good);
    CHECK(is_read("recipe", R"("card": {"width": 200, "height": )" + value + "}", "/card/height") == good);
  }
  for (const auto& [value, good] :
       std::vector<std::pair<std::string, bool>>{{"0.01", true}, {"1", true}, {"0", false}, {"1.01", false}})
    CHECK(is_read("recipe", R"("rank_mark": {"width": )" + value + "}", "/rank_mark/width") == good);
  for (const auto& [value, good] : std::vector<std::pair<std::string, bool>>{
           {"0.01", true}, {"1", true}, {"0.009", false}, {"1.01", false}})
    CHECK(is_read("recipe", R"("spot_width": )" + value, "/spot_width") == good);
}

TEST_CASE("draw: a picture has at least 1 device pixel and at most 16384 a side and 67108864 in all") {
  CHECK(Picture({0, 0}).width() == 1);
  CHECK(Picture({0, 0}).height() == 1);
  CHECK(Picture({10.1f, 20}, 2).width() == 21);
  CHECK(most_side == 16384);
  CHECK(most_pixels == 67'108'864);
  CHECK(most_pixels * 4 == std::size_t{256} * 1024 * 1024);  // MiB
  CHECK(Picture({16384, 2}).width() == 16384);
  CHECK_THROWS_AS(Picture({16385, 2}), Error);
  CHECK_THROWS_AS(Picture({2, 16385}), Error);
  CHECK_THROWS_AS(Picture({16384, 4097}), Error);
  CHECK_THROWS_AS(Picture({10, 10}, 0), Error);
  CHECK(Picture({10'000'000, 1}, 0.001f).width() == 10'000);
  CHECK(Picture({-10'000'000, 1}, 0.001f).width() == 1);
  CHECK_THROWS_AS(Picture({10'000'002, 1}, 0.001f), Error);
  CHECK_THROWS_AS(Picture({1, std::numeric_limits<float>::quiet_NaN()}, 1), Error);
}

TEST_CASE("studio: a film is 16383 px a side at most, a card of a sheet 2000") {
  CHECK_NOTHROW(MovingPicture(16383, 16383));
  CHECK_THROWS_AS(MovingPicture(16384, 10), Error);
  CHECK_THROWS_AS(MovingPicture(10, 16384), Error);
  CHECK_THROWS_AS(MovingPicture(0, 10), Error);
  const Deck one({.suits = {{"fern", "green"}}, .ranks = {"1"}});
  CHECK(compose_sheet(one, {2000, 10}, "s.png").picture.width() >= 2000);
  CHECK_THROWS_AS(compose_sheet(one, {2001, 10}, "s.png"), Error);
  CHECK_THROWS_AS(compose_sheet(one, {10, 2001}, "s.png"), Error);
  CHECK_THROWS_AS(compose_sheet(one, {0, 10}, "s.png"), Error);
}

TEST_CASE("draw: of an art's folder no more than 10,000 files are looked at") {
  const Scratch scratch;
  for (int i = 0; i < 10'020; ++i) std::ofstream(scratch / (std::to_string(i) + ".png"));
  const std::size_t found = Gallery(Art{}, scratch / "").pictures().size();
  CHECK(found <= 10'000);
  CHECK(found > 9'000);
}
