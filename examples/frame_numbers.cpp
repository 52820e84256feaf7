// The numbers of a frame, drawn over it: what a renderer reads, where it lies, and what is made of it.
#include <array>
#include <cstdio>
#include <string>
#include <vector>

#include "apsidon/apsidon.hpp"
#include "apsidon/draw/draw_sketch.hpp"
#include "apsidon/draw/paint.hpp"

using namespace apsidon;

namespace {

std::string said(const char* what, float number) {
  std::array<char, 32> text{};
  std::snprintf(text.data(), text.size(), "%s %.2f", what, double{number});
  return text.data();
}

/// Corners by their index, each with its weight.
void corners(Sketch& sketch, const FrameItem& item) {
  const auto weights = corner_weights(item.corners);
  sketch.quad("hits", item.corners);
  for (std::size_t i = 0; i < 4; ++i) {
    const Vec2 at = item.corners.corners[i];
    sketch.point("neutral", at);
    sketch.label("areas", at + Vec2{i == 0 || i == 3 ? -44.0f : 6.0f, i < 2 ? -16.0f : 4.0f},
                 said(std::to_string(i).append(":").c_str(), weights[i]));
  }
}

/// A net of even shares of the card, as a texture would lie on it.
void shares(Sketch& sketch, const Quad& quad) {
  constexpr int lines = 6;
  for (int i = 0; i <= lines; ++i) {
    const float s = static_cast<float>(i) / lines;
    sketch.line("strips", point_in(quad, {s, 0}), point_in(quad, {s, 1}));
    sketch.line("strips", point_in(quad, {0, s}), point_in(quad, {1, s}));
  }
}

void shadow(Sketch& sketch, const FrameItem& item, const Shadow& shadow) {
  Quad below = item.corners;
  for (Vec2& corner : below.corners) corner = corner + shadow.offset;
  sketch.quad("insertion", below);
  const Vec2 at = item.corners.corners[2];
  sketch.label("areas", at + Vec2{8, -52}, said("lift", item.lift));
  sketch.label("areas", at + Vec2{8, -34}, said("down", shadow.offset.y) + " px");
  sketch.label("areas", at + Vec2{8, -16}, said("blur", shadow.blur) + " px");
  sketch.label("areas", at + Vec2{8, 2}, said("opacity", shadow.opacity));
}

TableSetup table() {
  TableSetup setup(Deck({.suits = {{"fern", "green"}, {"poppy", "orange"}},
                         .ranks = {"1", "2", "3", "4", "5", "6", "7", "8", "9", "10", "11", "12", "13"}}));
  std::vector<PlanNode> places;
  const auto place = [&](const ZoneSetup& zone_setup, const char* words, float share) {
    const ZoneId id = setup.add(zone_setup);
    const PanelId caption =
        setup.add_panel({.name = zone_setup.name + " ", .kind = PanelKind::caption, .text = words});
    places.push_back(down({zone(id, 1), panel(caption, {.px = 120}, {.px = 30})}));
    places.back().share = share;
  };
  const auto cards = [&](std::initializer_list<const char*> faces) {
    std::vector<CardOptions> all;
    for (const char* face : faces) all.push_back({.face = *setup.table.deck().find(face)});
    return all;
  };
  place({.name = "corners", .cards = cards({"fern-12"})}, "corners, weights", 1.3f);
  place({.name = "shares", .cards = cards({"poppy-11"})}, "point_in", 1);
  place({.name = "held", .rules = {.pick = {.kind = PickKind::any}}, .cards = cards({"fern-7"})},
        "lift, shadows_of", 1.4f);
  places.push_back(space(0.5f));  // for words
  place({.name = "taker", .rules = {.drop = rule::anything()}}, "marks", 0.8f);
  place({.name = "pile",
         .layout = {.kind = PileLayout{}, .longest = 14},
         .cards = cards({"fern-1", "fern-2", "fern-3", "fern-4", "fern-5", "fern-6", "poppy-1", "poppy-2"})},
        "squared", 0.8f);
  place({.name = "off", .cards = cards({"poppy-5"})}, "brightness", 0.8f);
  place({.name = "shelf",
         .layout = {.kind = SpreadLayout{.spacing = 1.08f, .least_spacing = 1.08f},
                    .longest = 9,
                    .scrolls = true},
         .cards = cards({"poppy-8", "fern-9", "poppy-10", "fern-11"})},
        "clip", 1.2f);
  setup.plans = {{.root = across(std::move(places), 0.2f), .margin = 44, .largest_width = 104}};
  return setup;
}

}  // namespace

/// PICTURE: where the PNG goes.
int main(int argc, char** argv) {
  Playfield field(table(), {.window = {1280, 330}});
  const auto card_in = [&](const char* zone) {
    return field.table().zone(*field.table().find_zone(zone))->cards.front();
  };
  field.switches().switch_off(card_in("off"));
  field.where().scroll_to(*field.table().find_zone("shelf"), 60);
  (void)field.edits().flip(card_in("corners"), false);
  (void)field.edits().flip(card_in("shares"), false);
  const Vec2 from = field.where().neutral_pose(card_in("held"))->centre;
  field.pointer({.phase = PointerPhase::down, .at = from, .time = 0.01});
  field.pointer({.phase = PointerPhase::move, .at = from + Vec2{-18, -16}, .time = 0.03});
  while (field.next_event(0.105)) continue;  // in the middle of the flips

  const Frame& frame = field.frame();
  Picture picture = paint(frame, field.table().deck());
  Sketch sketch;
  std::vector<Shadow> shadows;
  shadows_of(frame, shadows);
  for (std::size_t i = 0; i < frame.items.size(); ++i) {
    const FrameItem& item = frame.items[i];
    const std::string& zone = field.table().zone(item.zone)->name;
    const Vec2 below = item.corners.corners[3] + Vec2{4, -18};
    if (zone == "corners" && item.card) corners(sketch, item);
    if (zone == "shares" && item.card) shares(sketch, item.corners);
    if (item.marks.held) shadow(sketch, item, shadows[i]);
    if (zone == "taker")
      sketch.label("areas", item.corners.corners[0] + Vec2{8, 10},
                   item.marks.legal_target ? "legal_target" : "");
    if (zone == "pile" && item.card) {
      const float up = static_cast<float>(field.table().card(item.card)->index);
      sketch.label("areas", item.corners.corners[0] + Vec2{8, 126 - up * 17},
                   said("shadow", shadows[i].opacity));
    }
    if (zone == "off") sketch.label("areas", below, said("brightness", item.brightness));
    if (zone == "shelf" && item.card) sketch.box("hits", item.clip);
  }
  draw_sketch(sketch, picture);
  picture.write_png(argc > 1 ? argv[1] : "frame.png");
  std::printf("%zu items, revision %llu\n", frame.items.size(),
              static_cast<unsigned long long>(frame.revision));
}
