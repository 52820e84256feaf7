#include "apsidon/play/lone_card.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <utility>

#include "apsidon/geometry/error.hpp"
#include "apsidon/geometry/limits.hpp"
#include "apsidon/hit/hit_index.hpp"
#include "geometry/fit_in.hpp"
#include "geometry/options.hpp"
#include "geometry/pi.hpp"
#include "geometry/shown_card.hpp"
#include "gesture/fields.hpp"
#include "motion/easing_kinds.hpp"
#include "motion/first_change.hpp"
#include "rules/sentence.hpp"

namespace apsidon {
namespace {

bool is_finite(const Rect& r) {
  return std::isfinite(r.min.x) && std::isfinite(r.min.y) && std::isfinite(r.max.x) && std::isfinite(r.max.y);
}

}  // namespace

LoneCard::LoneCard(const Deck& deck, const LoneCardOptions& options)
    : deck_(&deck),
      face_(options.face),
      face_up_(options.face_up),
      sideways_(options.sideways),
      flips_(options.flips),
      fit_(options.fit),
      box_(options.box),
      art_size_(options.art_size),
      pixel_ratio_(options.pixel_ratio),
      aspect_(options.aspect),
      corner_radius_(options.corner_radius),
      growth_(options.growth),
      lift_(options.lift),
      flip_(flip_goal()),
      turn_(options.sideways ? 1.0f : 0.0f),
      now_(options.start_time),
      edge_at_(motion_detail::never),
      gestures_(options.thresholds) {
  using geometry_detail::check_range;
  if (face_ && !deck.has(face_)) throw Error("lone card: its face is not in the deck: one of it is expected");
  if (!is_finite(box_)) throw Error("lone card: its box is not finite: px are expected");
  check_range("lone card: aspect", aspect_, 0.05f, 20);
  check_range("lone card: art_size width", art_size_.width, 0, 16384);
  check_range("lone card: art_size height", art_size_.height, 0, 16384);
  check_range("lone card: pixel_ratio", pixel_ratio_, static_cast<float>(least_pixel_ratio),
              static_cast<float>(most_pixel_ratio));
  check_range("lone card: corner_radius", corner_radius_, 0, 0.5f);
  check_range("lone card: growth", growth_, -1, 10);
  check_range("lone card: lift", lift_, 0, 10);
  if (!std::isfinite(now_)) throw Error("lone card: start_time is not finite: seconds are expected");
  check(options.thresholds);
  static const Feel brisk;
  if (options.feel) check(*options.feel);
  take(options.feel ? *options.feel : brisk);
}

void LoneCard::set_feel(const Feel& feel) {
  check(feel);
  take(feel);
}

void LoneCard::take(const Feel& feel) {
  flipping_ = feel.flip;
  // A flip that has its part of the way turns in that part, as a card on a table does.
  if (!flipping_.spring && (flipping_.flip_from > 0 || flipping_.flip_to < 1))
    flipping_.curve = motion_detail::EasingMaker::of(
        motion_detail::LinearStops{{0, 0}, {0, flipping_.flip_from}, {1, flipping_.flip_to}, {1, 1}});
  turning_ = feel.shift;
  raising_ = feel.raise;
  flip_axis_ = feel.flip_axis.radians();
}

void LoneCard::tell(EventKind kind, bool face_up) {
  if (events_.size() == most_unread_events) {
    events_.pop_front();
    ++lost_;
  }
  events_.push_back({.kind = kind, .time = now_, .face_up = face_up});
}

void LoneCard::moves() {
  ++revision_;
  moved_ = true;
}

bool LoneCard::set_face(FaceId face) {
  if (face == face_ || (face && !deck_->has(face))) return false;
  // Covered a moment ago it shows on what it showed, until it is edge-on.
  if (!face_up_ && !still_shows_ && shows_face_at(now_)) still_shows_ = face_;
  face_ = face;
  ++revision_;
  tell(EventKind::face_changed);
  if (flip_.goal() != flip_goal()) turn_over(Pace::glides);
  return true;
}

/// Where its flip comes to rest: open without a face it waits on its edge until that is told.
float LoneCard::flip_goal() const { return !face_up_ ? pi : face_ ? 0 : pi / 2; }

/// Its side, or whether it has a face to show, has changed.
void LoneCard::turn_over(Pace pace) {
  moves();
  const bool shown = shows_face_at(now_);
  if (pace == Pace::glides) flip_.go(flip_goal(), flipping_, now_);
  if (pace == Pace::at_once) flip_.put(flip_goal());
  find_edge();
  if (shown == shows_face_at(now_)) return;
  still_shows_ = {};
  tell(EventKind::edge_on);
}

bool LoneCard::set_suit(int suit) {
  if (suit < 0 || suit >= static_cast<int>(deck_->options().suits.size())) return false;
  return set_face(deck_->face(suit, deck_->has(face_) ? std::max(deck_->rank_of(face_), 0) : 0));
}

bool LoneCard::set_rank(int rank) {
  if (rank < 0 || rank >= deck_->rank_count()) return false;
  return set_face(deck_->face(deck_->has(face_) ? std::max(deck_->suit_of(face_), 0) : 0, rank));
}

bool LoneCard::set_face_up(bool face_up, Pace pace) {
  if (face_up == face_up_) return false;
  face_up_ = face_up;
  tell(EventKind::flipped);
  turn_over(pace);
  return true;
}

bool LoneCard::set_sideways(bool sideways, Pace pace) {
  if (sideways == sideways_) return false;
  sideways_ = sideways;
  moves();
  tell(EventKind::reoriented);
  const float goal = sideways ? 1 : 0;
  if (pace == Pace::glides) turn_.go(goal, turning_, now_);
  if (pace == Pace::at_once) turn_.put(goal);
  look_again();
  return true;
}

bool LoneCard::set_box(const Rect& box, Pace pace) {
  if (box == box_ || !is_finite(box)) return false;
  const std::array<float, 4> before{box_.min.x, box_.min.y, box_.max.x, box_.max.y};
  const std::array<float, 4> after{box.min.x, box.min.y, box.max.x, box.max.y};
  for (std::size_t i = 0; i < sides_.size(); ++i) {
    if (sides_[i].goal() != before[i]) sides_[i].put(before[i]);  // where it rested
    if (pace == Pace::glides) sides_[i].go(after[i], turning_, now_);
    if (pace == Pace::at_once) sides_[i].put(after[i]);
  }
  box_ = box;
  if (pace == Pace::glides) moves();
  ++revision_;
  look_again();
  return true;
}

bool LoneCard::set_pixel_ratio(float ratio) {
  if (ratio == pixel_ratio_ ||
      !(ratio >= static_cast<float>(least_pixel_ratio) && ratio <= static_cast<float>(most_pixel_ratio)))
    return false;
  pixel_ratio_ = ratio;
  ++revision_;
  look_again();
  return true;
}

bool LoneCard::set_fit(Fit fit) {
  if (std::exchange(fit_, fit) == fit) return false;
  ++revision_;
  look_again();
  return true;
}

bool LoneCard::set_focused(bool focused) {
  if (focused == focused_ || off_) return false;
  focused_ = focused;
  ++revision_;
  if (focused) tell(EventKind::focused);
  return true;
}

bool LoneCard::set_off(bool off) {
  if (std::exchange(off_, off) == off) return false;
  ++revision_;
  if (!off) look_again();
  if (!off) return true;
  gestures_.forget_all();
  hover(false);
  focused_ = false;
  return true;
}

void LoneCard::hover(bool over) {
  if (std::exchange(hovered_, over) == over) return;
  moves();
  raised_.go(over ? 1.0f : 0.0f, raising_, now_);
  tell(over ? EventKind::hovered : EventKind::unhovered);
}

bool LoneCard::pointer(const PointerInput& given) {
  PointerInput input = given;
  if (!std::isfinite(input.time) || !std::isfinite(input.at.x) || !std::isfinite(input.at.y)) return false;
  advance_to(input.time);
  input.time = now_;
  const bool over = is_at(input.at);
  const bool gone = input.phase == PointerPhase::leave || input.phase == PointerPhase::cancel;
  if (input.kind != PointerKind::touch) {
    rests_at_ = gone ? std::nullopt : std::optional(input.at);
    hover(over && !gone && !off_);
  }
  if (off_) return over && !gone;
  const bool ours = gestures_.expects(input.pointer);
  // What goes down elsewhere is nothing to this card.
  if (input.phase == PointerPhase::down && !over) return false;
  if (input.phase == PointerPhase::move && !ours) return over;
  for (const Gesture& gesture : gestures_.read(input)) act(gesture);
  return over || ours;
}

/// The pointer rests, and what is below it has changed: as it lies when it has come to rest, so that a card
/// that turns is not hovered and left on its way.
void LoneCard::look_again() {
  if (rests_at_ && !off_) hover(lies_at(*rests_at_, box_, turn_.goal()));
}

void LoneCard::act(const Gesture& gesture) {
  if (gesture.kind == GestureKind::long_press) return tell(EventKind::long_pressed);
  if (gesture.kind == GestureKind::release) return tell(EventKind::released);
  // Where a finger or a button comes up beside the card, the press is taken back.
  if (gesture.kind != GestureKind::tap || gesture.button != PointerButton::primary || !is_at(gesture.at))
    return;
  tell(EventKind::tapped);
  if (flips_) flip();
}

bool LoneCard::key(const KeyInput& input) {
  if (!std::isfinite(input.time) || !focused_ || input.key != Key::act || input.repeat) return false;
  advance_to(input.time);
  tell(EventKind::tapped);
  if (flips_) flip();
  return true;
}

double LoneCard::ends_at() const {
  double last = std::max({flip_.ends_at(), turn_.ends_at(), raised_.ends_at()});
  for (const Gliding& side : sides_) last = std::max(last, side.ends_at());
  return std::max(last, now_);
}

double LoneCard::next_due() const {
  if (!at_rest() || moved_ || !events_.empty()) return now_;
  return std::max(gestures_.due(), now_);
}

bool LoneCard::shows_face_at(double time) const { return shows_face(flip_.at(time)); }

/// When its flip is next on its edge, looked for in steps so fine that none is passed over.
void LoneCard::find_edge() {
  edge_at_ = motion_detail::never;
  const double end = flip_.ends_at();
  if (!(now_ < end)) return;
  constexpr int looks = 200;
  const auto side = [this](double time) { return shows_face_at(time); };
  edge_at_ = motion_detail::first_change(now_, end, looks, side);
}

/// Goes on to what comes next up to a time, or to that time; whether something came.
bool LoneCard::step(double time) {
  const double rests = moved_ ? ends_at() : motion_detail::never;
  const double next = std::min({edge_at_, gestures_.due(), rests});
  if (next > time) {
    if (!(now_ < time)) return false;
    if (!at_rest()) ++revision_;
    now_ = time;
    return false;
  }
  now_ = std::max(now_, next);
  ++revision_;
  if (edge_at_ <= now_) {
    still_shows_ = {};
    tell(EventKind::edge_on, shows_face_at(now_));
    find_edge();
  } else if (gestures_.due() <= now_) {
    for (const Gesture& gesture : gestures_.advance_to(now_)) act(gesture);
  } else {
    moved_ = false;
    tell(EventKind::settled);
  }
  return true;
}

void LoneCard::advance_to(double time) {
  while (std::isfinite(time) && step(time)) {
  }
}

std::optional<Event> LoneCard::next_event(double until) {
  while (events_.empty() && std::isfinite(until) && step(until)) {
  }
  if (events_.empty()) return std::nullopt;
  const Told first = events_.front();
  events_.pop_front();
  return Event{.kind = first.kind, .time = first.time, .face_up = first.face_up};
}

Rect LoneCard::box_at(double time) const {
  if (!(time < sides_[0].ends_at()) && !(time < sides_[2].ends_at()) && !(time < sides_[1].ends_at()) &&
      !(time < sides_[3].ends_at()))
    return box_;
  return {{sides_[0].at(time), sides_[1].at(time)}, {sides_[2].at(time), sides_[3].at(time)}};
}

/// The box that it has as a form shows it, upright or sideways, in a box for it.
Rect LoneCard::fitted(const Rect& box, bool sideways) const {
  const auto lying = [&](Size upright) { return sideways ? Size{upright.height, upright.width} : upright; };
  const bool by_px = fit_ == Fit::whole || fit_ == Fit::none || fit_ == Fit::scale_down;
  if (art_size_.empty())
    return geometry_detail::fit_in(box, lying({aspect_, 1}), by_px ? Fit::contain : fit_).box;
  // In device pixels, of which those of the picture are whole multiples, and on which it lies.
  const float ratio = pixel_ratio_;
  const Rect in = geometry_detail::fit_in({box.min * ratio, box.max * ratio}, lying(art_size_), fit_).box;
  return {in.min * (1 / ratio), in.max * (1 / ratio)};
}

/// In its own frame, where it is turned by this share of a quarter.
Size LoneCard::upright_size(const Rect& box, float turned) const {
  const auto lying = [&](bool sideways) {
    const Size in = fitted(box, sideways).size();
    return sideways ? Size{in.height, in.width} : in;
  };
  if (turned <= 0) return lying(false);
  if (turned >= 1) return lying(true);
  const Size a = lying(false);
  const Size b = lying(true);
  return {a.width + (b.width - a.width) * turned, a.height + (b.height - a.height) * turned};
}

Vec2 LoneCard::middle(const Rect& box, float turned) const {
  if (turned <= 0) return fitted(box, false).centre();
  if (turned >= 1) return fitted(box, true).centre();
  const Vec2 a = fitted(box, false).centre();
  return a + (fitted(box, true).centre() - a) * turned;
}

Pose LoneCard::neutral_pose(double time) const {
  const float flip = flip_.at(time);
  const float on = flip_.passed_at(time);
  const float turned = turn_.at(time);
  return {.centre = middle(box_at(time), turned),
          .rotation = turned * pi / 2,
          .flip = flip,
          .lift = flipping_.lift * 16 * on * on * (1 - on) * (1 - on),
          .flip_axis = flip_axis_};
}

bool LoneCard::is_at(Vec2 point) const { return lies_at(point, box_at(now_), turn_.at(now_)); }

bool LoneCard::lies_at(Vec2 point, const Rect& box, float turned) const {
  const Size size = upright_size(box, turned);
  // A card that is seen from its edge can be pressed all the same.
  const Pose pose{.centre = middle(box, turned), .rotation = turned * pi / 2};
  return !size.empty() &&
         contains(HitShape{.pose = pose, .size = size, .corner_radius = corner_radius_ * size.width}, point);
}

FrameItem LoneCard::item() const {
  const Size size = upright_size(box_at(now_), turn_.at(now_));
  Pose pose = neutral_pose(now_);
  const float raised = raised_.at(now_);
  pose.scale += growth_ * raised;
  pose.lift += std::max(lift_ * raised, 0.0f);
  const bool back = !shows_face(pose.flip);
  const auto lies = geometry_detail::shown(pose, size);
  return {.kind = FrameKind::card,
          .back = back,
          .marks = {.focus = focused_, .hovered = hovered_, .off = off_},
          .back_suit = static_cast<std::int16_t>(back ? deck_->back_suit_of(face_) : -1),
          .card = {1},
          .face = back                        ? hidden_face
                  : !face_up_ && still_shows_ ? still_shows_
                                              : face_,
          .size = size,
          .brightness = off_ ? dimmed_brightness : 1,
          .matrix = lies.matrix,
          .corners = lies.corners,
          .lift = pose.lift};
}

Frame frame_of(std::span<const LoneCard> cards, Size form, float pixel_ratio) {
  std::vector<const LoneCard*> all;
  for (const LoneCard& card : cards) all.push_back(&card);
  return frame_of(all, form, pixel_ratio);
}

Frame frame_of(std::span<const LoneCard* const> cards, Size form, float pixel_ratio) {
  Frame frame{.window = form, .pixel_ratio = pixel_ratio};
  for (const LoneCard* one : cards) {
    const LoneCard& card = *one;
    frame.revision += card.revision();
    frame.items.push_back(card.item());
    FrameItem& item = frame.items.back();
    item.card = {static_cast<std::uint32_t>(frame.items.size())};
    item.order = frame.items.size();
    if (frame.card.empty()) {
      frame.card = item.size;
      frame.corner_radius = card.corner_radius() * item.size.width;
    }
  }
  return frame;
}

std::string describe(const LoneCard& card, const Names& names, const EventPhrases& phrases) {
  const auto filled = [](const std::string& text, const std::string& with) {
    return filled_in(
        text, [&](std::string_view name) { return name == "card" ? std::optional(with) : std::nullopt; });
  };
  const bool open = card.face_up() && card.deck().has(card.face());
  const std::string one = open ? spoken(card.face(), card.deck(), names) : phrases.covered;
  return card.sideways() ? filled(phrases.sideways, one) : one;
}

}  // namespace apsidon
