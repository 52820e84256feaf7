// A table drawn with OpenGL 3.3: an atlas of all cards as a texture, a quad for each card with weights for
// its perspective, premultiplied alpha, and a scissor where a zone scrolls. The window is SDL's.
#include <SDL.h>
#include <epoxy/gl.h>

#include <array>
#include <cstdio>
#include <vector>

#include "apsidon/apsidon.hpp"
#include "apsidon/draw/atlas.hpp"
#include "apsidon/sdl/sdl_inputs.hpp"

using namespace apsidon;

namespace {

// At a corner: the place in the window; (u w, v w, w) of the atlas, in its pixels; opacity and brightness.
constexpr const char* shaders[] = {R"(#version 330 core
layout(location = 0) in vec2 at; layout(location = 1) in vec3 uvw; layout(location = 2) in vec2 shade;
uniform vec2 window; out vec3 place; out vec2 light;
void main() { place = uvw; light = shade; gl_Position = vec4(at / window * vec2(2, -2) + vec2(-1, 1), 0, 1); })",
                                   R"(#version 330 core
in vec3 place; in vec2 light; uniform sampler2D atlas; out vec4 colour;
void main() { vec4 c = texture(atlas, place.xy / place.z / textureSize(atlas, 0));
              colour = vec4(min(c.rgb * light.y, c.a), c.a) * light.x; })"};

void use_shaders(Size window) {
  const GLuint made = glCreateProgram();
  for (const int i : {0, 1}) {
    const GLuint shader = glCreateShader(i == 0 ? GL_VERTEX_SHADER : GL_FRAGMENT_SHADER);
    glShaderSource(shader, 1, &shaders[i], nullptr);
    glCompileShader(shader);
    glAttachShader(made, shader);
  }
  glLinkProgram(made), glUseProgram(made);
  glUniform2f(glGetUniformLocation(made, "window"), window.width, window.height);
}

void upload(const Atlas& atlas) {
  for (const PixelBox& box : atlas.fresh()) {
    Pixels pixels = atlas.pixels(box);
    for (Pixel& p : pixels.all) {  // premultiplied, so that no dark rim shows where it is scaled
      for (std::size_t i = 0; i < 3; ++i) p[i] = static_cast<std::uint8_t>(p[i] * p[3] / 255);
    }
    glTexSubImage2D(GL_TEXTURE_2D, 0, box.x, box.y, box.width, box.height, GL_RGBA, GL_UNSIGNED_BYTE,
                    pixels.all.data());
  }
}

void draw(const FrameItem& item, const Atlas& atlas, const Frame& frame) {
  const PixelBox cell = atlas.cell(item);
  const auto weights = corner_weights(item.corners);
  std::vector<float> strip;  // of two triangles
  for (const std::size_t i : {0u, 1u, 3u, 2u}) {
    const Vec2 at = item.corners.corners[i];
    const float w = weights[i];
    const float u = w * static_cast<float>(cell.x + (i % 3 == 0 ? 0 : cell.width));
    const float v = w * static_cast<float>(cell.y + (i < 2 ? 0 : cell.height));
    strip.insert(strip.end(), {at.x, at.y, u, v, w, item.opacity, item.brightness});
  }
  const Rect clip = item.clip == everywhere ? rect_at({0, 0}, frame.window) : item.clip;
  const auto px = [&](float length) { return static_cast<int>(length * frame.pixel_ratio); };
  glScissor(px(clip.min.x), px(frame.window.height - clip.max.y), px(clip.width()), px(clip.height()));
  glBufferData(GL_ARRAY_BUFFER, static_cast<GLsizeiptr>(strip.size() * 4), strip.data(), GL_STREAM_DRAW);
  glDrawArrays(GL_TRIANGLE_STRIP, 0, 4);
}

}  // namespace

int main() {
  if (SDL_Init(SDL_INIT_VIDEO) != 0) return std::puts(SDL_GetError()), 1;
  for (const SDL_GLattr part : {SDL_GL_CONTEXT_MAJOR_VERSION, SDL_GL_CONTEXT_MINOR_VERSION})
    SDL_GL_SetAttribute(part, 3);
  SDL_GL_SetAttribute(SDL_GL_CONTEXT_PROFILE_MASK, SDL_GL_CONTEXT_PROFILE_CORE);
  SDL_Window* window = SDL_CreateWindow("A hand", 0, 0, 900, 500, SDL_WINDOW_OPENGL);
  if (!window || !SDL_GL_CreateContext(window)) return std::puts(SDL_GetError()), 1;

  TableSetup setup(standard_deck());
  const ZoneId hand = setup.add({.name = "hand",
                                 .layout = {.kind = HandLayout{}, .longest = 9},
                                 .rules = {.flip = rule::anything()},
                                 .handling = {.hover = HoverKind::raise, .tap = TapKind::flip}});
  for (std::uint32_t i = 1; i <= 7; ++i) setup.table.create_card(hand, {.face = {7 * i}});
  setup.plans = {{.root = zone(hand)}};
  SdlInputs inputs(window);
  Playfield field(setup, {.window = {900, 500}, .start_time = inputs.now()});
  Atlas atlas(setup.table.deck(), field.where().card_size(), 1);
  GLuint names[3];
  glGenTextures(1, names), glGenBuffers(1, names + 1), glGenVertexArrays(1, names + 2);
  glBindTexture(GL_TEXTURE_2D, names[0]), glBindBuffer(GL_ARRAY_BUFFER, names[1]);
  glBindVertexArray(names[2]);
  const GLsizei wide = atlas.width(), high = atlas.height();
  glTexImage2D(GL_TEXTURE_2D, 0, GL_RGBA8, wide, high, 0, GL_RGBA, GL_UNSIGNED_BYTE, nullptr);
  glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_MIN_FILTER, GL_LINEAR);
  for (const auto& [place, floats, from] : {std::array<GLuint, 3>{0, 2, 0}, {1, 3, 8}, {2, 2, 20}}) {
    const auto* byte = reinterpret_cast<const void*>(std::uintptr_t{from});
    glEnableVertexAttribArray(place);
    glVertexAttribPointer(place, static_cast<GLint>(floats), GL_FLOAT, GL_FALSE, 28, byte);
  }
  use_shaders({900, 500});
  glEnable(GL_BLEND), glBlendFunc(GL_ONE, GL_ONE_MINUS_SRC_ALPHA), glEnable(GL_SCISSOR_TEST);
  glClearColor(0.06f, 0.14f, 0.11f, 1);
  (void)field.moves().flip(field.table().zone(hand)->cards[3]);
  for (bool running = true; running;) {
    for (SDL_Event event; SDL_PollEvent(&event) != 0;) {
      running = running && event.type != SDL_QUIT;
      if (const auto input = inputs.read(event)) (void)field.input(*input);
    }
    while (field.next_event(inputs.now())) {
    }
    const Frame& frame = field.frame();
    if (!atlas.whole()) (void)atlas.build(frame, std::chrono::milliseconds(500)), upload(atlas);
    glScissor(0, 0, 1 << 14, 1 << 14);
    glClear(GL_COLOR_BUFFER_BIT);
    for (const FrameItem& item : frame.items) draw(item, atlas, frame);
    SDL_GL_SwapWindow(window);
  }
}
