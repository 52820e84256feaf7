#pragma once
// What is kept of a text, and of a picture that somebody has looked at, at a quarter of its width. With
// APSIDON_REFERENCES=renew it is made anew instead: scripts/references.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "support/process.hpp"

namespace apsidon::test {

inline bool references_are_renewed() { return std::getenv("APSIDON_REFERENCES") != nullptr; }

/// Whether two lines say the same; the last digit of a number may be another one.
inline bool alike(const std::string& a, const std::string& b) {
  std::istringstream left(a), right(b);
  std::string x, y;
  while (left >> x) {
    if (!(right >> y)) return false;
    if (x == y) continue;
    char *end_x = nullptr, *end_y = nullptr;
    const double p = std::strtod(x.c_str(), &end_x), q = std::strtod(y.c_str(), &end_y);
    if (*end_x != '\0' || *end_y != '\0' || !(std::abs(p - q) < 0.025)) return false;
  }
  return !(right >> y);
}

/// Compares a text with what is kept of it, line by line.
inline void check_kept(const std::string& name, const std::string& text) {
  const auto file = source("tests/reference/" + name);
  if (references_are_renewed()) std::ofstream(file, std::ios::binary) << text;
  const auto kept = lines_of(contents(file)), now = lines_of(text);
  CHECK(kept.size() == now.size());
  int shown = 0;
  for (std::size_t i = 0; i < std::min(kept.size(), now.size()) && shown < 5; ++i) {
    if (alike(kept[i], now[i])) continue;
    FAIL_CHECK(file << ":" << i + 1 << ": kept\n" << kept[i] << "\nnow\n" << now[i]);
    ++shown;
  }
}

/// By how much a picture, or the part "WxH+X+Y" of it, differs from what is kept of that name: the largest
/// difference of a pixel, 0 to 1. At a quarter of its width a pixel is the mean of sixteen: another version
/// of the font renderer shows less than 0.03.
inline double differs_from_kept(const std::string& picture, const std::string& name,
                                const std::string& part = "") {
  const std::string kept = source("tests/reference/" + name + ".png").string(),
                    small = picture + ".small.png";
  const std::string cut = part.empty() ? "" : "-crop " + part + " +repage ";
  const auto made =
      run("sh", {"-c", "convert " + picture + " " + cut + "-filter box -resize 25% -depth 8 -strip " +
                           "-define png:exclude-chunks=date,time " + small});
  if (made.code != 0) return 1;
  if (references_are_renewed())
    std::filesystem::copy_file(small, kept, std::filesystem::copy_options::overwrite_existing);
  const auto differ = run(
      "sh", {"-c", "compare -metric PAE " + small + " " + kept + " null: 2>&1 | sed 's/.*(\\(.*\\))/\\1/'"});
  try {
    return std::stod(differ.out);
  } catch (const std::exception&) {  // not of one size, or nothing is kept of that name
    return 1;
  }
}

}  // namespace apsidon::test
