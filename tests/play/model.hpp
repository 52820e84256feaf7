#pragma once
// A small model of a table, for tests: it only hears the events.
#include <algorithm>
#include <map>
#include <vector>

#include "support/loop.hpp"
#include "support/property.hpp"
#include "support/tables.hpp"

namespace apsidon::test {

/// Where all cards lie, by what the events say.
class Model {
 public:
  explicit Model(const Table& table) { take(table); }

  void take(const Table& table) {
    lies_.clear();
    for (const Zone& zone : table.zones()) {
      auto& here = lies_[zone.id];  // of an empty zone, too
      for (const CardId card : zone.cards) here.push_back({card, table.card(card)->face_up});
    }
    see_spots(table);
    done_.clear();
    undone_.clear();
  }
  /// What the game does itself belongs to the last move.
  void game_did(const Table& table) {
    forget_empty_drop();
    std::vector<State> done = std::move(done_);
    const State before{lies_, spots_};
    take(table);
    done_ = std::move(done);
    game_changed_ = game_changed_ || State{lies_, spots_} != before;
  }
  /// What belongs to a move is seen when the next one begins.
  void next_begins() { forget_nothing(); }

  void hear(const Event& e, const std::map<std::uint64_t, Proposal>& asked, const Table& table) {
    switch (e.kind) {
      case EventKind::exchanged: {
        step();
        auto& here = lies_[e.to];  // where the dropped one was
        auto& there = lies_[e.from];
        const Proposal& p = asked.at(e.proposal);
        std::swap(*find(here, p.move.run.first), there.back());
        exchanged_ = e.proposal;
        break;
      }
      case EventKind::dropped: {
        if (exchanged_ == e.proposal) break;
        forget_nothing();
        const State before{lies_, spots_};
        auto& from = lies_[e.from];
        const auto first = find(from, e.card);
        RC_ASSERT(first != from.end());
        const auto end = first + static_cast<std::ptrdiff_t>(e.count);
        const std::vector<Lying> run(first, end);
        from.erase(first, end);
        auto& to = lies_[e.to];
        const std::size_t at = std::min(asked.at(e.proposal).move.at.value_or(to.size()), to.size());
        to.insert(to.begin() + static_cast<std::ptrdiff_t>(at), run.begin(), run.end());
        step(before);
        // By the time of the answer it may lie there already: then there is nothing to take back, unless it
        // lies there otherwise, as in a free zone, or something follows from it.
        const bool as_it_lay = std::all_of(
            run.begin(), run.end(), [&](const Lying& l) { return spots_[l.card] == spot(table, l.card); });
        may_be_nothing_ = e.from == e.to && as_it_lay;
        break;
      }
      case EventKind::taken:
        RC_ASSERT(lies_[e.from].back().card == e.card);
        lies_[e.to].push_back(lies_[e.from].back());
        lies_[e.from].pop_back();
        break;
      case EventKind::drawn:
        step();
        for (std::size_t i = 0; i < e.count; ++i) {
          lies_[e.to].push_back({lies_[e.from].back().card, true});
          lies_[e.from].pop_back();
        }
        break;
      case EventKind::recycled:
        step();
        while (!lies_[e.from].empty()) {
          lies_[e.to].push_back({lies_[e.from].back().card, !lies_[e.from].back().face_up});
          lies_[e.from].pop_back();
        }
        break;
      case EventKind::flipped: {
        if (e.proposal != 0) step();  // not by a rule
        Lying& card = *find(lies_[e.from], e.card);
        card.face_up = !card.face_up;
        break;
      }
      case EventKind::reoriented:
        if (e.proposal != 0) step();
        break;
      case EventKind::undone:
        forget_nothing();
        RC_ASSERT(!done_.empty());
        undone_.push_back({std::exchange(lies_, done_.back().lies), spots_});
        done_.pop_back();
        break;
      case EventKind::redone:
        forget_nothing();
        RC_ASSERT(!undone_.empty());
        done_.push_back({std::exchange(lies_, undone_.back().lies), spots_});
        undone_.pop_back();
        break;
      default:
        break;
    }
  }
  /// Where in their zones cards lie is no part of any event: the table says it.
  void see_spots(const Table& table) {
    for (const Zone& zone : table.zones()) {
      for (const CardId card : zone.cards) spots_[card] = spot(table, card);
    }
  }

  void check(const Table& table) const {
    for (const Zone& zone : table.zones()) {
      const auto it = lies_.find(zone.id);
      const std::size_t n = it == lies_.end() ? 0 : it->second.size();
      RC_ASSERT(zone.cards.size() == n);
      for (std::size_t i = 0; i < n; ++i) {
        RC_ASSERT(zone.cards[i] == it->second[i].card);
        RC_ASSERT(table.card(zone.cards[i])->face_up == it->second[i].face_up);
      }
    }
  }

 private:
  struct Lying {
    CardId card;
    bool face_up;

    friend bool operator==(const Lying&, const Lying&) = default;
  };
  using Lies = std::map<ZoneId, std::vector<Lying>>;
  struct Spot {
    Vec2 at = {};
    int cell = -1;
    bool sideways = false;

    friend bool operator==(const Spot&, const Spot&) = default;
  };
  using Spots = std::map<CardId, Spot>;
  struct State {
    Lies lies;
    Spots spots;

    friend bool operator==(const State&, const State&) = default;
  };

  static Spot spot(const Table& table, CardId id) {
    const Card& card = *table.card(id);
    return {card.at, card.cell, card.sideways};
  }

  static std::vector<Lying>::iterator find(std::vector<Lying>& in, CardId card) {
    return std::find_if(in.begin(), in.end(), [&](const Lying& l) { return l.card == card; });
  }
  /// A drop that changed nothing was no step.
  void forget_empty_drop() {
    if (may_be_nothing_ && !done_.empty() && done_.back().lies == lies_) {
      done_.pop_back();
      undone_ = std::move(undone_before_);
    }
    may_be_nothing_ = false;
  }
  /// Nor is a move that the game has made to nothing by the time of the next.
  void forget_nothing() {
    forget_empty_drop();
    if (game_changed_ && !done_.empty() && done_.back() == State{lies_, spots_}) done_.pop_back();
    game_changed_ = false;
  }
  void step() { step({lies_, spots_}); }
  void step(const State& before) {
    forget_nothing();
    done_.push_back(before);
    undone_before_ = std::exchange(undone_, {});
  }

  Lies lies_;
  Spots spots_ = {};
  std::vector<State> done_ = {};
  std::vector<State> undone_ = {};
  std::vector<State> undone_before_ = {};  // the last step
  std::uint64_t exchanged_ = 0;
  bool may_be_nothing_ = false;  // the last step
  bool game_changed_ = false;    // since the last step
};

}  // namespace apsidon::test
