#pragma once
#include "apsidon/draw/picture.hpp"
#include "apsidon/draw_export.hpp"
#include "apsidon/play/frame.hpp"

namespace apsidon {

// The parts of a frame as pictures, for a renderer that keeps them as textures. Beside them an Atlas has the
// cards. All at so many device pixels a px.

/// The night behind the panes of the glasshouse, as large as the window.
[[nodiscard]] APSIDON_DRAW_EXPORT Picture paint_background(Size window, float pixel_ratio = 1);

/// How far what marks an item, or a panel, reaches beyond it at the most, px.
inline constexpr float mark_reach = 4;

/// A panel, in the middle of a picture that reaches `mark_reach` beyond its area on all sides.
[[nodiscard]] APSIDON_DRAW_EXPORT Picture paint_panel(const FramePanel& panel, float pixel_ratio = 1);

/// What marks an item of this size with round corners, px: rings, and of an outline the outline itself; as
/// `paint_panel`.
[[nodiscard]] APSIDON_DRAW_EXPORT Picture paint_marks(Size size, float corner_radius, const Marks& marks,
                                                      bool outline = false, float pixel_ratio = 1);

/// A number on a card, filling a picture of this size, px: `FrameBadge::text`.
[[nodiscard]] APSIDON_DRAW_EXPORT Picture paint_badge(std::string_view text, Size size,
                                                      float pixel_ratio = 1);

/// The darkest that a shadow of `paint_shadow` is.
inline constexpr float painted_shadow_opacity = 0.42f;

/// A shadow of a card of this size, without its offset, in the middle of a picture that reaches half its blur
/// and a px more beyond the card on all sides. One that is fainter is this one, drawn fainter.
[[nodiscard]] APSIDON_DRAW_EXPORT Picture paint_shadow(Size card, float corner_radius, float blur,
                                                       float pixel_ratio = 1);

}  // namespace apsidon
