#pragma once
// The rules and layouts in the game's code, by their names. Not installed.
#include <map>
#include <memory>
#include <string>
#include <vector>

#include "apsidon/play/setup.hpp"

namespace apsidon::play_detail {

/// What a log or a file names only by name is found here.
///
/// Invariant: of each name the function that was seen first.
class OwnCode {
 public:
  explicit OwnCode(TableSetup& setup) { adopt(setup); }

  /// Likewise of a whole table.
  void adopt(TableSetup& setup);
  /// Notes the functions that a zone brings, and gives it those that it only names.
  void adopt(ZoneBehaviour& behaviour);
  /// Knows what another knows, too, where it has no function of that name itself.
  void learn(const OwnCode& other) {
    rules_.insert(other.rules_.begin(), other.rules_.end());
    layouts_.insert(other.layouts_.begin(), other.layouts_.end());
  }

 private:
  void adopt(Rule& rule);
  void adopt(std::vector<std::shared_ptr<const OwnRule>>& rules);
  void adopt(Layout& layout);

  std::map<std::string, std::shared_ptr<const OwnRule>> rules_ = {};
  std::map<std::string, CustomLayout> layouts_ = {};
};

}  // namespace apsidon::play_detail
