#pragma once
// What the files of this part share. Not installed.
#include <array>
#include <string>
#include <utility>

#include "apsidon/art/art.hpp"
#include "apsidon/files_export.hpp"
#include "files/reader.hpp"

namespace apsidon::art_detail {

inline constexpr std::array<std::pair<std::string_view, Sampling>, 2> sampling_names{
    {{"smooth", Sampling::smooth}, {"nearest", Sampling::nearest}}};

/// The sampling that an object names, `smooth` where it names none.
APSIDON_FILES_EXPORT Sampling sampling_from(const files_detail::Node& node);
/// "#A1B2C3".
APSIDON_FILES_EXPORT Rgb rgb_from(const files_detail::Node& node);
std::string text_of(const Rgb& colour);
APSIDON_FILES_EXPORT Size size_from(const files_detail::Node& node, double most);
/// Texts by name, from an object; of none where the key is missing.
APSIDON_FILES_EXPORT std::map<std::string, std::string> texts_from(const files_detail::Node& node,
                                                                   std::string_view key,
                                                                   std::string_view what);

}  // namespace apsidon::art_detail
