#pragma once
#include <memory>

#include "apsidon/draw/picture.hpp"
#include "apsidon/draw_export.hpp"
#include "apsidon/geometry/sketch.hpp"

namespace apsidon {

/// Draws a sketch over a picture, each layer in a colour of its own. The picture must outlive it.
class APSIDON_DRAW_EXPORT PictureSketch final : public Sketch {
 public:
  explicit PictureSketch(Picture& picture);
  ~PictureSketch() override;

  void line(std::string_view layer, Vec2 from, Vec2 to) override;
  void box(std::string_view layer, const Rect& box) override;
  void quad(std::string_view layer, const Quad& quad) override;
  void point(std::string_view layer, Vec2 at) override;
  void label(std::string_view layer, Vec2 at, std::string_view text) override;

 private:
  struct APSIDON_DRAW_NO_EXPORT Impl;
  std::unique_ptr<Impl> impl_;
};

}  // namespace apsidon
