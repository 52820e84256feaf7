#include "apsidon/files/saved_game.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <optional>
#include <utility>

#include "apsidon/files/read_file.hpp"
#include "apsidon/files/table_file.hpp"
#include "apsidon/geometry/error.hpp"
#include "apsidon/play/replay.hpp"
#include "files/input_json.hpp"
#include "files/reader.hpp"
#include "files/verbatim.hpp"
#include "play/values/any_input.hpp"

namespace apsidon {
namespace {

using namespace files_detail;

/// The first line.
struct Head {
  double time = 0;
  TableSetup table;
  std::optional<double> inputs = {};  // of games that were written before it was told: none
  std::string end = {};
};

Result<Head> read_head(std::string_view line, const std::filesystem::path& file) {
  return read_document<Head>(line, file, "game", [](const Node& top) {
    top.expect_keys({"apsidon", "version", "time", "table", "inputs", "end"});
    const double time = top.at("time").number(-most_seconds, most_seconds);
    const Node text = top.at("table");
    auto table = parse_table(text.text(), "the table in the game");
    if (!table) text.stop(table.error().front().code, describe(table.error().front()));
    Head head{time, *std::move(table)};
    if (top.has("inputs")) head.inputs = top.child("inputs").number(0, 1e15);
    head.end = top.text_or("end", "");
    return head;
  });
}

Problem problem_of(const std::filesystem::path& file, ProblemCode code, std::string message,
                   std::size_t line = 0) {
  return {.code = code,
          .file = file.string(),
          .line = line,
          .column = line > 0 ? 1u : 0u,
          .message = std::move(message)};
}

/// What came in, without what the game answered, which belongs to it.
std::size_t inputs_in(const InputLog& log) {
  return static_cast<std::size_t>(std::count_if(log.inputs.begin(), log.inputs.end(), [](const Input& input) {
    return !play_detail::is_answer(input);
  }));
}

}  // namespace

Recorder SavedGame::recorder() {
  return [this](const Input& input) { log.inputs.push_back(input); };
}

std::string write_game(const SavedGame& game, const Playfield& field) {
  const std::size_t recorded = inputs_in(game.log);
  if (recorded != field.inputs_taken()) {
    throw Error(
        fmt::format("game: its log has {} inputs of the {} that the playfield has taken: a recorder that is "
                    "set before the first is expected, and stays",
                    recorded, field.inputs_taken()));
  }
  const nlohmann::ordered_json head{{"apsidon", "game"},         {"version", 1},
                                    {"time", field.now()},       {"inputs", recorded},
                                    {"end", fingerprint(field)}, {"table", write_table(game.setup)}};
  InputLog log = game.log;
  log.table = fingerprint(game.setup);
  return dumped(head) + "\n" + write_log(log, game.setup);
}

Result<LoadedGame> parse_game(std::string_view text, const std::filesystem::path& file,
                              const TableSetup* own) {
  const std::size_t end = std::min(text.find('\n'), text.size());
  auto head = read_head(text.substr(0, end), file);
  if (!head) return head.error();
  if (own && fingerprint(*own) != fingerprint(head->table)) {
    return problem_of(file, ProblemCode::misplaced,
                      "the game is of another table: the one with which it began is expected");
  }
  SavedGame game{.setup = own ? *own : std::move(head->table)};
  auto log = parse_log(text.substr(std::min(end + 1, text.size())), file, game.setup);
  if (!log) {
    Problems problems = log.error();
    for (Problem& problem : problems) problem.line += problem.line > 0 ? 1 : 0;  // the head comes before
    return problems;
  }
  game.log = *std::move(log);
  const auto lines = static_cast<std::size_t>(std::count(text.begin(), text.end(), '\n'));
  if (head->inputs && *head->inputs != static_cast<double>(inputs_in(game.log))) {
    return problem_of(file, ProblemCode::missing_key,
                      fmt::format("the log ends here with {} inputs: {}, as the head says, are expected",
                                  inputs_in(game.log), *head->inputs),
                      lines);
  }
  const double last = game.log.inputs.empty() ? game.log.options.start_time : time_of(game.log.inputs.back());
  if (head->time < last) {
    return problem_of(
        file, ProblemCode::out_of_range,
        fmt::format("the game stands at {}, its last input is of {}: a time from there on is expected",
                    head->time, last));
  }
  try {
    Playfield field(game.setup, game.log.options);
    const auto heard = [](const Event&) {};
    if (replay(field, game.log.inputs, head->time, heard) != 0) {
      return problem_of(
          file, ProblemCode::misplaced,
          "the game goes back to a snapshot that it never had, or to more of them than are kept: one of "
          "its own is expected");
    }
    while (field.next_event(head->time)) {
    }
    if (inputs_in(game.log) != field.inputs_taken()) {
      return problem_of(file, ProblemCode::misplaced,
                        fmt::format("of its {} inputs {} could be taken: a log that was recorded is expected",
                                    inputs_in(game.log), field.inputs_taken()),
                        lines);
    }
    if (!head->end.empty() && head->end != fingerprint(field)) {
      return problem_of(
          file, ProblemCode::misplaced,
          fmt::format("here the game is at {}: {}, as the head says, is expected; lines were changed, or "
                      "it is of another version",
                      fingerprint(field), head->end),
          lines);
    }
    return LoadedGame{.game = std::move(game), .field = std::move(field)};
  } catch (const Error& e) {
    return problem_of(file, ProblemCode::out_of_range, e.what());
  }
}

Result<LoadedGame> load_game(const std::filesystem::path& file, const TableSetup* own) {
  const auto text = read_file(file);
  return text ? parse_game(*text, file, own) : Result<LoadedGame>(text.error());
}

}  // namespace apsidon
