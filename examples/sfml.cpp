// A hand of cards in a window of SFML: its events in, an atlas of all cards as a texture, a quad for each
// card.
#include <SFML/Graphics.hpp>
#include <cstdio>

#include "apsidon/apsidon.hpp"
#include "apsidon/draw/atlas.hpp"

using namespace apsidon;

namespace {

/// What a window tells of mouse and size, as the table takes it; nothing for all else.
std::optional<Input> read(const sf::Event& event, double now) {
  const auto pointer = [&](PointerPhase phase, int x, int y, sf::Mouse::Button button = sf::Mouse::Left) {
    const Vec2 at{static_cast<float>(x), static_cast<float>(y)};
    const bool primary = button == sf::Mouse::Left;
    return PointerInput{.phase = phase,
                        .at = at,
                        .time = now,
                        .button = primary ? PointerButton::primary : PointerButton::secondary};
  };
  const auto& press = event.mouseButton;
  switch (event.type) {
    case sf::Event::MouseMoved:
      return Input{pointer(PointerPhase::move, event.mouseMove.x, event.mouseMove.y)};
    case sf::Event::MouseButtonPressed:
      return Input{pointer(PointerPhase::down, press.x, press.y, press.button)};
    case sf::Event::MouseButtonReleased:
      return Input{pointer(PointerPhase::up, press.x, press.y, press.button)};
    case sf::Event::MouseLeft:
      return Input{pointer(PointerPhase::leave, 0, 0)};
    case sf::Event::LostFocus:
      return Input{BlurInput{.time = now}};
    case sf::Event::Resized: {
      const Size size{static_cast<float>(event.size.width), static_cast<float>(event.size.height)};
      return Input{ResizeInput{.window = size, .time = now}};
    }
    default:
      return std::nullopt;
  }
}

/// What has been drawn of the atlas since the last time.
void upload(const Atlas& atlas, sf::Texture& texture) {
  const auto px = [](int length) { return static_cast<unsigned>(length); };
  for (const PixelBox& box : atlas.fresh())
    texture.update(atlas.pixels(box).all.data()->data(), px(box.width), px(box.height), px(box.x), px(box.y));
}

/// A card as it lies: SFML has no perspective, so the matrix that has none places it.
void draw(sf::RenderWindow& window, const FrameItem& item, const PixelBox& cell, const sf::Texture& texture) {
  const Matrix& m = item.matrix;
  const sf::Transform place(m.a, m.c, m.tx, m.b, m.d, m.ty, 0, 0, 1);
  const auto light = static_cast<sf::Uint8>(std::clamp(item.brightness, 0.0f, 1.0f) * 255);
  const sf::Color colour(light, light, light, static_cast<sf::Uint8>(item.opacity * 255));
  sf::VertexArray quad(sf::TriangleStrip, 4);
  for (std::size_t i = 0; i < 4; ++i) {
    const auto x = static_cast<float>(i % 2), y = static_cast<float>(i / 2);
    quad[i].position = {(x - 0.5f) * item.size.width, (y - 0.5f) * item.size.height};
    quad[i].texCoords = {static_cast<float>(cell.x) + x * static_cast<float>(cell.width),
                         static_cast<float>(cell.y) + y * static_cast<float>(cell.height)};
    quad[i].color = colour;
  }
  sf::RenderStates states(place);
  states.texture = &texture;
  window.draw(quad, states);
}

}  // namespace

int main() {
  sf::RenderWindow window(sf::VideoMode(900, 500), "A hand");
  window.setVerticalSyncEnabled(true);
  TableSetup setup(standard_deck());
  const ZoneId hand = setup.add({.name = "hand",
                                 .layout = {.kind = HandLayout{}, .longest = 9},
                                 .rules = {.pick = {.kind = PickKind::any}, .sorts = true},
                                 .handling = {.hover = HoverKind::raise}});
  for (std::uint32_t i = 1; i <= 7; ++i) setup.table.create_card(hand, {.face = {7 * i}});
  setup.plans = {{.root = zone(hand)}};
  Playfield field(setup, {.window = {900, 500}});
  Atlas atlas(setup.table.deck(), field.where().card_size(), 1);
  sf::Texture texture;
  texture.create(static_cast<unsigned>(atlas.width()), static_cast<unsigned>(atlas.height()));
  texture.setSmooth(true);
  const sf::Clock clock;
  while (window.isOpen()) {
    const double now = static_cast<double>(clock.getElapsedTime().asMicroseconds()) / 1e6;
    for (sf::Event event{}; window.pollEvent(event);) {
      if (event.type == sf::Event::Closed) window.close();
      if (event.type == sf::Event::Resized)  // px stay px
        window.setView(sf::View(sf::FloatRect({}, sf::Vector2f(window.getSize()))));
      if (const auto input = read(event, now)) (void)field.input(*input);
    }
    while (const auto event = field.next_event(now))
      if (event->kind == EventKind::dropped) std::fprintf(stderr, "%s\n", describe(*event, field).c_str());
    const Frame& frame = field.frame();
    if (!atlas.whole()) (void)atlas.build(frame, std::chrono::milliseconds(8)), upload(atlas, texture);
    window.clear({16, 36, 28});
    for (const FrameItem& item : frame.items)
      if (item.kind != FrameKind::outline) draw(window, item, atlas.cell(item), texture);
    window.display();
  }
}
