#pragma once
// Which parts of a window have to be painted anew. Not installed.
#include <span>
#include <vector>

#include "apsidon/play/frame.hpp"

namespace apsidon::draw_detail {

/// Compares each frame with the one before.
class ChangedParts {
 public:
  /// The boxes, px, apart from one another, outside of which the frame looks as the one before; the whole
  /// window where that was of another size, or none. Valid until the next call.
  std::span<const Rect> of(const Frame& frame, std::span<const Shadow> shadows);
  /// What this box shows is another the next time.
  void again(const Rect& box) { again_.push_back(box); }

 private:
  void add(Rect box);
  void compare_items(const Frame& frame, std::span<const Shadow> shadows);
  void compare_badges(const Frame& frame, std::span<const Shadow> shadows);
  void compare_panels(const Frame& frame);

  Frame before_ = {};  // of its lists what was drawn
  std::vector<Shadow> shadows_ = {};
  std::vector<Rect> boxes_ = {};
  std::vector<Rect> again_ = {};
};

}  // namespace apsidon::draw_detail
