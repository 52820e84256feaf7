#pragma once
#include <filesystem>
#include <string>
#include <vector>

#include "apsidon/draw/gallery.hpp"
#include "apsidon/studio/recipe.hpp"

namespace apsidon {

/// A deck's faces and its backs on one sheet: `art` says which cell shows which face, when the sheet is
/// called `name`.
struct ComposedSheet {
  Picture picture;  ///< the sheet
  Art art;          ///< which cell shows which face
  /// Faces that show their name, as nothing else of them is there; and drawings that cannot be read.
  std::vector<std::string> nameless = {};
  std::vector<std::string> missing = {};  ///< drawings that cannot be read

  /// Whether every face has its picture.
  [[nodiscard]] bool whole() const { return nameless.empty() && missing.empty(); }
};

/// A sheet of cards of so many px, one row per suit: drawn as this part draws them, or packed from the
/// pictures of a gallery, made as small as needed. Throws Error for cards of no px or more than 2000 in
/// either direction. Pixel art stays as crisp as it is, where the card is a whole multiple of its size.
[[nodiscard]] APSIDON_STUDIO_EXPORT ComposedSheet compose_sheet(const Deck& deck, Size card,
                                                                const std::string& name,
                                                                const Gallery* gallery = nullptr);

/// A sheet made from few drawings, which are in `folder`. A face of which nothing is there shows its name.
[[nodiscard]] APSIDON_STUDIO_EXPORT ComposedSheet compose_sheet(const Deck& deck, const Recipe& recipe,
                                                                const std::filesystem::path& folder,
                                                                const std::string& name);

}  // namespace apsidon
