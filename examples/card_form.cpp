// Four cards in a form, without a table: what a programmer begins with who only needs one card.
#include <cstdio>
#include <vector>

#include "apsidon/draw/paint.hpp"
#include "apsidon/play/lone_card.hpp"

using namespace apsidon;

int main(int argc, char** argv) {
  const Deck deck({.suits = {{"fern", "green"}, {"poppy", "orange"}},
                   .ranks = {"1", "2", "3", "4", "5", "6", "7", "8", "9", "10", "11", "12", "13"}});
  const FaceId fern = *deck.find("fern-7");
  std::vector<LoneCard> form{
      LoneCard(deck, {.face = fern, .box = rect_at({24, 24}, {160, 224}), .flips = true}),
      LoneCard(deck, {.face = *deck.find("poppy-3"),
                      .face_up = false,
                      .box = rect_at({208, 24}, {160, 224}),
                      .flips = true}),
      LoneCard(deck,
               {.face = *deck.find("fern-12"), .sideways = true, .box = rect_at({392, 24}, {224, 224})}),
      LoneCard(deck,
               {.face = *deck.find("poppy-9"), .box = rect_at({640, 24}, {96, 224}), .fit = Fit::fill})};

  // The second is pressed; the first gets another face, the third is turned, the fourth cannot be used.
  const Vec2 at = form[1].box().centre();
  for (LoneCard& card : form) {
    card.pointer({.phase = PointerPhase::down, .at = at, .time = 1});
    card.pointer({.phase = PointerPhase::up, .at = at, .time = 1.05});
  }
  form[0].set_rank(12);
  form[0].set_focused(true);
  form[2].set_sideways(false);
  form[3].set_off(true);

  if (argc > 1) {
    std::vector<LoneCard> then = form;  // copies go on by themselves
    for (LoneCard& card : then) card.advance_to(1.13);
    paint(frame_of(then, {760, 272}, 2), deck, nullptr, Ground::transparent).write_png(argv[1]);
  }

  const Names names{.card = "{rank} of {suit}", .words = {{"13", "the last"}}};
  for (LoneCard& card : form) {
    std::printf("%s:\n", describe(card, names).c_str());
    while (const auto event = card.next_event(3)) {
      std::printf("  %.2f s  %s\n", event->time, std::string(name_of(event->kind)).c_str());
    }
  }
}
