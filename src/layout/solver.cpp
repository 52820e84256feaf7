#include "layout/solver.hpp"

#include "layout/common.hpp"

namespace apsidon::layout_detail {
namespace {

bool sideways_facing(const ZoneLayout& place) {
  return place.facing == Facing::left || place.facing == Facing::right;
}

LayoutNeed need_of(const ZoneLayout& place) {
  const int cards = place.scrolls ? std::min(place.longest, 1) : place.longest;
  return {.cards = static_cast<std::size_t>(cards),
          .covered = static_cast<std::size_t>(std::min(place.longest_covered, cards)),
          .sideways = place.sideways};
}

Size turned_for(const ZoneLayout& place, Size s) {
  return sideways_facing(place) ? Size{s.height, s.width} : s;
}

Size least_of(const ZoneLayout& place, Size card) {
  return turned_for(place, least_size(place.layout, need_of(place), card * place.factor));
}

Size preferred_of(const ZoneLayout& place, Size card) {
  const LayoutNeed need{.cards = static_cast<std::size_t>(place.longest),
                        .covered = static_cast<std::size_t>(place.longest_covered),
                        .sideways = place.sideways};
  return turned_for(place, preferred_size(place.layout, need, card * place.factor));
}

/// Slots lie as far apart as the largest of them asks.
float factor_of(const PlanNode& formation, std::span<const ZoneLayout> places) {
  float factor = 0;
  for (const FormationSlot& slot : formation.slots)
    factor = std::max(factor, places[slot.zone.value - 1].factor);
  return factor;
}

/// The box around the slots of a formation; x in card widths, y in card heights.
Rect extent_of(const PlanNode& node, std::span<const ZoneLayout> places) {
  const float apart = factor_of(node, places);
  Rect r{{1e30f, 1e30f}, {-1e30f, -1e30f}};
  for (const FormationSlot& slot : node.slots) {
    const float half = places[slot.zone.value - 1].factor / 2;
    const Vec2 at = slot.at * apart;
    r.min = {std::min(r.min.x, at.x - half), std::min(r.min.y, at.y - half)};
    r.max = {std::max(r.max.x, at.x + half), std::max(r.max.y, at.y + half)};
  }
  return r;
}

/// Needs with their growth, unsnapped: what the search for the card works on.
struct Measure {
  std::span<const ZoneLayout> places;
  Size card;
  std::span<const Rect> units;

  Size least(ZoneId zone) const {
    const std::size_t i = zone.value - 1;
    if (units.empty()) return least_of(places[i], card);
    return {units[i].min.x * card.width, units[i].min.y * card.width};
  }

  /// Everything that is in proportion to the card: the slope is the value over the width.
  Grown scaled(float px) const { return {px, card.width > 0 ? px / card.width : 0}; }
  Grown of(const Length& l) const { return {l.cards * card.width + l.px, l.cards}; }
  static Grown sum(Grown a, Grown b) { return {a.px + b.px, a.slope + b.slope}; }
  static Grown larger(Grown a, Grown b) { return a.px > b.px || (a.px == b.px && a.slope > b.slope) ? a : b; }

  Need of(const PlanNode& node) const {
    switch (node.kind) {
      case PlanKind::zone: {
        const Size s = least(node.zone);
        return {scaled(s.width), scaled(s.height)};
      }
      case PlanKind::panel:
        return {of(node.width), of(node.height)};
      case PlanKind::space:
        return {of(node.space), of(node.space)};
      case PlanKind::formation: {
        const Rect e = extent_of(node, places);
        return {scaled(e.width() * card.width), scaled(e.height() * card.height)};
      }
      case PlanKind::layers: {
        Need most;
        for (const PlanNode& part : node.parts) {
          const Need need = of(part);
          most = {larger(most.width, need.width), larger(most.height, need.height)};
        }
        return most;
      }
      case PlanKind::across:
      case PlanKind::down:
        break;
    }
    const bool across = node.kind == PlanKind::across;
    const Grown gap = of(node.gap);
    const float gaps = static_cast<float>(node.parts.size() - 1);
    Grown along{gap.px * gaps, gap.slope * gaps};
    Grown cross;
    for (const PlanNode& part : node.parts) {
      const Need need = of(part);
      along = sum(along, larger(across ? need.width : need.height, of(part.least)));
      if (part.kind != PlanKind::space) cross = larger(cross, across ? need.height : need.width);
    }
    return across ? Need{along, cross} : Need{cross, along};
  }
};

/// What a node takes with its strips as narrow as they may be, and as wide as they like.
struct Sizes {
  Size least = {};
  Size preferred = {};
};
/// The same along its list.
struct Lengths {
  float least = 0;
  float preferred = 0;
};

/// Hands out what is left of a length, in whole device pixels: each gets what brings the sum nearest to what
/// it should be by then, and the last all of the rest. So equal parts differ by one device pixel at most, and
/// nothing is lost at the end.
class Handout {
 public:
  Handout(float all, float pixel_ratio) : all_(all), pixel_ratio_(pixel_ratio) {}

