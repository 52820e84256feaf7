#pragma once
#include <filesystem>
#include <string>
#include <string_view>

#include "apsidon/files/input_log.hpp"
#include "apsidon/files/result.hpp"
#include "apsidon/files_export.hpp"
#include "apsidon/play/playfield.hpp"
#include "apsidon/play/recorder.hpp"
#include "apsidon/play/setup.hpp"

namespace apsidon {

/// A running game as it is saved: the table with which its playfield began, and all that has come in since.
/// From that comes everything else, to the bit: ids, undo, countdowns, performances, what is in flight, what
/// waits.
///
///     SavedGame game{.setup = setup, .log = {.options = options}};
///     Playfield field(setup, options);
///     field.set_recorder(game.recorder());  // from the beginning; the game outlives it
///     …
///     write_file("evening.save", write_game(game, field));
struct APSIDON_FILES_EXPORT SavedGame {
  TableSetup setup;   ///< with what the game began
  InputLog log = {};  ///< what has come in since

  /// Keeps each input from now on. Valid as long as this game is, and not moved.
  [[nodiscard]] Recorder recorder();
};

/// A game that was loaded: its playfield stands where the saved one stood, and its record goes on:
/// `field.set_recorder(game.recorder())`, once both are where they stay. The events of before are not told
/// again.
struct LoadedGame {
  SavedGame game;   ///< its record
  Playfield field;  ///< as it stood when it was saved
};

/// JSON Lines: a head with the table, the time at which the game stands, how many inputs it has had and a
/// `fingerprint` of where that led; then its input log. Throws Error when the playfield has taken inputs that
/// the log has not: its recorder was set late, or is another.
[[nodiscard]] APSIDON_FILES_EXPORT std::string write_game(const SavedGame& game, const Playfield& field);

/// Plays the log again, as far as it goes: O(its inputs). `own` is the table with the game's rules, goals and
/// layouts in code, which no file holds: it takes the place of the one in the file, and has to be the same.
/// What they said in the saved game is known from the log. A file that is broken, or of another table, gives
/// problems and nothing else.
[[nodiscard]] APSIDON_FILES_EXPORT Result<LoadedGame> parse_game(std::string_view text,
                                                                 const std::filesystem::path& file,
                                                                 const TableSetup* own = nullptr);
/// The same from a file.
[[nodiscard]] APSIDON_FILES_EXPORT Result<LoadedGame> load_game(const std::filesystem::path& file,
                                                                const TableSetup* own = nullptr);

}  // namespace apsidon
