#include "sdl/texture_painter.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <map>
#include <optional>
#include <span>
#include <string>
#include <tuple>
#include <vector>

#include "apsidon/draw/atlas.hpp"
#include "apsidon/draw/paint.hpp"
#include "apsidon/draw/sprites.hpp"
#include "sdl/textures.hpp"

namespace apsidon::sdl_detail {
namespace {

/// Cards of one size, as far as they are drawn.
struct Sheet {
  Atlas atlas;
  Texture texture;
};

/// The scale with which an item shows.
float scale_of(const FrameItem& item) {
  const Matrix& m = item.matrix;
  return std::max(std::hypot(m.a, m.b), std::hypot(m.c, m.d));
}

/// Whether a card lies as the window does, so that it can be copied.
bool lies_straight(const Quad& q) {
  constexpr float hair = 1e-3f;
  const auto& c = q.corners;
  return std::abs(c[0].y - c[1].y) < hair && std::abs(c[1].x - c[2].x) < hair &&
         std::abs(c[2].y - c[3].y) < hair && std::abs(c[3].x - c[0].x) < hair && c[1].x > c[0].x &&
         c[3].y > c[0].y;
}

bool seen_from_its_edge(const Quad& q) {
  const Vec2 a = q.corners[2] - q.corners[0];
  const Vec2 b = q.corners[3] - q.corners[1];
  return !(std::abs(a.x * b.y - a.y * b.x) > 0.5f);
}

/// What a texture is drawn with.
struct Ink {
  float opacity = 1;
  float brightness = 1;
};

std::uint8_t byte_of(float share) {
  return static_cast<std::uint8_t>(std::clamp(share, 0.0f, 1.0f) * 255 + 0.5f);
}

}  // namespace

struct TexturePainter::Impl {
  SDL_Renderer* renderer;
  Deck deck;
  const Gallery* gallery;
  std::optional<Sheet> sheet = {};  // what shows
  std::optional<Sheet> next = {};   // of another size, while it is built
  Texture background = {};
  std::tuple<float, float, float> background_key = {};
  struct KeptPanel {
    FramePanel panel = {};
    float ratio = 1;
    Texture texture = {};
  };
  std::vector<KeptPanel> panels = {};
  std::map<std::tuple<int, int, int, float>, Texture> marks = {};
  std::map<std::tuple<int, int, int, float>, Texture> shadows = {};
  std::map<std::tuple<std::uint32_t, int, int, float>, Texture> larger = {};
  std::map<std::tuple<std::string, int, int, float>, Texture> badges = {};
  std::vector<Shadow> shadow_shapes = {};
  std::vector<SDL_Vertex> vertices = {};
  std::vector<int> indices = {};
  float ratio = 1;
  float wanted_ratio = 0;  // of the sheets
  float corner_share = 0;

  void forget() {
    sheet.reset();
    next.reset();
    larger.clear();
    panels.clear();
    marks.clear();
    shadows.clear();
    badges.clear();
  }

  /// Whether the renderer can hold a texture of this size.
  [[nodiscard]] bool holds(double width, double height) const {
    SDL_RendererInfo info{};
    SDL_GetRendererInfo(renderer, &info);
    const auto most = [](int stated) { return stated > 0 ? stated : 1 << 14; };
    return width <= most(info.max_texture_width) && height <= most(info.max_texture_height);
  }

  /// An atlas for a size of cards, no larger than the renderer can hold.
  [[nodiscard]] Sheet sheet_for(Size card, float pixel_ratio) const {
    Atlas atlas(deck, card, pixel_ratio, corner_share, gallery);
    while (!holds(atlas.width(), atlas.height())) {
      pixel_ratio *= 0.8f;
      atlas = Atlas(deck, card, pixel_ratio, corner_share, gallery);
    }
    const bool crisp = gallery && gallery->art().sampling == Sampling::nearest;
    Texture texture = texture_of(renderer, atlas.width(), atlas.height(), crisp);
    return {std::move(atlas), std::move(texture)};
  }

