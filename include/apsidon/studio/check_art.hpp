#pragma once
#include <functional>
#include <string>
#include <vector>

#include "apsidon/art/card_picture.hpp"
#include "apsidon/draw/gallery.hpp"
#include "apsidon/studio_export.hpp"

namespace apsidon {

/// Something wrong with a deck's art, and what to change.
struct ArtFinding {
  /// "columns", "gutters", "cuts", "empty-cell", "rank-off", "no-part", "no-picture", "no-detail", "unused",
  /// "outside", "shared-part", "unequal-parts", "proportions", "detail-proportions", "small-detail",
  /// "backs-alike", "key-colour", "unknown-suit", "unknown-rank", "unknown-face", "unknown-name".
  std::string code;
  std::string face;     ///< of which face; empty for the whole
  std::string message;  ///< what is wrong, and what to change

  friend bool operator==(const ArtFinding&, const ArtFinding&) = default;
};

/// What a check looks at.
struct ArtSources {
  PictureSize size_of;  ///< which pictures there are
  /// The pixels of a picture that can be shown; none: they are not looked at.
  std::function<Pixels(const std::string& picture)> pixels_of = {};
  /// A word in some typefaces, dark on a transparent ground; none: corner marks are not compared with ranks.
  std::function<std::vector<Pixels>(const std::string& word)> lettered = {};
  /// The pictures that there are, to tell which nothing names, and the nearest of them where one is missing.
  std::vector<std::string> there = {};
};

/// Looks at every face of the deck: is there a part, is it in its picture, is it its own, and is it like the
/// others? At all else that the art names: backs, larger pictures, suits, ranks, faces and names. And at the
/// pixels of its sheets: do the cards lie where the description has them, is one empty or cut, and do corner
/// marks look like their ranks? O(pixels of the sheets).
[[nodiscard]] APSIDON_STUDIO_EXPORT std::vector<ArtFinding> check_art(const Art& art, const Deck& deck,
                                                                      const ArtSources& from);

/// What is wrong with a gallery's art, and what to change: of names, sizes and the pixels of its sheets.
[[nodiscard]] APSIDON_STUDIO_EXPORT std::vector<ArtFinding> check_art(const Gallery& gallery,
                                                                      const Deck& deck);

}  // namespace apsidon
