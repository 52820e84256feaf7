// The help, the page of the manual, and what a shell completes by, all from one description of the verbs.
#include <catch2/catch.hpp>
#include <fstream>
#include <regex>
#include <set>

#include "support/process.hpp"

using namespace apsidon::test;

namespace {

/// The words with two dashes in front that a text has.
std::set<std::string> options_in(const std::string& text) {
  const std::regex option("--[a-z][a-z-]*");
  std::set<std::string> found;
  for (std::sregex_iterator it(text.begin(), text.end(), option), end; it != end; ++it)
    found.insert(it->str());
  return found;
}

std::set<std::string> verbs() {
  std::set<std::string> found;
  const std::string text = tool({"help"}).out;
  bool listed = false;
  for (const std::string& line : lines_of(text)) {
    if (listed && line.starts_with("  ")) found.insert(line.substr(2, line.find(' ', 2) - 2));
    listed = listed || line.starts_with("Subcommands:");
  }
  return found;
}

}  // namespace

TEST_CASE("tool: help is what --help says, of the tool and of each verb") {
  CHECK(tool({"help"}).out == tool({"--help"}).out);
  REQUIRE(verbs().size() >= 13);
  for (const std::string& verb : verbs()) {
    CAPTURE(verb);
    CHECK(tool({"help", verb}).out == tool({verb, "--help"}).out);
  }
  const auto wrong = tool({"help", "prob"});
  CHECK(wrong.code == 2);
  CHECK(holds(wrong.err, "unknown verb 'prob': did you mean 'probe'?"));
  CHECK(tool({"help", "--completion", "fish"}).code == 2);
}

TEST_CASE("tool: the page of the manual and the completion have every verb with every option of its help") {
  const std::string page = tool({"help", "--man"}).out;
  std::string plain;  // without what the typesetter reads
  for (const char c : page) plain += c == '\\' ? "" : std::string(1, c);
  const std::string shell = tool({"help", "--completion", "bash"}).out;
  for (const std::string& verb : verbs()) {
    CAPTURE(verb);
    const std::size_t begins = plain.find(".SS apsidon " + verb + "\n");
    REQUIRE(begins != std::string::npos);
    const std::string part = plain.substr(begins, plain.find("\n.SS ", begins + 1) - begins);
    // What an example calls is no option of its own.
    const std::string help = tool({verb, "--help"}).out;
    for (const std::string& option : options_in(help.substr(0, help.find("\nExample: ")))) {
      CAPTURE(option);
      CHECK(holds(part, option));
      CHECK(holds(shell.substr(shell.find("    " + verb + ") ")), option));
    }
  }
  // A shell that has read it completes a verb, and an option of a verb.
  const Scratch scratch;
  std::ofstream(scratch / "apsidon.bash") << shell;
  const auto completed = [&](const std::string& words, int at) {
    return run("/bin/bash",
               {"-c", "source " + (scratch / "apsidon.bash").string() + "; COMP_WORDS=(" + words +
                          "); COMP_CWORD=" + std::to_string(at) + "; _apsidon; echo \"${COMPREPLY[*]}\""})
        .out;
  };
  CHECK(completed("apsidon pro", 1) == "probe\n");
  CHECK(completed("apsidon probe --a", 2) == "--at\n");
  CHECK(completed("apsidon no --a", 2) == "\n");
}
