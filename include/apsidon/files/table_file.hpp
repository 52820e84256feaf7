#pragma once
#include <filesystem>
#include <string>
#include <string_view>

#include "apsidon/cards/deck.hpp"
#include "apsidon/files/other_files.hpp"
#include "apsidon/files/result.hpp"
#include "apsidon/files_export.hpp"
#include "apsidon/play/setup.hpp"

namespace apsidon {

// Tables and decks as JSON, version 1. docs/files.md describes them, data/schemas/ has their JSON Schemas. A
// `data` object at the top of a table belongs to the client and is kept to the letter.

/// Reads a deck file.
[[nodiscard]] APSIDON_FILES_EXPORT Result<Deck> load_deck(const std::filesystem::path& file);

/// Reads a table file, and the deck file that it names, relative to itself and, unless `others` allows more,
/// in its own folder or below.
[[nodiscard]] APSIDON_FILES_EXPORT Result<TableSetup> load_table(const std::filesystem::path& file,
                                                                 OtherFiles others = OtherFiles::within);

/// The same from a text in memory; `file` is used in problems, and to find a deck file.
[[nodiscard]] APSIDON_FILES_EXPORT Result<Deck> parse_deck(std::string_view text,
                                                           const std::filesystem::path& file);
/// Likewise a table; `others` says whether its deck may lie outside of its folder.
[[nodiscard]] APSIDON_FILES_EXPORT Result<TableSetup> parse_table(std::string_view text,
                                                                  const std::filesystem::path& file,
                                                                  OtherFiles others = OtherFiles::within);

/// The deck or table as a file's text. A table is written with its deck in it and its zones one by one; read
/// again, it gives the same table.
[[nodiscard]] APSIDON_FILES_EXPORT std::string write_deck(const Deck& deck);
/// The table, likewise.
[[nodiscard]] APSIDON_FILES_EXPORT std::string write_table(const TableSetup& setup);

}  // namespace apsidon
