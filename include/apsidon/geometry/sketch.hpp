#pragma once
#include <string>
#include <string_view>

#include "apsidon/core_export.hpp"
#include "apsidon/geometry/quad.hpp"

namespace apsidon {

/// The primitives by which any part can show itself to a programmer: a picture, a window or plain text draws
/// them. Every call names its layer ("areas", "hits", …), so that a viewer can choose what to show.
class APSIDON_CORE_EXPORT Sketch {
 public:
  Sketch() = default;
  Sketch(const Sketch&) = delete;
  Sketch& operator=(const Sketch&) = delete;
  virtual ~Sketch();

  virtual void line(std::string_view layer, Vec2 from, Vec2 to) = 0;
  virtual void box(std::string_view layer, const Rect& box) = 0;
  virtual void quad(std::string_view layer, const Quad& quad) = 0;
  virtual void point(std::string_view layer, Vec2 at) = 0;
  virtual void label(std::string_view layer, Vec2 at, std::string_view text) = 0;
};

/// A sketch as lines of text, for tests and logs: `areas box 10 20 110 160`. Numbers are rounded to 0.01 px.
class APSIDON_CORE_EXPORT TextSketch final : public Sketch {
 public:
  void line(std::string_view layer, Vec2 from, Vec2 to) override;
  void box(std::string_view layer, const Rect& box) override;
  void quad(std::string_view layer, const Quad& quad) override;
  void point(std::string_view layer, Vec2 at) override;
  void label(std::string_view layer, Vec2 at, std::string_view text) override;

  /// All lines so far, each ended by a line feed.
  [[nodiscard]] const std::string& text() const { return text_; }

 private:
  std::string text_;
};

}  // namespace apsidon
