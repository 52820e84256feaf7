#include "play/reads/frame_order.hpp"

#include <algorithm>
#include <cassert>
#include <utility>

#include "play/values/layers.hpp"

namespace apsidon::play_detail {

/// The key of every card, by slot; returns how many cards there are.
std::size_t FrameOrder::give_orders(const Table& table, const Arrangement& arrangement,
                                    const Traffic& traffic, std::span<const CardId> raised) {
  if (std::exchange(ranked_, table.revision()) != table.revision()) {
    by_rank_.clear();
    for (const Zone& zone : table.zones()) {
      for (const CardId card : zone.cards) by_rank_.push_back(static_cast<std::uint32_t>(*table.slot(card)));
    }
    by_slot_.assign(table.slot_count(), {no_order, 0, 0, 0});
  }
  covered_.assign(table.zones().size(), 0);
  std::uint32_t rank = 0;
  for (const Zone& zone : table.zones()) {
    std::uint64_t below = 0;  // what flies to this zone, and will lie below
    bool any_lies = false;
    const std::uint32_t zone_rank = arrangement.rank(zone.id);
    for (std::size_t index = 0; index < zone.cards.size(); ++index, ++rank) {
      const std::uint32_t s = by_rank_[rank];
      const Traffic::CardState& state = traffic.card(s);
      assert(state.waits == traffic.motion().waiting(s));
      const bool away = state.departure > 0;
      std::uint64_t order = rest_order(zone_rank, index);
      if (state.held) {
        order = order_of(Layer::held, 0, state.departure);
      } else if (away && state.waits) {
        order = state.waits_at;
      } else if (!away && std::find(raised.begin(), raised.end(), state.id) != raised.end()) {
        // It stands above its neighbours; no flight is ordered against it.
        order = order_of(Layer::raised, zone_rank, index);
      } else {
        if (away) order = flight_order(state.departure);
        // Nothing that has arrived is overtaken from below by what arrives later.
        order = std::max(order, below);
        below = std::max(below, order >= flight_order(0) ? order : 0);
      }
      any_lies = any_lies || !away;
      by_slot_[s] = {order, rank, s & 0x7FFFFFFF, away || state.held};
    }
    covered_[zone.id.value - 1] = any_lies ? 1 : 0;
  }
  return rank;
}

/// Most cards are where they were: the others are taken out, sorted, and merged in.
void FrameOrder::update(const Table& table, const Arrangement& arrangement, const Traffic& traffic,
                        std::span<const CardId> raised) {
  const std::size_t count = give_orders(table, arrangement, traffic, raised);
  std::swap(cards_, before_);
  cards_.clear();
  strays_.clear();
  for (const Entry& was : before_) {
    const Entry& now = by_slot_[was.slot];
    if (now.order == no_order) continue;
    const std::size_t n = cards_.size();
    if (n == 0 || !now.before(cards_[n - 1])) {
      cards_.push_back(now);
    } else if (n == 1 || !now.before(cards_[n - 2])) {
      // The one before has gone up.
      strays_.push_back(std::exchange(cards_.back(), now));
    } else {
      strays_.push_back(now);
    }
  }
  if (cards_.size() + strays_.size() != count) {
    // Cards have come.
    cards_.clear();
    strays_.clear();
    for (const std::uint32_t s : by_rank_) strays_.push_back(by_slot_[s]);
  }
  merger_.sort(std::span(strays_), [](const Entry& a, const Entry& b) { return a.before(b); });
  // From the top, so that it is done where the lowest of them comes to lie.
  std::size_t kept = cards_.size();
  cards_.resize(count);
  for (std::size_t to = count, left = strays_.size(); left > 0;) {
    const bool stray = kept == 0 || cards_[kept - 1].before(strays_[left - 1]);
    cards_[--to] = stray ? strays_[--left] : cards_[--kept];
  }
}

}  // namespace apsidon::play_detail
