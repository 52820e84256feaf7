#include "draw/kept_sides.hpp"

#include <cmath>
#include <limits>
#include <utility>

namespace apsidon::draw_detail {
namespace {

constexpr std::size_t most_kept = 2000;
constexpr std::size_t most_kept_px = std::size_t{64} << 20;  // 256 MiB
constexpr float side_step = 1.0f / 32;                       // px

int steps(float value, float each) { return static_cast<int>(std::lround(value / each)); }

}  // namespace

template <class Key>
const Picture& KeptSides::Kept<Key>::get(const Key& key, Size size, float pixel_ratio, const Draw& draw) {
  const auto found = pictures.find(key);
  if (found != pictures.end()) return found->second;
  Picture picture(size, pixel_ratio);
  const std::size_t own =
      static_cast<std::size_t>(picture.width()) * static_cast<std::size_t>(picture.height());
  // Cards that grow have another size in each frame: what was kept for long is drawn again.
  if (pictures.size() >= most_kept || px + own > most_kept_px) {
    pictures.clear();
    px = 0;
  }
  const Canvas canvas = canvas_on(picture);
  draw(canvas.get());
  px += own;
  return pictures.emplace(key, std::move(picture)).first->second;
}

void KeptSides::set_deadline(std::optional<std::chrono::steady_clock::time_point> deadline) {
  deadline_ = deadline;
  starved_ = false;
  drawn_ = 0;
}

Size KeptSides::size_near(Size size) {
  return {static_cast<float>(steps(size.width, side_step)) * side_step,
          static_cast<float>(steps(size.height, side_step)) * side_step};
}

const Picture* KeptSides::side(const Side& side, Size size, float pixel_ratio, const Draw& draw) {
  const SideKey key{side, steps(size.width, side_step), steps(size.height, side_step), pixel_ratio};
  // At least one is drawn each time, so that all come to be there.
  const bool late = deadline_ && drawn_ > 0 && std::chrono::steady_clock::now() > *deadline_;
  if (!sides_.pictures.contains(key)) drawn_ += late ? 0 : 1;
  if (!late || sides_.pictures.contains(key)) return &sides_.get(key, size, pixel_ratio, draw);
  starved_ = true;
  constexpr int any = std::numeric_limits<int>::min();
  const auto other = sides_.pictures.lower_bound({side, any, any, 0});
  return other != sides_.pictures.end() && std::get<0>(other->first) == side ? &other->second : nullptr;
}

KeptSides::Shape KeptSides::shape_near(Size size, float blur) {
  const auto near = [](float value, float step) { return static_cast<float>(steps(value, step)) * step; };
  return {{near(size.width, 0.5f), near(size.height, 0.5f)}, near(blur, 1)};
}

const Picture& KeptSides::shadow(const Shape& shape, float reach, float pixel_ratio, const Draw& draw) {
  const ShadowKey key{shape.size.width, shape.size.height, shape.blur, pixel_ratio};
  return shadows_.get(key, {shape.size.width + 2 * reach, shape.size.height + 2 * reach}, pixel_ratio, draw);
}

const Picture& KeptSides::background(Size window, float pixel_ratio, const Draw& draw) {
  return grounds_.get(GroundKey{window.width, window.height, pixel_ratio}, window, pixel_ratio, draw);
}

}  // namespace apsidon::draw_detail
