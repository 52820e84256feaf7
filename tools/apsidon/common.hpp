#pragma once
// What the verbs share: options that read alike everywhere, loading, and how numbers are written.
#include <CLI/CLI.hpp>
#include <nlohmann/json.hpp>

#include <optional>
#include <string>
#include <vector>

#include "apsidon/apsidon.hpp"
#include "apsidon/files/result.hpp"

namespace apsidon::tool {

// Exit codes, the same for all verbs.
inline constexpr int yes = 0;       ///< yes, or done
inline constexpr int no = 1;        ///< refused, nothing there, does not fit
inline constexpr int bad_call = 2;  ///< options that make no sense
inline constexpr int bad_file = 3;  ///< a file that cannot be read or written

/// Ends a verb with a message for people.
struct Failure {
  int code;
  std::string message;
};

/// A verb: adds its options to `app` and runs when parsing has chosen it.
struct Verb {
  CLI::App* app;
  std::function<int()> run;
};

// One a file.
Verb add_place(CLI::App& app);
Verb add_draw(CLI::App& app);
Verb add_probe(CLI::App& app);
Verb add_judge(CLI::App& app);
Verb add_film(CLI::App& app);
Verb add_faces(CLI::App& app);
Verb add_demo(CLI::App& app);

enum class Format { text, json, csv };

/// Options of the verbs that look at a table in a window.
struct TableOptions {
  std::string file;
  std::string window = "1280x800";
  float pixel_ratio = 1;

  void add_to(CLI::App& app);
};
void add_format(CLI::App& app, Format& format);

/// "1280x800", each 1 to 16384; anything else is a bad call.
Size parse_size(const std::string& text);
/// "640,400"; anything else is a bad call.
Vec2 parse_point(const std::string& text);

/// The value, or a bad-file failure with every problem on a line of its own.
template <class T>
T or_fail(Result<T> result) {
  if (result) return *std::move(result);
  std::string lines;
  for (const Problem& problem : result.error()) lines += (lines.empty() ? "" : "\n") + describe(problem);
  throw Failure{bad_file, lines};
}

TableSetup load_setup(const TableOptions& options);
Playfield load_playfield(const TableOptions& options);

/// A card named by its face ("reed-2"), its id ("17") or its place ("column-3:0", "column-3:top").
CardId find_card(const Table& table, const std::string& text);
ZoneId find_zone(const Table& table, const std::string& text);

/// "reed-2 (card 17, column-3:4)".
std::string card_text(const Table& table, CardId card);
/// Two decimals at the most, no trailing zeros, never "-0".
std::string number(double value);
/// The same as a JSON number.
double rounded(double value, double step = 0.01);
double degrees(float radians);

void print(const std::string& text);
void print_json(const nlohmann::ordered_json& json);
/// Makes the folder of a file that is to be written.
void make_folder_of(const std::string& file);

}  // namespace apsidon::tool