  float take(float exact, float most = 1e9f) {
    asked_ += exact;
    const float nearest = std::round(asked_ * pixel_ratio_) / pixel_ratio_;
    const float to = asked_ > all_ - 1e-3f ? all_ : std::min(nearest, all_);
    const float own = std::clamp(to - given_, 0.0f, most);
    given_ += own;
    return own;
  }

 private:
  float all_;
  float pixel_ratio_;
  float asked_ = 0;
  float given_ = 0;
};

/// Sizes for one card, in whole device pixels, and the areas that follow. O(nodes · depth).
struct Arrangement {
  std::span<const ZoneLayout> places;
  Size card;
  float pixel_ratio;
  const PlanAreas& out;
  bool rounds_up = false;  // what zones and formations take

  float whole(float px) const { return std::floor(px * pixel_ratio + 1e-4f) / pixel_ratio; }
  float up(float px) const { return rounds_up ? std::ceil(px * pixel_ratio - 1e-3f) / pixel_ratio : px; }
  Size up(Size size) const { return {up(size.width), up(size.height)}; }
  float of(const Length& l) const { return whole(l.cards * card.width) + whole(l.px); }

  /// Whether nothing of a node is to be seen now: a zone that gives up its place, or parts that all do.
  bool absent(const PlanNode& node) const {
    if (node.kind == PlanKind::zone) {
      const std::size_t i = node.zone.value - 1;
      return places[i].gives_up && i < out.empty.size() && out.empty[i] != 0;
    }
    bool any = false;
    for (const PlanNode& part : node.parts) {
      if (part.kind == PlanKind::space) continue;
      if (!absent(part)) return false;
      any = true;
    }
    return any;
  }

  Sizes sizes_of(const PlanNode& node) const {
    const auto always = [](Size size) { return Sizes{size, size}; };
    switch (node.kind) {
      case PlanKind::zone: {
        // A zone's sizes stand where its area will; they are never asked for once it is there.
        const Rect& sizes = out.areas[node.zone.value - 1];
        return {up({sizes.min.x, sizes.min.y}), up({sizes.max.x, sizes.max.y})};
      }
      case PlanKind::panel:
        return always({of(node.width), of(node.height)});
      case PlanKind::space:
        return always({of(node.space), of(node.space)});
      case PlanKind::formation: {
        const Rect e = extent_of(node, places);
        return always(up(Size{e.width() * card.width, e.height() * card.height}));
      }
      case PlanKind::layers: {
        Sizes most;
        const auto grow = [](Size& to, const Size& by) {
          to = {std::max(to.width, by.width), std::max(to.height, by.height)};
        };
        for (const PlanNode& part : node.parts) {
          const Sizes sizes = sizes_of(part);
          grow(most.least, sizes.least);
          grow(most.preferred, sizes.preferred);
        }
        return most;
      }
      case PlanKind::across:
      case PlanKind::down:
        break;
    }
    const bool across = node.kind == PlanKind::across;
    Lengths along;
    Lengths cross;
    float shown = 0;
    for (const PlanNode& part : node.parts) {
      if (absent(part)) continue;
      const Sizes sizes = sizes_of(part);
      const Lengths own = along_of(part, sizes, across);
      along.least += own.least;
      along.preferred += own.preferred;
      if (part.kind != PlanKind::space) {
        cross.least = std::max(cross.least, across ? sizes.least.height : sizes.least.width);
        cross.preferred = std::max(cross.preferred, across ? sizes.preferred.height : sizes.preferred.width);
      }
      ++shown;
    }
    const float gaps = of(node.gap) * std::max(shown - 1, 0.0f);
    const auto size = [&](float length, float width) {
      return across ? Size{length + gaps, width} : Size{width, length + gaps};
    };
    return {size(along.least, cross.least), size(along.preferred, cross.preferred)};
  }

  Lengths along_of(const PlanNode& part, const Sizes& sizes, bool across) const {
    const float least = across ? sizes.least.width : sizes.least.height;
    const float preferred = across ? sizes.preferred.width : sizes.preferred.height;
    const float floor = of(part.least);
    Lengths own{std::max(least, floor), std::max(preferred, floor)};
    if (part.most) own.preferred = std::min(own.preferred, std::max(of(*part.most), own.least));
    return own;
  }
  Lengths along_of(const PlanNode& part, bool across) const { return along_of(part, sizes_of(part), across); }

