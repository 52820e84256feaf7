#include "play/keeps/arrangement.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "apsidon/geometry/quad.hpp"
#include "apsidon/layout/insertion.hpp"
#include "layout/common.hpp"
#include "layout/solver.hpp"
#include "play/values/layers.hpp"
#include "play/values/of_zone.hpp"

namespace apsidon::play_detail {
namespace {

constexpr std::uint64_t never_laid = ~std::uint64_t{0};

LaidCard laid_card(const Card& card) {
  return {
      .card = &card, .face_up = card.face_up, .sideways = card.sideways, .cell = card.cell, .at = card.at};
}

/// As it will lie there.
LaidCard laid_guest(const Guest& guest, const Table& table) {
  LaidCard laid = guest.laid;
  laid.card = table.card(guest.card);
  return laid;
}

bool contains(std::span<const CardId> cards, CardId card) {
  return std::find(cards.begin(), cards.end(), card) != cards.end();
}

/// Cells for those that have none, in a grid that keeps them: as they would get them.
void give_cells(std::vector<LaidCard>& cards, const Layout& layout) {
  if (!traits_of(layout).keeps_cells) return;
  int cell = 0;
  for (LaidCard& card : cards) {
    if (card.cell >= 0) continue;
    const auto taken = [&](const LaidCard& other) { return other.cell == cell; };
    while (std::any_of(cards.begin(), cards.end(), taken)) ++cell;
    card.cell = cell;
  }
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
      layers_(areas_.size(), 0),
      ranks_(areas_.size(), 0),
      overlay_of_(setup.panels.size()),
      panel_over_(setup.panels.size(), 0),
      empty_(areas_.size(), 0),
      zones_(areas_.size()) {
  (void)note_empty(setup);
  solve_plan(setup);
}

void Arrangement::solve_plan(const TableSetup& setup) {
  (void)layout_detail::take_asked_thrown();  // what a plan without a playfield left
  plan_ = best_plan(setup.plans, setup.layouts(), window_, plan_);
  solved_ = solve(setup.plans[*plan_], setup.layouts(), window_, areas_, panel_areas_, empty_);
  if (auto thrown = layout_detail::take_asked_thrown()) thrown_ = std::move(thrown);
  find_overlays(setup);
  find_layers(setup);
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
  return rest_order(rank(lies_[slot].zone), lies_[slot].index);
}

void Arrangement::begin(const TableSetup& setup) {
  shifts_.clear();
  guest_shifts_.clear();
  if (rests_.empty()) shifts_.reserve(setup.table.slot_count());  // at first every card comes
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

std::span<const Shift> Arrangement::arrange_anew(const TableSetup& setup, const LayoutRequest& request) {
  (void)note_empty(setup);
  solve_plan(setup);
  return lay_out(setup, Change::plan, request);
}

std::span<const Shift> Arrangement::make_room(const TableSetup& setup, const LayoutRequest& request) {
  begin(setup);
  for (const Zone& zone : setup.table.zones()) {
    const LaidZone& laid = zones_[zone.id.value - 1];
    const bool same = laid.room == room_of(setup, zone.id, request) &&
                      same_away(laid.away, setup, zone.id, request) &&
                      same_chosen(laid.chosen, setup, zone.id, request) &&
                      same_guests(laid.guests, zone.id, request.guests);
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

Facing Arrangement::facing(const TableSetup& setup, ZoneId zone) const {
  return layout_detail::side_in(setup.plans[plan()], setup.layout_of(zone).facing);
}

LayoutInput Arrangement::input(const TableSetup& setup, ZoneId zone) const {
  const ZoneLayout& options = setup.layout_of(zone);
  return {.area = area(zone),
          .card = solved_.card * options.factor,
          .cards = {},
          .facing = facing(setup, zone),
          .window = window_.size,
          .scrolls = options.scrolls,
          .offset = offset(zone)};
}

Pose Arrangement::finished(Pose pose, bool waits_on_its_edge, float factor, float flip_axis) const {
  pose.scale *= factor;
  pose.flip_axis = flip_axis;
  if (waits_on_its_edge) pose.flip = std::numbers::pi_v<float> / 2;
  return pose;
}

/// A resting pose on whole device pixels, but in a zone that is exempt from it.
Pose Arrangement::on_pixels(const TableSetup& setup, ZoneId zone, const Pose& pose) const {
  if (!setup.layout_of(zone).snaps) return pose;
  return snapped(pose, solved_.card, window_.pixel_ratio, area(zone));
}

Pose Arrangement::kept_in_window(const Pose& from, Pose to) const {
  const Rect after = bounds(corners(to, solved_.card));
  const Size window = window_.size;
  const bool inside =
      after.min.x >= 0 && after.min.y >= 0 && after.max.x <= window.width && after.max.y <= window.height;
  if (inside) return to;
  const Rect before = bounds(corners(from, solved_.card));
  // Where it reached beyond the window already, it goes no further.
  const auto back = [](float low, float high, float least, float most) {
    return low < least ? least - low : high > most ? most - high : 0;
  };
  to.centre.x +=
      back(after.min.x, after.max.x, std::min(before.min.x, 0.0f), std::max(before.max.x, window.width));
  to.centre.y +=
      back(after.min.y, after.max.y, std::min(before.min.y, 0.0f), std::max(before.max.y, window.height));
  return to;
}

Pose Arrangement::come_out(Pose pose, bool sideways, float share) const {
  const float up = pose.rotation - (sideways ? std::numbers::pi_v<float> / 2 : 0);
  const float distance = share * solved_.card.height * pose.scale;
  pose.centre = pose.centre + Vec2{std::sin(up), -std::cos(up)} * distance;
  return pose;
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
  laid.report = apsidon::lay_out(options.kind, in, {scratch_.poses.data(), n});
  if (!laid.report.thrown.empty()) thrown_ = laid.report.thrown;
  laid.room = room_of(setup, zone.id, request);
  laid.away.clear();
  each_away(setup, zone.id, request, [&](CardId card) { laid.away.push_back(card); });
  laid.chosen.clear();
  each_chosen(setup, zone.id, request, [&](std::size_t index) { laid.chosen.push_back(index); });
  scratch_.comes_out.assign(laid.chosen.empty() ? 0 : n, 0);
  for (const std::size_t index : laid.chosen) scratch_.comes_out[index] = 1;
  std::swap(scratch_.guests, laid.guests);
  laid.guests.clear();
  for (const Guest& guest : request.guests) {
    if (guest.zone == zone.id) laid.guests.push_back(guest);
  }
  const bool roomy = !laid.away.empty() || laid.room != Room{} || !laid.guests.empty();
  if (roomy) lay_out_room(setup, zone, in, laid);
  for (std::size_t i = 0; i < n; ++i) {
    const Card& card = *setup.table.card(zone.cards[i]);
    // A card that lies face up although its face is not known yet waits on its edge.
    const bool edge = card.face_up && card.face == hidden_face;
    const Pose neutral = finished(scratch_.poses[i], edge, options.factor, request.flip_axis);
    Pose resting =
        roomy ? finished(scratch_.roomy_poses[i], edge, options.factor, request.flip_axis) : neutral;
    const bool chosen = i < scratch_.comes_out.size() && scratch_.comes_out[i] != 0;
    if (chosen) resting = come_out(resting, card.sideways, request.chosen_rise);
    if (chosen || laid.room.raised == static_cast<std::ptrdiff_t>(i))
      resting = kept_in_window(neutral, resting);
    rest(card, *setup.table.slot(card.id), neutral, on_pixels(setup, zone.id, resting));
  }
  if (!laid.guests.empty()) place_guests(setup, laid, request.flip_axis);
}

/// The poses with room made: of the cards in `roomy_poses`, those of held and waiting ones as they are; of
/// the guests between them with the zone.
void Arrangement::lay_out_room(const TableSetup& setup, const Zone& zone, LayoutInput in, LaidZone& laid) {
  const std::size_t n = zone.cards.size();
  const Layout& layout = setup.layout_of(zone.id).kind;
  const auto away = [&](CardId card) {
    return contains(laid.away, card) || std::any_of(laid.guests.begin(), laid.guests.end(),
                                                    [&](const Guest& g) { return g.card == card; });
  };
  // Who lies there, from the bottom.
  std::vector<Lying>& lying = scratch_.lying;
  lying.clear();
  const auto add_guests = [&](std::size_t low, std::size_t high) {
    for (std::size_t g = 0; g < laid.guests.size(); ++g) {
      if (laid.guests[g].before >= low && laid.guests[g].before <= high)
        lying.push_back({.index = g, .guest = true});
    }
  };
  in.room = {.insert_count = laid.room.insert_count};
  std::ptrdiff_t kept = 0;
  for (std::size_t i = 0; i < n; ++i) {
    add_guests(i, i);
    if (away(zone.cards[i])) continue;
    const auto at = static_cast<std::ptrdiff_t>(lying.size());
    if (laid.room.raised == static_cast<std::ptrdiff_t>(i)) in.room.raised = at;
    if (laid.room.insert_at == kept++) in.room.insert_at = at;
    lying.push_back({.index = i});
  }
  if (laid.room.insert_at == kept) in.room.insert_at = static_cast<std::ptrdiff_t>(lying.size());
  add_guests(n, Guest::on_top);

  std::vector<LaidCard>& roomy = scratch_.roomy_laid;
  roomy.clear();
  for (const Lying& l : lying)
    roomy.push_back(l.guest ? laid_guest(laid.guests[l.index], setup.table) : scratch_.laid[l.index]);
  if (!laid.guests.empty()) give_cells(roomy, layout);
  scratch_.roomy_poses.resize(std::max(scratch_.roomy_poses.size(), n));
  scratch_.lying_poses.resize(std::max(scratch_.lying_poses.size(), lying.size()));
  laid.guest_poses.resize(laid.guests.size());
  in.cards = roomy;
  apsidon::lay_out(layout, in, {scratch_.lying_poses.data(), lying.size()});
  std::copy_n(scratch_.poses.begin(), n, scratch_.roomy_poses.begin());
  for (std::size_t k = 0; k < lying.size(); ++k) {
    (lying[k].guest ? laid.guest_poses : scratch_.roomy_poses)[lying[k].index] = scratch_.lying_poses[k];
  }
}

/// Lists the guests of a zone that show elsewhere than before.
void Arrangement::place_guests(const TableSetup& setup, LaidZone& laid, float flip_axis) {
  for (std::size_t g = 0; g < laid.guests.size(); ++g) {
    const Guest& guest = laid.guests[g];
    const Card& card = *setup.table.card(guest.card);
    const bool edge = card.face_up && card.face == hidden_face;
    const float factor = setup.layout_of(guest.zone).factor;
    const Pose pose = on_pixels(setup, guest.zone, finished(laid.guest_poses[g], edge, factor, flip_axis));
    laid.guest_poses[g] = pose;
    const auto was = std::find_if(scratch_.guests.begin(), scratch_.guests.end(),
                                  [&](const Guest& before) { return before.card == guest.card; });
    guest_shifts_.push_back({.slot = guest.slot, .goal = pose, .arrives = was == scratch_.guests.end()});
  }
}

/// Notes where a card rests now, and lists it when that is elsewhere than before.
void Arrangement::rest(const Card& card, std::size_t slot, const Pose& neutral, const Pose& resting) {
  Lies& lies = lies_[slot];
  const Pose before = rests_[slot].resting;
  const bool appeared = lies.card != card.id;
  const bool other_zone = lies.zone != card.zone;
  const std::uint64_t rested_at = rest_order(rank(lies.zone), lies.index);
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
  Pose pose = lone_pose(options.kind, in.area, in.card, in.facing);
  pose.scale *= options.factor;
  return on_pixels(setup, zone, pose);
}

std::vector<Pose> Arrangement::poses_on_top(const TableSetup& setup, ZoneId id,
                                            std::span<const LaidCard> cards) const {
  std::vector<LaidCard> there;
  // What waits there for its answer comes to lie there first.
  const LaidZone& laid = zones_[id.value - 1];
  const auto add_guests = [&](std::size_t low, std::size_t high) {
    for (const Guest& guest : laid.guests) {
      if (guest.before >= low && guest.before <= high) there.push_back(laid_guest(guest, setup.table));
    }
  };
  const auto& lie = setup.table.zone(id)->cards;
  for (std::size_t i = 0; i < lie.size(); ++i) {
    add_guests(i, i);
    if (std::none_of(laid.guests.begin(), laid.guests.end(),
                     [&](const Guest& g) { return g.card == lie[i]; }))
      there.push_back(laid_card(*setup.table.card(lie[i])));
  }
  add_guests(lie.size(), Guest::on_top);
  there.insert(there.end(), cards.begin(), cards.end());
  const ZoneLayout& options = setup.layout_of(id);
  give_cells(there, options.kind);
  std::vector<Pose> poses(there.size());
  LayoutInput in = input(setup, id);
  in.cards = there;
  apsidon::lay_out(options.kind, in, poses);
  poses.erase(poses.begin(), poses.end() - static_cast<std::ptrdiff_t>(cards.size()));
  for (Pose& pose : poses) pose.scale *= options.factor;
  return poses;
}

std::size_t Arrangement::insertion_index(const TableSetup& setup, ZoneId id, Vec2 point,
                                         std::optional<std::size_t> before,
                                         std::span<const CardId> held) const {
  const Zone& zone = *setup.table.zone(id);
  const Layout& layout = setup.layout_of(id).kind;
  const bool closes = setup.rules_of(id).sorts || setup.handling_of(id).closes_gaps;
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
  const std::size_t index = apsidon::insertion_index(layout, in, where, point, before);
  if (auto thrown = layout_detail::take_asked_thrown()) thrown_ = std::move(thrown);
  return index;
}

std::optional<std::size_t> Arrangement::room_before(ZoneId zone) const {
  const std::ptrdiff_t index = zones_[zone.value - 1].room.insert_at;
  return index == no_index ? std::nullopt : std::optional(static_cast<std::size_t>(index));
}

float Arrangement::last_offset(const TableSetup& setup, ZoneId zone) const {
  const ZoneLayout& options = setup.layout_of(zone);
  const bool on_its_side = options.facing == Facing::left || options.facing == Facing::right;
  const bool downward = traits_of(options.kind).axis == LayoutAxis::down;
  const float length = downward != on_its_side ? area(zone).height() : area(zone).width();
  return std::max(report(zone).content - length, 0.0f);
}

}  // namespace apsidon::play_detail
