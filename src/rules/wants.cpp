#include "rules/wants.hpp"

#include <algorithm>

namespace apsidon::rules_detail {
namespace {

enum Part : int { suit = 0, rank = 16, colour = 32, set = 48 };

Want exactly(Part part, int number) {
  return {.is = static_cast<std::uint64_t>(static_cast<std::uint16_t>(number)) << part,
          .mask = std::uint64_t{0xFFFF} << part};
}

/// Both, if they do not contradict each other.
std::optional<Want> both(const Want& a, const Want& b) {
  if ((a.mask & b.mask & (a.is ^ b.is)) != 0) return std::nullopt;
  return Want{.is = a.is | b.is,
              .mask = a.mask | b.mask,
              .least_rank = std::max(a.least_rank, b.least_rank),
              .most = std::min(a.most, b.most)};
}

/// What a rule of one kind wants; nothing when it wants what no face has.
std::optional<Want> want_of(const Rule& rule, const FaceTraits* below) {
  // What is compared with the card below: a joker, and a face that is not known, lack it.
  const auto like = [&](Part part, int FaceTraits::*of, int by = 0) -> std::optional<Want> {
    if (!below || below->*of < 0 || below->*of + by < 0) return std::nullopt;
    return exactly(part, below->*of + by);
  };
  switch (rule.kind) {
    case RuleKind::rank_down:
      return like(rank, &FaceTraits::rank, -1);
    case RuleKind::rank_up:
      return like(rank, &FaceTraits::rank, 1);
    case RuleKind::same_rank:
      return like(rank, &FaceTraits::rank);
    case RuleKind::same_suit:
      return like(suit, &FaceTraits::suit);
    case RuleKind::same_colour:
      return like(colour, &FaceTraits::colour);
    case RuleKind::together:
      return like(set, &FaceTraits::set);
    case RuleKind::of_suit:
      return exactly(suit, rule.number);
    case RuleKind::rank_at_least:
      return Want{.least_rank = rule.number};
    case RuleKind::rank_on_empty:
      return below ? std::nullopt : std::optional(exactly(rank, rule.number));
    case RuleKind::on_empty:
      return below ? std::nullopt : std::optional(Want{});
    case RuleKind::at_most:
      return Want{.most = static_cast<std::uint32_t>(rule.number)};
    default:
      return Want{};  // anything
  }
}

/// Parts of `all` rules that have still to be added to a want.
struct Rest {
  const Rule* next;
  const Rule* end;
  const Rest* outer;
};

/// Collects the wants of a rule on a card that is known.
struct Collector {
  const FaceTraits* below;
  std::vector<Want>& out;
  int steps = 0;

  /// What this rule wants beside `so_far`, and the rest after it. False when it cannot be said in wants.
  bool collect(const Rule& rule, const Want& so_far, const Rest* rest) {
    // Alternatives within parts of an `all` multiply: of absurdly many it is quicker to ask.
    constexpr int most_steps = 1000;
    if (++steps > most_steps) return false;
    const std::span<const Rule> parts = rule.parts();
    switch (rule.kind) {
      case RuleKind::from:
      case RuleKind::negate:
      case RuleKind::neighbours:
      case RuleKind::waited_for:
      case RuleKind::each_neighbour:
      case RuleKind::number:
      case RuleKind::at_least:
      case RuleKind::sum:
      case RuleKind::sequence:
      case RuleKind::on_turn:
      case RuleKind::own_zone:
      case RuleKind::own:
        return false;
      case RuleKind::nothing:
        return true;
      case RuleKind::any:
        return std::all_of(parts.begin(), parts.end(),
                           [&](const Rule& part) { return collect(part, so_far, rest); });
      case RuleKind::all: {
        const Rest own{parts.data(), parts.data() + parts.size(), rest};
        return go_on(so_far, &own);
      }
      default: {
        if (rule.kind == RuleKind::together && below && below->set >= 0xFFFF) return false;
        const auto want = want_of(rule, below);
        const auto with = want ? both(so_far, *want) : std::nullopt;
        return !with || go_on(*with, rest);
      }
    }
  }
  bool go_on(const Want& so_far, const Rest* rest) {
    while (rest && rest->next == rest->end) rest = rest->outer;
    if (!rest) return out.push_back(so_far), true;
    const Rest after{rest->next + 1, rest->end, rest->outer};
    return collect(*rest->next, so_far, &after);
  }
};

}  // namespace

bool collect_wants(const Rule& rule, const FaceTraits* below, std::vector<Want>& out) {
  return Collector{below, out}.collect(rule, {}, nullptr);
}

}  // namespace apsidon::rules_detail
