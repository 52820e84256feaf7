// Every number that a header or a table of the documents states is the one that holds: a range of an option
// is that of the list by which options are checked, and any other number has a test, named in
// stated_numbers.txt.
#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>
#include <map>
#include <regex>
#include <set>
#include <sstream>

#include "apsidon/apsidon.hpp"
#include "geometry/each_field.hpp"
#include "gesture/fields.hpp"
#include "layout/fields.hpp"
#include "motion/fields.hpp"
#include "play/values/fields.hpp"

using namespace apsidon;
namespace fs = std::filesystem;

namespace {

const fs::path root = APSIDON_SOURCE_DIR;

struct Stated {
  std::string file, member, number;
  std::size_t line = 0;
};

std::vector<std::string> lines_of(const fs::path& file) {
  std::ifstream in(file);
  std::vector<std::string> lines;
  for (std::string line; std::getline(in, line);) lines.push_back(line);
  return lines;
}

/// The numbers of a text: with a unit, with a word that makes them a limit, or as a range; or `all` of them.
std::vector<std::string> numbers_in(const std::string& text, bool all = false) {
  static const std::regex number(
      R"(\[-?[0-9.']+, ?-?[a-z0-9_.']+\])"
      R"(|-?[0-9]+° to [0-9]+°)"
      R"(|\b[0-9][0-9',.]*(e[0-9]+)?(°|%| ?(px²|(px|s|ms|ns|seconds?|MiB|kB|MB|bytes|levels|files|times|card (widths|heights))\b)))"
      R"(|\b(at most|no more than|more than|up to|at least|within|beyond) [0-9][0-9',]*)");
  static const std::regex any(R"((^|[ (])-?[0-9]([0-9.,]*[0-9])?(⁰|¹|²|³|⁴|⁵|⁶|⁷|⁸|⁹)*)");
  std::vector<std::string> found;
  for (std::sregex_iterator it(text.begin(), text.end(), all ? any : number), end; it != end; ++it)
    found.push_back(std::regex_replace(it->str(), std::regex("^[ (]|,$"), ""));
  return found;
}

/// What a declaration declares: its comment stands beside it, on the line after it, or on the lines before
/// it.
std::string member_of(const std::vector<std::string>& lines, std::size_t i) {
  static const std::regex declared(R"(\b([a-z_]+) ?(=|\{|;))");
  const auto code = [&](std::size_t at) { return lines[at].substr(0, lines[at].find("//")); };
  const auto blank = [](const std::string& text) { return text.find_first_not_of(' ') == std::string::npos; };
  std::size_t at = i;
  while (at + 1 < lines.size() && blank(code(at)) && !blank(lines[at])) ++at;
  for (const std::size_t tried : {at, at == 0 ? at : at - 1}) {
    const std::string text = code(tried);
    if (std::smatch m; std::regex_search(text, m, declared)) return m[1];
  }
  return {};
}

std::vector<Stated> all_stated() {
  std::vector<Stated> stated;
  const auto read = [&](const fs::path& folder, const std::string& extension, const auto& part_of) {
    for (const auto& entry : fs::recursive_directory_iterator(root / folder)) {
      if (entry.path().extension() != extension) continue;
      const auto lines = lines_of(entry.path());
      for (std::size_t i = 0; i < lines.size(); ++i) {
        for (const std::string& n : numbers_in(part_of(lines[i]), entry.path().filename() == "limits.md"))
          stated.push_back({fs::relative(entry.path(), root).string(), member_of(lines, i), n, i + 1});
      }
    }
  };
  read("include", ".hpp", [](const std::string& line) {
    const std::size_t at = line.find("///");
    return at == std::string::npos ? std::string() : line.substr(at);
  });
  // Figures that were measured on one machine are no promises.
  read("docs", ".md", [](const std::string& line) { return line.starts_with('|') ? line : std::string(); });
  std::erase_if(stated, [](const Stated& s) { return s.file == "docs/speed.md"; });
  return stated;
}

/// The border is another option.
constexpr double another = -1;

struct Range {
  double least, most;
};

/// Lists the ranges of options, and tries that each is checked: what lies beyond it is refused by name.
template <class Options>
class Borders {
 public:
  Borders(Options& options, std::multimap<std::string, Range>& ranges) : options_(options), ranges_(ranges) {}

