#pragma once
// What a point hits of the frame as it is. Not installed.
#include <cstdint>
#include <optional>
#include <vector>

#include "apsidon/hit/hit_index.hpp"
#include "play/reads/frame_builder.hpp"

namespace apsidon::play_detail {

/// The hit index beside the frame. Changes nothing of what it reads.
///
/// Invariant: the topmost card is the last in drawing order that has the point and is not held, whichever way
/// it was found.
class HitView {
 public:
  /// The frame was updated.
  void follow(const FrameBuilder& frames);

  // Of the frame that it followed last.

  /// The topmost card that takes hits; none where there is none.
  [[nodiscard]] CardId topmost(Vec2 point, const FrameBuilder& frames, const Traffic& traffic) {
    return dirty_ || !moved_.empty() ? topmost_of_moved(point, frames, traffic)
                                     : CardId{index_.topmost(point).value_or(0)};
  }
  /// The card nearest to a finger, no farther than `slop` px.
  [[nodiscard]] CardId nearest(Vec2 point, float slop, const FrameBuilder& frames, const Traffic& traffic);

  /// What an overlay takes of a press: a panel, or nothing where it only keeps the press from what lies
  /// below. No answer where no overlay has a say.
  [[nodiscard]] static std::optional<Hit> over(Vec2 point, const TableSetup& setup,
                                               const Arrangement& arrangement, const Switches& switches);

 private:
  [[nodiscard]] CardId topmost_of_moved(Vec2 point, const FrameBuilder& frames, const Traffic& traffic);
  [[nodiscard]] bool many_moved(const FrameBuilder& frames) const;
  [[nodiscard]] CardId scan(Vec2 point, const FrameBuilder& frames, const Traffic& traffic) const;
  void update_index(const FrameBuilder& frames, const Traffic& traffic);

  HitIndex index_ = {};
  bool dirty_ = true;  // the index knows nothing of the order as it is
  std::vector<std::uint32_t> moved_ =
      {};            // indices in the order of what has moved since; more than a few: all
  int scanned_ = 0;  // questions answered beside the index, at this frame
};

}  // namespace apsidon::play_detail
