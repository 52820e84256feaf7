#pragma once
#include <filesystem>
#include <string>
#include <string_view>
#include <vector>

#include "apsidon/cards/table.hpp"
#include "apsidon/files/result.hpp"
#include "apsidon/files_export.hpp"
#include "apsidon/play/event.hpp"
#include "apsidon/play/input.hpp"
#include "apsidon/play/options.hpp"
#include "apsidon/play/playfield.hpp"
#include "apsidon/play/setup.hpp"

namespace apsidon {

/// What a session began with, and all that came in, in order of time. A table, a log and a version are a bug
/// report.
struct InputLog {
  PlayfieldOptions options = {};  ///< with what the playfield began
  std::string table = {};  ///< `fingerprint` of the table; empty when it is not known: written, it gets one
  std::vector<Input> inputs = {};  ///< in the order in which they came

  friend bool operator==(const InputLog&, const InputLog&) = default;
};

/// Sixteen digits that another table does not have but by a rare chance: of how it lies, its rules and its
/// plans.
[[nodiscard]] APSIDON_FILES_EXPORT std::string fingerprint(const TableSetup& setup);

/// Sixteen digits of what a game is at: which cards lie where and how, how the game stands, what waits for an
/// answer, what holds the gate and the clock. Two clients with the same ones agree. Not of time, and not of
/// what moves. O(cards).
[[nodiscard]] APSIDON_FILES_EXPORT std::string fingerprint(const Playfield& field);

/// One input as text, as a line of a log has it, without its end: `{"time":1.5,"undo":true}`. Throws Error as
/// `write_log` does.
[[nodiscard]] APSIDON_FILES_EXPORT std::string write_input(const Input& input, const TableSetup& setup);
/// The input of such a text. Its time may be left out, for `Playfield::call`, which takes it now.
[[nodiscard]] APSIDON_FILES_EXPORT Result<Input> parse_input(std::string_view text, const TableSetup& setup);

/// JSON Lines: a head, then one line an input. Every number reads back as the same bits; zones and faces are
/// written by the names that this table gives them. Throws Error when a table with which a round begins has a
/// layout of one's own, which no file can hold, or when a zone or the plans are to be what they cannot be on
/// this table.
[[nodiscard]] APSIDON_FILES_EXPORT std::string write_log(const InputLog& log, const TableSetup& setup);
/// The log of a session with this table; one of another table is a problem.
[[nodiscard]] APSIDON_FILES_EXPORT Result<InputLog> parse_log(std::string_view text,
                                                              const std::filesystem::path& file,
                                                              const TableSetup& setup);
/// The same from a file.
[[nodiscard]] APSIDON_FILES_EXPORT Result<InputLog> load_log(const std::filesystem::path& file,
                                                             const TableSetup& setup);

/// One line an event, for a log that is compared with another: its time, its kind, and what it names.
[[nodiscard]] APSIDON_FILES_EXPORT std::string event_line(const Event& event, const Table& table);

}  // namespace apsidon
