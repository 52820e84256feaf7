#include "apsidon/hit/hit_index.hpp"

#include <array>
#include <limits>
#include <utility>

#include "hit/circle.hpp"
#include "hit/shape.hpp"

namespace apsidon {

using hit_detail::made_ready;
using hit_detail::reach_of;
using hit_detail::Ready;

bool contains(const HitShape& shape, Vec2 point) {
  return shape.clip.contains(point) && made_ready(shape).contains(point);
}

struct HitIndex::Impl {
  /// All of a shape but its pose.
  struct Entry {
    Size size;
    float corner_radius;
    Rect clip;
    std::uint32_t tag;
    HitKinds kinds;
  };
  /// What a cell of the grid holds of a shape that touches it: all that most answers need.
  struct InCell {
    Ready ready;
    std::uint32_t place;
    std::uint32_t tag;
    HitKinds kinds;
    bool clipped;
  };

  // By place. Middles and reaches lie apart: a look from the front reads only them.
  std::vector<Entry> entries = {};
  std::vector<Pose> poses = {};
  std::vector<float> spans = {};  // squared, of the circle around the shape at scale 1
  std::vector<float> xs = {};
  std::vector<float> ys = {};
  std::vector<float> reaches = {};  // squared, of the circle around the shape; negative: never hit

  // The grid: of what has not moved since it was made.
  bool has_grid = false;
  std::uint64_t looked_at = 0;  // shapes, since the last change
  Vec2 corner = {};
  float per_cell = 0;  // cells in a px
  int columns = 0;
  int rows = 0;
  std::vector<std::uint32_t> begins = {};  // by cell: its first in `in_cells`; one more at the end
  std::vector<InCell> in_cells = {};
  std::vector<char> moved = {};            // by place: since the grid was made
  std::vector<std::uint32_t> movers = {};  // in no order

  void set_poses(std::size_t first, std::span<const Pose> given) {
    Pose* const to = poses.data() + first;
    float* const x = xs.data() + first;
    float* const y = ys.data() + first;
    float* const reach = reaches.data() + first;
    const float* const span = spans.data() + first;
    for (std::size_t i = 0; i < given.size(); ++i) {
      const Pose pose = given[i];
      to[i] = pose;
      x[i] = pose.centre.x;
      y[i] = pose.centre.y;
      reach[i] = pose.scale > 0 ? hit_detail::reach_of(span[i], pose.scale) : -1;  // negative: never hit
    }
  }

  [[nodiscard]] HitShape shape(std::size_t at) const {
    const Entry& e = entries[at];
    return {.pose = poses[at], .size = e.size, .corner_radius = e.corner_radius, .clip = e.clip};
  }

  [[nodiscard]] bool has(std::size_t at, Vec2 point, HitKinds kinds) const {
    const Entry& e = entries[at];
    return (e.kinds & kinds) != 0 && contains(shape(at), point);
  }
  [[nodiscard]] bool near(std::size_t at, Vec2 point) const {
    const float x = point.x - xs[at];
    const float y = point.y - ys[at];
    return x * x + y * y <= reaches[at];
  }

  /// The foremost of all, from the front: a block of circles at once, and the shapes of those that have the
  /// point.
  [[nodiscard]] std::ptrdiff_t look(Vec2 point, HitKinds kinds) {
    constexpr std::size_t block = 32;
    std::size_t end = entries.size();
    for (; end % block != 0; --end) {
      if (near(end - 1, point) && has(end - 1, point, kinds)) return seen(end - 1);
    }
    for (; end > 0; end -= block) {
      const std::size_t begin = end - block;
      const float* const bx = xs.data() + begin;
      const float* const by = ys.data() + begin;
      const float* const br = reaches.data() + begin;
      int inside = 0;
      for (std::size_t k = 0; k < block; ++k) {
        const float x = point.x - bx[k];
        const float y = point.y - by[k];
        inside += x * x + y * y <= br[k] ? 1 : 0;
      }
      if (inside == 0) continue;
      for (std::size_t i = end; i-- > begin;) {
        if (near(i, point) && has(i, point, kinds)) return seen(i);
      }
    }
    looked_at += entries.size();
    return -1;
  }
  std::ptrdiff_t seen(std::size_t at) {
    looked_at += entries.size() - at;
    return static_cast<std::ptrdiff_t>(at);
  }

