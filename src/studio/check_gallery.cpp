// The check of a gallery's art: its pictures, and the typefaces that corner marks are compared with.
#include "apsidon/studio/check_art.hpp"
#include "draw/canvas.hpp"

namespace apsidon {

using namespace draw_detail;

namespace {

std::vector<Pixels> lettered(const std::string& word) {
  std::vector<Pixels> out;
  constexpr float height = 64;
  const float width = height * (1 + static_cast<float>(word.size()));
  for (const Typeface typeface : {Typeface::serif, Typeface::plain}) {
    for (const bool bold : {false, true}) {
      const Picture picture({width, 2 * height});
      const Canvas canvas = canvas_on(picture);
      text_centred(canvas.get(), word, double{width} / 2, double{height},
                   {.typeface = typeface, .size = double{height}, .bold = bold}, rgb(0x000000));
      out.push_back(picture.pixels());
    }
  }
  return out;
}

}  // namespace

std::vector<ArtFinding> check_art(const Gallery& gallery, const Deck& deck) {
  return check_art(gallery.art(), deck,
                   {.size_of = [&](const std::string& name) { return gallery.size_of(name); },
                    .pixels_of = [&](const std::string& name) { return gallery.pixels(name); },
                    .lettered = lettered,
                    .there = gallery.pictures()});
}

}  // namespace apsidon
