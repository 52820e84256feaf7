#pragma once
// The words of a call: verbs and their options. What parses them stays in words.cpp.
#include <cstdint>
#include <functional>
#include <memory>
#include <string>
#include <vector>

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
  bool lines = false;  ///< its newlines are its own: each line was made printable by itself
};

/// A value within a message: one line, printable, and cut where it is endless.
std::string shown(const std::string& text);

// All that a verb says goes through these two, which leave nothing in it that a terminal would obey; newlines
// are kept, so that a value that may have one is made `printable` before it becomes part of a line.

/// To the standard output. A failure when it cannot be written: on a full disk, say.
void print(const std::string& text);
/// A line to the standard error.
void print_error(const std::string& text);
/// All that was printed is written now.
void finish_output();

enum class Format { text, json, csv };

/// The options of one verb. Values are written to what they are declared with, which must outlive the call.
class Words {
 public:
  struct Impl;
  explicit Words(std::unique_ptr<Impl> impl);
  Words(Words&&) noexcept;
  ~Words();

  /// A word without a dash in front, "table", or an option, "--zone".
  Words& text(const std::string& name, std::string& into, const std::string& type, const std::string& help);
  Words& required_text(const std::string& name, std::string& into, const std::string& type,
                       const std::string& help);
  /// An option that may be given several times.
  Words& texts(const std::string& name, std::vector<std::string>& into, const std::string& type,
               const std::string& help);
  /// One of these words.
  Words& choice(const std::string& name, std::string& into, const std::vector<std::string>& choices,
                const std::string& type, const std::string& help);
  /// Likewise, but the option may be given several times.
  Words& choices(const std::string& name, std::vector<std::string>& into,
                 const std::vector<std::string>& choices, const std::string& type, const std::string& help);
  Words& number(const std::string& name, float& into, double least, double most, const std::string& type,
                const std::string& help);
  Words& number(const std::string& name, double& into, double least, double most, const std::string& type,
                const std::string& help);
  Words& number(const std::string& name, int& into, int least, int most, const std::string& type,
                const std::string& help);
  Words& number(const std::string& name, std::uint64_t& into, std::uint64_t least, std::uint64_t most,
                const std::string& type, const std::string& help);
  Words& flag(const std::string& name, bool& into, const std::string& help);
  Words& format(Format& into);
  Words& example(const std::string& text);
  /// What the verb does.
  void does(std::function<int()> run);

 private:
  friend class CommandLine;
  std::unique_ptr<Impl> impl_;
};

/// What the help says of a verb.
struct VerbHelp {
  struct Option {
    std::string names = {};  ///< "--at", "-h,--help", or of a word without a dash its name
    std::string type = {};   ///< "X,Y"; empty for a flag
    std::string help = {};
    bool required = false;
  };
  std::string name = {};
  std::string what = {};
  std::vector<Option> options = {};
  std::string examples = {};
};

/// Parses a call, runs its verb, and turns whatever goes wrong into a sentence and an exit code.
class CommandLine {
 public:
  CommandLine();
  ~CommandLine();
  CommandLine(const CommandLine&) = delete;
  CommandLine& operator=(const CommandLine&) = delete;

  /// Valid as long as the command line.
  Words& verb(const std::string& name, const std::string& what);
  /// Of all verbs, in the order in which they were made.
  [[nodiscard]] std::vector<VerbHelp> verbs() const;
  /// What `--help` prints, of all, or after a verb.
  [[nodiscard]] std::string help(const std::string& verb = "") const;
  int run(int argc, char** argv);

 private:
  struct Impl;
  std::unique_ptr<Impl> impl_;
};

}  // namespace apsidon::tool