  void place(const PlanNode& node, const Rect& box) const {
    switch (node.kind) {
      case PlanKind::zone:
        out.areas[node.zone.value - 1] = box;
        return;
      case PlanKind::panel:
        out.panels[node.panel.value - 1] = box;
        return;
      case PlanKind::space:
        return;
      case PlanKind::formation:
        return place_formation(node, box);
      case PlanKind::across:
      case PlanKind::down:
        return place_list(node, box);
      case PlanKind::layers:
        for (const PlanNode& part : node.parts) place(part, part.place ? placed_in(part, box) : box);
        return;
    }
  }

  /// No larger than the part prefers, at its place in a box.
  Rect placed_in(const PlanNode& part, const Rect& box) const {
    const Size most = sizes_of(part).preferred;
    const Size size{std::min(most.width, box.width()), std::min(most.height, box.height())};
    const Vec2 at{whole(aligned(part.place->across, box.width(), size.width)),
                  whole(aligned(part.place->down, box.height(), size.height))};
    return rect_at(box.min + at, size);
  }

  void place_formation(const PlanNode& node, const Rect& box) const {
    const Rect extent = extent_of(node, places);
    const Vec2 middle = extent.centre();
    const float apart = factor_of(node, places);
    for (const FormationSlot& slot : node.slots) {
      const std::size_t i = slot.zone.value - 1;
      const Vec2 off = slot.at * apart - middle;
      const Vec2 at = box.centre() + Vec2{off.x * card.width, off.y * card.height};
      out.areas[i] = rect_around(at, card * places[i].factor);
    }
  }

  void place_list(const PlanNode& node, const Rect& box) const {
    const bool across = node.kind == PlanKind::across;
    const float gap = of(node.gap);
    float shown = 0;
    float least = 0;
    float preferred = 0;
    float shares = 0;
    for (const PlanNode& part : node.parts) {
      if (absent(part)) continue;
      const Lengths own = along_of(part, across);
      least += own.least;
      preferred += own.preferred;
      shares += part.share;
      ++shown;
    }
    const float length = across ? box.width() : box.height();
    const float rest = std::max(length - gap * std::max(shown - 1, 0.0f) - least, 0.0f);
    // First strips grow toward what they prefer, all alike; then shares take what is left.
    const float blend = preferred > least ? std::min(rest / (preferred - least), 1.0f) : 0;
    const float left = std::max(rest - (preferred - least) * blend, 0.0f);
    const float unit = unit_of_share(node, left, shares, blend);

    float at = across ? box.min.x : box.min.y;
    float wider = 0;  // each gap
    if (shares <= 0) {
      if (node.justify == Justify::centre) at += whole(left / 2);
      if (node.justify == Justify::end) at += whole(left);
      if (node.justify == Justify::spread && shown > 1) wider = left / (shown - 1);
    }
    Handout handout(shares > 0 || wider > 0 ? rest : rest - left, pixel_ratio);
    float placed = 0;
    for (const PlanNode& part : node.parts) {
      if (absent(part)) {
        put_away(part, across ? Vec2{at, box.min.y} : Vec2{box.min.x, at});
        continue;
      }
      const Lengths lengths = along_of(part, across);
      const float growth = (lengths.preferred - lengths.least) * blend;
      const float room = room_to_grow(part, lengths.least + growth);
      const float size =
          lengths.least + handout.take(growth + std::min(unit * part.share, room), growth + room);
      place(part, crossed(part,
                          across ? Rect{{at, box.min.y}, {at + size, box.max.y}}
                                 : Rect{{box.min.x, at}, {box.max.x, at + size}},
                          across));
      at += size + gap;
      if (++placed < shown && wider > 0) at += handout.take(wider);
    }
  }

  float grown(const PlanNode& part, bool across, float blend) const {
    const Lengths own = along_of(part, across);
    return own.least + (own.preferred - own.least) * blend;
  }

  float room_to_grow(const PlanNode& part, float own) const {
    return part.most ? std::max(of(*part.most) - own, 0.0f) : 1e9f;
  }

