// What comes in: pointers, keys, the window, reasons; and the record of it.
#include <algorithm>
#include <cmath>
#include <type_traits>

#include "play/impl.hpp"

namespace apsidon {

void Playfield::Impl::record(const Input& input) {
  if (recorder) recorder(input);
}

bool Playfield::Impl::handle(const Gesture& gesture) {
  turn_to_drag_of(gesture.pointer);
  const bool dragged = carry.run.count > 0 && carry.mode == Carry::Mode::drag;
  const bool drags = dragged && carry.by == gesture.pointer;
  const bool moves = gesture.kind != GestureKind::hover && gesture.kind != GestureKind::leave &&
                     gesture.kind != GestureKind::cancel;
  // Where it was pressed or dragged to is where it hovers afterwards.
  if (moves && gesture.pointer_kind != PointerKind::touch && gesture.kind != GestureKind::press) {
    hover.at = gesture.at;
  }
  switch (gesture.kind) {
    case GestureKind::hover:
      hover_at(gesture);
      return false;
    case GestureKind::leave:
      leave();
      return false;
    case GestureKind::press:
      return press(gesture);
    case GestureKind::tap:
    case GestureKind::double_tap:
      return !dragged && tap(gesture);
    case GestureKind::long_press:
    case GestureKind::release: {
      const auto it = std::find_if(pressed.begin(), pressed.end(),
                                   [&](const Pressed& p) { return p.pointer == gesture.pointer; });
      if (dragged || it == pressed.end() || !setup.table.card(it->on.card)) return false;
      const bool begins = gesture.kind == GestureKind::long_press;
      if (begins) {
        note({.kind = EventKind::long_pressed,
              .time = gesture.time,
              .card = it->on.card,
              .count = 1,
              .from = it->on.zone,
              .at = gesture.at,
              .button = gesture.button});
      }
      // What hovers and zooms for a mouse does so for a finger that stays.
      if (gesture.pointer_kind == PointerKind::touch) show_zoom(begins ? it->on.card : CardId{});
      return true;
    }
    case GestureKind::drag_start:
      if (hover.zoomed) show_zoom({});
      return (!dragged || options.drag.several) && start_drag(gesture);
    case GestureKind::drag_move:
      if (!drags) return false;
      carry_to(gesture.at, gesture.time);
      return true;
    case GestureKind::drag_end:
    case GestureKind::flick:
      if (!drags) return false;
      carry_to(gesture.at, gesture.time);
      let_go(gesture);
      return true;
    case GestureKind::cancel:
      if (hover.zoomed && gesture.pointer_kind == PointerKind::touch) show_zoom({});
      if (!drags) return false;
      cancel_carry(gesture.at);
      return true;
  }
  return false;
}

/// A press goes to the card that the pointer hovers, else to the topmost that takes hits, else for fingers to
/// the nearest within slop.
bool Playfield::Impl::press(const Gesture& gesture) {
  std::erase_if(pressed, [&](const Pressed& p) { return p.pointer == gesture.pointer; });
  Hit on = hit(gesture.at);
  const Card* hovered = setup.table.card(hover.card);
  // While it waits to be hovered no more, the pointer has left it.
  if (hovered && gesture.pointer_kind != PointerKind::touch && gesture.at == hover.at && !hover.waits) {
    on = {.card = hovered->id, .zone = hovered->zone};
  } else if (!on.card && gesture.pointer_kind == PointerKind::touch) {
    refresh_hits();
    if (const auto tag = hits.nearest(gesture.at, options.thresholds.touch_slop)) {
      on = {.card = {*tag}, .zone = setup.table.card({*tag})->zone};
    }
  }
  pressed.push_back({gesture.pointer, on});
  if (on.zone && setup.handling[on.zone.value - 1].double_tap != TapKind::none) {
    gestures.want_double_tap(gesture.pointer);
  }
  return on.zone || on.panel;
}

void Playfield::Impl::close_gate(std::string_view reason) {
  if (std::find(gates.begin(), gates.end(), reason) != gates.end()) return;
  gates.emplace_back(reason);
  let_go_of_all();
  set_hovered({});
}

/// The pointer may have rested meanwhile: what it is on is hovered without a move.
void Playfield::Impl::open_gate(std::string_view reason) {
  std::erase(gates, reason);
  if (gates.empty() && hover.here) consider_hover();
}

void Playfield::Impl::let_go_of_all() {
  cancel_all();
  gestures.forget_all();
  pressed.clear();
}

void Playfield::Impl::blur() {
  let_go_of_all();
  leave();
}

bool Playfield::pointer(const PointerInput& input) {
  if (!is_finite(input.at) || !std::isfinite(input.time)) {
    ++impl_->ignored;
    return false;
  }
  impl_->record(input);
  impl_->advance_to(input.time);
  PointerInput timed = input;
  timed.time = now();
  if (!gate_open()) {
    // What goes down while the gate is closed does nothing when it opens.
    if (input.phase == PointerPhase::up || input.phase == PointerPhase::down)
      impl_->gestures.forget(input.pointer);
    impl_->follow_unseen(timed);
    return false;
  }
  bool used = false;
  // By number: what is said is read again while it is handled.
  const auto said = impl_->gestures.read(timed);
  for (std::size_t i = 0; i < said.size(); ++i) used = impl_->handle(said[i]) || used;
  return used;
}

bool Playfield::key(const KeyInput& input) {
  if (!std::isfinite(input.time)) {
    ++impl_->ignored;
    return false;
  }
  impl_->record(input);
  impl_->advance_to(input.time);
  return gate_open() && impl_->key(input);
}

void Playfield::blur(double time) {
  if (!std::isfinite(time)) {
    ++impl_->ignored;
    return;
  }
  impl_->record(BlurInput{time});
  impl_->advance_to(time);
  impl_->blur();
}

bool Playfield::input(const Input& input) {
  return std::visit(
      [&](const auto& i) {
        using Kind = std::decay_t<decltype(i)>;
        if constexpr (std::is_same_v<Kind, PointerInput>) {
          return pointer(i);
        } else if constexpr (std::is_same_v<Kind, KeyInput>) {
          return key(i);
        } else if constexpr (std::is_same_v<Kind, ResizeInput>) {
          resize(i.window, i.pixel_ratio, i.time, i.insets);
        } else if constexpr (std::is_same_v<Kind, BlurInput>) {
          blur(i.time);
        } else {
          if (!std::isfinite(i.time)) {
            ++impl_->ignored;
            return false;
          }
          impl_->advance_to(i.time);
          if constexpr (std::is_same_v<Kind, ReasonInput>) {
            if (i.what == ReasonInput::What::close_gate) close_gate(i.reason);
            if (i.what == ReasonInput::What::open_gate) open_gate(i.reason);
            if (i.what == ReasonInput::What::hold) hold(i.reason);
            if (i.what == ReasonInput::What::release) release(i.reason);
          } else if constexpr (std::is_same_v<Kind, AnswerInput>) {
            return answer(i.proposal, i.verdict).allowed();
          } else if constexpr (std::is_same_v<Kind, SyncInput>) {
            return sync(i.wanted).verdict.allowed();
          } else if constexpr (std::is_same_v<Kind, UndoInput>) {
            return (i.redo ? redo() : undo()).allowed();
          } else {
            start_round(i.seed);
          }
        }
        return true;
      },
      input);
}

void Playfield::set_recorder(Recorder recorder) { impl_->recorder = std::move(recorder); }

void Playfield::close_gate(std::string_view reason) {
  impl_->record(ReasonInput{ReasonInput::What::close_gate, std::string(reason), now()});
  impl_->close_gate(reason);
}
void Playfield::open_gate(std::string_view reason) {
  impl_->record(ReasonInput{ReasonInput::What::open_gate, std::string(reason), now()});
  impl_->open_gate(reason);
}
bool Playfield::gate_open() const { return impl_->gates.empty(); }
bool Playfield::gate_closed_for(std::string_view reason) const {
  return std::find(impl_->gates.begin(), impl_->gates.end(), reason) != impl_->gates.end();
}

void Playfield::hold(std::string_view reason) {
  impl_->record(ReasonInput{ReasonInput::What::hold, std::string(reason), now()});
  impl_->clock.hold(reason);
}
void Playfield::release(std::string_view reason) {
  impl_->record(ReasonInput{ReasonInput::What::release, std::string(reason), now()});
  impl_->clock.release(reason);
}

}  // namespace apsidon
