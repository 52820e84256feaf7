#include "play/requests/taps.hpp"

namespace apsidon::play_detail {
namespace {

/// A card is what all but a stock need.
TapKind possible(TapKind kind, const Hit& on) {
  return on.card || kind == TapKind::draw ? kind : TapKind::none;
}

}  // namespace

Tap read_tap(const Gesture& gesture, const Hit& pressed, const TapView& view) {
  Tap tap{.on = pressed};
  const Card* card = view.setup.table.card(pressed.card);
  if (!card) tap.on.card = {};
  if (view.off) return tap;  // the press is taken, and nothing comes of it
  tap.told = true;
  // A tap that waited for a second one may come when its card lies elsewhere: then it does nothing more.
  const bool gone = pressed.card && (!card || card->zone != pressed.zone);
  if (gesture.button != PointerButton::primary || !pressed.zone || gone || !view.open) return tap;
  tap.drops = !view.carry.empty() && view.carry.home != pressed.zone;
  tap.puts_back = !view.carry.empty() && !tap.drops;
  // The same card again only puts back what is in the hand; another of its zone is tapped as well.
  if (tap.drops || (tap.puts_back && tap.on.card == view.carry.run.first)) return tap;
  const ZoneHandling& handling = view.setup.handling_of(pressed.zone);
  const bool twice = gesture.kind == GestureKind::double_tap;
  tap.does = possible(twice ? handling.double_tap : handling.tap, tap.on);
  return tap;
}

Tap read_act(const Hit& on, bool twice, const TableSetup& setup) {
  Tap tap{.on = on};
  TapKind kind = TapKind::none;
  if (on.zone) {
    const ZoneHandling& handling = setup.handling_of(on.zone);
    kind = twice && handling.double_tap != TapKind::none ? handling.double_tap : handling.tap;
  }
  tap.told = on.panel || (kind != TapKind::none && kind != TapKind::pick);
  if (!tap.told && setup.table.card(on.card)) tap.does = TapKind::pick;
  if (tap.told && !on.panel) tap.does = possible(kind, on);
  return tap;
}

}  // namespace apsidon::play_detail
