// In what order cards are drawn.
#include <algorithm>
#include <cassert>
#include <utility>

#include "play/impl.hpp"
#include "play/layers.hpp"

namespace apsidon {

std::uint64_t Playfield::Impl::rest_order(ZoneId zone, std::uint64_t place) {
  return order_of(Layer::rest, zone.value, place);
}

std::uint64_t Playfield::Impl::flight_order(std::uint64_t departure) {
  return order_of(Layer::flight, 0, departure);
}

/// Where every card comes in the order of the frame, by slot; returns how many there are.
std::size_t Playfield::Impl::give_orders() {
  if (std::exchange(table_ranked, setup.table.revision()) != setup.table.revision()) {
    by_rank.clear();
    for (const Zone& zone : setup.table.zones()) {
      for (const CardId card : zone.cards) by_rank.push_back(static_cast<std::uint32_t>(slot(card)));
    }
    orders.assign(cards.size(), {no_order, 0, 0, 0});
  }
  covered.assign(areas.size(), 0);
  std::uint32_t rank = 0;
  for (const Zone& zone : setup.table.zones()) {
    std::uint64_t below = 0;  // what flies to this zone, and will lie below
    const bool raises = setup.handling[zone.id.value - 1].hover != HoverKind::none;
    const CardId raised = raises ? hover.card : CardId{};
    bool any_lies = false;
    for (std::size_t place = 0; place < zone.cards.size(); ++place, ++rank) {
      const std::uint32_t s = by_rank[rank];
      const CardState& state = cards[s];
      assert(state.waits == motion.waiting(s));
      const bool away = state.departure > 0;
      std::uint64_t order = rest_order(zone.id, place);
      if (state.held) {
        order = order_of(Layer::held, 0, state.departure);
      } else if (away && state.waits) {
        order = state.waits_at;
      } else if (!away && state.id == raised) {
        // It stands above its neighbours, and nothing goes by that.
        order = order_of(Layer::raised, zone.id.value, place);
      } else {
        if (away) order = flight_order(state.departure);
        // Nothing that has arrived is overtaken from below by what arrives later.
        order = std::max(order, below);
        below = std::max(below, order >= flight_order(0) ? order : 0);
      }
      any_lies = any_lies || !away;
      orders[s] = {order, rank, s & 0x7FFFFFFF, away || state.held};
    }
    covered[zone.id.value - 1] = any_lies ? 1 : 0;
  }
  return rank;
}

/// Puts the cards in order. Most are where they were: the others are taken out, sorted, and merged in.
void Playfield::Impl::order_cards() {
  const std::size_t count = give_orders();
  std::swap(ordered, ordered_before);
  ordered.clear();
  order_strays.clear();
  for (const Ordered& was : ordered_before) {
    const Ordered& now = orders[was.slot];
    if (now.order == no_order) continue;
    const std::size_t n = ordered.size();
    if (n == 0 || !now.before(ordered[n - 1])) {
      ordered.push_back(now);
    } else if (n == 1 || !now.before(ordered[n - 2])) {
      // The one before has gone up.
      order_strays.push_back(std::exchange(ordered.back(), now));
    } else {
      order_strays.push_back(now);
    }
  }
  if (ordered.size() + order_strays.size() != count) {
    // Cards have come.
    ordered.clear();
    order_strays.clear();
    for (const std::uint32_t s : by_rank) order_strays.push_back(orders[s]);
  }
  stray_merger.sort(std::span(order_strays), [](const Ordered& a, const Ordered& b) { return a.before(b); });
  // From the top, so that it is done where the lowest of them comes to lie.
  std::size_t kept = ordered.size();
  ordered.resize(count);
  for (std::size_t to = count, left = order_strays.size(); left > 0;) {
    const bool stray = kept == 0 || ordered[kept - 1].before(order_strays[left - 1]);
    ordered[--to] = stray ? order_strays[--left] : ordered[--kept];
  }
}

}  // namespace apsidon
