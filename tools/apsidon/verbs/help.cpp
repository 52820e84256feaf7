// apsidon help: what the verbs do, as text, as a page of the manual, and for a shell that completes words.
#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <memory>

#include "apsidon/files/nearest.hpp"
#include "shared/common.hpp"

namespace apsidon::tool {
namespace {

struct HelpOptions {
  std::string verb = {};
  bool man = false;
  std::string completion = {};
};

/// Text in a page of the manual: a dash is one to type, and a line cannot begin with a control character.
std::string troff(const std::string& text) {
  std::string out;
  for (const char c : text) {
    if (c == '\\') out += "\\e";
    if (c == '-') out += "\\-";
    if (c == '\n') out += "\n.br\n";
    if (c != '\\' && c != '-' && c != '\n') out += c;
  }
  return out.starts_with('.') || out.starts_with('\'') ? "\\&" + out : out;
}

std::string man_page(const std::vector<VerbHelp>& verbs) {
  std::string page = fmt::format(
      ".TH APSIDON 1 \"\" \"apsidon {}\"\n.SH NAME\napsidon \\- tables of card games: where every card is, "
      "what "
      "may go where, how cards move\n.SH SYNOPSIS\n.B apsidon\n.I VERB\n[OPTIONS] ...\n.SH VERBS\n",
      APSIDON_VERSION);
  for (const VerbHelp& verb : verbs) {
    page += fmt::format(".SS apsidon {}\n{}\n", verb.name, troff(verb.what));
    for (const VerbHelp::Option& option : verb.options) {
      page += fmt::format(".TP\n.B {}", troff(option.names));
      if (!option.type.empty()) page += fmt::format(" \\fI{}\\fR", troff(option.type));
      page += fmt::format("\n{}{}\n", troff(option.help), option.required ? " (required)" : "");
    }
    if (!verb.examples.empty()) page += fmt::format(".PP\n{}\n", troff(verb.examples));
  }
  return page + ".SH EXIT STATUS\n0 yes or done, 1 no, 2 a bad call, 3 a bad file.\n";
}

/// The options of a verb as words, "--at --format".
std::vector<std::string> words_of(const VerbHelp& verb) {
  std::vector<std::string> words;
  for (const VerbHelp::Option& option : verb.options) {
    const std::size_t at = option.names.find("--");
    if (at != std::string::npos) words.push_back(option.names.substr(at, option.names.find(',', at) - at));
  }
  return words;
}

/// Verbs first, then the options of the verb, or files.
std::string bash_completion(const std::vector<VerbHelp>& verbs) {
  std::vector<std::string> names;
  std::string cases;
  for (const VerbHelp& verb : verbs) {
    names.push_back(verb.name);
    cases += fmt::format("    {}) words=\"{}\" ;;\n", verb.name, fmt::join(words_of(verb), " "));
  }
  return fmt::format(R"(# apsidon help --completion bash
_apsidon() {{
  local word="${{COMP_WORDS[COMP_CWORD]}}" words=""
  if [ "$COMP_CWORD" -eq 1 ]; then
    COMPREPLY=($(compgen -W "{}" -- "$word"))
    return
  fi
  case "${{COMP_WORDS[1]}}" in
{}  esac
  case "$word" in
    -*) COMPREPLY=($(compgen -W "$words" -- "$word")) ;;
    *) COMPREPLY=($(compgen -f -- "$word")) ;;
  esac
}}
complete -o filenames -F _apsidon apsidon
)",
                     fmt::join(names, " "), cases);
}

int run(const HelpOptions& options, const CommandLine& line) {
  const std::vector<VerbHelp> verbs = line.verbs();
  if (options.man) {
    print(man_page(verbs));
  } else if (!options.completion.empty()) {
    print(bash_completion(verbs));
  } else {
    std::vector<std::string> names;
    for (const VerbHelp& verb : verbs) names.push_back(verb.name);
    const bool known = std::find(names.begin(), names.end(), options.verb) != names.end();
    if (!options.verb.empty() && !known) {
      const auto near = nearest_name(options.verb, names);
      throw Failure{bad_call,
                    fmt::format("unknown verb '{}': {}", options.verb,
                                near ? fmt::format("did you mean '{}'?", *near)
                                     : fmt::format("one of {} is expected", fmt::join(names, ", ")))};
    }
    print(line.help(options.verb));
  }
  return yes;
}

}  // namespace

void add_help(CommandLine& line) {
  Words& words = line.verb("help", "What a verb does and takes; all of it as a manual page, or for a shell");
  auto options = std::make_shared<HelpOptions>();
  words.text("verb", options->verb, "VERB", "Of this verb; else which verbs there are")
      .flag("--man", options->man, "All of it as a page of the manual, for man(1)")
      .choice("--completion", options->completion, {"bash"}, "SHELL",
              "What has a shell complete verbs and options")
      .example("apsidon help probe")
      .example("apsidon help --man > ~/.local/share/man/man1/apsidon.1")
      .example("source <(apsidon help --completion bash)")
      .does([options, &line] { return run(*options, line); });
}

}  // namespace apsidon::tool
