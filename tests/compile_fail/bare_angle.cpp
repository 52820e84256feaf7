// An angle is never made from a bare number.
#include "apsidon/apsidon.hpp"

apsidon::HandLayout layout() {
#if MUST_FAIL
  return {.largest_angle = 40};
#else
  return {.largest_angle = apsidon::Angle::degrees(40)};
#endif
}
