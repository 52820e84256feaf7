#pragma once
// The numbers and words of a feel with their ranges. Not installed.
#include <array>
#include <string_view>
#include <utility>

#include "apsidon/motion/feel.hpp"
#include "geometry/options.hpp"

namespace apsidon {

inline constexpr std::array<std::pair<std::string_view, DealOrder>, 2> deal_orders{
    {{"rounds", DealOrder::rounds}, {"zones", DealOrder::zones}}};
inline constexpr std::array<std::pair<std::string_view, StaggerBy>, 2> staggers{
    {{"order", StaggerBy::order}, {"distance", StaggerBy::distance}}};
inline constexpr std::array<std::pair<std::string_view, ShuffleLook>, 3> shuffle_looks{
    {{"riffle", ShuffleLook::riffle}, {"wash", ShuffleLook::wash}, {"straight", ShuffleLook::straight}}};

// `fields(thing, visitor)` shows the visitor each number and word of it: one list for checking, reading and
// writing.

template <class V>
void fields(Glide& g, V& v) {
  v.number("seconds", g.seconds, 0, 60);
  v.easing("curve", g.curve);
  v.spring("spring", g.spring);
  v.number("lift", g.lift, 0, 10);
  v.number("bend", g.bend, -4, 4);
  v.number("flip_from", g.flip_from, 0, 1);
  v.number("flip_to", g.flip_to, geometry_detail::decimal_of(g.flip_from), 1);
}

template <class V>
void fields(Choreography& c, V& v) {
  fields(c.glide, v);
  v.number("stagger", c.stagger, 0, 60);
  v.word("by", c.by, staggers);
  v.number("longest", c.longest, 0, 600);
  v.cues("cues", c.cues);
}

template <class V>
void fields(CardEffect& e, V& v) {
  v.number("seconds", e.seconds, 0, 60);
  v.number("swings", e.swings, 0, 100);
  v.number("width", e.width, 0, 10);
  v.angle("turn_deg", e.turn, -360, 360);
  v.number("growth", e.growth, -1, 10);
  v.number("brightness", e.brightness, -1, 10);
  v.number("lift", e.lift, 0, 10);
}

template <class V>
void fields(Spring& s, V& v) {
  v.number("period", s.period, 0.001, 60);
  v.number("damping", s.damping, 0.02, 20);
}

template <class V>
void fields(Feel& f, V& v) {
  v.text("name", f.name);
  v.part("move", f.move);
  v.part("shift", f.shift);
  v.part("flip", f.flip);
  v.angle("flip_axis_deg", f.flip_axis, -180, 180);
  v.part("back", f.back);
  v.part("carry", f.carry);
  v.number("carry_lift", f.carry_lift, 0, 10);
  v.angle("tilt_angle_deg", f.tilt_angle, 0, 90);
  v.number("tilt_speed", f.tilt_speed, 0.1, 1000);
  v.part("tilt", f.tilt);
  v.part("raise", f.raise);
  v.part("zoom", f.zoom);
  v.word("deal_order", f.deal_order, deal_orders);
  v.part("deal", f.deal);
  v.part("gather", f.gather);
  v.word("shuffle_look", f.shuffle_look, shuffle_looks);
  v.part("shuffle", f.shuffle);
  v.whole("shuffle_rounds", f.shuffle_rounds, 1, 10);
  v.part("draw", f.draw);
  v.part("reveal", f.reveal);
  v.part("collect", f.collect);
  v.part("finale", f.finale);
  v.number("finale_stay", f.finale_stay, 0, 60);
  v.number("badge", f.badge, 0.1, 1);
  v.part("shake", f.shake);
  v.part("pulse", f.pulse);
}

/// Throws Error when a number is out of its range.
inline void check(const CardEffect& effect) { geometry_detail::check_options("effect", effect); }

}  // namespace apsidon