  [[nodiscard]] std::optional<std::uint32_t> look_in_grid(Vec2 point, HitKinds kinds) const {
    const InCell* best = nullptr;
    const float x = (point.x - corner.x) * per_cell;
    const float y = (point.y - corner.y) * per_cell;
    if (x >= 0 && y >= 0 && x < static_cast<float>(columns) && y < static_cast<float>(rows)) {
      const auto cell = static_cast<std::size_t>(static_cast<int>(y) * columns + static_cast<int>(x));
      const InCell* const end = in_cells.data() + begins[cell + 1];
      for (const InCell* in = in_cells.data() + begins[cell]; in != end; ++in) {  // from the front
        if (!in->ready.contains(point) || (in->kinds & kinds) == 0) continue;
        if (in->clipped && !entries[in->place].clip.contains(point)) continue;
        if (!movers.empty() && moved[in->place]) continue;
        best = in;
        break;
      }
    }
    if (movers.empty()) return best ? std::optional(best->tag) : std::nullopt;
    std::ptrdiff_t front = best ? static_cast<std::ptrdiff_t>(best->place) : -1;
    for (const std::uint32_t at : movers) {
      if (static_cast<std::ptrdiff_t>(at) > front && near(at, point) && has(at, point, kinds)) {
        front = static_cast<std::ptrdiff_t>(at);
      }
    }
    return front < 0 ? std::nullopt : std::optional(entries[static_cast<std::size_t>(front)].tag);
  }

  void changed() {
    has_grid = false;
    looked_at = 0;
    movers.clear();
  }

  void make_grid() {
    looked_at = 0;
    movers.clear();
    moved.assign(entries.size(), 0);
    // Cells about a third of a card's diagonal wide: a point then has few shapes to ask, and a shape few
    // cells.
    double reach = 0;
    Rect all{{std::numeric_limits<float>::max(), std::numeric_limits<float>::max()},
             {-std::numeric_limits<float>::max(), -std::numeric_limits<float>::max()}};
    std::size_t shapes = 0;
    for (std::size_t i = 0; i < entries.size(); ++i) {
      if (!usable(i)) continue;
      const Rect box = box_of(made_ready(shape(i)));
      all = {{std::min(all.min.x, box.min.x), std::min(all.min.y, box.min.y)},
             {std::max(all.max.x, box.max.x), std::max(all.max.y, box.max.y)}};
      reach += std::sqrt(double{reaches[i]});
      ++shapes;
    }
    has_grid = shapes > 0;
    if (!has_grid) return;
    const double wide = double{all.max.x} - double{all.min.x};
    const double high = double{all.max.y} - double{all.min.y};
    // No more cells than a few for each shape, however far apart they lie.
    double cell = std::max(0.66 * reach / static_cast<double>(shapes), 1.0);
    const double most = 4.0 * static_cast<double>(shapes) + 64;
    while ((std::floor(wide / cell) + 1) * (std::floor(high / cell) + 1) > most) cell *= 1.3;
    corner = all.min;
    per_cell = static_cast<float>(1 / cell);
    columns = static_cast<int>(std::floor(wide / cell)) + 2;  // one more for what rounding adds
    rows = static_cast<int>(std::floor(high / cell)) + 2;
    begins.assign(static_cast<std::size_t>(columns) * static_cast<std::size_t>(rows) + 1, 0);
    each_in_cells([&](std::size_t at_cell, std::size_t, const Ready&) { ++begins[at_cell + 1]; });
    for (std::size_t i = 1; i < begins.size(); ++i) begins[i] += begins[i - 1];
    in_cells.resize(begins.back());
    each_in_cells([&](std::size_t at_cell, std::size_t place, const Ready& ready) {
      const Entry& e = entries[place];
      in_cells[begins[at_cell]++] = {ready, static_cast<std::uint32_t>(place), e.tag, e.kinds,
                                     e.clip != everywhere};
    });
    for (std::size_t i = begins.size() - 1; i > 0; --i) begins[i] = begins[i - 1];
    begins[0] = 0;
  }

