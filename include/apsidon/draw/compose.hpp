#pragma once
#include <filesystem>
#include <string>
#include <vector>

#include "apsidon/art/recipe.hpp"
#include "apsidon/draw/gallery.hpp"

namespace apsidon {

/// A deck's faces and its back on one sheet: `art` says which cell shows which face, when the sheet is called
/// `name`.
struct ComposedSheet {
  Picture picture;
  Art art;
};

/// A sheet of cards of so many px, one row per suit: drawn as this part draws them, or packed from the
/// pictures of a gallery, made as small as needed. Throws Error for cards of no px or more than 2000 in
/// either direction.
[[nodiscard]] APSIDON_DRAW_EXPORT ComposedSheet compose_sheet(const Deck& deck, Size card,
                                                              const std::string& name,
                                                              const Gallery* gallery = nullptr);

/// A sheet made from few drawings, which are in `folder`. Drawings that cannot be read are left out and named
/// in `missing`, when that is given; a face of which nothing is there shows its name.
[[nodiscard]] APSIDON_DRAW_EXPORT ComposedSheet compose_sheet(const Deck& deck, const Recipe& recipe,
                                                              const std::filesystem::path& folder,
                                                              const std::string& name,
                                                              std::vector<std::string>* missing = nullptr);

}  // namespace apsidon
