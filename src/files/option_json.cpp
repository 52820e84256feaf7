#include "files/option_json.hpp"

#include "files/fields.hpp"
#include "gesture/fields.hpp"
#include "motion/fields.hpp"
#include "play/values/fields.hpp"

namespace apsidon::files_detail {
namespace {

template <class Thing>
void read_checked(const Node& node, Thing& thing) {
  read_fields(node, thing);
  node.guard(ProblemCode::out_of_range, [&] { check(thing); });
}

}  // namespace

void read_into(const Node& node, Feel& feel) { read_checked(node, feel); }
void read_into(const Node& node, DragOptions& options) { read_checked(node, options); }
void read_into(const Node& node, HoverOptions& options) { read_checked(node, options); }
void read_into(const Node& node, GestureThresholds& options) { read_checked(node, options); }

void read_into(const Node& node, CardEffect& effect) { read_checked(node, effect); }

nlohmann::ordered_json json_of(const Feel& feel) { return written_fields(feel); }
nlohmann::ordered_json json_of(const DragOptions& options) { return written_fields(options); }
nlohmann::ordered_json json_of(const HoverOptions& options) { return written_fields(options); }
nlohmann::ordered_json json_of(const GestureThresholds& options) { return written_fields(options); }
nlohmann::ordered_json json_of(const CardEffect& effect) { return written_fields(effect); }

void read_feel_document(const Node& top, Feel& feel) {
  read_fields(top, feel, {"apsidon", "version"});
  top.guard(ProblemCode::out_of_range, [&] { check(feel); });
}

}  // namespace apsidon::files_detail
