#pragma once
// The part of a deck file that a table file may have in it. Not installed.
#include <nlohmann/json.hpp>

#include "apsidon/cards/deck.hpp"
#include "files/reader.hpp"
#include "files/verbatim.hpp"

namespace apsidon::files_detail {

/// `data`: the text of the deck's data object, empty for none.
Deck deck_from(const Node& node, std::string data);
nlohmann::ordered_json json_of(const Deck& deck, Verbatim& verbatim);

}  // namespace apsidon::files_detail
