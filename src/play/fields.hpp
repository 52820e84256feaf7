#pragma once
// The options of the hand with their ranges. Not installed.
#include <array>
#include <string_view>
#include <utility>

#include "apsidon/play/handling.hpp"
#include "geometry/options.hpp"

namespace apsidon {

inline constexpr std::array<std::pair<std::string_view, Grip>, 2> grips{
    {{"keep", Grip::keep}, {"centre", Grip::centre}}};
inline constexpr std::array<std::pair<std::string_view, DragLook>, 2> drag_looks{
    {{"card", DragLook::card}, {"copy", DragLook::copy}}};
inline constexpr std::array<std::pair<std::string_view, Side>, 4> sides{
    {{"above", Side::above}, {"left", Side::left}, {"right", Side::right}, {"below", Side::below}}};
inline constexpr std::array<std::pair<std::string_view, ZoomedLook>, 3> zoomed_looks{
    {{"shown", ZoomedLook::shown}, {"dimmed", ZoomedLook::dimmed}, {"hidden", ZoomedLook::hidden}}};
inline constexpr std::array<std::pair<std::string_view, TapKind>, 5> tap_names{{
    {"none", TapKind::none},
    {"flip", TapKind::flip},
    {"pick", TapKind::pick},
    {"draw", TapKind::draw},
    {"send", TapKind::send},
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
  v.number("turn_deg", o.turn_deg, -180, 180);
  v.number("lift", o.lift, 0, 10);
  v.number("margin", o.margin, 0, 100);
  v.number("zoom_seconds", o.zoom_seconds, 0, 60);
  v.number("zoom", o.zoom, 1, 20);
  v.number("zoom_gap", o.zoom_gap, 0, 1000);
  v.words("zoom_sides", o.zoom_sides, sides);
  v.word("zoomed", o.zoomed, zoomed_looks);
}

}  // namespace apsidon
