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

namespace apsidon {

/// What a session began with, and all that came in, in order of time. A table, a log and a version are a bug
/// report.
struct InputLog {
  Size window{1280, 800};
  float pixel_ratio = 1;
  double start_time = 0;
  std::vector<Input> inputs = {};

  friend bool operator==(const InputLog&, const InputLog&) = default;
};

/// JSON Lines: a head, then one line an input. Every number reads back as the same bits. Faces of a sync are
/// written as the deck has them.
[[nodiscard]] APSIDON_FILES_EXPORT std::string write_log(const InputLog& log, const Deck& deck);
[[nodiscard]] APSIDON_FILES_EXPORT Result<InputLog> parse_log(std::string_view text,
                                                              const std::filesystem::path& file,
                                                              const Deck& deck);
[[nodiscard]] APSIDON_FILES_EXPORT Result<InputLog> load_log(const std::filesystem::path& file,
                                                             const Deck& deck);

/// One line an event, for a log that is compared with another: its time, its kind, and what it names.
[[nodiscard]] APSIDON_FILES_EXPORT std::string event_line(const Event& event, const Table& table);

}  // namespace apsidon
