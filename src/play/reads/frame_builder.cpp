#include "play/reads/frame_builder.hpp"
#include "geometry/shown_card.hpp"

#include <algorithm>
#include <utility>

#include "geometry/prefetch.hpp"
#include "play/reads/panel_text.hpp"
#include "play/values/layers.hpp"

namespace apsidon::play_detail {
namespace {

/// How far ahead the memory of items is asked for: as far as it takes to arrive.
constexpr std::size_t items_ahead = 24;

}  // namespace

void FrameBuilder::update(const FrameSources& from) {
  // While cards only move, what is drawn keeps its order.
  reordered_ = is_dirty(from) || from.hover.any_preview();
  seen_ = {.rooms = revision_of(from),
           .motion = from.traffic.motion().revision(),
           .own = from.traffic.now(),
           .badge = from.feel.badge};
  ++drawn_.revision;
  moved_.clear();
  if (!reordered_) {
    draw_moved(from);
    hide_hidden(from);
    mark_refused(from.traffic.motion());
    return;
  }
  const Size card = from.arrangement.card();
  const bool all = std::exchange(dimmed_, false) || drawn_.card != card;
  drawn_.window = from.arrangement.window().size;
  drawn_.sweep = from.selection.swept();
  drawn_.pixel_ratio = from.arrangement.window().pixel_ratio;
  drawn_.card = card;
  drawn_.corner_radius = from.corner_radius * card.width;
  items_used_ = 0;
  forget_marks();
  add_panels(from);
  find_raised(from);
  order_.update(from.setup.table, from.arrangement, from.traffic, raised_);
  add_outlines(from);
  add_cards(from, all);
  draw_moved(from);
  draw_waiting(from);
  dim_previewed(from.hover, from.setup.table);
  hide_hidden(from);
  add_copies(from);
  add_preview(from);
  drawn_.items.resize(items_used_);
  add_badges(from);
  add_marks(from);
  mark_refused(from.traffic.motion());
}

FrameChanges FrameBuilder::changes(std::uint64_t since) {
  if (since == drawn_.revision) return {};
  if (reordered_ || since + 1 != drawn_.revision) return {.all = true};
  changed_items_.clear();
  for (const std::uint32_t slot : moved_) {
    if (item_of_[slot] != no_item) changed_items_.push_back(item_of_[slot]);
  }
  return {.items = changed_items_};
}

void FrameBuilder::number_from(std::uint64_t revision) {
  drawn_.revision = std::max(drawn_.revision, revision);
  seen_.rooms = ~std::uint64_t{0};
}

/// What stands above its neighbours: the hovered card, and what is picked up where it lies. In a column what
/// lies on a card stays on it: it would be picked up with it, or keeps it from being picked up.
void FrameBuilder::find_raised(const FrameSources& from) {
  raised_.clear();
  const Card* hovered = from.setup.table.card(from.hover.standing_out(from.setup));
  if (hovered && traits_of(from.setup.layout_of(hovered->zone).kind).raises) raised_.push_back(hovered->id);
  from.hand.each([&](const Hand::Carry& carry) {
    if (carry.mode == Hand::Carry::Mode::drag) return;
    for (const Hand::Taken& taken : carry.cards) raised_.push_back(taken.card);
  });
}

void FrameBuilder::add_outlines(const FrameSources& from) {
  for (const Zone& zone : from.setup.table.zones()) {
    if (order_.covers(zone.id) || from.switches.is_hidden(zone.id)) continue;
    if (from.setup.layout_of(zone.id).off_table) continue;
    if (from.setup.layout_of(zone.id).gives_up && zone.cards.empty()) continue;
    const auto outline = geometry_detail::shown(from.arrangement.outline(from.setup, zone.id), drawn_.card);
    next_item() = {.kind = FrameKind::outline,
                   .zone = zone.id,
                   .size = drawn_.card,
                   .order = order_of(Layer::outline, zone.id.value, 0),
                   .matrix = outline.matrix,
                   .corners = outline.corners};
  }
}

/// The share of a panel that is filled; a countdown's in steps that show.
float FrameBuilder::fill_of(const FrameSources& from, PanelId panel) {
  const CountdownId countdown = from.panels.countdown(panel);
  if (countdown == CountdownId{}) {
    const PanelSetup& setup = from.panels.all()[panel.value - 1];
    return setup.filled_by.empty() ? setup.fill : filled_share(setup, from.setup.table);
  }
  const double steps =
      Panels::steps(from.arrangement.panel_areas()[panel.value - 1], from.arrangement.window().pixel_ratio);
  return static_cast<float>(from.schedule.steps_left(countdown, steps) / steps);
}

bool FrameBuilder::any_bar_shrank(const FrameSources& from) const {
  return std::any_of(drawn_.panels.begin(), drawn_.panels.end(), [&](const FramePanel& shown) {
    return from.panels.countdown(shown.panel) != CountdownId{} && shown.fill != fill_of(from, shown.panel);
  });
}

void FrameBuilder::add_panels(const FrameSources& from) {
  std::size_t shown = 0;
  const std::span<const Rect> areas = from.arrangement.panel_areas();
  const auto add = [&](PanelId id, bool overlay) {
    const Rect& area = areas[id.value - 1];
    if (area.empty() || from.switches.is_hidden(id)) return;
    if (drawn_.panels.size() == shown) drawn_.panels.emplace_back();
    const PanelSetup& panel = from.panels.all()[id.value - 1];
    FramePanel& to = drawn_.panels[shown++];  // what stands there already keeps its storage
    to.panel = id;
    to.area = area;
    to.overlay = overlay;
    to.kind = panel.kind;
    say_panel(panel, from.setup.table, to.text);
    to.fill = fill_of(from, id);
    to.tone = panel.tone;
    to.round = panel.round;
    to.off = from.switches.is_off(id) || from.switches.is_off(from.arrangement.overlay_of(id));
    to.glows = false;
    to.focus = false;
  };
  const std::vector<Overlay>& overlays = from.setup.plans[from.arrangement.plan()].overlays;
  for (std::uint32_t i = 1; i <= areas.size(); ++i) {
    if (!from.arrangement.is_over({i})) add({i}, false);
  }
  for (const Overlay& overlay : overlays) {
    if (from.switches.is_hidden(overlay.panel)) continue;
    add(overlay.panel, true);
    for (std::uint32_t i = 1; i <= areas.size(); ++i) {
      if (from.arrangement.overlay_of({i}) == overlay.panel) add({i}, true);
    }
  }
  drawn_.panels.resize(shown);
}

/// All cards in their order. What was drawn at the same index before stays as it is; the others need to be
/// drawn.
void FrameBuilder::add_cards(const FrameSources& from, bool all) {
  const bool shifted = std::exchange(first_card_, items_used_) != items_used_;
  const bool other_appearances = refresh_appearances(from);
  const bool other_clips = refresh_clips(from);
  const auto cards = order_.cards();
  const auto before = order_.before();
  if (drawn_.items.size() < items_used_ + cards.size()) drawn_.items.resize(items_used_ + cards.size());
  for (const FrameOrder::Entry& was : before) item_of_[was.slot] = no_item;
  needs_redraw_.assign(from.traffic.cards().size(), 0);
  const bool none_kept = all || shifted || other_appearances || other_clips;
  for (std::size_t i = 0; i < cards.size(); ++i) {
    const FrameOrder::Entry& entry = cards[i];
    item_of_[entry.slot] = static_cast<std::uint32_t>(items_used_);
    geometry_detail::will_write(&drawn_.items[std::min(items_used_ + items_ahead, drawn_.items.size() - 1)]);
    FrameItem& item = drawn_.items[items_used_++];
    const bool kept = !none_kept && i < before.size() && before[i].slot == entry.slot;
    if (kept && before[i].shows_as(entry)) continue;
    const Appearance& appearance = appearances_[entry.slot];
    item.order = entry.order;
    item.clip = entry.away ? everywhere : clips_[appearance.zone.value - 1];
    if (kept) continue;
    needs_redraw_[entry.slot] = 1;
    item.kind = FrameKind::card;
    item.back = appearance.back;
    item.marks = {};
    item.back_suit = appearance.back_suit;
    item.card = appearance.card;
    item.zone = appearance.zone;
    item.face = appearance.face;
    item.size = drawn_.card;
    item.brightness = appearance.brightness;
  }
}

/// What the table says of how cards look, when it has changed; returns whether it has.
bool FrameBuilder::refresh_appearances(const FrameSources& from) {
  const std::uint64_t revision =
      from.setup.table.revision() + from.switches.revision() + from.playable.revision();
  if (std::exchange(appearances_of_, revision) == revision) return false;
  appearances_.resize(from.traffic.cards().size());
  item_of_.resize(from.traffic.cards().size(), no_item);
  for (const FrameOrder::Entry& entry : order_.cards())
    appearances_[entry.slot] = appearance_of(from, entry.slot);
  return true;
}

/// Where the cards of each zone show; returns whether that has changed.
bool FrameBuilder::refresh_clips(const FrameSources& from) {
  const auto zones = from.setup.table.zones();
  bool changed = clips_.size() != zones.size();
  clips_.resize(zones.size());
  for (const Zone& zone : zones) {
    const Rect clip = from.arrangement.clip(from.setup, zone.id);
    Rect& was = clips_[zone.id.value - 1];
    changed = changed || clip != was;
    was = clip;
  }
  return changed;
}

/// The card whose preview shows may be dimmed or hidden meanwhile.
void FrameBuilder::dim_previewed(const Hover& hover, const Table& table) {
  if (!hover.previewed() || hover.options().zoomed == ZoomedLook::shown) return;
  float& opacity = drawn_.items[item_of_[*table.slot(hover.previewed())]].opacity;
  opacity *= hover.options().zoomed == ZoomedLook::hidden ? 0 : 0.45f;
  dimmed_ = true;
}

/// Cards that are hidden keep their place in the order.
void FrameBuilder::hide_hidden(const FrameSources& from) {
  if (from.switches.empty()) return;
  for (const FrameOrder::Entry& entry : order_.cards()) {
    if (!from.traffic.card(entry.slot).hidden) continue;
    drawn_.items[item_of_[entry.slot]].opacity = 0;
    dimmed_ = true;
  }
}

/// The next item of the frame; what stood there before keeps nothing.
FrameItem& FrameBuilder::next_item() {
  if (items_used_ == drawn_.items.size()) drawn_.items.emplace_back();
  return drawn_.items[items_used_++];
}

/// Translucent copies of what is dragged, where the pointer has it.
void FrameBuilder::add_copies(const FrameSources& from) {
  if (from.hand.options().look != DragLook::copy) return;
  std::uint64_t n = 0;
  from.hand.each([&](const Hand::Carry& carry) {
    if (carry.mode != Hand::Carry::Mode::drag) return;
    for (const Hand::Taken& taken : carry.cards) {
      const CardId id = taken.card;
      const Pose pose = Hand::copy_pose(carry, from.setup.table, from.arrangement, id);
      const Card& card = *from.setup.table.card(id);
      const bool face = shows_face(pose.flip);
      const int back_suit = face ? -1 : from.setup.table.deck().back_suit_of(card.face);
      const auto copy = geometry_detail::shown(pose, drawn_.card);
      next_item() = {.kind = FrameKind::copy,
                     .back = !face,
                     .marks = {.held = true},
                     .back_suit = static_cast<std::int16_t>(back_suit),
                     .card = id,
                     .zone = card.zone,
                     .face = face ? card.face : hidden_face,
                     .size = drawn_.card,
                     .order = order_of(Layer::held, 1, n++),
                     .matrix = copy.matrix,
                     .corners = copy.corners,
                     .opacity = from.hand.options().copy_opacity,
                     .lift = from.feel.carry_lift};
    }
  });
}

/// The previews of cards, growing out of them or going back.
void FrameBuilder::add_preview(const FrameSources& from) {
  from.hover.previews(from.setup, from.arrangement, from.traffic.now(), previews_);
  for (std::size_t i = 0; i < previews_.size(); ++i) {
    const Hover::Preview& preview = previews_[i];
    const Card& card = *from.setup.table.card(preview.card);
    const auto picture = geometry_detail::shown(preview.pose, drawn_.card);
    const int back_suit = card.face_up ? -1 : from.setup.table.deck().back_suit_of(card.face);
    next_item() = {.kind = FrameKind::zoom,
                   .back = !card.face_up,
                   .back_suit = static_cast<std::int16_t>(back_suit),
                   .card = card.id,
                   .zone = card.zone,
                   .face = card.face_up ? card.face : hidden_face,
                   .size = drawn_.card,
                   .order = order_of(Layer::preview, 0, i),
                   .matrix = picture.matrix,
                   .corners = picture.corners,
                   .opacity = preview.opacity,
                   .lift = 0.6f};
  }
}

}  // namespace apsidon::play_detail
