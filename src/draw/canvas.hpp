#pragma once
// Thin help around the drawing library; not installed.
#include <cairo.h>

#include <memory>
#include <numbers>
#include <string>
#include <string_view>

#include "apsidon/draw/picture.hpp"
#include "apsidon/draw_export.hpp"
#include "apsidon/geometry/quad.hpp"

namespace apsidon::draw_detail {

struct Colour {
  double r = 0, g = 0, b = 0, a = 1;
};

/// 0xRRGGBB.
constexpr Colour rgb(unsigned hex, double alpha = 1) {
  return {((hex >> 16) & 255) / 255.0, ((hex >> 8) & 255) / 255.0, (hex & 255) / 255.0, alpha};
}
constexpr Colour mixed(Colour a, Colour b, double share_of_b) {
  return {a.r + (b.r - a.r) * share_of_b, a.g + (b.g - a.g) * share_of_b, a.b + (b.b - a.b) * share_of_b,
          a.a + (b.a - a.a) * share_of_b};
}
constexpr Colour faded(Colour c, double alpha) { return {c.r, c.g, c.b, c.a * alpha}; }

// The palette of the glasshouse.
namespace palette {
inline constexpr Colour night_middle = rgb(0x17392F);
inline constexpr Colour night_edge = rgb(0x0C201B);
inline constexpr Colour paper = rgb(0xFBF6EA);
inline constexpr Colour rim = rgb(0xCDBF9F);
inline constexpr Colour green = rgb(0x155E46);
inline constexpr Colour orange = rgb(0xC4501D);
inline constexpr Colour red = rgb(0xB0302B);
inline constexpr Colour black = rgb(0x23282B);
inline constexpr Colour slate = rgb(0x2E4A7A);  // a third suit colour, for decks that have one
inline constexpr Colour wine = rgb(0x7B2348);   // a fourth
inline constexpr Colour stalk = rgb(0x7A7A3C);  // stems and leaves of what blooms orange
inline constexpr Colour clay = rgb(0xA9724C);   // pots
inline constexpr Colour plum = rgb(0x54284A);
inline constexpr Colour plum_line = rgb(0xB58FA6);
inline constexpr Colour aqua = rgb(0xA9E8DF);
inline constexpr Colour coral = rgb(0xF2765B);
inline constexpr Colour glass = rgb(0xCFE6D8);
inline constexpr Colour caption = rgb(0xE7EEE4);
inline constexpr Colour gold = rgb(0xE3B64A);
}  // namespace palette

inline constexpr double pi = std::numbers::pi;

/// How many device pixels a picture of this size in logical px has. Throws Error as `Picture` does.
[[nodiscard]] APSIDON_DRAW_EXPORT PixelBox device_box(Size size, float pixel_ratio);

struct DestroySurface {
  void operator()(cairo_surface_t* surface) const { cairo_surface_destroy(surface); }
};
using Surface = std::unique_ptr<cairo_surface_t, DestroySurface>;

/// What the drawing library calls with the bytes of a file; `bytes` is a `std::string`.
APSIDON_DRAW_EXPORT cairo_status_t append_bytes(void* bytes, const unsigned char* more, unsigned length);

struct DestroyContext {
  void operator()(cairo_t* cr) const { cairo_destroy(cr); }
};
using Canvas = std::unique_ptr<cairo_t, DestroyContext>;

/// A canvas in logical px over the whole picture.
APSIDON_DRAW_EXPORT Canvas canvas_on(const Picture& picture);

/// Keeps the drawing state for the time of a scope.
class Saved {
 public:
  explicit Saved(cairo_t* cr) : cr_(cr) { cairo_save(cr_); }
  Saved(const Saved&) = delete;
  Saved& operator=(const Saved&) = delete;
  ~Saved() { cairo_restore(cr_); }

 private:
  cairo_t* cr_;
};

APSIDON_DRAW_EXPORT void set_colour(cairo_t* cr, Colour colour);
APSIDON_DRAW_EXPORT void fill(cairo_t* cr, Colour colour);
APSIDON_DRAW_EXPORT void stroke(cairo_t* cr, Colour colour, double width);
APSIDON_DRAW_EXPORT void rounded_box(cairo_t* cr, double x, double y, double width, double height,
                                     double radius);
void circle(cairo_t* cr, double x, double y, double radius);
void polygon(cairo_t* cr, const Quad& quad);
cairo_matrix_t cairo_matrix(const Matrix& m);

/// One premultiplied pixel of the drawing library, and all of an image of theirs.
Pixel pixel_of(std::uint32_t argb);
APSIDON_DRAW_EXPORT Pixels pixels_of(cairo_surface_t* image);
/// Those of a part of it, which is cut to the image.
APSIDON_DRAW_EXPORT Pixels pixels_of(cairo_surface_t* image, int x, int y, int width, int height);

enum class Typeface { serif, plain };

/// How a line of text is set.
struct Lettering {
  Typeface typeface = Typeface::plain;
  double size = 14;  ///< px
  bool bold = false;
  double largest_width = 0;   ///< px; a wider line is narrowed to it; 0: never
  double largest_height = 0;  ///< px; a line whose ink is higher is made smaller; 0: never
  bool level = false;         ///< centred by the height of capitals: lines beside each other share a baseline
};

struct Extent {
  double width = 0;
  double height = 0;  ///< of the ink
};

/// Sets one line with the middle of its ink at (x, y), or level with others.
APSIDON_DRAW_EXPORT void text_centred(cairo_t* cr, std::string_view text, double x, double y,
                                      const Lettering& how, Colour colour);
/// Sets one line from (x, baseline) to the right; returns its extent.
APSIDON_DRAW_EXPORT Extent text_left(cairo_t* cr, std::string_view text, double x, double baseline,
                                     const Lettering& how, Colour colour);

}  // namespace apsidon::draw_detail
