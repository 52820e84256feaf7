#include "draw/canvas.hpp"

#include <pango/pangocairo.h>

#include <algorithm>
#include <cmath>

namespace apsidon::draw_detail {
namespace {

struct Unref {
  void operator()(gpointer object) const { g_object_unref(object); }
};
struct FreeFont {
  void operator()(PangoFontDescription* font) const { pango_font_description_free(font); }
};
struct FreeAttributes {
  void operator()(PangoAttrList* list) const { pango_attr_list_unref(list); }
};

using Line = std::unique_ptr<PangoLayout, Unref>;

Line line_of(cairo_t* cr, std::string_view text, const Lettering& how) {
  Line line(pango_cairo_create_layout(cr));
  const std::unique_ptr<PangoFontDescription, FreeFont> font(pango_font_description_new());
  pango_font_description_set_family(
      font.get(), how.typeface == Typeface::serif ? "Vollkorn, serif" : "Cabin, sans-serif");
  pango_font_description_set_weight(font.get(), how.bold ? PANGO_WEIGHT_BOLD : PANGO_WEIGHT_NORMAL);
  pango_font_description_set_absolute_size(font.get(), how.size * PANGO_SCALE);
  pango_layout_set_font_description(line.get(), font.get());
  // Figures as high as capitals: old-style ones would dance on a card's corner.
  const std::unique_ptr<PangoAttrList, FreeAttributes> attributes(pango_attr_list_new());
  pango_attr_list_insert(attributes.get(), pango_attr_font_features_new("lnum=1, pnum=1"));
  pango_layout_set_attributes(line.get(), attributes.get());
  pango_layout_set_text(line.get(), text.data(), static_cast<int>(text.size()));
  return line;
}

}  // namespace

cairo_status_t append_bytes(void* bytes, const unsigned char* more, unsigned length) {
  static_cast<std::string*>(bytes)->append(reinterpret_cast<const char*>(more), length);
  return CAIRO_STATUS_SUCCESS;
}

Canvas canvas_on(const Picture& picture) {
  Canvas cr(cairo_create(picture.surface()));
  cairo_scale(cr.get(), static_cast<double>(picture.pixel_ratio()),
              static_cast<double>(picture.pixel_ratio()));
  return cr;
}

Pixel pixel_of(std::uint32_t argb) {
  const std::uint32_t a = argb >> 24;
  const auto channel = [&](unsigned shift) {
    const std::uint32_t c = (argb >> shift) & 255;
    if (a == 255) return static_cast<std::uint8_t>(c);
    return static_cast<std::uint8_t>(a == 0 ? 0 : std::min<std::uint32_t>(255, (c * 255 + a / 2) / a));
  };
  return {channel(16), channel(8), channel(0), static_cast<std::uint8_t>(a)};
}

Pixels pixels_of(cairo_surface_t* image) {
  return pixels_of(image, 0, 0, cairo_image_surface_get_width(image), cairo_image_surface_get_height(image));
}

Pixels pixels_of(cairo_surface_t* image, int x, int y, int width, int height) {
  cairo_surface_flush(image);
  const int left = std::max(x, 0);
  const int top = std::max(y, 0);
  const int right = std::min(x + width, cairo_image_surface_get_width(image));
  const int bottom = std::min(y + height, cairo_image_surface_get_height(image));
  Pixels out{.width = std::max(right - left, 0), .height = std::max(bottom - top, 0)};
  out.all.reserve(static_cast<std::size_t>(out.width) * static_cast<std::size_t>(out.height));
  // An image without opacity has anything in those bits.
  const std::uint32_t opaque = cairo_image_surface_get_format(image) == CAIRO_FORMAT_RGB24 ? 0xFF000000u : 0u;
  const std::ptrdiff_t stride = cairo_image_surface_get_stride(image);
  for (int row = top; row < bottom; ++row) {
    const auto* argb =
        reinterpret_cast<const std::uint32_t*>(cairo_image_surface_get_data(image) + row * stride);
    for (int column = left; column < right; ++column) out.all.push_back(pixel_of(argb[column] | opaque));
  }
  return out;
}

void set_colour(cairo_t* cr, Colour c) { cairo_set_source_rgba(cr, c.r, c.g, c.b, c.a); }

void fill(cairo_t* cr, Colour colour) {
  set_colour(cr, colour);
  cairo_fill(cr);
}

void stroke(cairo_t* cr, Colour colour, double width) {
  set_colour(cr, colour);
  cairo_set_line_width(cr, width);
  cairo_stroke(cr);
}

void rounded_box(cairo_t* cr, double x, double y, double width, double height, double radius) {
  constexpr double right_angle = pi / 2;
  const double r = std::clamp(radius, 0.0, std::max(0.0, std::min(width, height) / 2));
  cairo_new_sub_path(cr);
  cairo_arc(cr, x + width - r, y + r, r, -right_angle, 0);
  cairo_arc(cr, x + width - r, y + height - r, r, 0, right_angle);
  cairo_arc(cr, x + r, y + height - r, r, right_angle, 2 * right_angle);
  cairo_arc(cr, x + r, y + r, r, 2 * right_angle, 3 * right_angle);
  cairo_close_path(cr);
}

void circle(cairo_t* cr, double x, double y, double radius) {
  cairo_new_sub_path(cr);
  cairo_arc(cr, x, y, radius, 0, 2 * pi);
}

void polygon(cairo_t* cr, const Quad& quad) {
  cairo_new_sub_path(cr);
  for (const Vec2 p : quad.corners) cairo_line_to(cr, double{p.x}, double{p.y});
  cairo_close_path(cr);
}

cairo_matrix_t cairo_matrix(const Matrix& m) {
  return {double{m.a}, double{m.b}, double{m.c}, double{m.d}, double{m.tx}, double{m.ty}};
}

void text_centred(cairo_t* cr, std::string_view text, double x, double y, const Lettering& how,
                  Colour colour) {
  const Line line = line_of(cr, text, how);
  PangoRectangle ink;
  pango_layout_get_extents(line.get(), &ink, nullptr);
  double middle = ink.y + ink.height / 2.0;
  if (how.level) {
    PangoRectangle capital;
    pango_layout_get_extents(line_of(cr, "H", how).get(), &capital, nullptr);
    middle = capital.y + capital.height / 2.0;
  }
  const double scale = 1.0 / PANGO_SCALE;
  const double width = ink.width * scale;
  const double height = ink.height * scale;
  const double smaller =
      how.largest_height > 0 && height > how.largest_height ? how.largest_height / height : 1;
  const double narrow =
      how.largest_width > 0 && width * smaller > how.largest_width ? how.largest_width / width : smaller;
  const Saved saved(cr);
  set_colour(cr, colour);
  cairo_translate(cr, x, y);
  cairo_scale(cr, narrow, smaller);
  cairo_move_to(cr, -(ink.x + ink.width / 2.0) * scale, -middle * scale);
  pango_cairo_show_layout(cr, line.get());
}

Extent text_left(cairo_t* cr, std::string_view text, double x, double baseline, const Lettering& how,
                 Colour colour) {
  const Line line = line_of(cr, text, how);
  PangoRectangle ink;
  pango_layout_get_extents(line.get(), &ink, nullptr);
  const double scale = 1.0 / PANGO_SCALE;
  set_colour(cr, colour);
  cairo_move_to(cr, x, baseline - pango_layout_get_baseline(line.get()) * scale);
  pango_cairo_show_layout(cr, line.get());
  return {ink.width * scale, ink.height * scale};
}

}  // namespace apsidon::draw_detail
