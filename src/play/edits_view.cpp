#include "apsidon/play/edits_view.hpp"

#include <utility>

#include "play/impl.hpp"

namespace apsidon {

Verdict EditsCalls::make(const Edit& edit) { return field_->call(EditInput{.edit = edit}).verdict; }

Verdict EditsCalls::move(const Run& run, ZoneId to, std::optional<std::size_t> at) {
  return make({.kind = EditKind::move, .run = run, .zone = to, .at = at});
}
Verdict EditsCalls::swap(CardId a, CardId b) { return make({.kind = EditKind::swap, .card = a, .other = b}); }
Verdict EditsCalls::flip(CardId card, bool face_up) {
  return make({.kind = EditKind::flip, .card = card, .on = face_up});
}
Verdict EditsCalls::set_sideways(CardId card, bool sideways) {
  return make({.kind = EditKind::set_sideways, .card = card, .on = sideways});
}
Verdict EditsCalls::set_face(CardId card, FaceId face) {
  return make({.kind = EditKind::set_face, .card = card, .face = face});
}
Verdict EditsCalls::set_cell(CardId card, int cell) {
  return make({.kind = EditKind::set_cell, .card = card, .cell = cell});
}
Verdict EditsCalls::set_position(CardId card, Vec2 at) {
  return make({.kind = EditKind::set_position, .card = card, .position = at});
}
Verdict EditsCalls::shuffle(ZoneId zone, std::uint64_t seed) {
  return make({.kind = EditKind::shuffle, .zone = zone, .seed = seed});
}
Verdict EditsCalls::scatter(ZoneId zone, std::uint64_t seed) {
  return make({.kind = EditKind::scatter, .zone = zone, .seed = seed});
}
Verdict EditsCalls::conceal(ZoneId zone) { return make({.kind = EditKind::conceal, .zone = zone}); }
Verdict EditsCalls::cut(ZoneId zone, std::size_t count) {
  return make({.kind = EditKind::cut, .zone = zone, .count = count});
}
Verdict EditsCalls::remove(CardId card) { return make({.kind = EditKind::remove, .card = card}); }
void EditsCalls::mark_move() { (void)make({.kind = EditKind::mark_move}); }

CreateReport EditsCalls::create(ZoneId zone, const CardOptions& options) {
  const auto outcome =
      field_->call(EditInput{.edit = {.kind = EditKind::create, .zone = zone, .made = options}});
  return {outcome.verdict, {static_cast<std::uint32_t>(outcome.id)}};
}

SyncReport EditsCalls::sync(std::span<const WantedZone> wanted) {
  return field_->call(SyncInput{.wanted = {wanted.begin(), wanted.end()}}).report;
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

Verdict EditsCalls::set_panel(PanelId panel, std::string text, float fill) {
  return show(*field_, panel, [&](PanelInput& input) {
    input.text = std::move(text);
    input.fill = fill;
  });
}

Verdict EditsCalls::set_tone(PanelId panel, PanelTone tone) {
  return show(*field_, panel, [&](PanelInput& input) { input.tone = tone; });
}

Verdict EditsCalls::bind_fill(PanelId panel, CountdownId countdown) {
  return show(*field_, panel, [&](PanelInput& input) { input.countdown = countdown; });
}

Verdict EditsCalls::set_behaviour(ZoneId zone, const ZoneBehaviour& behaviour) {
  return field_->call(BehaviourInput{.zone = zone, .behaviour = behaviour}).verdict;
}

Verdict EditsCalls::set_plans(std::vector<Plan> plans) {
  return field_->call(PlansInput{.plans = std::move(plans)}).verdict;
}

}  // namespace apsidon