  [[nodiscard]] bool usable(std::size_t i) const {
    const float far = std::abs(xs[i]) + std::abs(ys[i]);
    return reaches[i] > 0 && far < 1e7f && reaches[i] < 1e14f && made_ready(shape(i)).half_width >= 0;
  }
  [[nodiscard]] static Rect box_of(const Ready& ready) {
    const Vec2 reach = reach_of(ready);
    return {ready.centre - reach, ready.centre + reach};
  }

  /// Calls `with` for every shape and every cell that it touches, from the front; what lies too far away for
  /// the grid is looked at beside it.
  template <class With>
  void each_in_cells(With with) {
    movers.clear();
    for (std::size_t i = entries.size(); i-- > 0;) {
      if (!usable(i)) {
        if (reaches[i] > 0) movers.push_back(static_cast<std::uint32_t>(i));
        continue;
      }
      const Ready ready = made_ready(shape(i));
      const Rect box = box_of(ready);
      const auto cut = [](float v, int most) { return std::clamp(static_cast<int>(v), 0, most - 1); };
      const int x1 = cut((box.min.x - corner.x) * per_cell, columns);
      const int x2 = cut((box.max.x - corner.x) * per_cell, columns);
      const int y1 = cut((box.min.y - corner.y) * per_cell, rows);
      const int y2 = cut((box.max.y - corner.y) * per_cell, rows);
      for (int y = y1; y <= y2; ++y) {
        for (int x = x1; x <= x2; ++x) with(static_cast<std::size_t>(y * columns + x), i, ready);
      }
    }
  }