  /// Builds what is not there yet; whether the cards that the frame shows are.
  bool build(const Frame& frame, std::chrono::nanoseconds time) {
    if (frame.card.width < 1 || frame.card.height < 1) return true;
    const auto fits = [&](const std::optional<Sheet>& s) {
      return s && s->atlas.card() == frame.card && wanted_ratio == frame.pixel_ratio;
    };
    if (!fits(sheet) && !(next && next->atlas.card() == frame.card && wanted_ratio == frame.pixel_ratio)) {
      wanted_ratio = frame.pixel_ratio;
      next = sheet_for(frame.card, frame.pixel_ratio);
      if (!sheet) std::swap(sheet, next);
    } else if (fits(sheet) && next && next->atlas.card() != frame.card) {
      next.reset();  // the window has its old size again
    }
    std::optional<Sheet>& open = next ? next : sheet;
    if (open && !open->atlas.whole()) {
      open->atlas.build(frame, time);
      for (const PixelBox& box : open->atlas.fresh()) {
        const SDL_Rect at{box.x, box.y, box.width, box.height};
        SDL_UpdateTexture(open->texture.get(), &at, open->atlas.pixels(box).all.data(), 4 * box.width);
      }
    }
    if (next && next->atlas.whole()) {
      sheet = std::move(next);
      next.reset();
    }
    return !next && std::all_of(frame.items.begin(), frame.items.end(), [&](const FrameItem& item) {
      return item.kind == FrameKind::outline || sheet->atlas.has(item);
    });
  }

  /// Draws a part of a texture, in shares of it, on a quad; where it recedes in strips.
  void draw(SDL_Texture* texture, const Rect& part, const Quad& quad, const Ink& ink) {
    if (!texture || ink.opacity <= 0) return;
    if (lies_straight(quad)) return copy(texture, part, quad, ink);
    const SDL_Color colour{byte_of(ink.brightness), byte_of(ink.brightness), byte_of(ink.brightness),
                           byte_of(ink.opacity)};
    const auto weights = corner_weights(quad);
    const float recedes = std::max(std::abs(weights[0] - weights[1]), std::abs(weights[0] - weights[3]));
    const int strips = recedes > 1e-3f ? 12 : 1;
    const bool across = std::abs(weights[0] - weights[1]) >= std::abs(weights[0] - weights[3]);
    vertices.clear();
    indices.clear();
    for (int i = 0; i <= strips; ++i) {
      const float t = static_cast<float>(i) / static_cast<float>(strips);
      for (const float side : {0.0f, 1.0f}) {
        const Vec2 share = across ? Vec2{t, side} : Vec2{side, t};
        const Vec2 at = point_in(quad, share);
        vertices.push_back({{at.x, at.y},
                            colour,
                            {part.min.x + share.x * part.width(), part.min.y + share.y * part.height()}});
      }
      if (i == 0) continue;
      const int n = 2 * i;
      indices.insert(indices.end(), {n - 2, n - 1, n, n, n - 1, n + 1});
    }
    SDL_RenderGeometry(renderer, texture, vertices.data(), static_cast<int>(vertices.size()), indices.data(),
                       static_cast<int>(indices.size()));
  }

  void copy(SDL_Texture* texture, const Rect& part, const Quad& quad, const Ink& ink) const {
    int width = 0, height = 0;
    SDL_QueryTexture(texture, nullptr, nullptr, &width, &height);
    const auto px = [](float share, int length) {
      return static_cast<int>(std::lround(share * static_cast<float>(length)));
    };
    const SDL_Rect from{px(part.min.x, width), px(part.min.y, height), px(part.width(), width),
                        px(part.height(), height)};
    const Vec2 at = quad.corners[0];
    const SDL_FRect to{at.x, at.y, quad.corners[2].x - at.x, quad.corners[2].y - at.y};
    SDL_SetTextureAlphaMod(texture, byte_of(ink.opacity));
    const std::uint8_t light = byte_of(ink.brightness);
    SDL_SetTextureColorMod(texture, light, light, light);
    SDL_RenderCopyF(renderer, texture, &from, &to);
    SDL_SetTextureAlphaMod(texture, 255);
    SDL_SetTextureColorMod(texture, 255, 255, 255);
  }

