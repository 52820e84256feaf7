#pragma once
// The rules, consequences and layouts in the game's code, by their names. Not installed.
#include <map>
#include <memory>
#include <string>

#include "apsidon/play/setup.hpp"

namespace apsidon::play_detail {

/// What a log or a file names only by name is found here.
///
/// Invariant: of each name the function that was seen first.
class OwnCode {
 public:
  explicit OwnCode(TableSetup& setup) { adopt(setup); }

  /// Notes the functions that a table, or a zone, brings, and gives it those that it only names.
  void adopt(TableSetup& setup) { adopt_all(setup); }
  void adopt(ZoneBehaviour& behaviour) { adopt_all(behaviour); }
  /// Knows what another knows, too, where it has no function of that name itself.
  void learn(const OwnCode& other) {
    rules_.insert(other.rules_.begin(), other.rules_.end());
    layouts_.insert(other.layouts_.begin(), other.layouts_.end());
    follows_.insert(other.follows_.begin(), other.follows_.end());
  }

 private:
  template <class Thing>
  void adopt_all(Thing& thing);

  std::map<std::string, std::shared_ptr<const OwnRule>> rules_ = {};
  std::map<std::string, CustomLayout> layouts_ = {};
  std::map<std::string, FollowFunction> follows_ = {};
};

}  // namespace apsidon::play_detail
