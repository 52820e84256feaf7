#pragma once
// Somebody who plays: turns what is to be done into what a mouse, a finger or keys would send.
#include <algorithm>
#include <optional>

#include "game.hpp"

namespace games {

enum class Means { mouse, touch, keys };

class Player {
 public:
  Player(Game& game, Means means) : game_(game), means_(means) {}
  Player(const Player&) = delete;
  Player& operator=(const Player&) = delete;
  virtual ~Player() = default;

  [[nodiscard]] double now() const { return time_; }

  /// Waits until all is at rest and the gate is open, a minute at the most.
  void settle() {
    for (int i = 0; i < 1800; ++i) {
      wait(1.0 / 30);
      if (game_.over() ||
          (game_.field().time().settles_at() <= game_.field().now() && game_.field().gate().is_open()))
        return;
    }
  }
  virtual void wait(double seconds) {
    time_ += seconds;
    game_.go_to(time_);
  }

  /// Returns whether it lies there afterwards.
  bool move(CardId card, ZoneId to) {
    settle();
    if (means_ == Means::keys) {
      if (!focus([&](const Hit& hit) { return hit.card == card; })) return false;
      key(Key::act);
      if (!focus([&](const Hit& hit) { return hit.zone == to; })) return false;
      key(Key::act);
    } else {
      const auto from = reach(card);
      const auto goal = game_.field().where().next_pose(to);
      if (!from || !goal) return false;
      point(PointerPhase::down, *from);
      // The run is held by its lowest card, and by a finger above it.
      Vec2 grip = game_.field().where().live_pose(card)->centre - *from;
      if (means_ == Means::touch)
        grip.y -= DragOptions{}.above_finger * game_.field().where().card_size().height;
      const Vec2 end = goal->centre - grip;
      for (int i = 1; i <= 4; ++i)
        point(PointerPhase::move, *from + (end - *from) * (static_cast<float>(i) / 4));
      wait(0.1);
      point(PointerPhase::move, end);
      point(PointerPhase::up, end);
    }
    const Card* there = game_.field().table().card(card);
    return there && there->zone == to;
  }

  /// Flicks a card upward; keys cannot, and move it.
  bool flick(CardId card, ZoneId to) {
    if (means_ == Means::keys) return move(card, to);
    settle();
    const auto from = reach(card);
    if (!from) return false;
    point(PointerPhase::down, *from);
    for (int i = 1; i <= 4; ++i)
      point(PointerPhase::move, *from - Vec2{0, 32.0f * static_cast<float>(i)}, 0.01);
    point(PointerPhase::up, *from - Vec2{0, 160}, 0.01);
    const Card* there = game_.field().table().card(card);
    return there && there->zone == to;
  }

  bool tap(CardId card) {
    settle();
    if (means_ == Means::keys) {
      return focus([&](const Hit& hit) { return hit.card == card; }) && key(Key::act);
    }
    const auto at = reach(card);
    return at && tap_at(*at);
  }
  bool tap(ZoneId zone) {
    settle();
    if (means_ == Means::keys) {
      return focus([&](const Hit& hit) { return hit.zone == zone; }) && key(Key::act);
    }
    return tap_at(game_.field().where().outline(zone)->centre);
  }
  bool tap(PanelId panel) {
    settle();
    if (means_ == Means::keys) {
      return focus([&](const Hit& hit) { return hit.panel == panel; }) && key(Key::act);
    }
    return tap_at(game_.field().where().panel_area(panel)->centre());
  }

  /// The window goes into the background for a while, and comes back.
  void look_away(double seconds) {
    wait(0.01);
    send(BlurInput{time_});
    send(ReasonInput{.what = ReasonInput::What::hold, .reason = "background", .time = time_});
    wait(seconds);
    send(ReasonInput{.what = ReasonInput::What::release, .reason = "background", .time = time_});
  }

 protected:
  /// By hand into the game; a player at a real window has a real pointer and real keys.
  virtual bool send(const Input& input) {
    const bool used = game_.input(input);
    game_.go_to(time_);
    return used;
  }
  [[nodiscard]] Means means() const { return means_; }

 private:
  bool point(PointerPhase phase, Vec2 at, double after = 0.02) {
    wait(after);
    return send(PointerInput{.phase = phase,
                             .at = at,
                             .time = time_,
                             .kind = means_ == Means::touch ? PointerKind::touch : PointerKind::mouse});
  }
  bool tap_at(Vec2 at) {
    if (means_ == Means::mouse) point(PointerPhase::move, at);
    point(PointerPhase::down, at);
    return point(PointerPhase::up, at);
  }
  bool key(Key key) {
    wait(0.05);
    return send(KeyInput{.key = key, .time = time_});
  }
  /// Goes around all places until the focus is on a wanted one.
  template <class Wanted>
  bool focus(Wanted wanted) {
    for (int i = 0; i < 200; ++i) {
      if (wanted(game_.field().hand().focused())) return true;
      key(Key::next);
    }
    return false;
  }
  /// A point where the card takes the press; a mouse goes there, and looks whether it has the card.
  std::optional<Vec2> reach(CardId card) {
    const auto pose = game_.field().where().resting_pose(card);
    if (!pose) return std::nullopt;
    const Size size = game_.field().where().card_size();
    for (const float y : {0.0f, -0.45f, 0.45f, -0.25f, 0.25f}) {
      for (const float x : {0.0f, -0.42f, 0.42f, -0.3f, 0.3f}) {
        const Vec2 at = pose->centre + Vec2{x * size.width, y * size.height};
        if (means_ == Means::touch) {
          if (game_.field().where().hit(at).card == card) return at;
          continue;
        }
        if (game_.field().where().hit(at).card != card && game_.field().hand().hovered() != card) continue;
        point(PointerPhase::move, at);
        wait(0.3);
        const CardId over = game_.field().hand().hovered() ? game_.field().hand().hovered()
                                                           : game_.field().where().hit(at).card;
        if (over == card) return at;
      }
    }
    return std::nullopt;
  }

  Game& game_;
  Means means_;
  double time_ = 0;
};

}  // namespace games
