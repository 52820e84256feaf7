// Functions for what a table names in the game's code.
#include <fmt/format.h>

#include <set>

#include "apsidon/geometry/error.hpp"
#include "play/values/own_parts.hpp"

namespace apsidon {
namespace {

using play_detail::each_own;

/// All names of what is in code, of rules and goals or of layouts; only those without a function if asked.
struct OwnNames {
  bool rules = true;
  bool layouts = true;
  bool follows = true;
  bool unbound = false;
  std::set<std::string> all = {};

  void operator()(const std::shared_ptr<const OwnRule>& own) {
    if (rules && !(unbound && own->judge)) all.insert(own->name);
  }
  void operator()(const std::string& name, const FollowFunction& own) {
    if (follows && !(unbound && own)) all.insert(name);
  }
  void operator()(const CustomLayout& own) {
    if (layouts && !(unbound && own.functions)) all.insert(own.name);
  }
};

/// Looks at copies, so that the set-up stays what it is.
void collect(const TableSetup& setup, OwnNames& into) {
  for (const Zone& zone : setup.table.zones()) {
    if (!play_detail::in_code(setup, zone.id)) continue;
    ZoneBehaviour behaviour = setup.behaviour_of(zone.id);
    each_own(behaviour, into);
  }
  for (Rule rule : {setup.won.rule, setup.lost.rule}) each_own(rule, into);
  for (Consequence one : setup.consequences) {
    each_own(one.link, into);
    if (!one.name.empty()) into(one.name, one.follow);
  }
  for (NamedMove move : setup.named_moves) {
    each_own(move.when, into);
    into(move.name, move.does);
  }
}

[[noreturn]] void refuse(const char* what, std::string_view name, const std::set<std::string>& known) {
  std::string expected;
  for (const std::string& one : known) expected += fmt::format("{}'{}'", expected.empty() ? "" : ", ", one);
  throw Error(known.empty()
                  ? fmt::format("bind '{}': the table names no {} in code: none is expected", name, what)
                  : fmt::format("bind '{}': the table names no such {} in code: {} is expected", name, what,
                                expected));
}

}  // namespace

void TableSetup::bind(std::string_view of, RuleFunction judge) {
  if (!judge) throw Error(fmt::format("bind '{}': the function is empty: one is expected", of));
  struct Give {
    std::shared_ptr<const OwnRule> own;
    bool given = false;

    void operator()(std::shared_ptr<const OwnRule>& one) {
      if (one->name != own->name) return;
      one = own;
      given = true;
    }
    void operator()(const std::string&, FollowFunction&) const {}
    void operator()(CustomLayout&) const {}
  };
  Give give{std::make_shared<const OwnRule>(OwnRule{std::string(of), std::move(judge)})};
  each_own(*this, give);
  if (give.given) return;
  OwnNames found{.layouts = false, .follows = false};
  collect(*this, found);
  refuse("rule or goal", of, found.all);
}

void TableSetup::bind(std::string_view of, FollowFunction follow) {
  if (!follow) throw Error(fmt::format("bind '{}': the function is empty: one is expected", of));
  bool given = false;
  const auto give = [&](const std::string& of_one, FollowFunction& own) {
    if (of_one != of) return;
    own = follow;
    given = true;
  };
  for (Consequence& one : consequences) give(one.name, one.follow);
  for (NamedMove& move : named_moves) give(move.name, move.does);
  if (given) return;
  OwnNames found{.rules = false, .layouts = false};
  collect(*this, found);
  refuse("consequence or move", of, found.all);
}

void TableSetup::bind(std::string_view of, CustomFunctions functions) {
  if (!functions.lay_out || !functions.least_size)
    throw Error(fmt::format("bind '{}': lay_out and least_size are expected", of));
  struct Give {
    CustomLayout own;
    bool given = false;

    void operator()(const std::string&, FollowFunction&) const {}
    void operator()(std::shared_ptr<const OwnRule>&) const {}
    void operator()(CustomLayout& one) {
      if (one.name != own.name) return;
      one = own;
      given = true;
    }
  };
  Give give{
      {.name = std::string(of), .functions = std::make_shared<const CustomFunctions>(std::move(functions))}};
  each_own(*this, give);
  if (give.given) return;
  OwnNames found{.rules = false, .follows = false};
  collect(*this, found);
  refuse("layout", of, found.all);
}

std::vector<std::string> TableSetup::unbound() const {
  OwnNames found{.unbound = true};
  collect(*this, found);
  return {found.all.begin(), found.all.end()};
}

}  // namespace apsidon
