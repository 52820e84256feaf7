#pragma once
// Feels and the options of a playfield as parts of other documents. Not installed.
#include <nlohmann/json.hpp>

#include "apsidon/play/options.hpp"
#include "files/reader.hpp"

namespace apsidon::files_detail {

// What an object does not say is as in the value that comes in.
void read_into(const Node& node, Feel& feel);
void read_into(const Node& node, DragOptions& options);
void read_into(const Node& node, HoverOptions& options);
void read_into(const Node& node, GestureThresholds& options);
void read_into(const Node& node, CardEffect& effect);

/// The same for a feel that is a whole document.
void read_feel_document(const Node& top, Feel& feel);

nlohmann::ordered_json json_of(const Feel& feel);
nlohmann::ordered_json json_of(const DragOptions& options);
nlohmann::ordered_json json_of(const HoverOptions& options);
nlohmann::ordered_json json_of(const GestureThresholds& options);
nlohmann::ordered_json json_of(const CardEffect& effect);

}  // namespace apsidon::files_detail
