// A seed of the fair is bought with seeds of the hand: one of the stall and what is offered for it are
// chosen, wherever they lie, and go to the basket together. Offers worth at least the price will do.
#include <cstdio>
#include <vector>

#include "apsidon/apsidon.hpp"

using namespace apsidon;

namespace {

struct Fair {
  TableSetup setup{Deck({.suits = {{"fern", "green"}, {"poppy", "orange"}, {"reed", "green"}},
                         .ranks = {"1", "2", "3", "4", "5", "6", "7", "8"}})};
  ZoneId stall, hand, basket;
  PanelId buys, sum;

  Fair() {
    const SelectRule one{.when = rule::own("one of the stall")};
    const ZoneHandling chosen{.hover = HoverKind::lift, .tap = TapKind::select};
    stall = setup.add({.name = "stall",
                       .layout = {.kind = SpreadLayout{}, .longest = 4},
                       .rules = {.select = one},
                       .handling = chosen});
    hand = setup.add({.name = "hand",
                      .layout = {.kind = HandLayout{}, .longest = 8},
                      .rules = {.select = SelectRule{}, .sorts = true},
                      .handling = chosen});
    basket = setup.add(
        {.name = "basket", .layout = {.longest = 24}, .rules = {.drop = rule::own("worth the price")}});
    buys = setup.add_panel({.name = "buys", .kind = PanelKind::button, .text = "Buy"});
    sum = setup.add_panel({.name = "sum", .kind = PanelKind::caption, .text = "{bought} bought"});
    setup.plans = {
        {.root = down(
             {space(0.1f), across({zone(stall), zone(basket)}),
              across({panel(buys, {.px = 90}, {.px = 40}), panel(sum, {.px = 120}, {.px = 40})}), zone(hand)},
             0.3f)}};  // room for what is chosen
    setup.bind("one of the stall",
               [this](const RuleQuestion& q) { return wares_of(q).size() == 1 ? Verdict{} : q.refuse(); });
    setup.bind("worth the price", [this](const RuleQuestion& q) {
      int price = 0, offered = 0;
      for (const CardId card : cards_of(q)) {
        const int worth = q.table.deck().rank_of(q.table.card(card)->face) + 1;
        (q.table.card(card)->zone == stall ? price : offered) += worth;
      }
      return price > 0 && offered >= price ? Verdict{} : q.refuse({{"price", price}, {"offered", offered}});
    });
    setup.sentences = {{"one of the stall", "One seed at a time is bought."},
                       {"worth the price", "{offered} is offered for {price}."}};
    setup.consequences = {{.name = "count", .follow = [this](const FollowQuestion& q) { return count(q); }}};
    (void)setup.table.set_number("bought", 0);
    std::vector<FaceId> faces = setup.table.deck().faces();
    Random64 random(5);
    shuffle(std::span(faces), random);
    for (std::size_t i = 0; i < 12; ++i) setup.table.create_card(i < 4 ? stall : hand, {.face = faces[i]});
  }

  /// The card that is asked about, and those that go with it.
  static std::vector<CardId> cards_of(const RuleQuestion& q) {
    std::vector<CardId> cards{q.card};
    cards.insert(cards.end(), q.others.begin(), q.others.end());
    return cards;
  }
  std::vector<CardId> wares_of(const RuleQuestion& q) const {
    std::vector<CardId> cards = cards_of(q);
    std::erase_if(cards, [&](CardId card) { return q.table.card(card)->zone != stall; });
    return cards;
  }
  std::vector<Edit> count(const FollowQuestion& q) const {
    const bool bought = q.steps.back().kind == MoveStep::Kind::moved && q.steps.back().to == basket;
    if (!bought) return {};
    return {{.kind = EditKind::set_number, .name = "bought", .value = q.table.number("bought") + 1}};
  }
};

/// Taps, as a player does.
void tap(Playfield& field, Vec2 at, double after) {
  field.pointer({.phase = PointerPhase::down, .at = at, .time = field.now() + after});
  field.pointer({.phase = PointerPhase::up, .at = at, .time = field.now() + after + 0.05});
}

}  // namespace

int main() {
  const Fair fair;
  Playfield field(fair.setup);
  // Chosen by taps: a seed of the stall, and one after another of the hand, until it is paid for.
  for (int round = 0; round < 3; ++round) {
    std::vector<CardId> choice{field.table().zone(fair.stall)->cards.front()};
    const auto& hand = field.table().zone(fair.hand)->cards;
    choice.insert(choice.end(), hand.begin(), hand.end());
    bool bought = false;
    for (const CardId card : choice) {
      const Pose pose = *field.where().resting_pose(card);
      tap(field, pose.centre - Vec2{field.where().card_size().width * 0.3f, 0}, 0.1);
      tap(field, field.where().panel_area(fair.buys)->centre(), 0.3);
      while (const auto event = field.next_event(field.now() + 0.7)) {
        if (event->kind == EventKind::tapped && event->panel == fair.buys)
          (void)field.moves().play_selection(fair.basket);
        const bool told = event->kind == EventKind::refused || event->kind == EventKind::dropped;
        if (told) std::printf("%s\n", describe(*event, field).c_str());
        bought = bought || event->kind == EventKind::dropped;
      }
      if (bought) break;
    }
  }
  std::printf("%s, %zu left\n", field.frame().panels[1].text.c_str(),
              field.table().zone(fair.hand)->cards.size());
}
