#include "shared/words.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <cerrno>
#include <charconv>
#include <cstdio>
#include <deque>
#include <new>
#include <sstream>
#include <stdexcept>
#include <system_error>
#include <type_traits>

#include "apsidon/files/nearest.hpp"
#include "apsidon/files/result.hpp"

namespace apsidon::tool {

namespace {

/// For a terminal: printable, and cut where it is endless, between two characters.
std::string cut(const std::string& text, bool keeps_newlines) {
  constexpr std::size_t most = 4000;
  std::string out = printable(text, keeps_newlines);
  if (out.size() <= most) return out;
  std::size_t end = most;
  while (end > 0 && (static_cast<unsigned char>(out[end]) & 0xC0) == 0x80) --end;
  return out.substr(0, end) + "…";
}

}  // namespace

std::string shown(const std::string& text) { return cut(text, false); }

void print(const std::string& text) {
  const std::string safe = printable(text, true);
  if (std::fwrite(safe.data(), 1, safe.size(), stdout) == safe.size()) return;
  throw Failure{bad_file,
                fmt::format("the output cannot be written: {}", std::generic_category().message(errno))};
}

void print_error(const std::string& text) { fmt::print(stderr, "{}\n", cut(text, true)); }

void finish_output() {
  if (std::fflush(stdout) == 0) return;
  throw Failure{bad_file,
                fmt::format("the output cannot be written: {}", std::generic_category().message(errno))};
}

struct Words::Impl {
  CLI::App* app;
  std::function<int()> run = {};
  std::string examples = {};
};

Words::Words(std::unique_ptr<Impl> impl) : impl_(std::move(impl)) {}
Words::Words(Words&&) noexcept = default;
Words::~Words() = default;

Words& Words::text(const std::string& name, std::string& into, const std::string& type,
                   const std::string& help) {
  impl_->app->add_option(name, into, help)->type_name(type);
  return *this;
}

Words& Words::required_text(const std::string& name, std::string& into, const std::string& type,
                            const std::string& help) {
  impl_->app->add_option(name, into, help)->type_name(type)->required();
  return *this;
}

Words& Words::texts(const std::string& name, std::vector<std::string>& into, const std::string& type,
                    const std::string& help) {
  // An option takes one word each time, words without a dash in front as many as there are.
  auto* option = impl_->app->add_option(name, into, help)->type_name(type);
  if (name.starts_with("-")) option->allow_extra_args(false);
  return *this;
}

namespace {

/// Checks that a word is one of these, and says so in plain words.
auto one_of(const std::vector<std::string>& choices) {
  return [choices](const std::string& word) {
    if (std::find(choices.begin(), choices.end(), word) != choices.end()) return std::string{};
    const auto near = nearest_name(word, choices);
    return fmt::format("'{}': {}", shown(word),
                       near ? fmt::format("did you mean '{}'?", *near)
                            : fmt::format("one of {} is expected", fmt::join(choices, ", ")));
  };
}

}  // namespace

Words& Words::choice(const std::string& name, std::string& into, const std::vector<std::string>& choices,
                     const std::string& type, const std::string& help) {
  impl_->app->add_option(name, into, help)->type_name(type)->check(one_of(choices));
  return *this;
}

Words& Words::choices(const std::string& name, std::vector<std::string>& into,
                      const std::vector<std::string>& choices, const std::string& type,
                      const std::string& help) {
  impl_->app->add_option(name, into, help)->type_name(type)->expected(1)->take_all()->check(one_of(choices));
  return *this;
}

namespace {

/// What is wrong with a word that is to be such a number; empty when nothing is.
template <class Number>
std::string wrong_number(const std::string& word, Number least, Number most) {
  Number value{};
  const char* end = word.data() + word.size();
  const auto [rest, error] = std::from_chars(word.data(), end, value);
  if (error == std::errc{} && rest == end && value >= least && value <= most) return {};
  return fmt::format("'{}': a{} number from {} to {} is expected", shown(word),
                     std::is_integral_v<Number> ? " whole" : "", least, most);
}

}  // namespace

Words& Words::number(const std::string& name, float& into, double least, double most, const std::string& type,
                     const std::string& help) {
  impl_->app->add_option(name, into, help)->type_name(type)->check([=](const std::string& word) {
    return wrong_number(word, least, most);
  });
  return *this;
}

Words& Words::number(const std::string& name, double& into, double least, double most,
                     const std::string& type, const std::string& help) {
  impl_->app->add_option(name, into, help)->type_name(type)->check([=](const std::string& word) {
    return wrong_number(word, least, most);
  });
  return *this;
}

Words& Words::number(const std::string& name, std::uint64_t& into, std::uint64_t least, std::uint64_t most,
                     const std::string& type, const std::string& help) {
  impl_->app->add_option(name, into, help)->type_name(type)->check([=](const std::string& word) {
    return wrong_number(word, least, most);
  });
  return *this;
}

Words& Words::number(const std::string& name, int& into, int least, int most, const std::string& type,
                     const std::string& help) {
  impl_->app->add_option(name, into, help)->type_name(type)->check([=](const std::string& word) {
    return wrong_number(word, least, most);
  });
  return *this;
}

Words& Words::flag(const std::string& name, bool& into, const std::string& help) {
  impl_->app->add_flag(name, into, help);
  return *this;
}

Words& Words::format(Format& into) {
  const auto take = [&into](const std::string& word) {
    if (word != "text" && word != "json" && word != "csv")
      throw CLI::ValidationError("--format", fmt::format("'{}': text, json or csv is expected", shown(word)));
    into = word == "json" ? Format::json : word == "csv" ? Format::csv : Format::text;
  };
  impl_->app->add_option_function<std::string>("--format", take, "text for people; json or csv for programs")
      ->type_name("FORMAT");
  return *this;
}

Words& Words::example(const std::string& text) {
  impl_->examples += (impl_->examples.empty() ? "Example: " : "\n         ") + text;
  impl_->app->footer(impl_->examples);
  return *this;
}

void Words::does(std::function<int()> run) { impl_->run = std::move(run); }

struct CommandLine::Impl {
  CLI::App app{"Where every card is, what a point hits, what may go where, and how cards move.", "apsidon"};
  std::deque<Words> verbs = {};

