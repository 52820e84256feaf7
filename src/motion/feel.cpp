#include "apsidon/motion/feel.hpp"

#include "geometry/options.hpp"
#include "motion/fields.hpp"
#include "motion/inside.hpp"

namespace apsidon {
namespace {

/// All glides of a feel, those within choreographies too.
template <class With>
void each_glide(Feel& feel, With with) {
  for (Glide* glide : {&feel.move.glide, &feel.shift, &feel.flip, &feel.back, &feel.carry, &feel.deal.glide,
                       &feel.gather.glide, &feel.shuffle.glide, &feel.draw.glide, &feel.reveal.glide,
                       &feel.collect.glide, &feel.finale.glide, &feel.raise, &feel.zoom}) {
    with(*glide);
  }
}

/// The share of a glide's time after which a card that flips is edge-on; of a spring it is not looked for.
float edge_share(const Glide& glide) {
  if (glide.spring || glide.flip_from > 0 || glide.flip_to < 1) return (glide.flip_from + glide.flip_to) / 2;
  // The first time that the curve has come half its way: found between two looks, then halved.
  constexpr int looks = 48;
  for (int i = 1; i <= looks; ++i) {
    float high = static_cast<float>(i) / looks;
    if (glide.curve.value(high) < 0.5f) continue;
    float low = high - 1.0f / looks;
    for (int k = 0; k < 24; ++k) {
      const float middle = (low + high) / 2;
      (glide.curve.value(middle) < 0.5f ? low : high) = middle;
    }
    return high;
  }
  return 1;
}

}  // namespace

Effect effect_of(const CardEffect& e, EffectKind kind, float card_width) {
  return {.kind = kind,
          .seconds = e.seconds,
          .swings = e.swings,
          .most = {.move = {e.width * card_width, 0},
                   .rotation = e.turn.radians(),
                   .scale = e.growth,
                   .brightness = e.brightness,
                   .lift = e.lift}};
}

void check(const Feel& feel) { geometry_detail::check_options("feel", feel); }

Feel springy() {
  Feel feel{.name = "springy"};
  const auto on = [](Glide& glide, float period, float damping) { glide.spring = Spring{period, damping}; };
  on(feel.move.glide, 0.42f, 0.72f);
  on(feel.shift, 0.34f, 0.75f);
  on(feel.flip, 0.4f, 0.7f);
  on(feel.back, 0.4f, 0.62f);
  on(feel.carry, 0.12f, 0.8f);
  on(feel.raise, 0.26f, 0.65f);
  on(feel.zoom, 0.3f, 0.7f);
  on(feel.deal.glide, 0.5f, 0.7f);
  on(feel.gather.glide, 0.5f, 0.8f);
  on(feel.shuffle.glide, 0.26f, 0.8f);
  on(feel.draw.glide, 0.44f, 0.75f);
  on(feel.reveal.glide, 0.4f, 0.7f);
  on(feel.finale.glide, 1.2f, 0.8f);
  feel.move.stagger = 0.03f;
  feel.shake = {.seconds = 0.5f, .swings = 3, .width = 0.08f, .turn = Angle::degrees(2.5)};
  feel.pulse = {.seconds = 0.8f, .swings = 2, .growth = 0.08f, .lift = 0.25f};
  return feel;
}

Feel calm() {
  Feel feel{.name = "calm"};
  each_glide(feel, [](Glide& glide) {
    glide.seconds *= 1.6f;
    glide.lift *= 0.6f;
    glide.curve = Easing::parse("sine-in-out");
  });
  feel.carry.seconds = 0.1f;
  feel.carry.curve = ease_out;
  for (Choreography* c : {&feel.deal, &feel.gather, &feel.draw, &feel.reveal, &feel.collect, &feel.finale}) {
    c->stagger *= 1.5f;
  }
  feel.shuffle_look = ShuffleLook::wash;
  feel.shuffle_rounds = 1;
  feel.shuffle.glide.seconds = 0.7f;
  feel.shake = {.seconds = 0.5f, .swings = 2, .width = 0.04f};
  feel.pulse = {.seconds = 1.2f, .swings = 1, .brightness = 0.15f, .lift = 0.1f};
  return feel;
}

Feel reduced(const Feel& feel) {
  Feel out = feel;
  out.name = feel.name + ", reduced";
  each_glide(out, [](Glide& glide) {
    glide.flip_from = glide.flip_to = edge_share(glide);
    glide.seconds = motion_detail::travel_seconds(glide);
    glide.spring.reset();
    glide.curve = Easing::parse("step-end");
    glide.lift = glide.bend = 0;
  });
  out.carry.seconds = 0;
  out.carry_lift = 0;
  out.tilt_angle = {};
  for (CardEffect* effect : {&out.shake, &out.pulse}) {
    effect->width = effect->growth = effect->lift = 0;
    effect->turn = {};
  }
  return out;
}

}  // namespace apsidon