  /// What one share is worth: parts that may grow no further leave their part to the others.
  float unit_of_share(const PlanNode& node, float left, float shares, float blend) const {
    if (shares <= 0) return 0;
    const bool across = node.kind == PlanKind::across;
    float unit = left / shares;
    // Each round another part may be as large as it may get; of absurdly many the last few stay as they are.
    constexpr int most_rounds = 100;
    for (int round = 0; round < most_rounds; ++round) {
      float open = 0;
      float rest = left;
      for (const PlanNode& part : node.parts) {
        if (absent(part) || part.share <= 0) continue;
        const float most = room_to_grow(part, grown(part, across, blend));
        if (part.share * unit >= most) {
          rest -= most;
        } else {
          open += part.share;
        }
      }
      if (open <= 0) break;
      const float next = std::max(rest, 0.0f) / open;
      if (next <= unit) break;
      unit = next;
    }
    return unit;
  }

  /// A part that does not stretch is no larger across than it prefers.
  Rect crossed(const PlanNode& part, const Rect& box, bool across) const {
    if (part.cross == Cross::stretch) return box;
    const Size s = sizes_of(part).preferred;
    const float length = across ? box.height() : box.width();
    const float own = std::min(across ? s.height : s.width, length);
    const float at =
        part.cross == Cross::start ? 0 : whole(part.cross == Cross::end ? length - own : (length - own) / 2);
    Rect r = box;
    (across ? r.min.y : r.min.x) += at;
    (across ? r.max.y : r.max.x) = (across ? r.min.y : r.min.x) + own;
    return r;
  }

  /// Zones that gave up their place are a point where they would be: nothing aims at them or hits them, and
  /// what flies there has a goal.
  void put_away(const PlanNode& node, Vec2 at) const {
    if (node.kind == PlanKind::zone) out.areas[node.zone.value - 1] = {at, at};
    for (const PlanNode& part : node.parts) put_away(part, at);
  }
};

/// The whole device pixels within a box; the box itself where it has none.
Rect within_pixels(const Rect& box, float pixel_ratio) {
  constexpr float hair = 1e-3f;
  const auto low = [&](float px) { return std::ceil(px * pixel_ratio - hair) / pixel_ratio; };
  const auto high = [&](float px) { return std::floor(px * pixel_ratio + hair) / pixel_ratio; };
  const Rect whole{{low(box.min.x), low(box.min.y)}, {high(box.max.x), high(box.max.y)}};
  return whole.empty() ? box : whole;
}

}  // namespace

void measure_zones(std::span<const ZoneLayout> places, Size card, std::span<Rect> sizes) {
  for (std::size_t i = 0; i < places.size(); ++i) {
    const Size least = least_of(places[i], card);
    const Size preferred = preferred_of(places[i], card);
    sizes[i] = {{least.width, least.height}, {preferred.width, preferred.height}};
  }
}

Need need_of(const Plan& plan, std::span<const ZoneLayout> places, Size card, std::span<const Rect> units) {
  return Measure{places, card, units}.of(plan.root);
}

void arrange(const Plan& plan, std::span<const ZoneLayout> places, Size card, float pixel_ratio,
             const Rect& room, const Rect& window, const PlanAreas& out) {
  Arrangement arrangement{places, card, pixel_ratio, out, true};
  std::fill(out.panels.begin(), out.panels.end(), Rect{});
  // Rounding the card down has left some room, as a rule enough to give each part whole device pixels.
  const Rect whole_room = within_pixels(room, pixel_ratio);
  const Size need = arrangement.sizes_of(plan.root).least;
  constexpr float hair = 1e-3f;
  arrangement.rounds_up =
      need.width <= whole_room.width() + hair && need.height <= whole_room.height() + hair;
  arrangement.place(plan.root, arrangement.rounds_up ? whole_room : room);
  for (std::size_t i = 0; i < places.size(); ++i) {
    // Above the window, where nobody sees what lies there and what flies there goes.
    const Vec2 outside{(window.min.x + window.max.x) / 2, -2 * card.height};
    if (places[i].off_table) out.areas[i] = rect_around(outside, card * places[i].factor);
  }
  for (const Overlay& overlay : plan.overlays) {
    const auto along = [&](Align align, float length, float own) {
      return arrangement.whole(aligned(align, length, std::min(own, length)));
    };
    const Size size{std::min(arrangement.of(overlay.width), window.width()),
                    std::min(arrangement.of(overlay.height), window.height())};
    const Rect box = rect_at(window.min + Vec2{along(overlay.across, window.width(), size.width),
                                               along(overlay.down, window.height(), size.height)},
                             size);
    out.panels[overlay.panel.value - 1] = box;
    const float padding = std::min({arrangement.of(overlay.padding), size.width / 2, size.height / 2});
    arrangement.place(overlay.inside, grown(box, -padding));
  }
}

}  // namespace apsidon::layout_detail