  template <class Number>
  void number(std::string_view key, Number& value, double least, double most) {
    try_beyond(key, value, least, most, [](double v) { return static_cast<Number>(v); });
  }
  void whole(std::string_view key, int& value, int least, int most) {
    try_beyond(key, value, least, most, [](double v) { return static_cast<int>(v); });
  }
  void least(std::string_view key, float& value, float preferred, float) {
    ranges_.insert({std::string(key), {0, another}});
    CHECK(refused(key, value, preferred + 0.01f));
    CHECK(refused(key, value, -0.01f));
  }
  void angle(std::string_view key, Angle& value, double least, double most) {
    const std::string name(key.substr(0, key.size() - std::string_view("_deg").size()));
    ranges_.insert({name, {least, most}});
    CHECK(refused(key, value, Angle::degrees(static_cast<float>(least) - 1)));
    CHECK(refused(key, value, Angle::degrees(static_cast<float>(most) + 1)));
    CHECK_FALSE(refused(key, value, Angle::degrees(static_cast<float>(least))));
    CHECK_FALSE(refused(key, value, Angle::degrees(static_cast<float>(most))));
  }
  template <class Part>
  void part(std::string_view, Part&) {}
  template <class Value, class... More>
  void word(std::string_view, Value&, const More&...) {}
  template <class... All>
  void words(const All&...) {}
  template <class... All>
  void cues(const All&...) {}
  template <class... All>
  void easing(const All&...) {}
  template <class... All>
  void spring(const All&...) {}
  template <class... All>
  void text(const All&...) {}
  template <class... All>
  void truth(const All&...) {}
  template <class... All>
  void seed(const All&...) {}

 private:
  template <class Number, class Cast>
  void try_beyond(std::string_view key, Number& value, double least, double most, Cast cast) {
    ranges_.insert({std::string(key), {least, most}});
    const double step = std::is_integral_v<Number> ? 1 : std::max(std::abs(most), 1.0) * 1e-5;
    CHECK(refused(key, value, cast(least - step)));
    CHECK(refused(key, value, cast(most + step)));
    CHECK_FALSE(refused(key, value, cast(least)));
    CHECK_FALSE(refused(key, value, cast(most)));
  }

  /// Whether the options with this value are refused for it.
  template <class Value>
  bool refused(std::string_view key, Value& value, Value tried) {
    const Value before = std::exchange(value, tried);
    CAPTURE(std::string(key));
    bool named = false;
    try {
      if constexpr (requires { check(options_); }) {
        check(options_);
      } else {
        geometry_detail::check_options("it", options_);
      }
    } catch (const Error& e) {
      named = std::string_view(e.what()).find(": " + std::string(key) + " is ") != std::string_view::npos;
    }
    value = before;
    return named;
  }

