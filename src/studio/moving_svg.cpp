// A film as SVG: every frame a group that shows for its time, every face a picture that is there once.
#include <cairo.h>
#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

#include "apsidon/draw/paint.hpp"
#include "apsidon/geometry/error.hpp"
#include "apsidon/studio/moving.hpp"
#include "draw/canvas.hpp"

namespace apsidon {
namespace {

std::string base64(const std::string& bytes) {
  static constexpr char signs[] = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
  std::string out;
  for (std::size_t i = 0; i < bytes.size(); i += 3) {
    std::uint32_t three = 0;
    for (std::size_t k = 0; k < 3; ++k) {
      three = three << 8 | (i + k < bytes.size() ? static_cast<unsigned char>(bytes[i + k]) : 0u);
    }
    for (std::size_t k = 0; k < 4; ++k) {
      out += i + k > bytes.size() ? '=' : signs[three >> (18 - 6 * k) & 63];
    }
  }
  return out;
}

/// A picture as the address of an image that is its own content.
std::string data_of(const Picture& picture) {
  std::string png;
  if (cairo_surface_write_to_png_stream(picture.surface(), draw_detail::append_bytes, &png) !=
      CAIRO_STATUS_SUCCESS) {
    throw Error("film: a picture cannot be encoded");
  }
  return "data:image/png;base64," + base64(png);
}

/// Which picture an item shows.
struct ShownSide {
  FaceId face;
  int back_suit;
  bool back;

  friend auto operator<=>(const ShownSide&, const ShownSide&) = default;
};

ShownSide side_of(const FrameItem& item) { return {item.face, item.back_suit, item.back}; }

std::string name_of(const ShownSide& side) {
  return side.back ? fmt::format("b{}", side.back_suit + 1) : fmt::format("f{}", side.face.value);
}

std::string short_number(float value) {
  std::string text = fmt::format("{:.3f}", value);
  while (text.back() == '0') text.pop_back();
  if (text.back() == '.') text.pop_back();
  return text == "-0" ? "0" : text;
}

std::string transform(const Matrix& m) {
  return fmt::format("matrix({} {} {} {} {} {})", short_number(m.a), short_number(m.b), short_number(m.c),
                     short_number(m.d), short_number(m.tx), short_number(m.ty));
}

/// One card, with a shadow that gets wider and softer the higher it is.
void add_item(std::string& out, const FrameItem& item, float radius) {
  const float w = item.size.width;
  const float h = item.size.height;
  if (item.kind != FrameKind::card) return;
  const float spread = w * (0.012f + 0.03f * item.lift);
  const float drop = w * (0.02f + 0.08f * item.lift);
  out += fmt::format("<g transform=\"{}\"{}>", transform(item.matrix),
                     item.opacity < 1 ? fmt::format(" opacity=\"{}\"", short_number(item.opacity)) : "");
  out +=
      fmt::format("<rect x=\"{}\" y=\"{}\" width=\"{}\" height=\"{}\" rx=\"{}\" opacity=\".28\"/>",
                  short_number(-w / 2 - spread), short_number(-h / 2 - spread + drop),
                  short_number(w + 2 * spread), short_number(h + 2 * spread), short_number(radius + spread));
  out += fmt::format("<use href=\"#{}\"/></g>", name_of(side_of(item)));
}

}  // namespace

std::string moving_svg(std::span<const Shot> frames, const Deck& deck, const Gallery* gallery) {
  if (frames.empty()) throw Error("film: no frames: at least one is expected");
  const Frame& first = frames.front().frame;
  Frame below = first;
  std::erase_if(below.items, [](const FrameItem& item) { return item.kind == FrameKind::card; });
  const double length =
      frames.size() > 1 ? frames.back().seconds + (frames.back().seconds - frames[frames.size() - 2].seconds)
                        : 1;

  std::set<ShownSide> sides;
  for (const Shot& f : frames) {
    for (const FrameItem& item : f.frame.items) {
      if (item.kind == FrameKind::card) sides.insert(side_of(item));
    }
  }
  const auto whole = [](float v) { return short_number(v); };
  std::string out = fmt::format(
      "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 {0} {1}\" width=\"{0}\" "
      "height=\"{1}\">\n<style>"
      ".s{{visibility:hidden;animation:{2:.3f}s step-end infinite}}",
      whole(first.window.width), whole(first.window.height), length);
  for (std::size_t i = 0; i < frames.size(); ++i) {
    const double from = frames[i].seconds / length * 100;
    const double to = i + 1 < frames.size() ? frames[i + 1].seconds / length * 100 : 100;
    out += fmt::format("#s{0}{{animation-name:k{0}}}@keyframes k{0}{{{1}{2:.4f}%{{visibility:visible}}{3}}}",
                       i, from > 0 ? "0%{visibility:hidden}" : "", from,
                       to < 100 ? fmt::format("{:.4f}%{{visibility:hidden}}", to) : "");
  }
  out += "</style>\n<defs>\n";
  for (const ShownSide& side : sides) {
    // A back is drawn from a card of its suit.
    const FaceId face = side.back_suit >= 0 ? deck.face(side.back_suit, 0) : side.face;
    const ShownCard view{
        .face = face, .face_up = !side.back, .box = rect_at({0, 0}, first.card), .fit = Fit::fill};
    out += fmt::format("<image id=\"{}\" x=\"{}\" y=\"{}\" width=\"{}\" height=\"{}\" href=\"{}\"/>\n",
                       name_of(side), whole(-first.card.width / 2), whole(-first.card.height / 2),
                       whole(first.card.width), whole(first.card.height),
                       data_of(paint_card(deck, view, 2, gallery)));
  }
  out += fmt::format("</defs>\n<image width=\"{}\" height=\"{}\" href=\"{}\"/>\n", whole(first.window.width),
                     whole(first.window.height), data_of(paint(below, deck, gallery)));
  for (std::size_t i = 0; i < frames.size(); ++i) {
    out += fmt::format("<g id=\"s{}\" class=\"s\">", i);
    for (const FrameItem& item : frames[i].frame.items) add_item(out, item, first.corner_radius);
    out += "</g>\n";
  }
  return out + "</svg>\n";
}

}  // namespace apsidon
