// apsidon replay: a session from its log: what happened, and whether it is what happened before.
#include <fmt/format.h>

#include <algorithm>
#include <limits>
#include <map>
#include <nlohmann/json.hpp>
#include <sstream>

#include "apsidon/draw/paint.hpp"
#include "apsidon/files/input_log.hpp"
#include "apsidon/files/read_file.hpp"
#include "apsidon/files/table_file.hpp"
#include "apsidon/files/write_file.hpp"
#include "shared/common.hpp"

namespace apsidon::tool {
namespace {

struct ReplayOptions {
  std::string table;
  std::string log;
  std::string check;
  std::string events;
  std::string out;
  std::string draw;
  bool trust = false;
  bool sentences = false;
  double until = std::numeric_limits<double>::infinity();
  Format format = Format::text;
};

std::vector<std::string> lines_of(const std::string& file) {
  std::istringstream in(or_fail(read_file(file)));
  std::vector<std::string> lines;
  for (std::string line; std::getline(in, line);) {
    if (!line.empty()) lines.push_back(line);
  }
  return lines;
}

void write(const std::string& file, const std::string& text) {
  make_folder_of(file);
  write_file(file, text);
}

/// Nothing when the events are those of the file, else where they part.
std::optional<std::string> difference(const std::vector<std::string>& told, const std::string& file) {
  const std::vector<std::string> expected = lines_of(file);
  const std::size_t n = std::max(told.size(), expected.size());
  for (std::size_t i = 0; i < n; ++i) {
    const std::string is = i < told.size() ? told[i] : "no more events";
    const std::string was = i < expected.size() ? expected[i] : "no more events";
    if (is != was) return fmt::format("{}:{}: {}\n  the replay has: {}", file, i + 1, was, is);
  }
  return std::nullopt;
}

/// What the game itself has answered is only in the log: said plainly, so that nobody takes it for the
/// rules'.
std::string answered_by_the_game(const InputLog& log, const TableSetup& setup) {
  std::map<std::string, int> rules;
  int judged = 0;
  for (const Input& input : log.inputs) {
    if (name_of(input) == "own")
      ++rules[nlohmann::json::parse(write_input(input, setup))["own"].get<std::string>()];
    judged += name_of(input) == "judged" ? 1 : 0;
  }
  std::string out;
  const auto times = [](int n) { return n == 1 ? std::string("once") : fmt::format("{} times", n); };
  for (const auto& [rule, n] : rules)
    out += fmt::format("answered from the log: the game's rule '{}', {}\n", printable(rule), times(n));
  if (judged > 0) out += fmt::format("answered from the log: the game's judge, {}\n", times(judged));
  return out;
}

/// An event without a sentence of its own.
std::string bare(const Event& event, const Table& table) {
  std::string out(name_of(event.kind));
  if (table.card(event.card)) out += ": " + card_text(table, event.card);
  const auto zone = [&](const char* word, ZoneId id) {
    return table.zone(id) ? fmt::format(", {} {}", word, table.zone(id)->name) : std::string{};
  };
  out += zone("from", event.from) + zone("to", event.to);
  return event.name.empty() ? out : fmt::format("{}, '{}'", out, event.name);
}

/// The two files are easily exchanged, and each is then said to be no JSON of its kind.
void expect_order(const ReplayOptions& options) {
  const auto first_line = [](const std::string& file) {
    const auto text = read_file(file);
    return text ? text->substr(0, text->find('\n')) : std::string{};
  };
  if (first_line(options.table).find("\"input-log\"") == std::string::npos) return;
  throw Failure{bad_call,
                fmt::format("'{}' is an input log: the table comes first, then its log: apsidon replay "
                            "{} {}",
                            options.table, options.log, options.table)};
}

int run(const ReplayOptions& options) {
  expect_order(options);
  if (!options.draw.empty()) expect_ending("--draw", options.draw, {".png", ".svg", ".pdf"});
  for (const std::string& out : {options.events, options.out, options.draw})
    expect_other_file(out, {options.table, options.log});
  const TableSetup setup = load_setup({.file = options.table, .trust = options.trust});
  const InputLog log = or_fail(load_log(options.log, setup));
  if (log.table.empty()) {
    print_error(fmt::format("apsidon replay: '{}' does not say with which table it began: taken for this one",
                            shown(options.log)));
  }
  Playfield field(setup, log.options);
  std::vector<std::string> told;
  std::string sentences;
  std::string table = "time,event,card,count,from,to,reason\n";
  const auto zone = [&](ZoneId id) { return field.table().zone(id) ? field.table().zone(id)->name : ""; };
  const auto hear = [&](const Event& event) {
    told.push_back(event_line(event, field.table()));
    table +=
        fmt::format("{},{},{},{},{},{},{}\n", event.time, name_of(event.kind), event.card.value, event.count,
                    csv(zone(event.from)), csv(zone(event.to)), code_of(event.verdict.reason));
    const std::string text = describe(event, field);
    if (text.empty() && options.sentences) return;
    sentences += fmt::format("{:8.2f} s  {}\n", event.time,
                             printable(text.empty() ? bare(event, field.table()) : text));
  };
  const std::size_t missed = replay(field, log.inputs, options.until, hear);
  const auto inputs = std::count_if(log.inputs.begin(), log.inputs.end(),
                                    [&](const Input& input) { return time_of(input) <= options.until; });
  // To the moment that is asked for, else until all is at rest.
  const double rest = field.time().settles_at();
  const double end = std::isfinite(options.until) ? options.until : std::isfinite(rest) ? rest : field.now();
  while (const auto event = field.next_event(end)) hear(*event);
  if (missed > 0) {
    throw Failure{no, fmt::format("{}: it goes back {} to a snapshot of another session, which no log holds",
                                  options.log, missed == 1 ? "once" : fmt::format("{} times", missed))};
  }

  if (options.format == Format::json) {
    std::string rows;
    for (const std::string& line : told) rows += (rows.empty() ? "\n " : ",\n ") + line;
    print(opened_json("replay", "events") + rows + (rows.empty() ? "]}\n" : "\n]}\n"));
  } else if (options.format == Format::csv) {
    print(table);
  } else {
    print(sentences);
    print(answered_by_the_game(log, setup));
    print(fmt::format("{} inputs, {} events, {:.2f} seconds\n", inputs, told.size(),
                      field.now() - log.options.start_time));
  }
  if (!options.events.empty()) {
    std::string lines;
    for (const std::string& line : told) lines += line + "\n";
    write(options.events, lines);
  }
  if (!options.out.empty()) {
    TableSetup after = setup;
    after.table = field.table();
    write(options.out, write_table(after));
  }
  if (!options.draw.empty()) {
    write_picture(options.draw, field.frame(), field.table().deck());
    if (options.format == Format::text) {
      print(fmt::format("{}: the table at {:.2f} s\n", options.draw, field.now()));
    }
  }
  if (options.check.empty()) return yes;
  const auto where = difference(told, options.check);
  if (options.format == Format::text || where)
    print(where ? *where + "\n" : fmt::format("{}: the same events\n", options.check));
  return where ? no : yes;
}

}  // namespace

void add_replay(CommandLine& line) {
  Words& words = line.verb("replay", "A session from its log: what happened, and the table afterwards");
  auto options = std::make_shared<ReplayOptions>();
  words.required_text("table", options->table, "TABLE", "The table file with which the session began")
      .required_text("log", options->log, "LOG", "Its input log")
      .text("--check", options->check, "EVENTS", "Compare with these events (exit 1 where they differ)")
      .text("--events", options->events, "FILE", "Write the events, one a line, to be compared with later")
      .text("--out", options->out, "FILE", "Write the table as it is afterwards")
      .text("--draw", options->draw, "FILE", "Draw the last moment, with its marks, as a PNG, SVG or PDF")
      .number("--until", options->until, -1e12, 1e12, "SECONDS",
              "Stop at this time of the log, in mid-drag if so")
      .flag("--trust", options->trust, "The deck that the table names may lie anywhere, not only beside it")
      .flag("--sentences", options->sentences, "Only what a screen reader would say, not every event")
      .format(options->format)
      .example(
          "apsidon replay data/potting-bench.table.json data/potting-bench.log --until 0.86 --draw drag.png")
      .does([options] { return run(*options); });
}

}  // namespace apsidon::tool
