#include "apsidon/draw/paint.hpp"

#include <cairo-pdf.h>
#include <cairo-svg.h>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <string>
#include <vector>

#include "apsidon/art/card_picture.hpp"
#include "apsidon/geometry/error.hpp"
#include "draw/canvas.hpp"
#include "draw/changed_parts.hpp"
#include "draw/draw_frame.hpp"
#include "geometry/hide.hpp"

namespace apsidon {

using namespace draw_detail;

namespace {

/// What a surface that writes a file is given, as the bytes of that file.
template <class Create>
std::string written(const Frame& frame, const Faces& faces, Ground ground, Create create) {
  // What is drawn in pixels all the same, cards under perspective, is drawn finely.
  constexpr float fine = 4;
  const auto good = [](float side) { return side >= 1 && side <= most_side; };
  if (!good(frame.window.width) || !good(frame.window.height)) {
    throw Error(fmt::format("picture: {}x{} px: 1 to {} in either direction is expected", frame.window.width,
                            frame.window.height, most_side));
  }
  std::string bytes;
  const Surface surface(
      create(append_bytes, &bytes, double{frame.window.width}, double{frame.window.height}));
  {
    const Canvas canvas(cairo_create(surface.get()));
    draw_frame(canvas.get(), frame, faces, ground, fine);
  }
  cairo_surface_finish(surface.get());
  if (const auto status = cairo_surface_status(surface.get()); status != CAIRO_STATUS_SUCCESS)
    throw Error(fmt::format("picture: it cannot be written: {}", cairo_status_to_string(status)));
  return bytes;
}

}  // namespace

Picture paint(const Frame& frame, const Deck& deck, const Gallery* gallery, Ground ground) {
  Picture picture(frame.window, frame.pixel_ratio);
  const Canvas canvas = canvas_on(picture);
  draw_frame(canvas.get(), frame, {.deck = deck, .gallery = gallery}, ground, frame.pixel_ratio);
  return picture;
}

std::string paint_svg(const Frame& frame, const Deck& deck, const Gallery* gallery, Ground ground) {
  return written(frame, {.deck = deck, .gallery = gallery}, ground, [](auto... how) {
    cairo_surface_t* surface = cairo_svg_surface_create_for_stream(how...);
    cairo_svg_surface_set_document_unit(surface, CAIRO_SVG_UNIT_PX);
    return surface;
  });
}

std::string paint_pdf(const Frame& frame, const Deck& deck, const Gallery* gallery, Ground ground) {
  return written(frame, {.deck = deck, .gallery = gallery}, ground,
                 [](auto... how) { return cairo_pdf_surface_create_for_stream(how...); });
}

Picture paint_card(const Deck& deck, const ShownCard& view, float pixel_ratio, const Gallery* gallery) {
  Picture picture(view.box.size(), pixel_ratio);
  const Canvas canvas = canvas_on(picture);
  cairo_translate(canvas.get(), -double{view.box.min.x}, -double{view.box.min.y});
  const auto size_of = [&](const std::string& name) { return gallery->size_of(name); };
  const CardPicture card =
      gallery ? picture_of(gallery->art(), deck, view, size_of) : picture_of({}, deck, view);
  draw_card(canvas.get(), card, view.face, {.deck = deck, .gallery = gallery});
  return picture;
}

struct Painter::Impl {
  Deck deck;
  const Gallery* gallery;
  KeptSides kept = {};
  ChangedParts changed = {};
  std::vector<Shadow> shadows = {};
  std::vector<PixelBox> boxes = {};
};

Painter::Painter(const Deck& deck, const Gallery* gallery)
    : impl_(geometry_detail::hide<Impl>(Impl{deck, gallery})) {}

Picture Painter::paint(const Frame& frame, Ground ground) {
  Picture picture(frame.window, frame.pixel_ratio);
  impl_->kept.set_deadline(std::nullopt);
  const Canvas canvas = canvas_on(picture);
  draw_frame(canvas.get(), frame, {.deck = impl_->deck, .gallery = impl_->gallery, .kept = &impl_->kept},
             ground, frame.pixel_ratio);
  return picture;
}

std::span<const PixelBox> Painter::repaint(std::optional<Picture>& picture, const Frame& frame,
                                           std::chrono::nanoseconds time) {
  Impl& p = *impl_;
  const PixelBox device = device_box(frame.window, frame.pixel_ratio);
  if (!picture || picture->width() != device.width || picture->height() != device.height) {
    picture.emplace(frame.window, frame.pixel_ratio);
    p.changed = {};
  }
  shadows_of(frame, p.shadows);
  p.kept.set_deadline(std::chrono::steady_clock::now() + time);
  p.boxes.clear();
  const Canvas canvas = canvas_on(*picture);
  cairo_t* cr = canvas.get();
  const Faces faces{.deck = p.deck, .gallery = p.gallery, .kept = &p.kept};
  for (const Rect& part : p.changed.of(frame, p.shadows)) {
    // Whole device pixels, so that nothing is half covered at the edge of the part.
    const auto within = [](float px, int most) {
      return static_cast<int>(std::clamp(px, 0.0f, static_cast<float>(most)));
    };
    const auto low = [&](float px, int most) { return within(std::floor(px * frame.pixel_ratio), most); };
    const auto high = [&](float px, int most) { return within(std::ceil(px * frame.pixel_ratio), most); };
    const PixelBox box{low(part.min.x, device.width), low(part.min.y, device.height), 0, 0};
    const int right = high(part.max.x, device.width);
    const int bottom = high(part.max.y, device.height);
    p.boxes.push_back({box.x, box.y, right - box.x, bottom - box.y});
    const double scale = 1 / double{frame.pixel_ratio};
    const Saved saved(cr);
    cairo_rectangle(cr, box.x * scale, box.y * scale, (right - box.x) * scale, (bottom - box.y) * scale);
    cairo_clip(cr);
    draw_frame(cr, frame, faces, Ground::glasshouse, frame.pixel_ratio, {.box = part, .shadows = p.shadows});
  }
  cairo_surface_flush(picture->surface());
  if (p.kept.starved()) p.changed.again(rect_at({0, 0}, frame.window));
  return p.boxes;
}

bool Painter::complete() const { return !impl_->kept.starved(); }

}  // namespace apsidon
