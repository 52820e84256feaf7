// apsidon: one verb a file. Parses, runs, and turns whatever goes wrong into a sentence and an exit code.
#include <fmt/format.h>

#include <cstdio>

#include "apsidon/files/nearest.hpp"
#include "common.hpp"

namespace apsidon::tool {
namespace {

/// The first word that was not understood, and the nearest that would have been.
std::string not_understood(const CLI::App& app, const std::vector<Verb>& verbs) {
  const CLI::App* where = &app;
  for (const Verb& verb : verbs) {
    if (verb.app->parsed()) where = verb.app;
  }
  std::vector<std::string> extras = where->remaining();
  if (extras.empty()) extras = app.remaining();
  if (extras.empty()) return {};
  std::string word = extras.front();
  word = word.substr(0, word.find('='));
  std::vector<std::string> names;
  if (word.starts_with('-')) {
    for (const CLI::Option* option : where->get_options()) {
      for (const std::string& name : option->get_lnames()) names.push_back("--" + name);
    }
  } else if (where == &app) {
    for (const Verb& verb : verbs) names.push_back(verb.app->get_name());
  }
  const auto near = nearest_name(word, names);
  const std::string_view what = word.starts_with('-') ? "option" : where == &app ? "verb" : "argument";
  return fmt::format("unknown {} '{}'{}", what, word, near ? fmt::format(": did you mean '{}'?", *near) : "");
}

int fail(const std::string& verb, const std::string& message, int code) {
  fmt::print(stderr, "apsidon{}{}: {}\n", verb.empty() ? "" : " ", verb, message);
  return code;
}

int run(int argc, char** argv) {
  CLI::App app("Where every card is, what a point hits, what may go where, and how cards move.", "apsidon");
  app.set_version_flag("--version", "apsidon " APSIDON_VERSION);
  app.require_subcommand(1);
  app.failure_message(CLI::FailureMessage::simple);
  app.footer(
      "Exit codes: 0 yes or done, 1 no, 2 a bad call, 3 a bad file. 'apsidon VERB --help' has an example.");
  const std::vector<Verb> verbs{add_place(app), add_draw(app),  add_probe(app), add_judge(app),
                                add_film(app),  add_faces(app), add_demo(app)};
  const auto chosen = [&]() -> const Verb* {
    for (const Verb& verb : verbs) {
      if (verb.app->parsed()) return &verb;
    }
    return nullptr;
  };
  const auto verb_name = [&] { return chosen() ? chosen()->app->get_name() : std::string(); };
  try {
    app.parse(argc, argv);
  } catch (const CLI::Success& help) {
    return app.exit(help);
  } catch (const CLI::ParseError& e) {
    const std::string extra = not_understood(app, verbs);
    const std::string message = extra.empty() ? std::string(e.what()) : extra;
    return fail(
        verb_name(),
        message + "\n'apsidon " + (verb_name().empty() ? "" : verb_name() + " ") + "--help' says more",
        bad_call);
  }
  try {
    return chosen()->run();
  } catch (const Failure& failure) {
    return fail(verb_name(), failure.message, failure.code);
  } catch (const std::exception& e) {
    return fail(verb_name(), e.what(), bad_file);
  }
}

}  // namespace
}  // namespace apsidon::tool

int main(int argc, char** argv) { return apsidon::tool::run(argc, argv); }
