#include "files/layout_json.hpp"

#include <fmt/format.h>

#include <cmath>
#include <optional>
#include <type_traits>
#include <utility>

#include "files/fields.hpp"
#include "layout/fields.hpp"

namespace apsidon::files_detail {
namespace {

template <class L>
Layout read_as(const Node& node) {
  L layout;
  if (node.json().is_object()) read_fields(node, layout, {"kind"});
  node.guard(ProblemCode::out_of_range, [&] { check(layout); });
  return layout;
}

/// Calls a function with each kind of layout that files have, as it is by itself.
template <class Function, std::size_t... I>
void each_kind(Function function, std::index_sequence<I...>) {
  (function(std::variant_alternative_t<I, Layout>{}), ...);
}

struct WriteLayout {
  nlohmann::ordered_json& json;
  template <class L>
  void operator()(L layout) const {
    FieldWriter writer{json};
    fields(layout, writer);
  }
  void operator()(const CustomLayout&) const {}
};

}  // namespace

nlohmann::ordered_json decimal(float value) {
  return nlohmann::ordered_json::parse(fmt::format("{}", value));
}

Layout layout_from(const Node& node) {
  if (node.has("own")) {
    node.expect_keys({"own"});
    CustomLayout own{.name = node.child("own").text()};
    node.guard(ProblemCode::wrong_type, [&] { check(own); });
    return own;
  }
  node.expect_form(node.json().is_string() || node.json().is_object(),
                   "the name of a layout, or an object with its 'kind',");
  const Node word = node.json().is_string() ? node : node.at("kind");
  const std::string name = word.text();
  std::vector<std::string> names;
  std::optional<Layout> read;
  const auto try_kind = [&]<class Kind>(const Kind& kind) {
    if constexpr (!std::is_same_v<Kind, CustomLayout>) {
      names.emplace_back(traits_of(kind).name);
      if (names.back() == name) read = read_as<Kind>(node);
    }
  };
  each_kind(try_kind, std::make_index_sequence<std::variant_size_v<Layout>>{});
  if (!read) word.stop_unknown("layout", name, names);
  return *std::move(read);
}

nlohmann::ordered_json json_of(const Layout& layout) {
  nlohmann::ordered_json json;
  if (std::holds_alternative<CustomLayout>(layout)) return {{"own", traits_of(layout).name}};
  json["kind"] = traits_of(layout).name;
  std::visit(WriteLayout{json}, layout);
  return json;
}

}  // namespace apsidon::files_detail
