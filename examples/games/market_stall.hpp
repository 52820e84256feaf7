#pragma once
#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <map>

#include "game.hpp"

namespace games {

/// Cards are offered to stalls that want a suit and a least rank; three other sellers do the same. The game
/// knows all hands, the player's table only what it has seen.
class MarketStall : public Game {
 public:
  MarketStall(const TableSetup& setup, std::uint64_t seed, const PlayfieldOptions& options = {})
      : Game(hands(setup, seed), options) {
    // The same order again: the hidden cards of the sellers, known here alone.
    const std::vector<FaceId> faces = shuffled(field().table().deck(), seed);
    std::size_t next = 0;
    for (std::size_t who = 0; who < hands_of.size(); ++who) {
      for (const CardId card : field().table().zone(zone(hands_of[who]))->cards)
        known_[card] = {faces[next++], who};
    }
    field().performances().deal();
    show();
  }

  [[nodiscard]] std::string score() const override {
    const auto sold = sales();
    return fmt::format("you sold {}, the others {}", sold[0], sold[1] + sold[2] + sold[3]);
  }

 protected:
  void hear(const Event& event) override {
    if (event.kind == EventKind::dropped && event.from == zone("hand") && event.to != event.from) {
      field().gate().close("the others");
      seller_ = 1;
      timer_ = field().time().start_timer(0.4);
    }
    if (event.kind == EventKind::rang && event.countdown == timer_) next_seller();
    show();
  }

 private:
  static constexpr std::array<const char*, 4> hands_of{"hand", "seller-left", "seller-top", "seller-right"};
  struct Known {
    FaceId face = {};
    std::size_t seller = 0;
  };

  static std::vector<FaceId> shuffled(const Deck& deck, std::uint64_t seed) {
    std::vector<FaceId> faces = deck.faces();
    Random64 random(seed);
    shuffle(std::span(faces), random);
    return faces;
  }

  /// Thirteen cards each: open in the hand, not known with the others.
  static TableSetup hands(TableSetup setup, std::uint64_t seed) {
    const std::vector<FaceId> faces = shuffled(setup.table.deck(), seed);
    const auto& hand = setup.table.zone(*setup.table.find_zone("hand"))->cards;
    for (std::size_t i = 0; i < hand.size(); ++i) (void)setup.table.set_face(hand[i], faces[i]);
    for (std::size_t who = 1; who < hands_of.size(); ++who)
      (void)setup.table.conceal(*setup.table.find_zone(hands_of[who]));
    return setup;
  }

  /// One seller after another does what the player did; then customers take what was sold.
  void next_seller() {
    if (seller_ == hands_of.size()) return end_turn();
    const ZoneId from = zone(hands_of[seller_]);
    const auto& cards = field().table().zone(from)->cards;
    ++seller_;
    timer_ = field().time().start_timer(0.5);
    if (cards.empty()) return;
    CardId chosen = cards.front();
    ZoneId to = zone("compost");
    for (const CardId card : cards) {
      for (int stall = 1; stall <= 4 && to == zone("compost"); ++stall) {
        const ZoneId place = zone(fmt::format("stall-{}", stall));
        if (!field().rules().judge_face(known_[card].face, place)) continue;
        chosen = card;
        to = place;
      }
    }
    (void)field().edits().set_face(chosen, known_[chosen].face);
    (void)field().edits().flip(chosen, true);
    (void)field().edits().move({chosen, 1}, to);
  }

  void end_turn() {
    for (int stall = 1; stall <= 4; ++stall) {
      const auto card = field().table().top(zone(fmt::format("stall-{}", stall)));
      if (card) (void)field().edits().move({*card, 1}, zone("customers"));
    }
    field().gate().open("the others");
    if (cards_in("hand") > 0) return;
    const auto sold = sales();
    const bool won = sold[0] >= *std::max_element(sold.begin() + 1, sold.end());
    finish(won, won ? "Nobody sold more than you" : "Somebody sold more");
  }

  /// By seller: what lies on the stalls, and what customers took. Nothing is counted, so that it is right
  /// after an undo, too.
  [[nodiscard]] std::array<int, 4> sales() const {
    std::array<int, 4> sold{};
    for (const auto& [card, known] : known_) {
      const std::string& lies = field().table().zone(field().table().card(card)->zone)->name;
      sold[known.seller] += lies == "customers" || lies.starts_with("stall-") ? 1 : 0;
    }
    return sold;
  }

  void show() { field().edits().set_panel(panel("sold"), fmt::format("{} sold", sales()[0])); }

  std::map<CardId, Known> known_ = {};
  std::size_t seller_ = 0;
  CountdownId timer_ = {};
};

}  // namespace games
