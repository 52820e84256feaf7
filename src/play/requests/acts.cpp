// What each act has the table changed by, and how its cards go.
#include <algorithm>
#include <cmath>

#include "apsidon/cards/random.hpp"
#include "geometry/pi.hpp"
#include "motion/inside.hpp"
#include "play/requests/performances.hpp"
#include "play/values/layers.hpp"

namespace apsidon::play_detail {
namespace {

std::size_t slot(const Scene& scene, CardId card) { return *scene.setup.table.slot(card); }

/// The cards that are on the table, and that `keep` wants.
template <class Keep>
std::vector<CardId> known(const Table& table, std::span<const CardId> cards, Keep keep) {
  std::vector<CardId> out;
  for (const CardId id : cards) {
    if (const Card* card = table.card(id); card && keep(*card)) out.push_back(id);
  }
  return out;
}

std::vector<CardId> known(const Table& table, std::span<const CardId> cards) {
  return known(table, cards, [](const Card&) { return true; });
}

StepPlan plan_by(const Choreography& how) { return {.glide = how.glide, .cues = how.cues}; }

void send(StepPlan& plan, const Scene& scene, std::size_t slot, const Pose& goal, double delay) {
  plan.departures.push_back({.slot = static_cast<std::uint32_t>(slot),
                             .goal = goal,
                             .delay = delay,
                             .rests_at = scene.arrangement.rest_order_of(slot)});
}

/// The delay of the i-th card: given by hand, or else by the choreography.
double delay_of(const Act& act, const Choreography& how, const motion_detail::Traveller& traveller) {
  const std::size_t i = traveller.index;
  if (i >= act.delays.size()) return motion_detail::departure(how, traveller);
  return std::isfinite(act.delays[i]) ? std::max(act.delays[i], 0.0) : 0;
}

Vec2 middle_of_window(const Scene& scene) {
  return rect_at({0, 0}, scene.arrangement.window().size).centre();
}

float shorter_side(const Scene& scene) {
  const Size window = scene.arrangement.window().size;
  return std::min(window.width, window.height);
}

/// Who leaves first comes to lie lowest.
std::vector<CardId> gathering_order(const Act& act, const Scene& scene) {
  std::vector<CardId> list;
  for (const Zone& zone : scene.setup.table.zones()) {
    if (zone.id == act.to || (act.from && zone.id != act.from)) continue;
    // From the top, so that no card is pulled out from under another.
    list.insert(list.end(), zone.cards.rbegin(), zone.cards.rend());
  }
  if (scene.feel.gather.by == StaggerBy::distance) {
    const Vec2 to = scene.arrangement.outline(scene.setup, act.to).centre;
    const auto distance = [&](CardId card) {
      return length(scene.traffic.motion().pose(slot(scene, card)).centre - to);
    };
    std::stable_sort(list.begin(), list.end(), [&](CardId a, CardId b) { return distance(a) < distance(b); });
  }
  return list;
}

/// The slots of the cards that are dealt, in the order of the feel.
std::vector<std::size_t> dealing_order(const Scene& scene) {
  const Table& table = scene.setup.table;
  std::size_t longest = 0;
  for (const Zone& zone : table.zones()) {
    if (zone.id != scene.setup.deal_from) longest = std::max(longest, zone.cards.size());
  }
  std::vector<std::size_t> order;
  const bool rounds = scene.feel.deal_order == DealOrder::rounds;
  for (std::size_t round = 0; round < (rounds ? longest : 1); ++round) {
    for (const Zone& zone : table.zones()) {
      if (zone.id == scene.setup.deal_from) continue;
      const std::size_t end = rounds ? std::min(round + 1, zone.cards.size()) : zone.cards.size();
      for (std::size_t i = round; i < end; ++i) order.push_back(slot(scene, zone.cards[i]));
    }
  }
  return order;
}

}  // namespace

/// The act with the cards that it really is about: of a gather in their order, of a shuffle as they lie
/// before.
bool Performances::changes_table(const Node& n) {
  if (n.kind == StepKind::vanish) return true;
  if (n.kind != StepKind::single && n.kind != StepKind::straight) return false;
  const ActKind kind = n.act.kind;
  return kind == ActKind::gather || kind == ActKind::scatter || kind == ActKind::shuffle ||
         kind == ActKind::move || kind == ActKind::flip || (kind == ActKind::draw && n.act.count > 0);
}

std::optional<Act> Performances::change_of(const Step& step, const Scene& scene) const {
  const Node& n = node(step);
  const Table& table = scene.setup.table;
  Act change = n.act;
  if (n.kind == StepKind::vanish) {
    change.kind = ActKind::move;
    change.cards = known(table, n.act.cards, [&](const Card& card) { return card.zone != n.act.to; });
    return change;
  }
  if (n.kind != StepKind::single && n.kind != StepKind::straight) return std::nullopt;
  switch (n.act.kind) {
    case ActKind::gather:
      if (!table.zone(n.act.to)) return std::nullopt;
      change.cards = gathering_order(n.act, scene);
      return change;
    case ActKind::scatter:
    case ActKind::shuffle:
      if (!table.zone(n.act.to)) return std::nullopt;
      change.cards = table.zone(n.act.to)->cards;
      return change;
    case ActKind::move:
    case ActKind::flip:
      change.cards = known(table, n.act.cards);
      return change;
    case ActKind::draw:
      return change;
    default:
      return std::nullopt;
  }
}

StepPlan Performances::plan_act(const Node& n, std::vector<Shift> shifts, const Scene& scene) {
  const Table& table = scene.setup.table;
  const Feel& feel = scene.feel;
  switch (n.act.kind) {
    case ActKind::deal:
      return plan_deal(n, scene);
    case ActKind::gather:
      return table.zone(n.act.to) ? plan_changed(n, feel.gather, shifts, scene) : StepPlan{};
    case ActKind::draw:
      std::sort(shifts.begin(), shifts.end(), [&](const Shift& a, const Shift& b) {
        return table.card(a.card)->index < table.card(b.card)->index;
      });
      return plan_changed(n, feel.draw, shifts, scene);
    case ActKind::move: {
      std::vector<std::size_t> rank(table.slot_count(), n.act.cards.size());
      for (std::size_t i = n.act.cards.size(); i-- > 0;) rank[slot(scene, n.act.cards[i])] = i;
      std::stable_sort(shifts.begin(), shifts.end(),
                       [&](const Shift& a, const Shift& b) { return rank[a.slot] < rank[b.slot]; });
      return plan_changed(n, feel.move, shifts, scene);
    }
    case ActKind::flip:
      return plan_changed(n, feel.reveal, shifts, scene);
    case ActKind::shake:
    case ActKind::pulse: {
      const bool shakes = n.act.kind == ActKind::shake;
      StepPlan plan{.effect = shakes ? feel.shake : feel.pulse,
                    .effect_kind = shakes ? EffectKind::swing : EffectKind::pulse,
                    .with_effect = known(table, n.act.cards)};
      if (!plan.with_effect.empty()) plan.seconds = double{plan.effect.seconds};
      return plan;
    }
    case ActKind::wait:
      return {.seconds = n.act.seconds > 0 ? std::min(n.act.seconds, 3600.0) : 0};
    case ActKind::scatter:
    case ActKind::shuffle:
    case ActKind::collect:
    case ActKind::finale:
      break;  // made of other steps
  }
  return {};
}

StepPlan Performances::plan_deal(const Node& n, const Scene& scene) {
  const Arrangement& arrangement = scene.arrangement;
  const Choreography& how = scene.feel.deal;
  const ZoneId stock = scene.setup.deal_from;
  Pose source{.centre = {arrangement.window().size.width / 2, -arrangement.card().height}};
  if (stock) source = arrangement.outline(scene.setup, stock);
  source.flip = pi;
  const std::vector<std::size_t> order = dealing_order(scene);
  const auto distance = [&](std::size_t s) { return length(arrangement.resting(s).centre - source.centre); };
  float farthest = 0;
  for (const std::size_t s : order) farthest = std::max(farthest, distance(s));
  StepPlan plan = plan_by(how);
  for (std::size_t i = 0; i < order.size(); ++i) {
    const Pose& resting = arrangement.resting(order[i]);
    source.flip_axis = resting.flip_axis;
    source.scale = resting.scale;
    send(plan, scene, order[i], resting,
         delay_of(n.act, how, {i, order.size(), distance(order[i]), farthest}));
    plan.departures.back().from = source;
    // Who leaves first lies on top of the stock.
    plan.departures.back().waits_at = rest_order(arrangement.rank(stock), 0xFFFFFFFF - i);
  }
  return plan;
}

/// What the table has changed, in the order in which it is listed, to where it rests now.
StepPlan Performances::plan_changed(const Node& n, const Choreography& how, std::span<const Shift> shifts,
                                    const Scene& scene) {
  const auto distance = [&](const Shift& shift) {
    return length(shift.before.centre - scene.arrangement.resting(shift.slot).centre);
  };
  float farthest = 0;
  for (const Shift& shift : shifts) farthest = std::max(farthest, distance(shift));
  StepPlan plan = plan_by(how);
  for (std::size_t i = 0; i < shifts.size(); ++i) {
    const Shift& shift = shifts[i];
    send(plan, scene, shift.slot, scene.arrangement.resting(shift.slot),
         delay_of(n.act, how, {i, shifts.size(), distance(shift), farthest}));
    plan.departures.back().waits_at = shift.rested_at;
  }
  return plan;
}

/// Out of the pile: into two halves beside each other, or all over the table.
StepPlan Performances::plan_scatter(const Node& n, std::span<const CardId> order, const Scene& scene) {
  const Zone* zone = scene.setup.table.zone(n.act.to);
  if (!zone || order.empty()) return {};
  const Choreography& how = scene.feel.shuffle;
  const bool piled = traits_of(scene.setup.layout_of(zone->id).kind).squared;
  const bool riffle = piled && scene.feel.shuffle_look == ShuffleLook::riffle;
  Random64 random(n.act.seed + (n.first ? 0 : 1));
  const Vec2 middle = middle_of_window(scene);
  const float width = scene.arrangement.card().width;
  // The halves stay in the window, whatever edge the pile is next to.
  const float aside = 0.58f * width;
  const float edge = std::min(aside + 0.6f * width, middle.x);
  Vec2 home = scene.arrangement.outline(scene.setup, zone->id).centre;
  if (riffle) home.x = std::clamp(home.x, edge, scene.arrangement.window().size.width - edge);
  std::vector<Pose> goals;
  float farthest = 0;
  for (std::size_t i = 0; i < order.size(); ++i) {
    Pose goal = scene.arrangement.resting(slot(scene, order[i]));
    if (riffle) {
      const bool left = i < order.size() / 2;
      const float lift = static_cast<float>(left ? i : i - order.size() / 2);
      goal.centre = home + Vec2{left ? -aside : aside, -0.3f * lift};
      goal.rotation += left ? -0.07f : 0.07f;
    } else {
      const float reach = 0.34f * shorter_side(scene);
      const float angle = random.unit() * 2 * pi;
      const float far = reach * std::sqrt(random.unit());
      goal.centre = middle + Vec2{std::cos(angle), std::sin(angle)} * far;
      goal.rotation += (random.unit() - 0.5f) * pi;
    }
    farthest = std::max(farthest, length(goal.centre - home));
    goals.push_back(goal);
  }
  StepPlan plan = plan_by(how);
  for (std::size_t i = 0; i < order.size(); ++i) {
    const float distance = length(goals[i].centre - home);
    send(plan, scene, slot(scene, order[i]), goals[i],
         motion_detail::departure(how, {i, order.size(), distance, farthest}));
    plan.departures.back().waits_at = rest_order(scene.arrangement.rank(zone->id), i);
  }
  return plan;
}

StepPlan Performances::plan_vanish(std::span<const CardId> cards, const Scene& scene) {
  StepPlan plan = plan_by(scene.feel.collect);
  for (std::size_t i = 0; i < cards.size(); ++i) {
    const std::size_t s = slot(scene, cards[i]);
    Pose goal = scene.arrangement.resting(s);
    goal.flip = scene.traffic.motion().goal(s).flip;
    goal.scale *= 0.35f;
    goal.opacity = 0;
    send(plan, scene, s, goal,
         motion_detail::departure(scene.feel.collect, {.index = i, .of = cards.size()}));
  }
  return plan;
}

StepPlan Performances::plan_appear(const Node& n, PerformanceId id, const Scene& scene) {
  StepPlan plan{.glide = {.seconds = 0.2f, .curve = ease_out}};
  for (const CardId card : known(scene.setup.table, n.act.cards)) {
    const std::size_t s = slot(scene, card);
    if (scene.traffic.part_of(s) != id) continue;
    const Pose& resting = scene.arrangement.resting(s);
    send(plan, scene, s, resting, 0);
    plan.departures.back().from = resting;
    plan.departures.back().from->opacity = 0;
  }
  return plan;
}

StepPlan Performances::plan_wreath(const Scene& scene) {
  const Table& table = scene.setup.table;
  std::vector<CardId> order;
  for (const Zone& zone : table.zones()) order.insert(order.end(), zone.cards.rbegin(), zone.cards.rend());
  const Vec2 middle = middle_of_window(scene);
  const float room = shorter_side(scene) / 2 - scene.arrangement.card().height * 0.55f;
  const float radius = std::max(room * 0.86f, 0.0f);
  StepPlan plan = plan_by(scene.feel.finale);
  for (std::size_t i = 0; i < order.size(); ++i) {
    const std::size_t s = slot(scene, order[i]);
    // Two rings, one within the other, so that many cards stay apart.
    const bool inner = i % 3 == 2;
    const float angle = 2 * pi * static_cast<float>(i) / static_cast<float>(order.size());
    Pose goal = scene.arrangement.resting(s);
    goal.centre = middle + Vec2{std::sin(angle), -std::cos(angle)} * (inner ? radius * 0.55f : radius);
    goal.rotation = angle;
    goal.flip = table.card(order[i])->face == hidden_face ? pi : 0;
    send(plan, scene, s, goal, motion_detail::departure(scene.feel.finale, {.index = i, .of = order.size()}));
  }
  return plan;
}

/// Back to where the table has them: all cards that are still the performance's own.
StepPlan Performances::plan_home(const Node& n, PerformanceId id, const Scene& scene) {
  const Choreography& how = n.act.kind == ActKind::shuffle ? scene.feel.shuffle : scene.feel.gather;
  std::vector<std::size_t> own;
  const auto distance = [&](std::size_t s) {
    return length(scene.traffic.motion().pose(s).centre - scene.arrangement.resting(s).centre);
  };
  float farthest = 0;
  for (const Zone& zone : scene.setup.table.zones()) {
    for (const CardId card : zone.cards) {
      const std::size_t s = slot(scene, card);
      if (scene.traffic.part_of(s) != id) continue;
      own.push_back(s);
      farthest = std::max(farthest, distance(s));
    }
  }
  StepPlan plan{.glide = how.glide};
  for (std::size_t i = 0; i < own.size(); ++i) {
    send(plan, scene, own[i], scene.arrangement.resting(own[i]),
         motion_detail::departure(how, {i, own.size(), distance(own[i]), farthest}));
  }
  return plan;
}

}  // namespace apsidon::play_detail
