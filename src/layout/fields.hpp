#pragma once
// The options of every layout with their ranges: one list each for checking, reading and writing. Not
// installed.
#include <array>
#include <string_view>
#include <utility>

#include "apsidon/layout/plan.hpp"

namespace apsidon {

inline constexpr std::array<std::pair<std::string_view, Align>, 3> align_names{{
    {"start", Align::start},
    {"centre", Align::centre},
    {"end", Align::end},
}};

inline constexpr std::array<std::pair<std::string_view, Distribute>, 6> distribute_names{{
    {"start", Distribute::start},
    {"centre", Distribute::centre},
    {"end", Distribute::end},
    {"space-between", Distribute::space_between},
    {"space-around", Distribute::space_around},
    {"space-evenly", Distribute::space_evenly},
}};

// `fields(layout, visitor)` shows the visitor each option: number(key, value, least, most), least(key, value,
// most) for a least strip whose default is never above the preferred one, whole, truth, angle in degrees, and
// word.

template <class V>
void fields(SlotLayout&, V&) {}

template <class V>
void fields(FreeLayout&, V&) {}

template <class V>
void fields(PileLayout& l, V& v) {
  v.number("thickness", l.thickness, 0, 0.2);
  v.number("most_thickness", l.most_thickness, 0, 1);
  v.angle("untidy_angle_deg", l.untidy_angle, 0, 30);
  v.number("untidy_offset", l.untidy_offset, 0, 1);
  v.whole("last", l.last, 0, static_cast<int>(most_cards));
  v.seed("seed", l.seed);
}

template <class V>
void fields(ColumnLayout& l, V& v) {
  v.number("open_strip", l.open_strip, 0, 1);
  v.number("covered_strip", l.covered_strip, 0, 1);
  v.least("least_open_strip", l.least_open_strip, l.open_strip, 1);
  v.least("least_covered_strip", l.least_covered_strip, l.covered_strip, 1);
  v.number("look_strip", l.look_strip, 0, 1);
}

template <class V>
void fields(SpreadLayout& l, V& v) {
  v.number("spacing", l.spacing, 0, 4);
  v.least("least_spacing", l.least_spacing, l.spacing, 4);
  v.whole("last", l.last, 0, 100'000);
  v.word("align", l.align, align_names);
  v.number("lift", l.lift, 0, 2);
}

template <class V>
void fields(HandLayout& l, V& v) {
  v.number("spacing", l.spacing, 0.001, 4);
  v.least("least_spacing", l.least_spacing, l.spacing, 4);
  v.angle("step_deg", l.step, 0, 45);
  v.angle("largest_angle_deg", l.largest_angle, 0, 160);
  v.word("align", l.align, align_names);
  v.number("raise", l.raise, 0, 2);
  v.number("part", l.part, 0, 2);
}

template <class V>
void fields(GridLayout& l, V& v) {
  v.whole("columns", l.columns, 0, 10'000);
  v.whole("rows", l.rows, 0, 10'000);
  v.truth("keeps_cells", l.keeps_cells);
  v.number("gap", l.gap, 0, 4);
  v.number("row_gap", l.row_gap, 0, 4);
  v.word("across", l.across, distribute_names);
  v.word("down", l.down, distribute_names);
  v.truth("safe", l.safe);
  v.number("least_strip", l.least_strip, 0, 1);
}

template <class V>
void fields(RingLayout& l, V& v) {
  v.angle("start_deg", l.start, -360, 360);
  v.angle("sweep_deg", l.sweep, 0, 360);
  v.truth("turned", l.turned);
  v.truth("round", l.round);
  v.whole("cells", l.cells, 0, 1000);
  v.number("least_spacing", l.least_spacing, 0, 4);
}

inline constexpr std::array<std::pair<std::string_view, Facing>, 4> facing_names{{
    {"bottom", Facing::bottom},
    {"left", Facing::left},
    {"top", Facing::top},
    {"right", Facing::right},
}};

/// How a zone lies.
template <class V>
void fields(ZoneLayout& z, V& v) {
  v.layout("layout", z.kind);
  v.longest("longest", z.longest, z.longest_covered);
  v.word("off_table", z.off_table, facing_names);
  v.word("facing", z.facing, facing_names);
  v.number("factor", z.factor, 0.05, 20);
  v.truth("sideways", z.sideways);
  v.truth("scrolls", z.scrolls);
  v.truth("gives_up", z.gives_up);
  v.truth("snaps", z.snaps);
}

}  // namespace apsidon
