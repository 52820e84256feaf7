#include "geometry/fit_in.hpp"

#include <algorithm>
#include <cmath>

namespace apsidon::geometry_detail {
namespace {

/// The box of this size in an area, placed by shares of the room that it leaves, as CSS `object-position`
/// with percentages: (0, 0) at the top left, (0.5, 0.5) in the middle. A box larger than the area sticks out
/// by the same shares.
Rect align_in(const Rect& area, Size size, Vec2 position) {
  return rect_at({area.min.x + (area.width() - size.width) * position.x,
                  area.min.y + (area.height() - size.height) * position.y},
                 size);
}

bool drawable(Size size) {
  return std::isfinite(size.width) && std::isfinite(size.height) && size.width > 0 && size.height > 0;
}

Size fitted_size(Size area, Size picture, Fit fit) {
  const float contain = std::min(area.width / picture.width, area.height / picture.height);
  const float cover = std::max(area.width / picture.width, area.height / picture.height);
  switch (fit) {
    case Fit::contain:
      return picture * contain;
    case Fit::cover:
      return picture * cover;
    case Fit::fill:
      return area;
    case Fit::none:
      return picture;
    case Fit::scale_down:
      return picture * std::min(contain, 1.0f);
    case Fit::whole:
      return picture * std::max(std::floor(contain + 1e-4f), 1.0f);
  }
  return picture;
}

}  // namespace

Fitted fit_in(const Rect& area, Size picture, Fit fit, Vec2 position) {
  if (!drawable(area.size()) || !drawable(picture) || !is_finite(position)) {
    const Vec2 middle = is_finite(area.min) && is_finite(area.max) ? area.centre() : Vec2{};
    return {.box = {middle, middle}, .shown = {middle, middle}, .source = {}};
  }
  Fitted f;
  f.box = align_in(area, fitted_size(area.size(), picture, fit), position);
  if (fit == Fit::whole)
    f.box = rect_at({std::floor(f.box.min.x + 0.5f), std::floor(f.box.min.y + 0.5f)}, f.box.size());
  f.shown = {{std::max(f.box.min.x, area.min.x), std::max(f.box.min.y, area.min.y)},
             {std::min(f.box.max.x, area.max.x), std::min(f.box.max.y, area.max.y)}};
  if (f.shown.empty()) {
    f.shown.max = f.shown.min;
    return f;
  }
  const float sx = picture.width / f.box.width();
  const float sy = picture.height / f.box.height();
  f.source = {{(f.shown.min.x - f.box.min.x) * sx, (f.shown.min.y - f.box.min.y) * sy},
              {(f.shown.max.x - f.box.min.x) * sx, (f.shown.max.y - f.box.min.y) * sy}};
  return f;
}

}  // namespace apsidon::geometry_detail
