#pragma once
// Runs programs as a shell would, and keeps all that they say.
#include <sys/wait.h>
#include <unistd.h>

#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <sstream>
#include <string>
#include <vector>

namespace apsidon::test {

inline const std::string potting_bench = "data/potting-bench.table.json";

inline std::filesystem::path source(const std::string& file) {
  return std::filesystem::path(APSIDON_SOURCE_DIR) / file;
}

inline std::string contents(const std::filesystem::path& file) {
  std::ifstream in(file, std::ios::binary);
  std::ostringstream text;
  text << in.rdbuf();
  return text.str();
}

/// A folder of this process's own, gone when the test ends.
class Scratch {
 public:
  Scratch() {
    static int count = 0;
    path_ = std::filesystem::temp_directory_path() /
            ("apsidon-test-" + std::to_string(::getpid()) + "-" + std::to_string(++count));
    std::filesystem::create_directories(path_);
  }
  Scratch(const Scratch&) = delete;
  Scratch& operator=(const Scratch&) = delete;
  ~Scratch() {
    std::error_code ignored;
    std::filesystem::remove_all(path_, ignored);
  }
  [[nodiscard]] std::filesystem::path operator/(const std::string& name) const { return path_ / name; }

 private:
  std::filesystem::path path_;
};

struct Ran {
  int code = -1;
  std::string out;
  std::string err;
};

inline std::string quoted(const std::string& word) {
  std::string out = "'";
  for (const char c : word) out += c == '\'' ? std::string("'\\''") : std::string(1, c);
  return out + "'";
}

/// The program with these words, run in the project's folder.
inline Ran run(const std::string& program, const std::vector<std::string>& words) {
  const Scratch scratch;
  std::string command = "cd " + quoted(APSIDON_SOURCE_DIR) + " && " + quoted(program);
  // Appended piece by piece: of "text" + temporary, g++ 12 says at -O3 that it overflows.
  for (const std::string& word : words) command.append(" ").append(quoted(word));
  command.append(" </dev/null >").append(quoted((scratch / "out").string()));
  command.append(" 2>").append(quoted((scratch / "err").string()));
  const int status = std::system(command.c_str());
  return {WIFEXITED(status) ? WEXITSTATUS(status) : -1, contents(scratch / "out"), contents(scratch / "err")};
}

/// The tool that was built with the tests, or the one that the environment names.
inline std::string tool_program() {
  const char* other = std::getenv("APSIDON_TOOL");
  return other != nullptr ? other : APSIDON_TOOL;
}

inline Ran tool(const std::vector<std::string>& words) { return run(tool_program(), words); }

inline bool holds(const std::string& text, const std::string& part) {
  return text.find(part) != std::string::npos;
}

inline std::vector<std::string> lines_of(const std::string& text) {
  std::vector<std::string> lines;
  std::istringstream in(text);
  for (std::string line; std::getline(in, line);) lines.push_back(line);
  return lines;
}

inline std::vector<std::string> cells_of(const std::string& line) {
  std::vector<std::string> cells;
  std::istringstream in(line);
  for (std::string cell; std::getline(in, cell, ',');) cells.push_back(cell);
  return cells;
}

}  // namespace apsidon::test
