#pragma once
// What is switched off, as rules ask for it. Not installed.
#include <string>
#include <vector>

#include "apsidon/cards/ids.hpp"

namespace apsidon::play_detail {

/// Cards and zones that are switched off, each once, and the first reason of each.
struct OffList {
  std::vector<CardId> cards = {};
  std::vector<std::string> cards_for = {};
  std::vector<ZoneId> zones = {};
  std::vector<std::string> zones_for = {};
};

}  // namespace apsidon::play_detail
