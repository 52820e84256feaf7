#pragma once
// What the verbs share: options that read alike everywhere, loading, and how numbers are written.
#include <nlohmann/json.hpp>

#include <optional>
#include <string>
#include <vector>

#include "apsidon/apsidon.hpp"
#include "apsidon/draw/gallery.hpp"
#include "apsidon/draw/paint.hpp"
#include "apsidon/files/result.hpp"
#include "shared/words.hpp"

namespace apsidon::tool {

// One a file.
void add_place(CommandLine& line);
void add_draw(CommandLine& line);
void add_probe(CommandLine& line);
void add_judge(CommandLine& line);
void add_replay(CommandLine& line);
void add_film(CommandLine& line);
void add_curve(CommandLine& line);
void add_faces(CommandLine& line);
void add_fit(CommandLine& line);
void add_check(CommandLine& line);
void add_play(CommandLine& line);
void add_demo(CommandLine& line);
void add_help(CommandLine& line);

/// Options of the verbs that look at a table in a window.
struct TableOptions {
  std::string file;
  std::string window = "1280x800";
  float pixel_ratio = 1;
  bool trust = false;  ///< its other files may lie anywhere

  void add_to(Words& words);
};

/// "1280x800", each 1 to 16384; anything else is a bad call.
Size parse_size(const std::string& option, const std::string& text);
/// "640,400"; anything else is a bad call.
Vec2 parse_point(const std::string& option, const std::string& text);

/// The value, or a bad-file failure with every problem on a line of its own.
template <class T>
T or_fail(Result<T> result) {
  if (result) return *std::move(result);
  std::string lines;
  for (const Problem& problem : result.error()) {
    lines += (lines.empty() ? "" : "\n") + describe(problem);
    if (problem.code == ProblemCode::outside) lines += ": --trust allows it";
  }
  throw Failure{bad_file, lines, true};
}

OtherFiles others_of(bool trust);
Gallery load_gallery(const std::string& art, bool trust);
TableSetup load_setup(const TableOptions& options);
Playfield load_playfield(const TableOptions& options);

/// A card named by its face ("reed-2"), its id ("17") or its place ("column-3:0", "column-3:top").
CardId find_card(const Table& table, const std::string& text);
ZoneId find_zone(const Table& table, const std::string& text);

/// "reed-2 (card 17, column-3:4)".
std::string card_text(const Table& table, CardId card);
/// "column" of "column-3": zones of one name but for their numbers belong together.
std::string stem_of(const std::string& name);
/// Two decimals at the most, no trailing zeros, never "-0".
std::string number(double value);
/// The same as a JSON number.
double rounded(double value, double step = 0.01);
double degrees(float radians);

/// A cell of a table of values, in quotes where it needs them (RFC 4180).
std::string csv(const std::string& text);
void print_json(const nlohmann::ordered_json& json);
/// How the output of every verb begins: {"apsidon": "place", "version": 1}. data/schemas/output describes
/// them.
nlohmann::ordered_json json_of_verb(const std::string& verb);
/// The same as an open text, for what is printed row by row: to be followed by rows, and by "]}".
std::string opened_json(const std::string& verb, const std::string& rows);
/// {"width", "height"}, to a hundredth of a px.
nlohmann::ordered_json json_of_size(Size size);
/// A bad call when a file that is to be written ends in none of these.
void expect_ending(const std::string& option, const std::string& file,
                   const std::vector<std::string>& endings);
/// A frame as a PNG, an SVG or a PDF, by the file's ending.
void write_picture(const std::string& file, const Frame& frame, const Deck& deck,
                   const Gallery* gallery = nullptr, Ground ground = Ground::glasshouse);
/// A bad call when a file that is to be written is one of those that are read.
void expect_other_file(const std::string& out, const std::vector<std::string>& read);
/// Makes the folder of a file that is to be written.
void make_folder_of(const std::string& file);

}  // namespace apsidon::tool
