// A frame of any numbers is painted, as pixels, SVG and PDF, or refused with a sentence.
#include "apsidon/draw/paint.hpp"
#include "apsidon/geometry/error.hpp"
#include "apsidon/studio/sheets.hpp"
#include "bytes.hpp"
#include "fuzz.hpp"

using namespace apsidon;
using namespace apsidon::fuzz;

namespace {

/// A side of a window of which a picture takes no time.
float any_side(FuzzedDataProvider& from) {
  return from.ConsumeBool() ? from.ConsumeFloatingPointInRange(1.0f, 150.0f) : any_float(from);
}
Vec2 any_vec(FuzzedDataProvider& from) {
  const float x = any_float(from);
  return {x, any_float(from)};
}
Rect any_rect(FuzzedDataProvider& from) {
  const Vec2 least = any_vec(from);
  return {least, any_vec(from)};
}

FrameItem any_item(FuzzedDataProvider& from) {
  FrameItem item;
  item.kind = from.PickValueInArray({FrameKind::outline, FrameKind::card, FrameKind::copy, FrameKind::zoom});
  item.back = from.ConsumeBool();
  const auto marks = from.ConsumeIntegral<std::uint8_t>();
  item.marks = {.legal_target = (marks & 1) != 0,
                .aimed_at = (marks & 2) != 0,
                .held = (marks & 4) != 0,
                .refused = (marks & 8) != 0,
                .focus = (marks & 16) != 0,
                .hovered = (marks & 32) != 0,
                .locked = (marks & 64) != 0,
                .off = (marks & 128) != 0};
  item.back_suit = from.ConsumeIntegral<std::int16_t>();
  item.card = {from.ConsumeIntegralInRange<std::uint32_t>(0, 9)};
  item.face = {from.ConsumeBool() ? from.ConsumeIntegralInRange<std::uint32_t>(0, 8)
                                  : from.ConsumeIntegral<std::uint32_t>()};
  item.size = {any_side(from), any_side(from)};
  if (from.ConsumeBool()) item.clip = any_rect(from);
  item.brightness = any_float(from);
  item.matrix = {any_float(from), any_float(from), any_float(from),
                 any_float(from), any_float(from), any_float(from)};
  const Vec2 first = any_vec(from), second = any_vec(from);
  item.corners.corners = {first, {second.x, first.y}, second, {first.x, second.y}};
  if (from.ConsumeBool()) item.corners.corners[1] = any_vec(from);
  item.opacity = any_float(from);
  item.lift = any_float(from);
  return item;
}

FramePanel any_panel(FuzzedDataProvider& from) {
  return {
      .area = any_rect(from),
      .overlay = from.ConsumeBool(),
      .kind = from.PickValueInArray({PanelKind::box, PanelKind::button, PanelKind::caption, PanelKind::bar}),
      .text = from.ConsumeRandomLengthString(20),
      .fill = any_float(from),
      .round = from.ConsumeBool(),
      .off = from.ConsumeBool(),
      .focus = from.ConsumeBool()};
}

Frame any_frame(FuzzedDataProvider& from) {
  Frame frame;
  frame.revision = from.ConsumeIntegral<std::uint64_t>();
  frame.window = {any_side(from), any_side(from)};
  if (from.ConsumeIntegralInRange(0, 9) == 0) frame.pixel_ratio = any_float(from);
  frame.card = {any_side(from), any_side(from)};
  frame.corner_radius = any_float(from);
  for (int i = from.ConsumeIntegralInRange(0, 5); i > 0; --i) frame.items.push_back(any_item(from));
  for (int i = from.ConsumeIntegralInRange(0, 3); i > 0; --i) frame.panels.push_back(any_panel(from));
  return frame;
}

/// Larger pictures than these are refused by their size alone, or take too long here.
bool is_quick(const Frame& frame) {
  const float pixels = frame.window.width * frame.window.height * frame.pixel_ratio * frame.pixel_ratio;
  return !(pixels > 300.0f * 300.0f) || pixels > 1e9f;
}

}  // namespace

/// Cairo 1.16 loses what it has put aside of pictures in an SVG or PDF whose drawing went wrong. Leaks of
/// ours are looked for by the tests.
extern "C" const char* __asan_default_options() { return "detect_leaks=0"; }

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  static const Deck deck(
      {.suits = {{"fern", "green"}, {"moss", "dark"}}, .ranks = {"1", "2"}, .suit_backs = true});
  FuzzedDataProvider from(data, size);
  Painter painter(deck);
  std::optional<Picture> shown;
  while (from.remaining_bytes() > 0) {
    const Frame frame = any_frame(from);
    if (!is_quick(frame)) continue;
    const Ground ground = from.ConsumeBool() ? Ground::glasshouse : Ground::transparent;
    const auto drawn = [&](const auto& draw) {
      try {
        draw();
      } catch (const Error& e) {
        expect(std::string_view(e.what()).size() > 10, "a refusal is a sentence");
      }
    };
    drawn([&] { (void)paint(frame, deck, nullptr, ground); });
    drawn([&] { (void)painter.repaint(shown, frame, std::chrono::milliseconds(2)); });
    drawn([&] {
      expect(paint_svg(frame, deck, nullptr, ground).starts_with("<?xml"), "an SVG begins as one");
    });
    drawn(
        [&] { expect(paint_pdf(frame, deck, nullptr, ground).starts_with("%PDF"), "a PDF begins as one"); });
  }
  return 0;
}
