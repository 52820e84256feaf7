// What the tool prints and draws of the demo tables is what is kept of it; scripts/references makes that
// anew.
#include "support/reference.hpp"

#include <algorithm>
#include <catch2/catch.hpp>

using namespace apsidon::test;

namespace {

std::vector<std::string> words_of(const std::string& line) {
  std::istringstream in(line);
  std::vector<std::string> words;
  for (std::string word; in >> word;) words.push_back(word);
  return words;
}

}  // namespace

TEST_CASE("tool: what is printed of the demo tables is what was written down") {
  const auto file = source("tests/reference/printed.txt");
  const std::string kept = contents(file);
  std::string now;
  int commands = 0;
  for (const std::string& line : lines_of(kept)) {
    if (line.rfind("$ ", 0) != 0) continue;
    const auto outcome = tool(words_of(line.substr(2)));
    const std::string printed = line + "\n" + outcome.out + outcome.err;
    if (!references_are_renewed() && !holds(kept, printed)) FAIL_CHECK("not so in printed.txt:\n" << printed);
    now += printed;
    ++commands;
  }
  if (references_are_renewed()) std::ofstream(file, std::ios::binary) << now;
  CHECK(contents(file) == now);
  CHECK(commands >= 25);
}

TEST_CASE("tool: what is drawn of the demo tables is what was looked at") {
  const Scratch scratch;
  int pictures = 0;
  for (const std::string& line : lines_of(contents(source("tests/reference/pictures.txt")))) {
    if (line.rfind("#", 0) == 0) continue;
    const std::string name = line.substr(0, line.find(" |"));
    const std::string drawn = (scratch / (name + ".png")).string();
    std::vector<std::string> words = words_of(line.substr(line.find("| ") + 2));
    std::replace(words.begin(), words.end(), std::string("OUT"), drawn);
    CAPTURE(name);
    CHECK(tool(words).code <= 1);  // that a window is too small is no failure
    CHECK(differs_from_kept(drawn, name) < 0.03);
    ++pictures;
  }
  CHECK(pictures >= 15);
}
