#pragma once
// Sides of cards and their shadows, drawn once for each size in which they show. Not installed.
#include <chrono>
#include <functional>
#include <map>
#include <optional>
#include <tuple>

#include "apsidon/draw/picture.hpp"
#include "draw/canvas.hpp"

namespace apsidon::draw_detail {

class KeptSides {
 public:
  /// What is drawn in a box from (0, 0) to its size.
  using Draw = std::function<void(cairo_t* cr)>;

  /// A side of a card: its face, or the back of a suit; `larger` where a face has another picture for that.
  struct Side {
    std::uint32_t face = 0;
    int back_suit = -1;
    bool back = false;
    bool larger = false;

    friend auto operator<=>(const Side&, const Side&) = default;
  };

  /// From now on nothing is drawn after this moment, so that a frame does not wait for it; none: all is.
  void set_deadline(std::optional<std::chrono::steady_clock::time_point> deadline);
  /// Whether something was not there since then.
  [[nodiscard]] bool starved() const { return starved_; }

  /// The next size to which all that nobody tells apart is brought: sides are drawn at it, so that it does
  /// not matter which of them came first.
  static Size size_near(Size size);
  /// One of another size where there was no time for it, else none. Valid until the next call.
  const Picture* side(const Side& side, Size size, float pixel_ratio, const Draw& draw);
  /// A card of this size whose shadow is blurred so, px.
  struct Shape {
    Size size = {};
    float blur = 0;
  };
  /// The next to which all that nobody tells apart is brought.
  static Shape shape_near(Size size, float blur);
  /// The card is in the middle of the picture, which reaches `reach` px beyond it on all sides.
  const Picture& shadow(const Shape& shape, float reach, float pixel_ratio, const Draw& draw);
  const Picture& background(Size window, float pixel_ratio, const Draw& draw);

 private:
  using SideKey = std::tuple<Side, int, int, float>;  // sizes in steps that nobody sees
  using ShadowKey = std::tuple<float, float, float, float>;
  using GroundKey = std::tuple<float, float, float>;

  std::optional<std::chrono::steady_clock::time_point> deadline_ = {};
  bool starved_ = false;
  int drawn_ = 0;  // since the deadline was set
  template <class Key>
  struct Kept {
    std::map<Key, Picture> pictures = {};
    std::size_t px = 0;

    const Picture& get(const Key& key, Size size, float pixel_ratio, const Draw& draw);
  };
  Kept<SideKey> sides_ = {};
  Kept<ShadowKey> shadows_ = {};
  Kept<GroundKey> grounds_ = {};
};

}  // namespace apsidon::draw_detail
