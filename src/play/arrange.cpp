// Where all cards rest: zones that have changed are laid out again, with the room that is made in them, and
// their cards are sent there.
#include <algorithm>
#include <numbers>

#include "play/cells.hpp"
#include "play/impl.hpp"

namespace apsidon {

void Playfield::Impl::keep_slots() {
  motion.resize(setup.table.slot_count());
  cards.resize(setup.table.slot_count());
  rests.resize(setup.table.slot_count());
  part_of.resize(setup.table.slot_count());
}

/// Cards that are gone do not go on to places that nobody will see: a clock of theirs may stand still for
/// good.
void Playfield::Impl::clear_retired() {
  see_motion();
  for (std::size_t s = 0; s < cards.size(); ++s) {
    if (cards[s].id && !setup.table.card(cards[s].id)) motion.clear(s);
  }
}

/// Lays out the zones that the table has changed since; with a new window or at first, all of them.
void Playfield::Impl::lay_out_changed(Change change) {
  keep_slots();
  if (change != Change::window) {
    for (const Zone& zone : setup.table.zones()) {
      const std::size_t i = zone.id.value - 1;
      const auto* grid = std::get_if<GridLayout>(&setup.places[i].layout);
      if (grid && grid->keeps_cells && laid_revision[i] != zone.revision) give_cells(setup.table, zone.id);
    }
    if (change == Change::table && give_up_places()) {
      // Others get the place: the areas are made anew, and who lies in another one moves there.
      solve_plan();
      std::fill(laid_revision.begin(), laid_revision.end(), never_laid);
    }
  }
  for (const Zone& zone : setup.table.zones()) {
    std::uint64_t& seen = laid_revision[zone.id.value - 1];
    if (change == Change::table && seen == zone.revision) continue;
    seen = zone.revision;
    lay_out_zone(zone.id, change);
  }
  stale = true;
  neutral_stale = true;
}

/// The room that the resting poses of a zone make.
Room Playfield::Impl::room_of(ZoneId id) const {
  Room room;
  const Card* over = setup.table.card(hover.card);
  if (over && over->zone == id && setup.handling[id.value - 1].hover == HoverKind::raise) {
    room.raised = static_cast<std::ptrdiff_t>(over->place);
  }
  each_carry([&](const Carry& c) {
    if (c.aimed == id && c.insert_at) room.insert_at = static_cast<std::ptrdiff_t>(*c.insert_at);
  });
  return room;
}

/// A held card keeps its room, but where cards are sorted by dragging: there the others close up.
bool Playfield::Impl::closes_up(const Card& card) const {
  return cards[slot(card.id)].held && setup.rules[card.zone.value - 1].sorts;
}

/// Lays out the zones whose room is another than they have.
void Playfield::Impl::make_room() {
  for (const Zone& zone : setup.table.zones()) {
    const std::size_t i = zone.id.value - 1;
    bool closes = false;
    each_carry([&](const Carry& c) {
      const Card* first = setup.table.card(c.run.first);
      closes = closes || (c.home == zone.id && first && first->zone == zone.id && closes_up(*first));
    });
    if (rooms[i] == room_of(zone.id) && (closed_up[i] != 0) == closes) continue;
    closed_up[i] = closes ? 1 : 0;
    lay_out_zone(zone.id, Change::room);
    stale = true;
  }
}

void Playfield::Impl::fill_laid(const Zone& zone) {
  const std::size_t n = zone.cards.size();
  if (laid.size() < n + 1) {  // one more: a card that might come
    laid.resize(n + 1);
    poses.resize(n + 1);
  }
  for (std::size_t i = 0; i < n; ++i) {
    const Card& card = *setup.table.card(zone.cards[i]);
    laid[i] = {.face_up = card.face_up, .sideways = card.sideways, .cell = card.cell, .at = card.at};
  }
}

/// All but the cards.
LayoutInput Playfield::Impl::layout_input(ZoneId id) const {
  const std::size_t i = id.value - 1;
  const ZonePlace& place = setup.places[i];
  return {.area = areas[i],
          .card = solved.card * place.factor,
          .cards = {},
          .facing = place.facing,
          .scrolls = place.scrolls,
          .offset = offsets[i]};
}

void Playfield::Impl::lay_out_zone(ZoneId id, Change change) {
  const Zone& zone = *setup.table.zone(id);
  const std::size_t n = zone.cards.size();
  const ZonePlace& place = setup.places[id.value - 1];
  fill_laid(zone);
  LayoutInput in = layout_input(id);
  in.cards = {laid.data(), n};
  LayoutReport& report = reports[id.value - 1];
  report = apsidon::lay_out(place.layout, in, {poses.data(), n});
  const Room room = room_of(id);
  rooms[id.value - 1] = room;
  const bool closes = closed_up[id.value - 1] != 0;
  if (closes || room != Room{}) lay_out_room(zone, in, room, closes);
  const bool roomy = closes || room != Room{};
  const float flip_axis = options.feel.flip_axis_deg * std::numbers::pi_v<float> / 180;
  for (std::size_t i = 0; i < n; ++i) {
    const Card& card = *setup.table.card(zone.cards[i]);
    const std::size_t s = slot(card.id);
    CardState& state = cards[s];
    const auto finished = [&](Pose pose) {
      pose.scale *= place.factor;
      pose.flip_axis = flip_axis;
      // A card turned up whose face is not known yet waits on its edge.
      if (card.face_up && card.face == hidden_face) pose.flip = std::numbers::pi_v<float> / 2;
      return pose;
    };
    const Pose neutral = finished(poses[i]);
    if (state.id == card.id) rests[s].neutral = neutral;
    const Pose resting =
        snapped(roomy ? finished(roomy_poses[i]) : neutral, solved.card, options.pixel_ratio);
    if (state.id != card.id) {
      state = {.id = card.id, .zone = id, .place = static_cast<std::uint32_t>(i)};
      rests[s] = {.neutral = neutral, .resting = resting};
      part_of[s] = {};
      put(s, resting);
      continue;
    }
    head_for(card, s, resting, change);
  }
}

/// The poses with room made, in `roomy_poses`: of all cards, or of those that are not held.
void Playfield::Impl::lay_out_room(const Zone& zone, LayoutInput in, const Room& room, bool closes) {
  const std::size_t n = zone.cards.size();
  if (roomy_poses.size() < n) {
    roomy_poses.resize(n);
    roomy_laid.resize(n);
  }
  std::size_t kept = 0;
  for (std::size_t i = 0; i < n; ++i) {
    if (!closes || !closes_up(*setup.table.card(zone.cards[i]))) roomy_laid[kept++] = laid[i];
  }
  in.cards = {roomy_laid.data(), kept};
  in.room = room;
  apsidon::lay_out(setup.places[zone.id.value - 1].layout, in, {roomy_poses.data(), kept});
  // Back to the places that the cards have; from the end, for they only move up.
  for (std::size_t i = n; i-- > 0;) {
    const bool away = closes && closes_up(*setup.table.card(zone.cards[i]));
    roomy_poses[i] = away ? poses[i] : roomy_poses[--kept];
  }
}

Pose Playfield::Impl::outline_pose(ZoneId id) const {
  const LayoutInput in = layout_input(id);
  const ZonePlace& place = setup.places[id.value - 1];
  Pose pose = lone_pose(place.layout, in.area, in.card, in.facing);
  pose.scale *= place.factor;
  return snapped(pose, solved.card, options.pixel_ratio);
}

/// Sends a card from its old resting pose toward its new one, in the way that the change asks for.
void Playfield::Impl::head_for(const Card& card, std::size_t s, const Pose& resting, Change change) {
  CardState& state = cards[s];
  const Pose old = rests[s].resting;
  const bool other_zone = state.zone != card.zone;
  rests[s].resting = resting;
  const std::uint64_t was_drawn = rest_order(state.zone, state.place);
  state.zone = card.zone;
  state.place = static_cast<std::uint32_t>(card.place);
  if (state.held || state.locked || (!other_zone && old == resting)) return;
  if (taken_down && (other_zone || old.flip != resting.flip)) {
    state.waits_at = was_drawn;
    taken_down->push_back({s, old});  // the act sends it
    return;
  }
  // Who makes room for an act belongs to it. A way whose goal shifts goes on by the clock of its performance,
  // and is that one's to skip and to stop.
  const bool shifts =
      change == Change::window || change == Change::room || (!other_zone && old.flip == resting.flip);
  if (!(shifts && part_of[s] && motion.on_its_way(s))) part_of[s] = acting;
  if (change == Change::window) {
    if (motion.on_its_way(s)) {
      motion.shift(s, resting, options.feel.shift);
    } else {
      put(s, resting);
    }
  } else if (other_zone) {
    state.waits_at = was_drawn;
    fly(s, resting, options.feel.move, double{options.feel.trail} * static_cast<double>(sent++));
  } else if (old.flip != resting.flip) {
    travel(s, resting, options.feel.flip);
  } else {
    motion.shift(s, resting, change == Change::room ? options.feel.raise : options.feel.shift);
  }
}

}  // namespace apsidon
