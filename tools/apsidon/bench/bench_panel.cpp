#include "bench/bench_panel.hpp"

#include <SDL.h>
#include <backends/imgui_impl_sdl.h>
#include <fmt/format.h>
#include <imgui.h>

#include <algorithm>
#include <filesystem>

namespace apsidon::tool {
namespace {

constexpr float bench_width = 372;
constexpr float bench_gap = 12;
constexpr float knob_names = 118;  // beside each knob

struct DestroyTexture {
  void operator()(SDL_Texture* texture) const { SDL_DestroyTexture(texture); }
};

ImVec4 colour(unsigned hex, float alpha = 1) {
  const auto part = [&](unsigned shift) { return static_cast<float>(hex >> shift & 255) / 255; };
  return {part(16), part(8), part(0), alpha};
}

/// Calm, and of the glasshouse: dark green, paper, a little gold where the hand is.
void set_style() {
  ImGuiStyle& style = ImGui::GetStyle();
  // Straight corners: what is rounded is many triangles, which without a graphics card take four times as
  // long as a whole frame.
  style.WindowRounding = 0;
  style.FrameRounding = 0;
  style.GrabRounding = 0;
  style.TabRounding = 0;
  style.WindowBorderSize = 0;
  style.WindowPadding = {14, 12};
  style.FramePadding = {8, 4};
  style.ItemSpacing = {8, 7};
  style.ScrollbarSize = 11;
  style.GrabMinSize = 12;
  const auto set = [&](ImGuiCol what, const ImVec4& to) { style.Colors[what] = to; };
  set(ImGuiCol_Text, colour(0xE7EEE4));
  set(ImGuiCol_TextDisabled, colour(0x9DB5A8));
  set(ImGuiCol_WindowBg, colour(0x0E231D));
  set(ImGuiCol_FrameBg, colour(0x1D4236));
  set(ImGuiCol_FrameBgHovered, colour(0x275646));
  set(ImGuiCol_FrameBgActive, colour(0x2F6553));
  set(ImGuiCol_Header, colour(0x17382E));
  set(ImGuiCol_HeaderHovered, colour(0x22503F));
  set(ImGuiCol_HeaderActive, colour(0x2A5E4B));
  set(ImGuiCol_Button, colour(0x2C5A4B));
  set(ImGuiCol_ButtonHovered, colour(0x367261));
  set(ImGuiCol_ButtonActive, colour(0x418573));
  set(ImGuiCol_SliderGrab, colour(0x8A7130));
  set(ImGuiCol_SliderGrabActive, colour(0xB8943A));
  set(ImGuiCol_CheckMark, colour(0xE3B64A));
  set(ImGuiCol_PlotLines, colour(0xA9E8DF));
  set(ImGuiCol_Tab, colour(0x17382E));
  set(ImGuiCol_TabHovered, colour(0x367261));
  set(ImGuiCol_TabActive, colour(0x2C5A4B));
  set(ImGuiCol_ChildBg, colour(0x0E231D, 0));
  set(ImGuiCol_PopupBg, colour(0x0E231D));
  set(ImGuiCol_Separator, colour(0x2A4A3E));
  set(ImGuiCol_ScrollbarBg, colour(0x0E231D, 0));
  set(ImGuiCol_ScrollbarGrab, colour(0x2C5A4B));
}

/// The plain face of the table where it is installed, else what comes with the library.
void load_font() {
  for (const char* file : {"/usr/share/fonts/opentype/cabin/Cabin-Regular.otf",
                           "/usr/share/fonts/truetype/dejavu/DejaVuSans.ttf"}) {
    if (std::filesystem::exists(file) && ImGui::GetIO().Fonts->AddFontFromFileTTF(file, 17)) return;
  }
}

}  // namespace

Insets BenchPanel::insets(Size window) const {
  // In a narrow window it lies over the table.
  const bool beside = open_ && window.width > 2 * bench_width;
  return {.right = beside ? bench_width + bench_gap : 0};
}

struct BenchPanel::Gui {
  ImGuiContext* context = nullptr;
  std::unique_ptr<SDL_Texture, DestroyTexture> font = {};
};

BenchPanel::BenchPanel(SdlWindow& window) : window_(window), gui_(std::make_unique<Gui>()) {
  gui_->context = ImGui::CreateContext();
  ImGui::GetIO().IniFilename = nullptr;
  ImGui_ImplSDL2_InitForSDLRenderer(window.window());
  set_style();
  load_font();
  unsigned char* pixels = nullptr;
  int width = 0, height = 0;
  ImGui::GetIO().Fonts->GetTexDataAsRGBA32(&pixels, &width, &height);
  gui_->font.reset(
      SDL_CreateTexture(window.renderer(), SDL_PIXELFORMAT_RGBA32, SDL_TEXTUREACCESS_STATIC, width, height));
  SDL_UpdateTexture(gui_->font.get(), nullptr, pixels, 4 * width);
  SDL_SetTextureBlendMode(gui_->font.get(), SDL_BLENDMODE_BLEND);
  ImGui::GetIO().Fonts->SetTexID(gui_->font.get());
}

BenchPanel::~BenchPanel() {
  ImGui_ImplSDL2_Shutdown();
  ImGui::DestroyContext(gui_->context);
}

void BenchPanel::open(bool open) {
  open_ = open;
  frames_after_ = 2;
}

bool BenchPanel::take(const SDL_Event& event) {
  if (event.type == SDL_KEYDOWN && event.key.keysym.sym == SDLK_F1 && event.key.repeat == 0) {
    open(!open_);
    return true;
  }
  if (!open_) return false;
  ImGui_ImplSDL2_ProcessEvent(&event);
  frames_after_ = 4;
  const ImGuiIO& io = ImGui::GetIO();
  switch (event.type) {
    case SDL_MOUSEMOTION:
      return io.WantCaptureMouse && event.motion.state == 0;
    case SDL_MOUSEBUTTONDOWN:
    case SDL_MOUSEWHEEL:
      return io.WantCaptureMouse;
    case SDL_KEYDOWN:
    case SDL_TEXTINPUT:
      return io.WantTextInput;
    default:
      return false;
  }
}

void BenchPanel::hear(std::string line) {
  events_.push_front(std::move(line));
  constexpr std::size_t most = 200;
  if (events_.size() > most) events_.pop_back();
}

void BenchPanel::events(float height) {
  ImGui::InputTextWithHint("only", "a word of them", filter_.data(), filter_.size());
  const std::string wanted = filter_.data();
  ImGui::BeginChild("events", {0, height});
  for (const std::string& line : events_) {
    if (line.find(wanted) != std::string::npos) ImGui::TextWrapped("%s", line.c_str());
  }
  ImGui::EndChild();
}

void BenchPanel::note_frame(double ms, double core_ms) {
  frames_[frame_++ % frames_.size()] = static_cast<float>(ms);
  core_ms_ = core_ms;
}

/// What goes by itself has to be drawn once without it; lists that open need some frames after the event.
void BenchPanel::keep_drawing() {
  constexpr double good_news = 6, hint_seconds = 8;
  if (good_ && !message_.empty() && window_.now() > said_at_ + good_news) {
    message_.clear();
    frames_after_ = 1;
  }
  if (hints_ && window_.now() > hint_seconds) {
    hints_ = false;
    frames_after_ = 1;
  }
  if (frames_after_ == 0) return;
  --frames_after_;
  window_.redraw();
}

bool BenchPanel::begin(const std::string& title) {
  keep_drawing();
  ImGui_ImplSDL2_NewFrame();
  // In the window, as its events have it: the global one lags behind where no motion is told by the display.
  int x = 0, y = 0;
  SDL_GetMouseState(&x, &y);
  if (SDL_GetMouseFocus() == window_.window())
    ImGui::GetIO().MousePos = {static_cast<float>(x), static_cast<float>(y)};
  ImGui::NewFrame();
  if (!open_) return false;
  const ImVec2 size = ImGui::GetIO().DisplaySize;
  const float width = std::min(bench_width, size.x * 0.8f);
  ImGui::SetNextWindowPos({size.x - width - bench_gap, bench_gap}, ImGuiCond_Always);
  ImGui::SetNextWindowSize({width, size.y - 2 * bench_gap}, ImGuiCond_Always);
  ImGui::Begin("bench", nullptr,
               ImGuiWindowFlags_NoTitleBar | ImGuiWindowFlags_NoResize | ImGuiWindowFlags_NoMove);
  ImGui::PushItemWidth(-knob_names);
  ImGui::TextColored(colour(0xE3B64A), "%s", title.empty() ? "The bench" : title.c_str());
  ImGui::SameLine();
  ImGui::TextDisabled("F1 puts it away");
  return true;
}

void BenchPanel::tab(const char* name, const std::function<void()>& show) const {
  if (!ImGui::BeginTabItem(name)) return;
  constexpr float plot_height = 54;
  ImGui::BeginChild(name, {0, -plot_height});
  ImGui::PushItemWidth(-knob_names);
  show();
  ImGui::PopItemWidth();
  ImGui::EndChild();
  ImGui::EndTabItem();
}

void BenchPanel::end() {
  if (open_) {
    const float last = frames_[(frame_ + frames_.size() - 1) % frames_.size()];
    ImGui::PlotLines("frame", frames_.data(), static_cast<int>(frames_.size()),
                     static_cast<int>(frame_ % frames_.size()),
                     fmt::format("{:.1f} ms, core {:.3f} ms", last, core_ms_).c_str(), 0, 34, {0, 44});
    ImGui::PopItemWidth();
    ImGui::End();
  }
  hint();
  ImGui::Render();
}

void BenchPanel::hint() const {
  const bool said = !message_.empty();
  if (!said && (open_ || !hints_)) return;
  const ImVec2 size = ImGui::GetIO().DisplaySize;
  ImDrawList* list = ImGui::GetForegroundDrawList();
  const std::string text = said ? message_ : "F1 opens the bench, F12 takes a picture";
  const float wrap = size.x - 60;
  const ImVec2 extent = ImGui::CalcTextSize(text.c_str(), nullptr, false, wrap);
  const ImVec2 at{said ? 24 : size.x - extent.x - 20, size.y - extent.y - 16};
  list->AddRectFilled({at.x - 12, at.y - 8}, {at.x + extent.x + 12, at.y + extent.y + 8},
                      ImGui::GetColorU32(said && !good_ ? colour(0x5A2318, 0.95f) : colour(0x1D4236, 0.95f)),
                      8);
  list->AddText(nullptr, 0, at, ImGui::GetColorU32(colour(0xE7EEE4)), text.c_str(), nullptr, wrap);
}

void BenchPanel::draw(SDL_Renderer* renderer) const {
  const ImDrawData* data = ImGui::GetDrawData();
  if (!data) return;
  const ImVec2 scale = ImGui::GetIO().DisplayFramebufferScale;
  float across = 1, down = 1;
  SDL_RenderGetScale(renderer, &across, &down);
  SDL_RenderSetScale(renderer, scale.x, scale.y);
  for (int n = 0; n < data->CmdListsCount; ++n) {
    const ImDrawList* list = data->CmdLists[n];
    const auto* vertices = reinterpret_cast<const char*>(list->VtxBuffer.Data);
    for (const ImDrawCmd& command : list->CmdBuffer) {
      const SDL_Rect clip{static_cast<int>(command.ClipRect.x), static_cast<int>(command.ClipRect.y),
                          static_cast<int>(command.ClipRect.z - command.ClipRect.x),
                          static_cast<int>(command.ClipRect.w - command.ClipRect.y)};
      SDL_RenderSetClipRect(renderer, &clip);
      const char* first = vertices + command.VtxOffset * sizeof(ImDrawVert);
      const auto at = [&](std::size_t offset) { return first + offset; };
      SDL_RenderGeometryRaw(
          renderer, static_cast<SDL_Texture*>(command.GetTexID()),
          reinterpret_cast<const float*>(at(offsetof(ImDrawVert, pos))), sizeof(ImDrawVert),
          reinterpret_cast<const SDL_Color*>(at(offsetof(ImDrawVert, col))), sizeof(ImDrawVert),
          reinterpret_cast<const float*>(at(offsetof(ImDrawVert, uv))), sizeof(ImDrawVert),
          static_cast<int>(list->VtxBuffer.Size - static_cast<int>(command.VtxOffset)),
          list->IdxBuffer.Data + command.IdxOffset, static_cast<int>(command.ElemCount), sizeof(ImDrawIdx));
    }
  }
  SDL_RenderSetClipRect(renderer, nullptr);
  SDL_RenderSetScale(renderer, across, down);
}

}  // namespace apsidon::tool
