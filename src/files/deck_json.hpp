#pragma once
// The part of a deck file that a table file may have in it. Not installed.
#include <nlohmann/json.hpp>

#include "apsidon/cards/deck.hpp"
#include "files/reader.hpp"

namespace apsidon::files_detail {

Deck deck_from(const Node& node);
nlohmann::ordered_json json_of(const Deck& deck);

}  // namespace apsidon::files_detail
