#include "play/decides/own_code.hpp"

#include "play/values/own_parts.hpp"

namespace apsidon::play_detail {
namespace {

/// Exchanges what has only a name for what is known by it.
struct Give {
  const std::map<std::string, std::shared_ptr<const OwnRule>>& rules;
  const std::map<std::string, CustomLayout>& layouts;
  const std::map<std::string, FollowFunction>& follows;

  void operator()(const std::string& name, FollowFunction& own) const {
    if (own) return;
    if (const auto known = follows.find(name); known != follows.end()) own = known->second;
  }
  void operator()(std::shared_ptr<const OwnRule>& own) const {
    if (own->judge) return;
    if (const auto known = rules.find(own->name); known != rules.end()) own = known->second;
  }
  void operator()(CustomLayout& own) const {
    if (own.functions) return;
    if (const auto known = layouts.find(own.name); known != layouts.end()) own = known->second;
  }
};

/// Notes what has a function.
struct Learn {
  std::map<std::string, std::shared_ptr<const OwnRule>>& rules;
  std::map<std::string, CustomLayout>& layouts;
  std::map<std::string, FollowFunction>& follows;

  void operator()(const std::string& name, const FollowFunction& own) const {
    if (own) follows.emplace(name, own);
  }
  void operator()(const std::shared_ptr<const OwnRule>& own) const {
    if (own->judge) rules.emplace(own->name, own);
  }
  void operator()(const CustomLayout& own) const {
    if (own.functions) layouts.emplace(own.name, own);
  }
};

}  // namespace

/// All is learnt before anything is given, so that the order of the zones does not count.
template <class Thing>
void OwnCode::adopt_all(Thing& thing) {
  Learn learn{rules_, layouts_, follows_};
  each_own(thing, learn);
  Give give{rules_, layouts_, follows_};
  each_own(thing, give);
}

template void OwnCode::adopt_all(TableSetup& setup);
template void OwnCode::adopt_all(ZoneBehaviour& behaviour);

}  // namespace apsidon::play_detail
