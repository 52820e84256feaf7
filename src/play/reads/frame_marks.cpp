// Why items of the frame are marked. Marks are few: who has one is remembered, so that the others need not be
// looked at.
#include "play/reads/frame_builder.hpp"
#include "play/values/layers.hpp"

namespace apsidon::play_detail {

void FrameBuilder::forget_marks() {
  for (const std::uint32_t item : marked_.items) drawn_.items[item].marks = {};
  marked_.items.clear();
  show_refused(false);
  marked_.refused.clear();
}

Marks& FrameBuilder::mark(std::size_t item) {
  marked_.items.push_back(static_cast<std::uint32_t>(item));
  return drawn_.items[item].marks;
}

void FrameBuilder::add_marks(const FrameSources& from) {
  const Table& table = from.setup.table;
  const auto mark_card = [&](CardId card) -> Marks& { return mark(item_of_[*table.slot(card)]); };
  from.hand.each([&](const Hand::Carry& carry) {
    for (const Hand::Taken& taken : carry.cards) {
      if (table.card(taken.card)) mark_card(taken.card).held = true;
    }
    for (const ZoneId zone : carry.targets) mark_target(table, zone, zone == carry.aimed);
  });
  for (const std::vector<CardId>& cards : from.referee.waiting_cards()) {
    for (const CardId card : cards) {
      if (table.card(card)) mark_card(card).locked = true;
    }
  }
  for (const CardId card : from.switches.off().cards) {
    if (table.card(card)) mark_card(card).off = true;
  }
  for (const ZoneId zone : from.switches.off().zones) {
    if (const Zone* off = table.zone(zone)) {
      for (const CardId card : off->cards) mark_card(card).off = true;
      if (const auto outline = outline_of(zone)) mark(*outline).off = true;
    }
  }
  if (table.card(from.hover.card())) mark_card(from.hover.card()).hovered = true;
  for (const CardId card : from.selection.cards()) {
    if (table.card(card)) mark_card(card).selected = true;
  }
  for (const CardId card : from.playable.marked()) {
    if (table.card(card)) mark_card(card).playable = true;  // it may have left since that was judged
  }
  const Hit& focus = from.focus.on();
  if (focus.card && table.card(focus.card)) mark_card(focus.card).focus = true;
  for (const CardId card : table.cards_of(from.focus.run())) mark_card(card).focus = true;
  if (!focus.card && focus.zone) {
    if (const auto outline = outline_of(focus.zone)) mark(*outline).focus = true;
  }
  for (FramePanel& panel : drawn_.panels) panel.focus = focus.panel && panel.panel == focus.panel;
  add_glows(from);
}

/// What the game has marked itself, and the panels of seats on turn.
void FrameBuilder::add_glows(const FrameSources& from) {
  drawn_.marked.clear();
  const Table& table = from.setup.table;
  const auto glow = [&](CardId card) { mark(item_of_[*table.slot(card)]).glows = true; };
  from.switches.each_marked([&](const Switchable& what, std::span<const std::string> names) {
    const Zone* zone = table.zone(what.zone);
    if (what.card && !table.card(what.card)) return;  // it has left
    for (const std::string& name : names) drawn_.marked.push_back({what, name});
    if (what.card) glow(what.card);
    if (zone) {
      for (const CardId card : zone->cards) glow(card);
      if (const auto outline = outline_of(what.zone)) mark(*outline).glows = true;
    }
  });
  for (FramePanel& panel : drawn_.panels) {
    const SeatId seat = from.panels.panel(panel.panel)->seat;
    const bool on_turn = seat && table.is_on_turn(seat);
    if (on_turn) drawn_.marked.push_back({panel.panel, "on-turn"});
    panel.glows = on_turn || !from.switches.marks_of(panel.panel).empty();
  }
}

/// A target is marked where a card would come to lie: on its top card, or its outline.
void FrameBuilder::mark_target(const Table& table, ZoneId zone, bool aimed) {
  const auto top = table.top(zone);
  const std::optional<std::size_t> item = top ? item_of_[*table.slot(*top)] : outline_of(zone);
  if (!item) return;
  Marks& marks = mark(*item);
  marks.legal_target = true;
  marks.aimed_at = marks.aimed_at || aimed;
}

/// The item of a zone's outline, where it is drawn.
std::optional<std::size_t> FrameBuilder::outline_of(ZoneId zone) const {
  for (std::size_t i = 0; i < first_card_; ++i) {
    if (drawn_.items[i].zone == zone) return i;
  }
  return std::nullopt;
}

/// Those that shake now, which changes while all else stays as it is.
void FrameBuilder::mark_refused(const motion_detail::TableMotion& motion) {
  show_refused(false);
  moved_.insert(moved_.end(), marked_.refused.begin(), marked_.refused.end());
  marked_.refused.clear();
  motion.with_effect(EffectKind::swing, marked_.refused);
  show_refused(true);
}

void FrameBuilder::show_refused(bool is) {
  for (const std::uint32_t s : marked_.refused) {
    if (item_of_[s] != no_item) drawn_.items[item_of_[s]].marks.refused = is;
  }
}

}  // namespace apsidon::play_detail