  Options& options_;
  std::multimap<std::string, Range>& ranges_;
};

template <class... Options>
std::multimap<std::string, Range> ranges_of() {
  std::multimap<std::string, Range> ranges;
  const auto each = [&]<class O>(O options) {
    Borders<O> borders(options, ranges);
    fields(options, borders);
  };
  (each(Options{}), ...);
  return ranges;
}

/// "[0, 10'000]", "0° to 45°", "[0, spacing]".
std::optional<Range> range_of(const std::string& number) {
  std::string plain = std::regex_replace(number, std::regex("[\\[\\]']|°"), "");
  plain = std::regex_replace(plain, std::regex(",| to "), " ");
  std::istringstream in(plain);
  Range range{};
  if (!(in >> range.least)) return std::nullopt;
  if (!(in >> range.most)) range.most = another;
  return range;
}

bool is_held(const Stated& stated, const std::multimap<std::string, Range>& ranges) {
  const auto range = range_of(stated.number);
  const auto [first, last] = ranges.equal_range(stated.member);
  return range && std::any_of(first, last, [&](const auto& r) {
           return std::abs(r.second.least - range->least) < 1e-9 &&
                  std::abs(r.second.most - range->most) < 1e-9;
         });
}

/// The names of all tests.
std::set<std::string> all_tests() {
  static const std::regex begins("TEST_CASE\\(\\s*((\"[^\"]*\"\\s*)+)\\)");
  std::set<std::string> names;
  for (const auto& entry : fs::recursive_directory_iterator(root / "tests")) {
    if (entry.path().extension() != ".cpp") continue;
    std::string text;
    for (const std::string& line : lines_of(entry.path())) text += line + '\n';
    for (std::sregex_iterator it(text.begin(), text.end(), begins), end; it != end; ++it)
      names.insert(std::regex_replace(it->str(1), std::regex("\"\\s*\"|\"\\s*$|^\""), ""));
  }
  return names;
}

}  // namespace

TEST_CASE("style: every number that is stated is held by a list of ranges, or by a test that is named") {
  const auto ranges =
      ranges_of<PileLayout, ColumnLayout, SpreadLayout, HandLayout, GridLayout, RingLayout, Glide,
                Choreography, CardEffect, Spring, Feel, GestureThresholds, DragOptions, HoverOptions>();
  std::map<std::pair<std::string, std::string>, std::string> listed;  // by file and number: the test
  std::set<std::pair<std::string, std::string>> unused;
  const auto tests = all_tests();
  for (const std::string& test : tests) {
    INFO(test << ": CTest takes a semicolon for the end of a name");
    CHECK(test.find(';') == std::string::npos);
  }
  for (const std::string& line : lines_of(root / "tests/style/stated_numbers.txt")) {
    if (line.empty() || line.starts_with('#')) continue;
    const std::size_t first = line.find(" | "), second = line.find(" | ", first + 3);
    INFO("tests/style/stated_numbers.txt: " << line);
    REQUIRE(second != std::string::npos);
    const std::pair key(line.substr(0, first), line.substr(first + 3, second - first - 3));
    listed[key] = line.substr(second + 3);
    unused.insert(key);
    INFO("no test has this name");
    CHECK(tests.contains(listed[key]));
  }
  std::size_t by_range = 0;
  for (const Stated& stated : all_stated()) {
    if (is_held(stated, ranges)) {
      ++by_range;
      continue;
    }
    const std::pair key(stated.file, stated.number);
    unused.erase(key);
    INFO(stated.file << ':' << stated.line << " states " << stated.number << " of '" << stated.member
                     << "': a test of it is expected in tests/style/stated_numbers.txt");
    CHECK(listed.contains(key));
  }
  CHECK(by_range > 60);
  for (const auto& [file, number] : unused) {
    INFO("tests/style/stated_numbers.txt has " << number << " of " << file
                                               << ", which is not stated there any more");
    CHECK(false);
  }
}

TEST_CASE("style: every option of a zone is in the schema of tables and on the page of files") {
  const auto whole = [](const fs::path& file) {
    std::ostringstream text;
    text << std::ifstream(file).rdbuf();
    return text.str();
  };
  const std::string schema = whole(root / "data/schemas/table.schema.json");
  const std::string page = whole(root / "docs/files.md");
  std::size_t options = 0;
  geometry_detail::EachField look{[&](std::string_view key, const auto&...) {
    ++options;
    CAPTURE(key);
    CHECK(schema.find('"' + std::string(key) + '"') != std::string::npos);
    CHECK(page.find('`' + std::string(key) + '`') != std::string::npos);
  }};
  ZoneBehaviour zone;
  fields(zone, look);
  CHECK(options > 20);
}
