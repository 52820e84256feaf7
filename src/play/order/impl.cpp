// What the rooms are asked with, and what happens after a change.
#include "play/order/impl.hpp"
#include "play/order/following.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "apsidon/geometry/error.hpp"

namespace apsidon::play_detail {
namespace {

PlayfieldOptions checked(const PlayfieldOptions& options) {
  check(options);
  return options;
}

TableSetup checked(TableSetup setup) {
  check(setup);
  return setup;
}

/// Who plays here is one of those at the table.
void check_seat(const PlayfieldOptions& options, const Table& table) {
  if (options.seat.value <= table.seats().size()) return;
  throw Error(fmt::format("playfield: seat {}: none, or one of the table's {} is expected",
                          options.seat.value, table.seats().size()));
}

PlanWindow window_of(const PlayfieldOptions& options) {
  return usable({.size = options.window, .insets = options.insets, .pixel_ratio = options.pixel_ratio});
}

}  // namespace

namespace {

bool only_overlays(const Rooms& field);

/// Whether nothing below the overlays can be reached.
bool only_overlays(const Rooms& field) {
  if (!field.gate.is_open()) return true;
  const auto& overlays = field.setup().plans[field.arrangement.plan()].overlays;
  return std::any_of(overlays.begin(), overlays.end(), [&](const Overlay& overlay) {
    return overlay.hits == OverlayHits::all && !field.switches.is_hidden(overlay.panel);
  });
}

}  // namespace

Rooms::Rooms(TableSetup given, const PlayfieldOptions& from)
    : client{.feel = checked(from).feel,
             .corner_radius = from.corner_radius,
             .seat = from.seat,
             .most_undos = from.most_undos},
      schedule(from.start_time),
      traffic(from.start_time),
      referee(checked(std::move(given)), from),
      arrangement(setup(), window_of(from)),
      panels(setup().panels),
      switches(setup().panels),
      hand(from.drag, from.thresholds),
      hover(from.hover),
      playable(referee) {
  traffic.keep_slots(table().slot_count());
}

Impl::Impl(TableSetup given, const PlayfieldOptions& from) : Rooms(std::move(given), from) {
  check_seat(from, table());
  Following(*this).send(arrangement.lay_out(setup(), Change::first, layout_request()), Change::first);
  follow_comparing();
}

/// As a fresh playfield would be made with them.
PlayfieldOptions Rooms::options() const {
  const PlanWindow& window = arrangement.window();
  return {.window = window.size,
          .pixel_ratio = window.pixel_ratio,
          .insets = window.insets,
          .corner_radius = client.corner_radius,
          .feel = feel(),
          .thresholds = hand.gestures().thresholds(),
          .drag = hand.options(),
          .hover = hover.options(),
          .seat = client.seat,
          .most_undos = client.most_undos,
          .start_time = traffic.now()};
}

HoverView Rooms::hover_view() const {
  return {.setup = setup(),
          .arrangement = arrangement,
          .traffic = traffic,
          .feel = feel(),
          .corner_radius = client.corner_radius,
          .time = now(),
          .may_hover = hand.empty() && gate.is_open() && !(hover.pointer() && over(*hover.pointer())),
          .switches = switches.revision()};
}

FocusView Rooms::focus_view() const {
  return {.setup = setup(),
          .panels = panels,
          .arrangement = arrangement,
          .referee = referee,
          .carry = hand.carry(),
          .selection = selection,
          .switches = switches,
          .only_overlays = only_overlays(*this),
          .time = now()};
}

LayoutRequest Rooms::layout_request() const {
  return {.raised = hover.raised(setup()),
          .insertions = hand.insertions(),
          .guests = referee.guests(),
          .held = hand.held(),
          .chosen = selection.cards(),
          .chosen_rise = hover.options().chosen_rise,
          .flip_axis = feel().flip_axis.radians()};
}

FrameSources Rooms::frame_sources() const {
  return {.setup = setup(),
          .panels = panels,
          .schedule = schedule,
          .switches = switches,
          .arrangement = arrangement,
          .traffic = traffic,
          .hand = hand,
          .hover = hover,
          .focus = focus,
          .selection = selection,
          .referee = referee,
          .playable = playable,
          .feel = feel(),
          .corner_radius = client.corner_radius};
}

const Frame& Rooms::frame() {
  if (frames.is_current(frame_sources())) return frames.frame();
  frames.update(frame_sources());
  traffic.forget_moved();
  hits.follow(frames);
  return frames.frame();
}

std::optional<Hit> Rooms::over(Vec2 point) const {
  return HitView::over(point, setup(), arrangement, switches);
}

Hit Rooms::hit(Vec2 point) {
  if (const auto above = over(point)) return *above;
  (void)frame();
  if (const CardId card = hits.topmost(point, frames, traffic))
    return {.card = card, .zone = table().card(card)->zone};
  const auto shows = [&](auto what) { return !switches.is_hidden(what); };
  const ZoneId zone = arrangement.zone_at(point, shows);
  return {.zone = zone, .panel = zone ? PanelId{} : arrangement.panel_at(point, shows)};
}

void Rooms::start_effect(CardId card, const CardEffect& effect, EffectKind kind, ClockIndex clock) {
  const auto s = table().slot(card);
  if (s) traffic.start_effect(*s, effect_of(effect, kind, arrangement.card().width), clock);
}

}  // namespace apsidon::play_detail