  static constexpr Rect whole_texture{{0, 0}, {1, 1}};

  void draw_background(const Frame& frame) {
    const std::tuple key{frame.window.width, frame.window.height, frame.pixel_ratio};
    if (!background || key != background_key) {
      // Of a window larger than a texture can be it is coarser, which a night sky may be.
      float coarser = frame.pixel_ratio;
      while (!holds(double{frame.window.width * coarser}, double{frame.window.height * coarser}))
        coarser *= 0.8f;
      background = texture_of(renderer, paint_background(frame.window, coarser), true);
      background_key = key;
    }
    const SDL_FRect all{0, 0, frame.window.width, frame.window.height};
    SDL_RenderCopyF(renderer, background.get(), nullptr, &all);
  }

  void draw_panel(const FramePanel& panel, std::size_t index) {
    if (panel.area.width() < 1 || panel.area.height() < 1) return;
    panels.resize(std::max(panels.size(), index + 1));
    KeptPanel& kept = panels[index];
    if (!kept.texture || kept.panel != panel || kept.ratio != ratio) {
      kept.texture = texture_of(renderer, paint_panel(panel, ratio));
      kept.panel = panel;
      kept.ratio = ratio;
    }
    const Rect to = grown(panel.area, mark_reach);
    draw(kept.texture.get(), whole_texture, quad_of(to), {});
  }

  static Quad quad_of(const Rect& r) { return {{r.min, {r.max.x, r.min.y}, r.max, {r.min.x, r.max.y}}}; }

  /// The corners of an item, moved outward by so many px of its own.
  static Quad grown_quad(const FrameItem& item, float scale, float by) {
    const Vec2 beyond{by / (item.size.width * scale), by / (item.size.height * scale)};
    const auto at = [&](float x, float y) { return point_in(item.corners, {x, y}); };
    return {{at(-beyond.x, -beyond.y), at(1 + beyond.x, -beyond.y), at(1 + beyond.x, 1 + beyond.y),
             at(-beyond.x, 1 + beyond.y)}};
  }

  void draw_shadow(const FrameItem& item, const Shadow& shadow, float scale) {
    if (shadow.opacity < 0.01f) return;
    const auto steps = [](float px) { return static_cast<int>(std::lround(px)); };
    const Size size = item.size * scale;
    const std::tuple key{steps(size.width), steps(size.height), steps(shadow.blur), ratio};
    auto kept = shadows.find(key);
    const float blur = static_cast<float>(std::get<2>(key));
    if (kept == shadows.end()) {
      constexpr std::size_t most = 400;
      if (shadows.size() >= most) shadows.clear();
      Texture texture = texture_of(renderer, paint_shadow(size, corner_share * size.width, blur, ratio));
      kept = shadows.emplace(key, std::move(texture)).first;
    }
    Quad quad = grown_quad(item, scale, blur / 2 + 1);
    for (Vec2& corner : quad.corners) corner = corner + shadow.offset;
    draw(kept->second.get(), whole_texture, quad, {.opacity = shadow.opacity / painted_shadow_opacity});
  }

