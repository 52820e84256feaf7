// Why items of the frame are marked. Marks are few: who has one is remembered, so that the others need not be
// looked at.
#include "play/impl.hpp"
#include "play/layers.hpp"

namespace apsidon {

void Playfield::Impl::forget_marks() {
  for (const std::uint32_t item : marked) drawn.items[item].marks = {};
  marked.clear();
  show_refused(false);
  refused.clear();
}

Marks& Playfield::Impl::mark(std::size_t item) {
  marked.push_back(static_cast<std::uint32_t>(item));
  return drawn.items[item].marks;
}

Marks& Playfield::Impl::mark_card(CardId card) { return mark(item_of[slot(card)]); }

void Playfield::Impl::add_marks() {
  each_carry([&](const Carry& c) {
    for (const Taken& taken : c.cards) {
      if (cards[taken.slot].id == taken.card && setup.table.card(taken.card))
        mark_card(taken.card).held = true;
    }
    for (const ZoneId id : c.targets) mark_target(id, id == c.aimed);
  });
  for (const std::vector<CardId>& of_proposal : waiting_cards) {
    for (const CardId id : of_proposal) {
      if (setup.table.card(id)) mark_card(id).locked = true;
    }
  }
  if (setup.table.card(hover.card)) mark_card(hover.card).hovered = true;
  if (focus.card && setup.table.card(focus.card)) mark_card(focus.card).focus = true;
  if (!focus.card && focus.zone) {
    if (const auto outline = outline_of(focus.zone)) mark(*outline).focus = true;
  }
  for (FramePanel& panel : drawn.panels) panel.focus = focus.panel && panel.panel == focus.panel;
}

/// A target is marked where a card would come to lie: on its top card, or its outline.
void Playfield::Impl::mark_target(ZoneId id, bool aimed) {
  const auto top = setup.table.top(id);
  const std::optional<std::size_t> item = top ? item_of[slot(*top)] : outline_of(id);
  if (!item) return;
  Marks& marks = mark(*item);
  marks.legal_target = true;
  marks.aimed_at = marks.aimed_at || aimed;
}

/// The item of a zone's outline, where it is drawn.
std::optional<std::size_t> Playfield::Impl::outline_of(ZoneId id) const {
  for (std::size_t i = 0; i < first_card; ++i) {
    if (drawn.items[i].zone == id) return i;
  }
  return std::nullopt;
}

/// Those that shake now; that changes while all else stays as it is.
void Playfield::Impl::mark_refused() {
  show_refused(false);
  refused.clear();
  motion.with_effect(EffectKind::swing, refused);
  show_refused(true);
}

void Playfield::Impl::show_refused(bool is) {
  for (const std::uint32_t s : refused) {
    if (item_of[s] != no_item) drawn.items[item_of[s]].marks.refused = is;
  }
}

}  // namespace apsidon
