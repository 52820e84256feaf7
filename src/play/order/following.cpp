#include "play/order/following.hpp"

#include "play/order/impl.hpp"

namespace apsidon::play_detail {

void Following::send(std::span<const Shift> shifts, Change change) {
  field_.traffic.follow(shifts, field_.arrangement.rests(), change, by_, field_.feel());
  if (!field_.arrangement.guest_shifts().empty())
    field_.traffic.follow_guests(field_.arrangement.guest_shifts(), change, field_.feel());
}

void Following::make_room() {
  send(field_.arrangement.make_room(field_.setup(), field_.layout_request()), Change::room);
}

void Following::lay_out() {
  field_.referee.give_cells();
  field_.traffic.keep_slots(field_.table().slot_count());
  send(field_.arrangement.lay_out(field_.setup(), Change::table, field_.layout_request()), Change::table);
}

void Following::table_changed() {
  field_.referee.give_cells();
  field_.traffic.begin_change();
  field_.traffic.keep_slots(field_.table().slot_count());
  field_.referee.find_guests();
  cancel_torn();
  supersede_torn();
  keep_chosen();
  lay_out();
  if (!field_.switches.empty()) show_switches();
  aim_carries_again();
  if (field_.hover.card() && !field_.table().card(field_.hover.card()))
    hover_changed(field_.hover.set({}, field_.hover_view(), field_.events));
  if (field_.hover.previewed() && !field_.table().card(field_.hover.previewed()))
    field_.hover.preview_card({}, field_.hover_view(), field_.events);
  if (field_.hover.pointer()) hover_changed(field_.hover.consider(field_.hover_view(), field_.events));
  if (field_.focus.any()) field_.focus.keep(field_.focus_view(), field_.events);
  aim_keys();
}

void Following::aim_carries_again() {
  if (field_.hand.empty()) return;
  const auto pointers = field_.hand.pointers();
  for (const std::uint32_t pointer : pointers) {
    field_.hand.select(pointer);
    if (!field_.hand.empty() && field_.hand.carry().by == pointer)
      field_.hand.aim_again(field_.setup(), field_.referee.rulebook(), field_.arrangement);
  }
  field_.hand.select(pointers.front());
  Following(field_).make_room();  // by the feel, whoever sends the others
  hold_again();
}

void Following::show_switches() {
  for (const Zone& zone : field_.table().zones()) show_switch(zone.id);
}

void Following::show_switch(Switchable what) {
  const auto show = [&](ZoneId zone, std::span<const CardId> cards) {
    const bool zone_off = field_.switches.is_off(zone);
    const bool zone_hidden = field_.switches.is_hidden(zone);
    for (const CardId card : cards) {
      field_.traffic.show(field_.slot(card), zone_off || field_.switches.is_off(card),
                          zone_hidden || field_.switches.is_hidden(card));
    }
  };
  if (what.zone) show(what.zone, field_.table().zone(what.zone)->cards);
  if (what.card) show(field_.table().card(what.card)->zone, std::span(&what.card, 1));
}

void Following::aim_keys() {
  if (field_.hand.empty() || field_.hand.carry().mode != Hand::Carry::Mode::keys) return;
  field_.hand.aim_at(field_.focus.on().zone != field_.hand.carry().home ? field_.focus.on().zone : ZoneId{});
}

/// What cannot be chosen any more is not; whether there was any.
bool Following::keep_chosen() {
  const std::uint64_t before = field_.selection.revision();
  field_.selection.keep(field_.referee, field_.now(), field_.events);
  return field_.selection.revision() != before;
}

void Following::ask_again() {
  field_.referee.ask_again();
  if (keep_chosen()) make_room();
  aim_carries_again();
  if (field_.focus.any()) field_.focus.keep(field_.focus_view(), field_.events);
  aim_keys();
}

void Following::hover_changed(const HoverChange& change) {
  if (!change.changed) return;
  if (change.sinks) field_.traffic.lean(*change.sinks, {}, rising_spring(field_.feel()));
  if (change.rises)
    field_.traffic.lean(*change.rises, risen_in_window(*change.rises), rising_spring(field_.feel()));
  make_room();
}

Offset Following::risen_in_window(std::size_t slot) const {
  Offset by = risen(field_.hover.options(), field_.arrangement.card());
  const Pose& rests = field_.arrangement.resting(slot);
  Pose risen = rests;
  risen.centre = rests.centre + by.move;
  by.move = field_.arrangement.kept_in_window(rests, risen).centre - rests.centre;
  return by;
}

void Following::consider_hover() {
  if (field_.hover.pointer()) hover_changed(field_.hover.consider(field_.hover_view(), field_.events));
}

void Following::set_hovered(CardId card) {
  hover_changed(field_.hover.set(card, field_.hover_view(), field_.events));
}

void Following::put_back(const Event& event) {
  field_.events.tell(event, field_.table());
  // They keep the order in which they were picked up, so that the run stays stacked as it is.
  std::vector<std::size_t> back;
  for (const Hand::Taken& taken : field_.hand.carry().cards) {
    if (field_.traffic.card(taken.slot).held && field_.table().card(taken.card)) back.push_back(taken.slot);
  }
  forget_carry();
  for (const std::size_t s : back)
    field_.traffic.travel(s, field_.arrangement.resting(s), field_.feel().back);
}

void Following::forget_carry() {
  const Hand::Carry was = field_.hand.forget();
  for (const Hand::Taken& taken : was.cards) {
    if (field_.traffic.card(taken.slot).id != taken.card) continue;
    const bool held = field_.traffic.let_go(taken.slot);
    if (was.picked_up)
      field_.traffic.lean(taken.slot, {},
                          held ? Hand::leaning_spring(field_.feel()) : rising_spring(field_.feel()));
  }
  if (was.drags()) field_.hand.gestures().forget(was.by);
  make_room();
}

void Following::cancel_carry(Vec2 at, CancelCause cause) {
  if (field_.hand.empty()) return;
  Event event = field_.hand.event(EventKind::cancelled, field_.now());
  event.at = at;
  event.cause = cause;
  put_back(event);
}

void Following::cancel_all(CancelCause cause) {
  while (!field_.hand.empty()) cancel_carry(field_.hand.carry().pointer, cause);
}

/// Runs whose cards no longer lie together where they were picked up, or lie under another card now, are put
/// back.
void Following::cancel_torn() {
  const auto pointers = field_.hand.pointers();
  for (const std::uint32_t pointer : pointers) {
    field_.hand.select(pointer);
    if (field_.hand.empty() || field_.hand.carry().by != pointer) continue;
    if (!field_.hand.is_torn(field_.table()) &&
        !field_.hand.is_covered(field_.table(), field_.referee.rulebook()))
      continue;
    cancel_carry(field_.hand.carry().pointer, CancelCause::by_game);
  }
  field_.hand.select(pointers.front());
}

/// The cards of a run may lie otherwise now, to each other too, and follow the pointer so.
void Following::hold_again() {
  field_.hand.each([&](const Hand::Carry& carry) {
    if (!carry.holds) return;
    for (const Hand::Taken& taken : carry.cards) {
      const Pose goal =
          field_.hand.goal(carry, taken.card, field_.table(), field_.arrangement, field_.feel());
      if (field_.traffic.motion().goal(taken.slot) != goal)
        field_.traffic.travel(taken.slot, goal, field_.feel().carry);
    }
  });
}

/// Proposals whose run is no longer whole, or whose cards lie elsewhere, end.
void Following::supersede_torn() {
  while (const auto torn = field_.referee.torn()) {
    const auto cards = field_.unlock(torn->id);
    field_.referee.supersede(*torn, field_.now(), field_.events);
    field_.send_home(torn->move, cards);
  }
}

}  // namespace apsidon::play_detail
