// What each act does to the table, and how its cards go.
#include <algorithm>
#include <cmath>
#include <numbers>

#include "apsidon/cards/random.hpp"
#include "play/impl.hpp"

namespace apsidon {
namespace {

constexpr float pi = std::numbers::pi_v<float>;

/// Lets the table be changed, and takes down which cards moved or turned by it.
template <class Change>
std::vector<CardId> stale_free(const Table& table, const std::vector<CardId>& cards, Change keep) {
  std::vector<CardId> out;
  for (const CardId id : cards) {
    if (const Card* card = table.card(id); card && keep(*card)) out.push_back(id);
  }
  return out;
}

std::vector<CardId> known(const Table& table, const std::vector<CardId>& cards) {
  return stale_free(table, cards, [](const Card&) { return true; });
}

}  // namespace

void Playfield::Impl::act(Performance& p, Node& node) {
  switch (node.act.kind) {
    case ActKind::deal:
      return act_deal(p, node);
    case ActKind::gather:
      return act_gather(p, node);
    case ActKind::shuffle:
      return act_shuffle(p, node);
    case ActKind::draw:
      return act_draw(p, node);
    case ActKind::move:
      return act_move(p, node);
    case ActKind::flip:
      return act_flip(p, node);
    case ActKind::shake:
      return act_effect(p, node, options.feel.shake, EffectKind::swing);
    case ActKind::pulse:
      return act_effect(p, node, options.feel.pulse, EffectKind::pulse);
    case ActKind::collect:
    case ActKind::finale:
      return;  // made of other steps
    case ActKind::wait:
      node.ends = node.starts + (node.act.seconds > 0 ? std::min(node.act.seconds, 3600.0) : 0);
      return;
  }
}

void Playfield::Impl::act_deal(Performance& p, Node& node) {
  const Table& table = setup.table;
  const Choreography& how = options.feel.deal;
  Pose source{.centre = {options.window.width / 2, -solved.card.height}};
  if (setup.deal_from) source = outline_pose(setup.deal_from);
  source.flip = pi;

  std::vector<std::size_t> order;
  std::size_t longest = 0;
  for (const Zone& zone : table.zones()) {
    if (zone.id != setup.deal_from) longest = std::max(longest, zone.cards.size());
  }
  const bool rounds = options.feel.deal_order == DealOrder::rounds;
  for (std::size_t round = 0; round < (rounds ? longest : 1); ++round) {
    for (const Zone& zone : table.zones()) {
      if (zone.id == setup.deal_from) continue;
      const std::size_t end = rounds ? std::min(round + 1, zone.cards.size()) : zone.cards.size();
      for (std::size_t i = round; i < end; ++i) order.push_back(slot(zone.cards[i]));
    }
  }
  float farthest = 0;
  for (const std::size_t s : order)
    farthest = std::max(farthest, length(rests[s].resting.centre - source.centre));
  for (std::size_t i = 0; i < order.size(); ++i) {
    const std::size_t s = order[i];
    if (cards[s].held || cards[s].locked) continue;
    const Pose& resting = rests[s].resting;
    source.flip_axis = resting.flip_axis;
    source.scale = resting.scale;
    put(s, source);
    const double delay =
        i < node.act.delays.size()
            ? std::max(node.act.delays[i], 0.0)
            : departure(how, {i, order.size(), length(resting.centre - source.centre), farthest});
    // Who leaves first lies on top of the stock.
    send(p, node, s, resting, how.glide, delay, rest_order(setup.deal_from, 0xFFFFFFFF - i));
  }
  add_cues(node, how);
}

void Playfield::Impl::act_gather(Performance& p, Node& node) {
  if (!setup.table.zone(node.act.to)) return;
  const Choreography& how = options.feel.gather;
  // Who leaves first comes to lie lowest.
  const Vec2 to = outline_pose(node.act.to).centre;
  std::vector<CardId> list;
  for (const Zone& zone : setup.table.zones()) {
    if (zone.id == node.act.to || (node.act.from && zone.id != node.act.from)) continue;
    // From the top, so that no card is pulled out from under another.
    list.insert(list.end(), zone.cards.rbegin(), zone.cards.rend());
  }
  if (how.by == StaggerBy::distance) {
    std::stable_sort(list.begin(), list.end(), [&](CardId a, CardId b) {
      return length(motion.pose(slot(a)).centre - to) < length(motion.pose(slot(b)).centre - to);
    });
  }
  std::vector<Changed> moved_cards;
  taken_down = &moved_cards;
  (void)setup.table.gather(list, node.act.to);
  after_change();
  send_changed(p, node, how);
}

void Playfield::Impl::act_shuffle(Performance& p, Node& node) {
  const Zone* zone = setup.table.zone(node.act.to);
  if (!zone) return;
  const std::vector<CardId> before = zone->cards;
  std::vector<Changed> moved_cards;
  taken_down = &moved_cards;
  (void)setup.table.shuffle(node.act.to, node.act.seed);
  after_change();
  taken_down = nullptr;
  // The picture still shows the order before.
  scatter(p, node, before);
}

/// Out of the pile: into two halves beside each other, or all over the table.
void Playfield::Impl::scatter(Performance& p, Node& node, std::span<const CardId> order) {
  const Zone* zone = setup.table.zone(node.act.to);
  if (!zone || order.empty()) return;
  const Choreography& how = options.feel.shuffle;
  const Layout& layout = setup.places[zone->id.value - 1].layout;
  const bool piled = std::holds_alternative<PileLayout>(layout) || std::holds_alternative<SlotLayout>(layout);
  const bool riffle = piled && options.feel.shuffle_look == ShuffleLook::riffle;
  Random64 random(node.act.seed + node.after.size());
  const Rect window = rect_at({0, 0}, options.window);
  const Vec2 middle = window.centre();
  const float width = solved.card.width;
  // The halves stay in the window, whatever edge the pile is next to.
  const float aside = 0.58f * width;
  const float edge = std::min(aside + 0.6f * width, middle.x);
  Vec2 home = outline_pose(zone->id).centre;
  if (riffle) home.x = std::clamp(home.x, edge, window.max.x - edge);
  for (std::size_t i = 0; i < order.size(); ++i) {
    const std::size_t s = slot(order[i]);
    Pose goal = rests[s].resting;
    if (riffle) {
      const bool left = i < order.size() / 2;
      const float lift = static_cast<float>(left ? i : i - order.size() / 2);
      goal.centre = home + Vec2{left ? -aside : aside, -0.3f * lift};
      goal.rotation += left ? -0.07f : 0.07f;
    } else {
      const float reach = 0.34f * std::min(options.window.width, options.window.height);
      const float angle = random.unit() * 2 * pi;
      const float far = reach * std::sqrt(random.unit());
      goal.centre = middle + Vec2{std::cos(angle), std::sin(angle)} * far;
      goal.rotation += (random.unit() - 0.5f) * pi;
    }
    send(p, node, s, goal, how.glide, departure(how, {i, order.size(), length(goal.centre - home), width}),
         rest_order(zone->id, i));
  }
  add_cues(node, how);
}

void Playfield::Impl::act_draw(Performance& p, Node& node) {
  std::vector<Changed> moved_cards;
  taken_down = &moved_cards;
  (void)setup.table.take(node.act.from, node.act.to, node.act.count, node.act.face_up);
  after_change();
  std::sort(moved_cards.begin(), moved_cards.end(), [&](const Changed& a, const Changed& b) {
    return setup.table.card(cards[a.slot].id)->place < setup.table.card(cards[b.slot].id)->place;
  });
  send_changed(p, node, options.feel.draw);
}

void Playfield::Impl::act_move(Performance& p, Node& node) {
  std::vector<Changed> moved_cards;
  taken_down = &moved_cards;
  const std::vector<CardId> list = known(setup.table, node.act.cards);
  for (const CardId card : list) (void)setup.table.move({card, 1}, node.act.to);
  after_change();
  std::vector<std::size_t> rank(cards.size(), list.size());
  for (std::size_t i = list.size(); i-- > 0;) rank[slot(list[i])] = i;
  std::stable_sort(moved_cards.begin(), moved_cards.end(),
                   [&](const Changed& a, const Changed& b) { return rank[a.slot] < rank[b.slot]; });
  send_changed(p, node, {.glide = options.feel.move, .stagger = options.feel.trail});
}

void Playfield::Impl::act_flip(Performance& p, Node& node) {
  std::vector<Changed> moved_cards;
  taken_down = &moved_cards;
  for (const CardId card : known(setup.table, node.act.cards)) (void)setup.table.flip(card, node.act.face_up);
  after_change();
  send_changed(p, node, options.feel.reveal);
}

void Playfield::Impl::act_effect(Performance& p, Node& node, const CardEffect& effect, EffectKind kind) {
  for (const CardId card : known(setup.table, node.act.cards)) {
    start_effect(card, effect, kind, p.clock);
    node.ends = node.starts + double{effect.seconds};
  }
}

void Playfield::Impl::act_vanish(Performance& p, Node& node) {
  const Choreography& how = options.feel.collect;
  std::vector<Changed> moved_cards;
  taken_down = &moved_cards;
  const std::vector<CardId> list =
      stale_free(setup.table, node.act.cards, [&](const Card& card) { return card.zone != node.act.to; });
  for (const CardId card : list) (void)setup.table.move({card, 1}, node.act.to);
  after_change();
  taken_down = nullptr;
  for (std::size_t i = 0; i < list.size(); ++i) {
    const std::size_t s = slot(list[i]);
    Pose goal = rests[s].resting;
    goal.flip = motion.goal(s).flip;
    goal.scale *= 0.35f;
    goal.opacity = 0;
    send(p, node, s, goal, how.glide, departure(how, {.place = i, .of = list.size()}));
  }
  add_cues(node, how);
}

void Playfield::Impl::act_appear(Performance& p, Node& node) {
  for (const CardId card : known(setup.table, node.act.cards)) {
    const std::size_t s = slot(card);
    if (part_of[s] != p.id) continue;
    Pose unseen = rests[s].resting;
    unseen.opacity = 0;
    put(s, unseen);
    send(p, node, s, rests[s].resting, {.seconds = 0.2f, .curve = ease_out}, 0);
  }
}

void Playfield::Impl::act_wreath(Performance& p, Node& node) {
  const Choreography& how = options.feel.finale;
  std::vector<std::size_t> order;
  for (const Zone& zone : setup.table.zones()) {
    for (auto it = zone.cards.rbegin(); it != zone.cards.rend(); ++it) order.push_back(slot(*it));
  }
  const Vec2 middle = rect_at({0, 0}, options.window).centre();
  const float room = std::min(options.window.width, options.window.height) / 2 - solved.card.height * 0.55f;
  const float radius = std::max(room * 0.86f, 0.0f);
  for (std::size_t i = 0; i < order.size(); ++i) {
    const std::size_t s = order[i];
    // Two rings, one within the other, so that many cards stay apart.
    const bool inner = i % 3 == 2;
    const float angle = 2 * pi * static_cast<float>(i) / static_cast<float>(order.size());
    Pose goal = rests[s].resting;
    goal.centre = middle + Vec2{std::sin(angle), -std::cos(angle)} * (inner ? radius * 0.55f : radius);
    goal.rotation = angle;
    goal.flip = setup.table.card(cards[s].id)->face == hidden_face ? pi : 0;
    send(p, node, s, goal, how.glide, departure(how, {.place = i, .of = order.size()}));
  }
  add_cues(node, how);
}

/// Back to where the table has them: all cards that are still the performance's own.
void Playfield::Impl::act_home(Performance& p, Node& node) {
  const bool shuffled = node.act.kind == ActKind::shuffle;
  const Choreography& how = shuffled ? options.feel.shuffle : options.feel.gather;
  std::vector<std::size_t> own;
  float farthest = 0;
  const auto distance = [&](std::size_t s) {
    return length(motion.pose(s).centre - rests[s].resting.centre);
  };
  for (const Zone& zone : setup.table.zones()) {
    for (const CardId card : zone.cards) {
      const std::size_t s = slot(card);
      if (part_of[s] != p.id) continue;
      own.push_back(s);
      farthest = std::max(farthest, distance(s));
    }
  }
  for (std::size_t i = 0; i < own.size(); ++i) {
    send(p, node, own[i], rests[own[i]].resting, how.glide,
         departure(how, {i, own.size(), distance(own[i]), farthest}));
  }
}

}  // namespace apsidon