  [[nodiscard]] std::optional<std::uint32_t> topmost(Vec2 point, HitKinds kinds) {
    if (has_grid) return look_in_grid(point, kinds);
    const std::ptrdiff_t at = look(point, kinds);
    // Making a grid costs about as much as looking at every shape some hundred times.
    if (looked_at > 100 * entries.size()) make_grid();
    return at < 0 ? std::nullopt : std::optional(entries[static_cast<std::size_t>(at)].tag);
  }
};

HitIndex::HitIndex() : impl_(std::make_unique<Impl>()) {}
HitIndex::HitIndex(const HitIndex& other) : impl_(std::make_unique<Impl>(*other.impl_)) {}
HitIndex::HitIndex(HitIndex&&) noexcept = default;
HitIndex& HitIndex::operator=(HitIndex other) noexcept {
  impl_.swap(other.impl_);
  return *this;
}
HitIndex::~HitIndex() = default;

void HitIndex::clear() {
  Impl& i = *impl_;
  i.changed();
  i.entries.clear();
  i.poses.clear();
  for (std::vector<float>* floats : {&i.spans, &i.xs, &i.ys, &i.reaches}) floats->clear();
}

void HitIndex::reserve(std::size_t shapes) {
  Impl& i = *impl_;
  i.entries.reserve(shapes);
  i.poses.reserve(shapes);
  for (std::vector<float>* floats : {&i.spans, &i.xs, &i.ys, &i.reaches}) floats->reserve(shapes);
}

std::size_t HitIndex::size() const { return impl_->entries.size(); }

std::size_t HitIndex::add(const HitShape& shape, std::uint32_t tag, HitKinds kinds) {
  Impl& i = *impl_;
  i.changed();
  i.entries.push_back({shape.size, shape.corner_radius, shape.clip, tag, kinds});
  i.poses.emplace_back();
  i.spans.push_back(hit_detail::circle_of(shape.size));
  for (std::vector<float>* floats : {&i.xs, &i.ys, &i.reaches}) floats->emplace_back();
  const std::size_t place = i.entries.size() - 1;
  i.set_poses(place, {&shape.pose, 1});
  return place;
}

void HitIndex::move(std::size_t place, const Pose& pose) { move(place, {&pose, 1}); }

void HitIndex::move(std::size_t first, std::span<const Pose> poses) {
  Impl& i = *impl_;
  i.set_poses(first, poses);
  i.looked_at = 0;
  if (!i.has_grid) return;
  const std::size_t most = 32 + i.entries.size() / 16;
  if (i.movers.size() + poses.size() > most + poses.size() / 2) return i.changed();
  for (std::size_t place = first; place < first + poses.size(); ++place) {
    if (std::exchange(i.moved[place], char{1})) continue;
    i.movers.push_back(static_cast<std::uint32_t>(place));
  }
  if (i.movers.size() > most) i.changed();
}

std::optional<std::uint32_t> HitIndex::topmost(Vec2 point, HitKinds kinds) {
  return impl_->topmost(point, kinds);
}

void HitIndex::all(Vec2 point, std::vector<std::uint32_t>& out, HitKinds kinds) const {
  for (std::size_t i = size(); i-- > 0;) {
    if (impl_->near(i, point) && impl_->has(i, point, kinds)) out.push_back(impl_->entries[i].tag);
  }
}

namespace {

/// The corners of the shape's box as it shows, without perspective.
std::array<Vec2, 4> box_corners(const Ready& r) {
  const float det = r.a * r.d - r.b * r.c;
  const float inverse = det != 0 ? 1 / det : 0;
  std::array<Vec2, 4> out;
  const Vec2 local[] = {{-r.half_width, -r.half_height},
                        {r.half_width, -r.half_height},
                        {r.half_width, r.half_height},
                        {-r.half_width, r.half_height}};
  for (std::size_t i = 0; i < 4; ++i) {
    out[i] =
        r.centre + Vec2{r.d * local[i].x - r.b * local[i].y, r.a * local[i].y - r.c * local[i].x} * inverse;
  }
  return out;
}

/// Whether two convex quadrilaterals have a point in common, by a line between them along one of their sides.
bool touch(const std::array<Vec2, 4>& a, const std::array<Vec2, 4>& b) {
  const auto apart = [](const std::array<Vec2, 4>& sides, const std::array<Vec2, 4>& other) {
    for (std::size_t i = 0; i < 4; ++i) {
      const Vec2 side = sides[(i + 1) % 4] - sides[i];
      const Vec2 normal{side.y, -side.x};
      float own_least = std::numeric_limits<float>::max(), own_most = -own_least;
      float least = own_least, most = own_most;
      for (std::size_t k = 0; k < 4; ++k) {
        const float own = dot(sides[k], normal);
        const float others = dot(other[k], normal);
        own_least = std::min(own_least, own);
        own_most = std::max(own_most, own);
        least = std::min(least, others);
        most = std::max(most, others);
      }
      if (most < own_least || least > own_most) return true;
    }
    return false;
  };
  return !apart(a, b) && !apart(b, a);
}

float distance_to(const std::array<Vec2, 4>& box, Vec2 point) {
  float best = std::numeric_limits<float>::max();
  for (std::size_t i = 0; i < 4; ++i) {
    const Vec2 from = box[i];
    const Vec2 side = box[(i + 1) % 4] - from;
    const float all = dot(side, side);
    const float along = all > 0 ? std::clamp(dot(point - from, side) / all, 0.0f, 1.0f) : 0;
    best = std::min(best, length(point - (from + side * along)));
  }
  return best;
}

}  // namespace

void HitIndex::in_rect(const Rect& rect, std::vector<std::uint32_t>& out, HitKinds kinds) const {
  const std::array<Vec2, 4> wanted{rect.min, Vec2{rect.max.x, rect.min.y}, rect.max,
                                   Vec2{rect.min.x, rect.max.y}};
  for (std::size_t i = size(); i-- > 0;) {
    const Impl::Entry& e = impl_->entries[i];
    const Ready ready = made_ready(impl_->shape(i));
    if ((e.kinds & kinds) == 0 || ready.half_width < 0) continue;
    if (touch(box_corners(ready), wanted)) out.push_back(e.tag);
  }
}

std::optional<std::uint32_t> HitIndex::nearest(Vec2 point, float slop, HitKinds kinds) {
  if (const auto tag = topmost(point, kinds)) return tag;
  std::optional<std::uint32_t> best;
  float least = slop;
  for (std::size_t i = size(); i-- > 0;) {
    const Impl::Entry& e = impl_->entries[i];
    const float reach = std::sqrt(std::max(impl_->reaches[i], 0.0f)) + least;
    const Vec2 away = point - impl_->poses[i].centre;
    if ((e.kinds & kinds) == 0 || dot(away, away) > reach * reach) continue;
    const Ready ready = made_ready(impl_->shape(i));
    if (ready.half_width < 0) continue;
    const float distance = distance_to(box_corners(ready), point);
    if (distance > least || (best && distance == least)) continue;
    least = distance;
    best = e.tag;
  }
  return best;
}

}  // namespace apsidon
