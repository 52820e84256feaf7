#pragma once
#include <array>
#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

#include "apsidon/core_export.hpp"
#include "apsidon/geometry/quad.hpp"

namespace apsidon {

/// One thing of a sketch.
struct SketchMark {
  /// What it is.
  enum class Kind : std::uint8_t { line, box, quad, point, label };

  Kind kind = Kind::point;  ///< how its points are read
  std::string layer = {};   ///< "areas", "hits", …: a viewer may choose what to show
  std::array<Vec2, 4> at =
      {};                 ///< a quad's corners; a line's ends, a box's top left and bottom right; one point
  std::string text = {};  ///< of a label

  friend bool operator==(const SketchMark&, const SketchMark&) = default;
};

/// What any part shows of itself to a programmer, to be drawn over a picture, in a window, or as text.
struct Sketch {
  std::vector<SketchMark> marks = {};  ///< in drawing order

  /// A line between two points, px.
  void line(std::string_view layer, Vec2 from, Vec2 to) { add(SketchMark::Kind::line, layer, {from, to}); }
  /// An upright box, px.
  void box(std::string_view layer, const Rect& box) { add(SketchMark::Kind::box, layer, {box.min, box.max}); }
  /// Four corners, px.
  void quad(std::string_view layer, const Quad& quad) { add(SketchMark::Kind::quad, layer, quad.corners); }
  /// A point, px.
  void point(std::string_view layer, Vec2 at) { add(SketchMark::Kind::point, layer, {at}); }
  /// Words at a point, px.
  void label(std::string_view layer, Vec2 at, std::string_view text) {
    add(SketchMark::Kind::label, layer, {at});
    marks.back().text = text;
  }

  friend bool operator==(const Sketch&, const Sketch&) = default;

 private:
  void add(SketchMark::Kind kind, std::string_view layer, const std::array<Vec2, 4>& at) {
    marks.push_back({.kind = kind, .layer = std::string(layer), .at = at});
  }
};

/// As lines of text, each ended by a line feed, for tests and logs: `areas box 10 20 110 160`. Numbers are
/// rounded to 0.01 px.
[[nodiscard]] APSIDON_CORE_EXPORT std::string text_of(const Sketch& sketch);

}  // namespace apsidon
