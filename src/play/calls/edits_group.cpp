#include "apsidon/play/edits_group.hpp"

#include <utility>

#include "play/order/impl.hpp"

namespace apsidon {

using namespace play_detail;

namespace {

Verdict make(Impl* field, const Edit& edit) { return field->call(EditInput{.edit = edit}).verdict; }

}  // namespace

Verdict EditsGroup::move(const Run& run, ZoneId to, std::optional<std::size_t> at) {
  return make(field(), {.kind = EditKind::move, .run = run, .zone = to, .at = at});
}
Verdict EditsGroup::swap(CardId a, CardId b) {
  return make(field(), {.kind = EditKind::swap, .card = a, .other = b});
}
Verdict EditsGroup::flip(CardId card, bool face_up) {
  return make(field(), {.kind = EditKind::flip, .card = card, .on = face_up});
}
Verdict EditsGroup::set_sideways(CardId card, bool sideways) {
  return make(field(), {.kind = EditKind::set_sideways, .card = card, .on = sideways});
}
Verdict EditsGroup::set_face(CardId card, FaceId face) {
  return make(field(), {.kind = EditKind::set_face, .card = card, .face = face});
}
Verdict EditsGroup::set_cell(CardId card, int cell) {
  return make(field(), {.kind = EditKind::set_cell, .card = card, .cell = cell});
}
Verdict EditsGroup::set_position(CardId card, Vec2 at) {
  return make(field(), {.kind = EditKind::set_position, .card = card, .position = at});
}
Verdict EditsGroup::shuffle(ZoneId zone, std::uint64_t seed) {
  return make(field(), {.kind = EditKind::shuffle, .zone = zone, .seed = seed});
}
Verdict EditsGroup::scatter(ZoneId zone, std::uint64_t seed) {
  return make(field(), {.kind = EditKind::scatter, .zone = zone, .seed = seed});
}
Verdict EditsGroup::conceal(ZoneId zone) { return make(field(), {.kind = EditKind::conceal, .zone = zone}); }
Verdict EditsGroup::cut(ZoneId zone, std::size_t count) {
  return make(field(), {.kind = EditKind::cut, .zone = zone, .count = count});
}
Verdict EditsGroup::remove(CardId card) { return make(field(), {.kind = EditKind::remove, .card = card}); }
Verdict EditsGroup::set_number(std::string_view name, int value, const NumberOwner& of) {
  return make(field(), {.kind = EditKind::set_number,
                        .card = of.card,
                        .zone = of.zone,
                        .name = std::string(name),
                        .value = value,
                        .seat = of.seat});
}
Verdict EditsGroup::set_turn(std::span<const SeatId> seats) {
  return make(field(), {.kind = EditKind::set_turn, .seats = {seats.begin(), seats.end()}});
}
Verdict EditsGroup::mark_move() { return make(field(), {.kind = EditKind::mark_move}); }

Outcome EditsGroup::create(ZoneId zone, const CardOptions& options) {
  return field()->call(EditInput{.edit = {.kind = EditKind::create, .zone = zone, .made = options}});
}

SyncReport EditsGroup::sync(std::span<const WantedZone> wanted) {
  return field()->call(SyncInput{.wanted = {wanted.begin(), wanted.end()}}).report;
}

namespace {

/// Changes what a panel shows by `with`. Games say that whenever something happens: what it shows already is
/// no change.
template <class With>
Verdict show(play_detail::Impl& field, PanelId panel, With with) {
  PanelInput input{.panel = panel};
  if (const PanelSetup* now = field.panels.panel(panel)) {
    input.text = now->text;
    input.fill = now->fill;
    input.tone = now->tone;
    input.countdown = field.panels.countdown(panel);
  }
  with(input);
  if (field.panels.panel(panel) && field.panels.shows(input)) return {};
  return field.call(std::move(input)).verdict;
}

}  // namespace

Verdict EditsGroup::set_panel(PanelId panel, std::string text, float fill) {
  return show(*field(), panel, [&](PanelInput& input) {
    input.text = std::move(text);
    input.fill = fill;
  });
}

Verdict EditsGroup::set_tone(PanelId panel, PanelTone tone) {
  return show(*field(), panel, [&](PanelInput& input) { input.tone = tone; });
}

Verdict EditsGroup::bind_fill(PanelId panel, CountdownId countdown) {
  return show(*field(), panel, [&](PanelInput& input) { input.countdown = countdown; });
}

Verdict EditsGroup::set_behaviour(ZoneId zone, const ZoneBehaviour& behaviour) {
  return field()->call(BehaviourInput{.zone = zone, .behaviour = behaviour}).verdict;
}

Verdict EditsGroup::set_plans(std::vector<Plan> plans) {
  return field()->call(PlansInput{.plans = std::move(plans)}).verdict;
}

}  // namespace apsidon
