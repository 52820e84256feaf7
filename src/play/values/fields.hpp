#pragma once
// The options of the hand and of zones with their ranges. Not installed.
#include <array>
#include <string_view>
#include <utility>

#include "apsidon/play/handling.hpp"
#include "apsidon/play/zone_behaviour.hpp"
#include "geometry/options.hpp"
#include "layout/fields.hpp"
#include "rules/fields.hpp"

namespace apsidon {

inline constexpr std::array<std::pair<std::string_view, Grip>, 2> grips{
    {{"keep", Grip::keep}, {"centre", Grip::centre}}};
inline constexpr std::array<std::pair<std::string_view, DragLook>, 2> drag_looks{
    {{"card", DragLook::card}, {"copy", DragLook::copy}}};
inline constexpr std::array<std::pair<std::string_view, ZoomSide>, 4> sides{{{"above", ZoomSide::above},
                                                                             {"left", ZoomSide::left},
                                                                             {"right", ZoomSide::right},
                                                                             {"below", ZoomSide::below}}};
inline constexpr std::array<std::pair<std::string_view, ZoomedLook>, 3> zoomed_looks{
    {{"shown", ZoomedLook::shown}, {"dimmed", ZoomedLook::dimmed}, {"hidden", ZoomedLook::hidden}}};
inline constexpr std::array<std::pair<std::string_view, TapKind>, 8> tap_names{{
    {"none", TapKind::none},
    {"flip", TapKind::flip},
    {"reorient", TapKind::reorient},
    {"select", TapKind::select},
    {"select-one", TapKind::select_one},
    {"pick", TapKind::pick},
    {"draw", TapKind::draw},
    {"send", TapKind::send},
}};

inline constexpr std::array<std::pair<std::string_view, PlayableLook>, 3> playable_names{
    {{"none", PlayableLook::none}, {"mark", PlayableLook::mark}, {"dim", PlayableLook::dim}}};

/// A double tap does not pick up: it could not be held.
inline constexpr std::array<std::pair<std::string_view, TapKind>, 7> double_tap_names{{
    {"none", TapKind::none},
    {"flip", TapKind::flip},
    {"reorient", TapKind::reorient},
    {"select", TapKind::select},
    {"select-one", TapKind::select_one},
    {"draw", TapKind::draw},
    {"send", TapKind::send},
}};
inline constexpr std::array<std::pair<std::string_view, HoverKind>, 3> hover_names{{
    {"none", HoverKind::none},
    {"lift", HoverKind::lift},
    {"raise", HoverKind::raise},
}};

// `fields(thing, visitor)` shows the visitor each number and word of it: one list for checking, reading and
// writing.

template <class V>
void fields(DragOptions& o, V& v) {
  v.word("grip", o.grip, grips);
  v.word("look", o.look, drag_looks);
  v.truth("several", o.several);
  v.number("above_finger", o.above_finger, 0, 4);
  v.number("copy_opacity", o.copy_opacity, 0, 1);
  v.number("held_opacity", o.held_opacity, 0, 1);
  v.number("aim_overlap", o.aim_overlap, 0, 1);
  v.number("swipe", o.swipe, 0, 100);
}

template <class V>
void fields(HoverOptions& o, V& v) {
  v.number("in_seconds", o.in_seconds, 0, 10);
  v.number("out_seconds", o.out_seconds, 0, 10);
  v.number("rise", o.rise, -4, 4);
  v.number("growth", o.growth, -1, 10);
  v.angle("turn_deg", o.turn, -180, 180);
  v.number("lift", o.lift, 0, 10);
  v.number("chosen_rise", o.chosen_rise, -4, 4);
  v.number("margin", o.margin, 0, 100);
  v.number("zoom_seconds", o.zoom_seconds, 0, 60);
  v.number("zoom", o.zoom, 1, 20);
  v.number("zoom_gap", o.zoom_gap, 0, 1000);
  v.words("zoom_sides", o.zoom_sides, sides);
  v.word("zoomed", o.zoomed, zoomed_looks);
}

/// What a player's hand may do with a zone.
template <class V>
void fields(ZoneHandling& h, V& v) {
  v.word("hover", h.hover, hover_names);
  v.truth("zoom", h.zoom);
  v.truth("zooms_beside_zone", h.zooms_beside_zone);
  v.truth("closes_gaps", h.closes_gaps);
  v.word("tap", h.tap, tap_names);
  v.word("double_tap", h.double_tap, double_tap_names);
  v.flicks("flick_to", h.flick_to);
  v.word("playable", h.playable, playable_names);
}

/// All that can be changed of a zone while a playfield runs.
template <class V>
void fields(ZoneBehaviour& b, V& v) {
  fields(b.layout, v);
  fields(b.rules, v);
  fields(b.handling, v);
}

/// Throws Error when an option is out of its range.
inline void check(const DragOptions& options) { geometry_detail::check_options("drag", options); }
inline void check(const HoverOptions& options) { geometry_detail::check_options("hover", options); }

}  // namespace apsidon
