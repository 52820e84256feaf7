#pragma once
#include <functional>
#include <optional>
#include <string>

#include "apsidon/art/art.hpp"
#include "apsidon/files/result.hpp"
#include "apsidon/geometry/box.hpp"
#include "apsidon/geometry/quad.hpp"
#include "apsidon/play/frame.hpp"

namespace apsidon {

/// Size of a picture by its name, px; or why it cannot be shown.
using PictureSize = std::function<Result<Size>(const std::string& picture)>;

/// A card that lies in a box.
struct ShownCard {
  FaceId face = {};        ///< none: not known, its back shows
  bool face_up = true;     ///< which side shows
  bool sideways = false;   ///< turned by a quarter, clockwise
  Rect box = {};           ///< px
  Fit fit = Fit::contain;  ///< how it fills the box
  bool larger = false;     ///< a larger picture, where the art has one
};

/// What is drawn of a card, and where.
struct CardPicture {
  std::optional<PicturePart> part = {};  ///< none: a fallback is drawn
  std::string name = {};                 ///< of the fallback: the text of the face; empty for a back
  bool back = false;                     ///< it is the card's back
  Size size = {};                        ///< of the card upright, px
  Matrix matrix = {};                    ///< from the upright card, its middle at the origin, to the window
  Quad corners = {};                     ///< clockwise from the top left of the picture
};

/// The picture of a card by itself. Its proportions are the art's, else those of its part where its size is
/// known, else 5 to 7. `size_of` tells which pictures there are: with it, one that is not there gives way to
/// the next (a larger picture to the face's own, a suit's back to that of all), and the part is never empty.
[[nodiscard]] APSIDON_FILES_EXPORT CardPicture picture_of(const Art& art, const Deck& deck,
                                                          const ShownCard& view,
                                                          const PictureSize& size_of = {});
/// The same of an item of a frame, which says itself where and how large it shows.
[[nodiscard]] APSIDON_FILES_EXPORT CardPicture picture_of(const Art& art, const Deck& deck,
                                                          const FrameItem& item,
                                                          const PictureSize& size_of = {});

}  // namespace apsidon