  void draw_marks(const FrameItem& item, float scale) {
    const bool outline = item.kind == FrameKind::outline;
    const Marks& m = item.marks;
    const int which = (m.aimed_at ? 1 : 0) | (m.legal_target ? 2 : 0) | (m.locked ? 4 : 0) |
                      (m.refused ? 8 : 0) | (m.focus ? 16 : 0) | (outline ? 32 : 0) | (m.glows ? 64 : 0) |
                      (m.selected ? 128 : 0) | (m.playable ? 256 : 0);
    if (which == 0) return;
    const Size size = item.size * scale;
    const auto steps = [](float px) { return static_cast<int>(std::lround(px)); };
    const std::tuple key{which, steps(size.width), steps(size.height), ratio};
    auto kept = marks.find(key);
    if (kept == marks.end()) {
      constexpr std::size_t most = 200;
      if (marks.size() >= most) marks.clear();
      Texture texture = texture_of(renderer, paint_marks(size, corner_share * size.width, m, outline, ratio));
      kept = marks.emplace(key, std::move(texture)).first;
    }
    draw(kept->second.get(), whole_texture, grown_quad(item, scale, mark_reach), {.opacity = item.opacity});
  }

  /// A larger picture is drawn by itself, in the size in which it ends.
  SDL_Texture* larger_picture(const FrameItem& item, float scale) {
    const auto steps = [](float px) { return static_cast<int>(std::lround(px / 8) * 8); };
    const Size size = item.size * scale;
    const std::tuple key{item.back ? 0u : item.face.value, steps(size.width), steps(size.height), ratio};
    const auto kept = larger.find(key);
    if (kept != larger.end()) return kept->second.get();
    constexpr std::size_t most = 12;
    if (larger.size() >= most) larger.clear();
    const ShownCard view{.face = item.face,
                         .face_up = !item.back,
                         .box = rect_at({0, 0}, size),
                         .fit = Fit::fill,
                         .larger = true};
    return larger.emplace(key, texture_of(renderer, paint_card(deck, view, ratio, gallery)))
        .first->second.get();
  }

  void draw_card(const FrameItem& item, float scale) {
    const Ink ink{item.opacity, std::min(item.brightness, 1.0f)};
    if (item.kind == FrameKind::zoom) {
      draw(larger_picture(item, scale), whole_texture, item.corners, ink);
    } else if (sheet && sheet->atlas.has(item)) {
      const PixelBox cell = sheet->atlas.cell(item);
      const auto width = static_cast<float>(sheet->atlas.width());
      const auto height = static_cast<float>(sheet->atlas.height());
      // With its margin, a transparent pixel: so its edges are soft.
      const auto left = static_cast<float>(cell.x - 1), top = static_cast<float>(cell.y - 1);
      const auto right = static_cast<float>(cell.x + cell.width + 1);
      const auto bottom = static_cast<float>(cell.y + cell.height + 1);
      const Rect part{{left / width, top / height}, {right / width, bottom / height}};
      const float px = item.size.width * scale / static_cast<float>(cell.width);
      draw(sheet->texture.get(), part, grown_quad(item, scale, px), ink);
      if (item.brightness > 1) brighten(part, item, scale, px);
    }
  }

  /// Beyond its own colours a card is drawn once more, added.
  void brighten(const Rect& part, const FrameItem& item, float scale, float px) {
    SDL_SetTextureBlendMode(sheet->texture.get(), SDL_BLENDMODE_ADD);
    draw(sheet->texture.get(), part, grown_quad(item, scale, px),
         {.opacity = item.opacity * std::min(item.brightness - 1, 1.0f)});
    SDL_SetTextureBlendMode(sheet->texture.get(), SDL_BLENDMODE_BLEND);
  }

  void draw_badge(const FrameBadge& badge, const FrameItem& item, float scale) {
    const auto steps = [](float px) { return static_cast<int>(std::lround(px)); };
    const Size size{badge.place.width() * item.size.width * scale,
                    badge.place.height() * item.size.height * scale};
    const std::tuple key{badge.text, steps(size.width), steps(size.height), ratio};
    if (std::get<1>(key) < 1 || std::get<2>(key) < 1) return;
    auto kept = badges.find(key);
    if (kept == badges.end()) {
      constexpr std::size_t most = 400;
      if (badges.size() >= most) badges.clear();
      kept = badges.emplace(key, texture_of(renderer, paint_badge(badge.text, size, ratio))).first;
    }
    const Rect& p = badge.place;
    const auto at = [&](float x, float y) { return point_in(item.corners, {x, y}); };
    draw(kept->second.get(), whole_texture,
         {{at(p.min.x, p.min.y), at(p.max.x, p.min.y), at(p.max.x, p.max.y), at(p.min.x, p.max.y)}},
         {.opacity = item.opacity});
  }

