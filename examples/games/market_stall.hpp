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
    std::size_t next = 13;
    for (const char* seller : sellers) {
      for (const CardId card : field().table().zone(zone(seller))->cards) known_[card] = faces[next++];
    }
    field().performances().deal();
    show();
  }

  [[nodiscard]] std::string score() const override {
    return fmt::format("you sold {}, the others {}", sold_[0], sold_[1] + sold_[2] + sold_[3]);
  }

 protected:
  void hear(const Event& event) override {
    if (event.kind == EventKind::dropped && event.from == zone("hand") && event.to != event.from) {
      if (event.to != zone("compost")) ++sold_[0];
      field().gate().close("the others");
      seller_ = 0;
      timer_ = field().time().start_timer(0.4);
    }
    if (event.kind == EventKind::rang && event.timer == timer_) next_seller();
    show();
  }

 private:
  static constexpr std::array<const char*, 3> sellers{"seller-left", "seller-top", "seller-right"};

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
    for (const char* seller : sellers) (void)setup.table.conceal(*setup.table.find_zone(seller));
    return setup;
  }

  /// One seller after another does what the player did; then customers take what was sold.
  void next_seller() {
    if (seller_ == sellers.size()) return end_turn();
    const ZoneId from = zone(sellers[seller_]);
    const auto& cards = field().table().zone(from)->cards;
    ++seller_;
    timer_ = field().time().start_timer(0.5);
    if (cards.empty()) return;
    CardId chosen = cards.front();
    ZoneId to = zone("compost");
    for (const CardId card : cards) {
      for (int stall = 1; stall <= 4 && to == zone("compost"); ++stall) {
        const ZoneId place = zone(fmt::format("stall-{}", stall));
        if (!field().rules().judge_face(known_[card], place)) continue;
        chosen = card;
        to = place;
      }
    }
    if (to != zone("compost")) ++sold_[seller_];
    (void)field().edits().set_face(chosen, known_[chosen]);
    (void)field().edits().flip(chosen, true);
    (void)field().edits().move({chosen, 1}, to);
  }

  void end_turn() {
    for (int stall = 1; stall <= 4; ++stall) {
      const auto card = field().table().top(zone(fmt::format("stall-{}", stall)));
      if (card) (void)field().edits().remove(*card);
    }
    if (cards_in("hand") == 0) return finish(sold_[0] >= std::max({sold_[1], sold_[2], sold_[3]}));
    field().gate().open("the others");
  }

  void show() { field().edits().set_panel(panel("sold"), fmt::format("{} sold", sold_[0])); }

  std::map<CardId, FaceId> known_ = {};
  std::array<int, 4> sold_{};
  std::size_t seller_ = 0;
  TimerId timer_ = {};
};

}  // namespace games
