#include "apsidon/motion/feel.hpp"

#include <fmt/format.h>

#include <string_view>

#include "apsidon/geometry/error.hpp"

namespace apsidon {
namespace {

void check_range(std::string_view what, std::string_view option, float value, float most) {
  if (!(value >= 0 && value <= most)) {
    throw Error(fmt::format("feel: {} {} is {}: 0 to {} is expected", what, option, value, most));
  }
}

void check_glide(std::string_view what, const Glide& glide) {
  check_range(what, "seconds", glide.seconds, 60);
  check_range(what, "lift", glide.lift, 10);
  check(glide.curve);
}

}  // namespace

void check(const Feel& feel) {
  check_glide("move", feel.move);
  check_glide("shift", feel.shift);
  check_glide("flip", feel.flip);
  check_glide("back", feel.back);
  check_glide("carry", feel.carry);
  check_range("carry", "lift", feel.carry_lift, 10);
  check_glide("deal", feel.deal.glide);
  check_range("deal", "stagger", feel.deal.stagger, 60);
  check_range("shake", "seconds", feel.shake.seconds, 60);
  check_range("shake", "width", feel.shake.width, 10);
  check_range("shake", "swings", feel.shake.swings, 100);
}

}  // namespace apsidon