  [[nodiscard]] const Words* chosen() const {
    for (const Words& verb : verbs) {
      if (verb.impl_->app->parsed()) return &verb;
    }
    return nullptr;
  }

  /// The first word that was not understood, and the nearest that would have been.
  [[nodiscard]] std::string not_understood() const {
    const CLI::App* where = chosen() ? chosen()->impl_->app : &app;
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
      for (const Words& verb : verbs) names.push_back(verb.impl_->app->get_name());
    }
    const auto near = nearest_name(word, names);
    const std::string_view what = word.starts_with('-') ? "option" : where == &app ? "verb" : "argument";
    return fmt::format("unknown {} '{}'{}", what, word,
                       near ? fmt::format(": did you mean '{}'?", *near) : "");
  }
};

CommandLine::CommandLine() : impl_(std::make_unique<Impl>()) {
  CLI::App& app = impl_->app;
  app.set_version_flag("--version", "apsidon " APSIDON_VERSION);
  app.require_subcommand(1);
  app.footer(
      "Exit codes: 0 yes or done, 1 no, 2 a bad call, 3 a bad file. 'apsidon VERB --help' has an example.");
}
CommandLine::~CommandLine() = default;

Words& CommandLine::verb(const std::string& name, const std::string& what) {
  impl_->verbs.emplace_back(
      std::make_unique<Words::Impl>(Words::Impl{.app = impl_->app.add_subcommand(name, what)}));
  return impl_->verbs.back();
}

std::vector<VerbHelp> CommandLine::verbs() const {
  std::vector<VerbHelp> all;
  for (const Words& words : impl_->verbs) {
    const CLI::App& app = *words.impl_->app;
    VerbHelp verb{.name = app.get_name(), .what = app.get_description(), .examples = words.impl_->examples};
    for (const CLI::Option* option : app.get_options()) {
      verb.options.push_back({.names = option->get_name(false, true),
                              .type = option->get_items_expected_max() == 0 ? "" : option->get_type_name(),
                              .help = option->get_description(),
                              .required = option->get_required()});
    }
    all.push_back(std::move(verb));
  }
  return all;
}

std::string CommandLine::help(const std::string& verb) const {
  // Asked by a verb itself, the tool would answer with that verb's help.
  const CLI::App& app = impl_->app;
  if (verb.empty()) return app.get_formatter()->make_help(&app, app.get_name(), CLI::AppFormatMode::Normal);
  return impl_->app.get_subcommand(verb)->help("apsidon");
}

int CommandLine::run(int argc, char** argv) {
  const auto fail = [&](const Failure& failure) {
    const std::string verb = impl_->chosen() ? " " + impl_->chosen()->impl_->app->get_name() : "";
    const std::string message = failure.lines ? failure.message : printable(failure.message);
    print_error(fmt::format("apsidon{}: {}", verb, message));
    if (failure.code == bad_call) print_error(fmt::format("'apsidon{} --help' says more", verb));
    return failure.code;
  };
  try {
    impl_->app.parse(argc, argv);
  } catch (const CLI::Success& help) {
    std::ostringstream text;
    const int code = impl_->app.exit(help, text);
    try {
      print(text.str());
      finish_output();
    } catch (const Failure& failure) {
      return fail(failure);
    }
    return code;
  } catch (const CLI::ParseError& e) {
    const std::string extra = impl_->not_understood();
    return fail({bad_call, extra.empty() ? std::string(e.what()) : extra});
  }
  try {
    const int code = impl_->chosen()->impl_->run();
    finish_output();
    return code;
  } catch (const Failure& failure) {
    return fail(failure);
  } catch (const std::bad_alloc&) {
    return fail(
        {bad_file, "there is not enough memory for what this file asks for: a smaller one is expected"});
  } catch (const std::length_error&) {
    return fail(
        {bad_file, "there is not enough memory for what this file asks for: a smaller one is expected"});
  } catch (const std::exception& e) {
    return fail({bad_file, e.what()});
  }
}

}  // namespace apsidon::tool
