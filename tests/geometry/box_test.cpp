#include "apsidon/apsidon.hpp"
#include "geometry/fit_in.hpp"
#include "support/property.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// The concrete object size by the text of CSS Images, section "object-fit", in double.
struct Concrete {
  double width, height;
};
Concrete css_object_size(Fit fit, double aw, double ah, double pw, double ph) {
  // "contain": the largest width and height that keep the ratio and fit inside; "cover": the smallest that
  // cover.
  const bool wider = pw / ph > aw / ah;
  const Concrete contain = wider ? Concrete{aw, aw * ph / pw} : Concrete{ah * pw / ph, ah};
  const Concrete cover = wider ? Concrete{ah * pw / ph, ah} : Concrete{aw, aw * ph / pw};
  switch (fit) {
    case Fit::contain:
      return contain;
    case Fit::cover:
      return cover;
    case Fit::fill:
      return {aw, ah};
    case Fit::scale_down:
      return contain.width < pw ? contain : Concrete{pw, ph};
    default:
      return {pw, ph};
  }
}

}  // namespace

TEST_CASE("geometry: a picture is fitted as CSS object-fit has it, to 0.01 px") {
  for_all("object-fit", 50, [](Random& r) {
    const Rect area =
        rect_at({r.uniform(-500, 500), r.uniform(-500, 500)}, {r.uniform(1, 800), r.uniform(1, 800)});
    const Size picture{r.uniform(1, 900), r.uniform(1, 900)};
    const Fit fit = static_cast<Fit>(r.below(5));
    const Vec2 position{r.uniform(0, 1), r.uniform(0, 1)};
    const geometry_detail::Fitted f = geometry_detail::fit_in(area, picture, fit, position);
    const Concrete c = css_object_size(fit, area.width(), area.height(), picture.width, picture.height);
    RC_ASSERT(std::abs(f.box.width() - c.width) < 0.01 * (1 + c.width / 1000));
    RC_ASSERT(std::abs(f.box.height() - c.height) < 0.01 * (1 + c.height / 1000));
    // Beyond a thousand px a float holds no hundredths any more.
    const float tolerance = 0.01f * (1 + (f.box.width() + f.box.height()) / 1000);
    // object-position: the point at that share of the picture lies at that share of the area.
    RC_ASSERT(std::abs(f.box.min.x + f.box.width() * position.x - area.min.x - area.width() * position.x) <
              tolerance);
    RC_ASSERT(std::abs(f.box.min.y + f.box.height() * position.y - area.min.y - area.height() * position.y) <
              tolerance);
    // What shows is in the area, and is that part of the picture.
    RC_ASSERT(overlap(f.shown, area) >= 0.99f * f.shown.width() * f.shown.height() - 0.01f);
    RC_ASSERT(f.source.min.x >= -0.01f && f.source.max.x <= picture.width + 0.01f);
    RC_ASSERT(std::abs(f.source.width() / picture.width - f.shown.width() / f.box.width()) < 1e-3f);
  });
}

TEST_CASE("geometry: pixel art is scaled by whole numbers") {
  const geometry_detail::Fitted f = geometry_detail::fit_in({{0, 0}, {100, 70}}, {16, 16}, Fit::whole);
  CHECK(f.box == Rect{{18, 3}, {82, 67}});
  CHECK(geometry_detail::fit_in({{0, 0}, {10, 10}}, {16, 16}, Fit::whole).box.width() == 16);
  CHECK(geometry_detail::fit_in({{0, 0}, {10, 10}}, {16, 16}, Fit::whole).source == Rect{{3, 3}, {13, 13}});
}

TEST_CASE("geometry: a bar is filled by its share") {
  CHECK(filled({{0, 0}, {100, 10}}, 0.25f) == Rect{{0, 0}, {25, 10}});
  CHECK(filled({{0, 0}, {100, 10}}, 7).max.x == 100);
  CHECK(filled({{0, 0}, {100, 10}}, NAN).empty());
}

TEST_CASE("geometry: what is empty or not finite fits as nothing") {
  for (const Size picture : {Size{0, 10}, Size{NAN, 10}, Size{10, INFINITY}, Size{-4, 4}}) {
    const geometry_detail::Fitted f = geometry_detail::fit_in({{0, 0}, {10, 20}}, picture, Fit::contain);
    CHECK(f.shown.empty());
    CHECK(f.box.min == Vec2{5, 10});
  }
  CHECK(geometry_detail::fit_in({{0, 0}, {0, 5}}, {3, 3}, Fit::cover).shown.empty());
  CHECK(is_finite(geometry_detail::fit_in({{NAN, 0}, {1, 5}}, {3, 3}, Fit::none).box.min));
  CHECK(geometry_detail::fit_in({{0, 0}, {10, 10}}, {5, 5}, Fit::none, {9, 0}).shown.empty());
}
