// The areas of a plan for one card.
#include <array>

#include "layout/common.hpp"
#include "layout/solver.hpp"

namespace apsidon::layout_detail {
namespace {

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
  bool rounds_up = false;  // what formations take; zones are rounded where their sizes stand

  float whole(float px) const { return std::floor(px * pixel_ratio + 1e-4f) / pixel_ratio; }
  float up(float px) const { return std::ceil(px * pixel_ratio - 1e-3f) / pixel_ratio; }
  void round_sizes_up() const {
    for (Rect& sizes : out.areas)
      sizes = {{up(sizes.min.x), up(sizes.min.y)}, {up(sizes.max.x), up(sizes.max.y)}};
  }
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
        return {{sizes.min.x, sizes.min.y}, {sizes.max.x, sizes.max.y}};
      }
      case PlanKind::panel:
        return always({of(node.width), of(node.height)});
      case PlanKind::space:
        return always({of(node.space), of(node.space)});
      case PlanKind::formation: {
        const Rect e = extent_of(node, places);
        const Size size{e.width() * card.width, e.height() * card.height};
        return always(rounds_up ? Size{up(size.width), up(size.height)} : size);
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
        return place_list(node, box, list_sizes(node));
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
    for (const FormationSlot& slot : node.places) {
      const std::size_t i = slot.zone.value - 1;
      const Vec2 off = slot.at * apart - middle;
      const Vec2 at = box.centre() + Vec2{off.x * card.width, off.y * card.height};
      out.areas[i] = rect_around(at, card * places[i].factor);
    }
  }

  /// What a list takes. What its first parts take is kept: it is asked for again.
  struct ListSizes {
    Lengths along = {};
    float cross_least = 0;
    float gaps = 0;
    float shares = 0;
    std::size_t shown = 0;
    std::array<Lengths, 24> parts;
  };

  ListSizes list_sizes(const PlanNode& node) const {
    const bool across = node.kind == PlanKind::across;
    ListSizes list;
    for (std::size_t i = 0; i < node.parts.size(); ++i) {
      const PlanNode& part = node.parts[i];
      if (absent(part)) continue;
      const Sizes sizes = sizes_of(part);
      const Lengths own = along_of(part, sizes, across);
      if (i < list.parts.size()) list.parts[i] = own;
      list.along.least += own.least;
      list.along.preferred += own.preferred;
      if (part.kind != PlanKind::space)
        list.cross_least = std::max(list.cross_least, across ? sizes.least.height : sizes.least.width);
      list.shares += part.share;
      ++list.shown;
    }
    list.gaps = list.shown > 1 ? of(node.gap) * static_cast<float>(list.shown - 1) : 0;
    return list;
  }
  Lengths part_of_list(const PlanNode& node, const ListSizes& list, std::size_t i) const {
    return i < list.parts.size() ? list.parts[i] : along_of(node.parts[i], node.kind == PlanKind::across);
  }

  void place_list(const PlanNode& node, const Rect& box, const ListSizes& list) const {
    const bool across = node.kind == PlanKind::across;
    const float gap = of(node.gap);
    const auto [least, preferred] = list.along;
    const float shares = list.shares;
    const float length = across ? box.width() : box.height();
    const float rest = std::max(length - list.gaps - least, 0.0f);
    // First strips grow toward what they prefer, all alike; then shares take what is left.
    const float blend = preferred > least ? std::min(rest / (preferred - least), 1.0f) : 0;
    const float left = std::max(rest - (preferred - least) * blend, 0.0f);
    const float unit = unit_of_share(node, left, list, blend);

    float at = across ? box.min.x : box.min.y;
    float wider = 0;  // each gap
    if (shares <= 0) {
      if (node.justify == Justify::centre) at += whole(left / 2);
      if (node.justify == Justify::end) at += whole(left);
      if (node.justify == Justify::spread && list.shown > 1)
        wider = left / static_cast<float>(list.shown - 1);
    }
    Handout handout(shares > 0 || wider > 0 ? rest : rest - left, pixel_ratio);
    std::size_t placed = 0;
    for (std::size_t i = 0; i < node.parts.size(); ++i) {
      const PlanNode& part = node.parts[i];
      if (absent(part)) {
        put_away(part, across ? Vec2{at, box.min.y} : Vec2{box.min.x, at});
        continue;
      }
      const Lengths lengths = part_of_list(node, list, i);
      const float growth = (lengths.preferred - lengths.least) * blend;
      const float room = room_to_grow(part, lengths.least + growth);
      const float size =
          lengths.least + handout.take(growth + std::min(unit * part.share, room), growth + room);
      place(part, crossed(part,
                          across ? Rect{{at, box.min.y}, {at + size, box.max.y}}
                                 : Rect{{box.min.x, at}, {box.max.x, at + size}},
                          across));
      at += size + gap;
      if (++placed < list.shown && wider > 0) at += handout.take(wider);
    }
  }

  float room_to_grow(const PlanNode& part, float own) const {
    return part.most ? std::max(of(*part.most) - own, 0.0f) : 1e9f;
  }

  /// What one share is worth: parts that may grow no further leave their part to the others.
  float unit_of_share(const PlanNode& node, float left, const ListSizes& list, float blend) const {
    const float shares = list.shares;
    if (shares <= 0) return 0;
    float unit = left / shares;
    // Each round another part may be as large as it may get; of absurdly many the last few stay as they are.
    constexpr int most_rounds = 100;
    for (int round = 0; round < most_rounds; ++round) {
      float open = 0;
      float rest = left;
      for (std::size_t i = 0; i < node.parts.size(); ++i) {
        const PlanNode& part = node.parts[i];
        if (absent(part) || part.share <= 0) continue;
        const Lengths own = part_of_list(node, list, i);
        const float most = room_to_grow(part, own.least + (own.preferred - own.least) * blend);
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

void arrange(const Plan& plan, std::span<const ZoneLayout> places, Size card, float pixel_ratio,
             const Rect& room, const Rect& window, const PlanAreas& out) {
  Arrangement arrangement{places, card, pixel_ratio, out, true};
  arrangement.round_sizes_up();
  std::fill(out.panels.begin(), out.panels.end(), Rect{});
  // Rounding the card down has left some room, as a rule enough to give each part whole device pixels.
  const Rect whole_room = within_pixels(room, pixel_ratio);
  constexpr float hair = 1e-3f;
  const auto fits = [&](Size need) {
    return need.width <= whole_room.width() + hair && need.height <= whole_room.height() + hair;
  };
  const bool across = plan.root.kind == PlanKind::across;
  if (across || plan.root.kind == PlanKind::down) {
    // The root is measured once for both questions.
    const auto list = arrangement.list_sizes(plan.root);
    const float along = list.along.least + list.gaps;
    arrangement.rounds_up = fits(across ? Size{along, list.cross_least} : Size{list.cross_least, along});
    if (arrangement.rounds_up) arrangement.place_list(plan.root, whole_room, list);
  } else {
    arrangement.rounds_up = fits(arrangement.sizes_of(plan.root).least);
    if (arrangement.rounds_up) arrangement.place(plan.root, whole_room);
  }
  if (!arrangement.rounds_up) {
    measure_zones(places, card, out.areas);
    arrangement.place(plan.root, room);
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
