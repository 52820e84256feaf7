#pragma once
// How many sprigs a card has, and where they stand; not installed.
#include <string>
#include <vector>

namespace apsidon::draw_detail {

struct Spot {
  double x, y;  ///< share of the field's width and height, from its middle, -1 to 1
};

/// Up to thirty; none for other numbers.
std::vector<Spot> spots_of(int count);
/// A rank that is called by a number has as many, wherever its deck begins.
int sprigs_of(const std::string& name, int rank);

}  // namespace apsidon::draw_detail
