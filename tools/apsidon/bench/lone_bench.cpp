#include "bench/lone_bench.hpp"

#include <fmt/format.h>
#include <imgui.h>

#include <chrono>
#include <span>
#include <tuple>

#include "apsidon/play/lone_card.hpp"
#include "bench/bench_knobs.hpp"
#include "bench/bench_panel.hpp"
#include "shared/common.hpp"

namespace apsidon::tool {
namespace {

class LoneBench {
 public:
  LoneBench(const Deck& deck, const LoneBenchOptions& options)
      : deck_(deck),
        options_(options),
        feel_(options.feel),
        window_({.title = "Apsidon", .size = options.window}),
        panel_(window_) {
    window_.set_event_filter([this](const SDL_Event& event) { return panel_.take(event); });
    window_.set_overlay([this](SDL_Renderer* renderer) { panel_.draw(renderer); });
    panel_.open(true);
    begin_.face = options.face.empty() ? deck.faces().front() : deck.find(options.face).value_or(FaceId{});
    begin_.flips = true;
    make();
  }

  void run() {
    const auto hear = [this](const Input& input) { take(input); };
    constexpr double longest_sleep = 0.08;  // seconds until the bench is looked at
    while (window_.next(hear, std::min(card_->next_due(), window_.now() + longest_sleep))) {
      using Clock = std::chrono::steady_clock;
      const auto begin = Clock::now();
      while (const auto event = card_->next_event(window_.now()))
        panel_.hear(fmt::format("{:8.2f}  {}", event->time, name_of(event->kind)));
      const double core = std::chrono::duration<double>(Clock::now() - begin).count();
      lay_out();
      knobs();
      const std::uint64_t before = window_.frames();
      window_.show(frame(), deck_);
      if (window_.frames() > before)
        panel_.note_frame((core + window_.times().drawing + window_.times().presenting) * 1000, core * 1000);
      if (options_.frames > 0 && window_.frames() >= static_cast<std::uint64_t>(options_.frames)) return;
      if (options_.frames > 0) window_.redraw();
    }
  }

 private:
  /// Some options are those that a card begins with: it is another card then, which lies as the one before.
  void make() {
    begin_.feel = &feel_;
    begin_.start_time = window_.now();
    begin_.box = box_;
    card_.emplace(deck_, begin_);
    ++made_;
  }

  void take(const Input& input) {
    if (const auto* pointer = std::get_if<PointerInput>(&input)) (void)card_->pointer(*pointer);
    if (const auto* key = std::get_if<KeyInput>(&input)) (void)card_->key(*key);
  }

  /// In the middle of what the bench leaves.
  void lay_out() {
    const Size window = window_.options().window;
    const float room = window.width - panel_.insets(window).right;
    const Rect box = rect_at({(room - size_.width) / 2, (window.height - size_.height) / 2}, size_);
    if (box == box_) return;
    box_ = box;
    (void)card_->set_box(box);
  }

  /// Another card, or another window, is another frame, whatever revision the card has.
  Frame frame() {
    const PlayfieldOptions now = window_.options();
    Frame frame = frame_of(std::span(&*card_, 1), now.window, now.pixel_ratio);
    const auto shows = std::tuple(frame.revision, made_, now.window.width, now.window.height);
    if (shows != shown_) ++revision_;
    shown_ = shows;
    frame.revision = revision_;
    return frame;
  }

  void knobs() {
    if (panel_.begin("One card")) {
      if (ImGui::BeginTabBar("tabs")) {
        panel_.tab("Card", [this] { card_knobs(); });
        panel_.tab("Feel", [this] { feel_knobs(); });
        panel_.tab("Events", [this] { panel_.events(0); });
        ImGui::EndTabBar();
      }
    }
    panel_.end();
  }

  void card_knobs() {
    if (ImGui::BeginCombo("face", deck_.text(card_->face()).c_str())) {
      for (const FaceId face : deck_.faces()) {
        if (!ImGui::Selectable(deck_.text(face).c_str(), face == card_->face())) continue;
        begin_.face = face;
        (void)card_->set_face(face);
      }
      ImGui::EndCombo();
    }
    bool open = card_->face_up(), sideways = card_->sideways(), off = card_->is_off(),
         focused = card_->focused();
    if (ImGui::Checkbox("open", &open)) (void)card_->set_face_up(open);
    ImGui::SameLine();
    if (ImGui::Checkbox("sideways", &sideways)) (void)card_->set_sideways(sideways);
    ImGui::SameLine();
    if (ImGui::Checkbox("off", &off)) (void)card_->set_off(off);
    ImGui::SameLine();
    if (ImGui::Checkbox("focused", &focused)) (void)card_->set_focused(focused);
    begin_.face_up = open;
    begin_.sideways = sideways;
    slider("box width", size_.width, 20, 800, "%.0f px");
    slider("box height", size_.height, 20, 760, "%.0f px");
    int fit = static_cast<int>(begin_.fit);
    if (ImGui::Combo("fit", &fit, "contain\0fill\0")) {
      begin_.fit = static_cast<Fit>(fit);
      (void)card_->set_fit(begin_.fit);
    }
    bool changed = slider("growth", begin_.growth, -0.5f, 1);
    changed = slider("lift", begin_.lift, 0, 2) || changed;
    changed = slider("aspect", begin_.aspect, 0.2f, 3) || changed;
    changed = slider("corner radius", begin_.corner_radius, 0, 0.5f) || changed;
    changed = ImGui::Checkbox("a press flips it", &begin_.flips) || changed;
    if (changed) make();
    if (card_->focused() != focused) (void)card_->set_focused(focused);
    if (card_->is_off() != off) (void)card_->set_off(off);
  }

  void feel_knobs() {
    bool any_open = false;
    bool changed = glide_knobs("flip", feel_.flip, any_open);
    changed = glide_knobs("turning sideways", feel_.shift, any_open) || changed;
    changed = glide_knobs("hovered", feel_.raise, any_open) || changed;
    if (any_open) window_.redraw();  // a card goes along its curve
    if (changed) card_->set_feel(feel_);
  }

  const Deck& deck_;
  const LoneBenchOptions& options_;
  Feel feel_;
  SdlWindow window_;
  BenchPanel panel_;
  LoneCardOptions begin_ = {};
  Size size_{250, 350};  // of its box
  Rect box_ = {};
  std::optional<LoneCard> card_ = {};
  std::uint64_t made_ = 0;  // cards
  std::tuple<std::uint64_t, std::uint64_t, float, float> shown_ = {};
  std::uint64_t revision_ = 0;
};

}  // namespace

void show_lone_card(const Deck& deck, const LoneBenchOptions& options) { LoneBench(deck, options).run(); }

}  // namespace apsidon::tool
