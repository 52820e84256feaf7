#include "play/arrangement.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "apsidon/layout/insertion.hpp"
#include "play/layers.hpp"

namespace apsidon::play_detail {
namespace {

constexpr std::uint64_t never_laid = ~std::uint64_t{0};

LaidCard laid_card(const Card& card) {
  return {.face_up = card.face_up, .sideways = card.sideways, .cell = card.cell, .at = card.at};
}

bool contains(std::span<const CardId> cards, CardId card) {
  return std::find(cards.begin(), cards.end(), card) != cards.end();
}

Room room_of(const TableSetup& setup, ZoneId zone, const LayoutRequest& request) {
  Room room;
  const Card* raised = setup.table.card(request.raised);
  if (raised && raised->zone == zone) room.raised = static_cast<std::ptrdiff_t>(raised->index);
  for (const Insertion& insertion : request.insertions) {
    if (insertion.zone == zone) room.insert_at = static_cast<std::ptrdiff_t>(insertion.index);
  }
  return room;
}

/// A held card keeps its room, but where cards are sorted by dragging the others close up.
bool closes_up(const TableSetup& setup, ZoneId zone, std::span<const CardId> held) {
  return !held.empty() && setup.rules_of(zone).sorts &&
         std::any_of(held.begin(), held.end(), [&](CardId card) {
           const Card* of_table = setup.table.card(card);
           return of_table && of_table->zone == zone;
         });
}

}  // namespace

PlanWindow usable(const PlanWindow& window) {
  const auto length = [](float v) { return std::isfinite(v) && v > 0 ? v : 0; };
  const float ratio = window.pixel_ratio;
  return {.size = {length(window.size.width), length(window.size.height)},
          .insets = window.insets,
          .pixel_ratio = std::isfinite(ratio) && ratio > 0 ? ratio : 1};
}

Arrangement::Arrangement(const TableSetup& setup, const PlanWindow& window)
    : window_(window),
      areas_(setup.table.zones().size()),
      panel_areas_(setup.panels.size()),
      empty_(areas_.size(), 0),
      zones_(areas_.size()) {
  (void)note_empty(setup);
  solve_plan(setup);
}

void Arrangement::solve_plan(const TableSetup& setup) {
  plan_ = best_plan(setup.plans, setup.layouts(), window_, plan_);
  solved_ = solve(setup.plans[*plan_], setup.layouts(), window_,
                  {.areas = areas_, .panels = panel_areas_, .empty = empty_});
}

/// Notes which zones are empty; returns whether a zone that gives up its area has become empty or has got
/// cards.
bool Arrangement::note_empty(const TableSetup& setup) {
  bool changed = false;
  for (const Zone& zone : setup.table.zones()) {
    char& was = empty_[zone.id.value - 1];
    const char now = zone.cards.empty() ? 1 : 0;
    changed = changed || (setup.layout_of(zone.id).gives_up && was != now);
    was = now;
  }
  return changed;
}

void Arrangement::resize(const TableSetup& setup, const PlanWindow& window) {
  window_ = window;
  (void)note_empty(setup);
  solve_plan(setup);
}

std::uint64_t Arrangement::rest_order_of(std::size_t slot) const {
  return rest_order(lies_[slot].zone, lies_[slot].index);
}

ZoneId Arrangement::zone_at(Vec2 point) const {
  for (std::uint32_t i = 0; i < areas_.size(); ++i) {
    if (areas_[i].contains(point)) return {i + 1};
  }
  return {};
}

PanelId Arrangement::panel_at(Vec2 point) const {
  for (std::uint32_t i = 0; i < panel_areas_.size(); ++i) {
    if (panel_areas_[i].contains(point)) return {i + 1};
  }
  return {};
}

void Arrangement::begin(const TableSetup& setup) {
  shifts_.clear();
  rests_.resize(setup.table.slot_count());
  lies_.resize(setup.table.slot_count());
}

std::span<const Shift> Arrangement::lay_out(const TableSetup& setup, Change change,
                                            const LayoutRequest& request) {
  begin(setup);
  if (change == Change::table && note_empty(setup)) {
    // Others get the area: all areas are made anew, and who lies in another one moves there.
    solve_plan(setup);
    for (LaidZone& laid : zones_) laid.revision = never_laid;
  }
  for (const Zone& zone : setup.table.zones()) {
    std::uint64_t& seen = zones_[zone.id.value - 1].revision;
    if (change == Change::table && seen == zone.revision) continue;
    seen = zone.revision;
    lay_out_zone(setup, zone, request);
  }
  ++revision_;
  ++neutral_revision_;
  return shifts_;
}

std::span<const Shift> Arrangement::make_room(const TableSetup& setup, const LayoutRequest& request) {
  begin(setup);
  for (const Zone& zone : setup.table.zones()) {
    const LaidZone& laid = zones_[zone.id.value - 1];
    const bool same = laid.room == room_of(setup, zone.id, request) &&
                      laid.closed_up == closes_up(setup, zone.id, request.held);
    if (same) continue;
    lay_out_zone(setup, zone, request);
    ++revision_;
  }
  return shifts_;
}

std::span<const Shift> Arrangement::scroll_to(const TableSetup& setup, ZoneId zone, float offset,
                                              const LayoutRequest& request) {
  begin(setup);
  zones_[zone.value - 1].offset = offset;
  lay_out_zone(setup, *setup.table.zone(zone), request);
  ++revision_;
  ++neutral_revision_;
  return shifts_;
}

LayoutInput Arrangement::input(const TableSetup& setup, ZoneId zone) const {
  const ZoneLayout& options = setup.layout_of(zone);
  return {.area = area(zone),
          .card = solved_.card * options.factor,
          .cards = {},
          .facing = options.facing,
          .scrolls = options.scrolls,
          .offset = offset(zone)};
}

void Arrangement::lay_out_zone(const TableSetup& setup, const Zone& zone, const LayoutRequest& request) {
  const std::size_t n = zone.cards.size();
  const ZoneLayout& options = setup.layout_of(zone.id);
  LaidZone& laid = zones_[zone.id.value - 1];
  if (scratch_.laid.size() < n) {
    scratch_.laid.resize(n);
    scratch_.poses.resize(n);
  }
  for (std::size_t i = 0; i < n; ++i) scratch_.laid[i] = laid_card(*setup.table.card(zone.cards[i]));
  LayoutInput in = input(setup, zone.id);
  in.cards = {scratch_.laid.data(), n};
  laid.report = apsidon::lay_out(options.layout, in, {scratch_.poses.data(), n});
  laid.room = room_of(setup, zone.id, request);
  laid.closed_up = closes_up(setup, zone.id, request.held);
  const bool roomy = laid.closed_up || laid.room != Room{};
  if (roomy) lay_out_room(setup, zone, in, laid, request.held);
  for (std::size_t i = 0; i < n; ++i) {
    const Card& card = *setup.table.card(zone.cards[i]);
    const auto finished = [&](Pose pose) {
      pose.scale *= options.factor;
      pose.flip_axis = request.flip_axis;
      // A card that lies face up although its face is not known yet waits on its edge.
      if (card.face_up && card.face == hidden_face) pose.flip = std::numbers::pi_v<float> / 2;
      return pose;
    };
    const Pose neutral = finished(scratch_.poses[i]);
    const Pose resting =
        snapped(roomy ? finished(scratch_.roomy_poses[i]) : neutral, solved_.card, window_.pixel_ratio);
    rest(card, *setup.table.slot(card.id), neutral, resting);
  }
}

/// The poses with room made, in `roomy_poses`: of all cards, or of those that are not held.
void Arrangement::lay_out_room(const TableSetup& setup, const Zone& zone, LayoutInput in,
                               const LaidZone& laid, std::span<const CardId> held) {
  const std::size_t n = zone.cards.size();
  auto& [laid_cards, poses, roomy_laid, roomy_poses] = scratch_;
  if (roomy_poses.size() < n) {
    roomy_poses.resize(n);
    roomy_laid.resize(n);
  }
  const auto away = [&](CardId card) { return laid.closed_up && contains(held, card); };
  std::size_t kept = 0;
  for (std::size_t i = 0; i < n; ++i) {
    if (!away(zone.cards[i])) roomy_laid[kept++] = laid_cards[i];
  }
  in.cards = {roomy_laid.data(), kept};
  in.room = laid.room;
  apsidon::lay_out(setup.layout_of(zone.id).layout, in, {roomy_poses.data(), kept});
  // Back to the indices that the cards have; from the end, for they only move up.
  for (std::size_t i = n; i-- > 0;) roomy_poses[i] = away(zone.cards[i]) ? poses[i] : roomy_poses[--kept];
}

/// Notes where a card rests now, and lists it when that is elsewhere than before.
void Arrangement::rest(const Card& card, std::size_t slot, const Pose& neutral, const Pose& resting) {
  Lies& lies = lies_[slot];
  const Pose before = rests_[slot].resting;
  const bool appeared = lies.card != card.id;
  const bool other_zone = lies.zone != card.zone;
  const std::uint64_t rested_at = rest_order(lies.zone, lies.index);
  rests_[slot] = {.neutral = neutral, .resting = resting};
  lies = {.card = card.id, .zone = card.zone, .index = static_cast<std::uint32_t>(card.index)};
  if (!appeared && !other_zone && before == resting) return;
  shifts_.push_back({.slot = static_cast<std::uint32_t>(slot),
                     .card = card.id,
                     .appeared = appeared,
                     .other_zone = other_zone,
                     .flips = before.flip != resting.flip,
                     .rested_at = rested_at,
                     .before = before});
}

Rect Arrangement::clip(const TableSetup& setup, ZoneId zone) const {
  return setup.layout_of(zone).scrolls ? area(zone) : everywhere;
}

Pose Arrangement::outline(const TableSetup& setup, ZoneId zone) const {
  const LayoutInput in = input(setup, zone);
  const ZoneLayout& options = setup.layout_of(zone);
  Pose pose = lone_pose(options.layout, in.area, in.card, in.facing);
  pose.scale *= options.factor;
  return snapped(pose, solved_.card, window_.pixel_ratio);
}

std::vector<Pose> Arrangement::poses_on_top(const TableSetup& setup, ZoneId id,
                                            std::span<const LaidCard> cards) const {
  std::vector<LaidCard> there;
  for (const CardId card : setup.table.zone(id)->cards) there.push_back(laid_card(*setup.table.card(card)));
  there.insert(there.end(), cards.begin(), cards.end());
  std::vector<Pose> poses(there.size());
  LayoutInput in = input(setup, id);
  in.cards = there;
  const ZoneLayout& options = setup.layout_of(id);
  apsidon::lay_out(options.layout, in, poses);
  poses.erase(poses.begin(), poses.end() - static_cast<std::ptrdiff_t>(cards.size()));
  for (Pose& pose : poses) pose.scale *= options.factor;
  return poses;
}

std::size_t Arrangement::insertion_index(const TableSetup& setup, ZoneId id, Vec2 point,
                                         std::optional<std::size_t> before,
                                         std::span<const CardId> held) const {
  const Zone& zone = *setup.table.zone(id);
  const Layout& layout = setup.layout_of(id).layout;
  const bool closes = closes_up(setup, id, held);
  std::vector<LaidCard> there;
  std::vector<Pose> where;
  for (const CardId card : zone.cards) {
    if (closes && contains(held, card)) continue;
    there.push_back(laid_card(*setup.table.card(card)));
    where.push_back(neutral(*setup.table.slot(card)));
  }
  LayoutInput in = input(setup, id);
  in.cards = there;
  if (there.size() < zone.cards.size()) apsidon::lay_out(layout, in, where);
  return apsidon::insertion_index(layout, in, where, point, before);
}

std::optional<std::size_t> Arrangement::room_before(ZoneId zone) const {
  const std::ptrdiff_t index = zones_[zone.value - 1].room.insert_at;
  return index == no_index ? std::nullopt : std::optional(static_cast<std::size_t>(index));
}

float Arrangement::last_offset(const TableSetup& setup, ZoneId zone) const {
  const ZoneLayout& options = setup.layout_of(zone);
  const bool on_its_side = options.facing == Facing::left || options.facing == Facing::right;
  const bool downward = std::holds_alternative<ColumnLayout>(options.layout) ||
                        std::holds_alternative<GridLayout>(options.layout);
  const float length = downward != on_its_side ? area(zone).height() : area(zone).width();
  return std::max(report(zone).content - length, 0.0f);
}

}  // namespace apsidon::play_detail