  void draw_item(const FrameItem& item, const Shadow& shadow, std::span<const FrameBadge> on_it) {
    const float scale = scale_of(item);
    if (!(item.size.width * scale >= 1 && item.size.height * scale >= 1)) return;
    const bool clipped = item.clip != everywhere;
    if (clipped) {
      const auto whole = [](float px) { return static_cast<int>(std::lround(px)); };
      const SDL_Rect clip{whole(item.clip.min.x), whole(item.clip.min.y), whole(item.clip.width()),
                          whole(item.clip.height())};
      SDL_RenderSetClipRect(renderer, &clip);
    }
    if (item.kind != FrameKind::outline && !seen_from_its_edge(item.corners)) {
      draw_shadow(item, shadow, scale);
      draw_card(item, scale);
      for (const FrameBadge& badge : on_it) draw_badge(badge, item, scale);
    }
    if (!seen_from_its_edge(item.corners)) draw_marks(item, scale);
    if (clipped) SDL_RenderSetClipRect(renderer, nullptr);
  }
};

TexturePainter::TexturePainter(SDL_Renderer* renderer, const Deck& deck, const Gallery* gallery)
    : impl_(std::make_unique<Impl>(Impl{.renderer = renderer, .deck = deck, .gallery = gallery})) {}
TexturePainter::TexturePainter(TexturePainter&&) noexcept = default;
TexturePainter& TexturePainter::operator=(TexturePainter&&) noexcept = default;
TexturePainter::~TexturePainter() = default;

bool TexturePainter::draw(const Frame& frame, std::chrono::nanoseconds time) {
  Impl& p = *impl_;
  p.ratio = frame.pixel_ratio;
  const float corner_share = frame.card.width > 0 ? frame.corner_radius / frame.card.width : 0;
  if (corner_share != p.corner_share) p.forget();
  p.corner_share = corner_share;
  const bool whole = p.build(frame, time);
  float across = 1, down = 1;
  SDL_RenderGetScale(p.renderer, &across, &down);
  SDL_RenderSetScale(p.renderer, frame.pixel_ratio, frame.pixel_ratio);
  p.draw_background(frame);
  for (std::size_t i = 0; i < frame.panels.size(); ++i) {
    if (!frame.panels[i].overlay) p.draw_panel(frame.panels[i], i);
  }
  shadows_of(frame, p.shadow_shapes);
  std::span<const FrameBadge> badges = frame.badges;
  for (std::size_t i = 0; i < frame.items.size(); ++i) {
    std::size_t own = 0;
    while (own < badges.size() && badges[own].item <= i) ++own;
    p.draw_item(frame.items[i], p.shadow_shapes[i], badges.first(own));
    badges = badges.subspan(own);
  }
  for (std::size_t i = 0; i < frame.panels.size(); ++i) {
    if (frame.panels[i].overlay) p.draw_panel(frame.panels[i], i);
  }
  if (!frame.sweep.empty()) {
    const Size size = frame.sweep.size();
    const SDL_FRect box{frame.sweep.min.x, frame.sweep.min.y, size.width, size.height};
    SDL_SetRenderDrawBlendMode(p.renderer, SDL_BLENDMODE_BLEND);
    const auto colour = [&](std::uint8_t opacity) {
      SDL_SetRenderDrawColor(p.renderer, 0xA9, 0xE8, 0xDF, opacity);  // the aqua of the marks
    };
    colour(38);
    SDL_RenderFillRectF(p.renderer, &box);
    colour(255);
    SDL_RenderDrawRectF(p.renderer, &box);
  }
  SDL_RenderSetScale(p.renderer, across, down);
  return whole;
}

}  // namespace apsidon::sdl_detail
