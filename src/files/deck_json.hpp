#pragma once
// The part of a deck file that a table file may have in it. Not installed.
#include <nlohmann/json.hpp>

#include "apsidon/cards/deck.hpp"
#include "files/reader.hpp"
#include "files/verbatim.hpp"

namespace apsidon::files_detail {

/// A deck by itself, or one within a table, which may say that it is one. `texts` are those of the document.
Deck deck_from(const Node& node, DataTexts& texts);
nlohmann::ordered_json json_of(const Deck& deck, Verbatim& verbatim);

}  // namespace apsidon::files_detail
