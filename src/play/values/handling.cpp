#include "apsidon/play/handling.hpp"

#include "play/values/fields.hpp"

namespace apsidon {

void check(const DragOptions& options) { geometry_detail::check_options("drag", options); }
void check(const HoverOptions& options) { geometry_detail::check_options("hover", options); }

}  // namespace apsidon
