// One long session at a table on which everything is, told item by item: what is drawn otherwise than before,
// after each thing that is done. It is kept in tests/reference/session.txt; scripts/references makes it anew.
#include <fmt/format.h>
#include <catch2/catch.hpp>
#include <set>

#include "apsidon/files/table_file.hpp"
#include "support/hand.hpp"
#include "support/reference.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

std::string marks_of(const Marks& m) {
  std::string out;
  const auto add = [&](bool on, const char* word) {
    if (on) out += std::string(" ") + word;
  };
  add(m.legal_target, "target");
  add(m.aimed_at, "aimed");
  add(m.held, "held");
  add(m.refused, "refused");
  add(m.focus, "focus");
  add(m.hovered, "hovered");
  add(m.locked, "locked");
  add(m.off, "off");
  return out;
}

std::string rect_text(const Rect& r) {
  return r == everywhere
             ? ""
             : fmt::format(" clip {:.2f} {:.2f} {:.2f} {:.2f}", r.min.x, r.min.y, r.max.x, r.max.y);
}

/// Everything of an item that a renderer draws.
std::string text_of(const FrameItem& i, const Shadow& shadow) {
  constexpr const char* kinds[] = {"outline", "card", "copy", "zoom"};
  std::string out =
      fmt::format("{} {} zone {} face {}{}{}{}", kinds[static_cast<int>(i.kind)], i.card.value, i.zone.value,
                  i.face.value, i.back ? " back" : "", marks_of(i.marks), rect_text(i.clip));
  out += " at";
  for (const Vec2 corner : i.corners.corners) out += fmt::format(" {:.2f} {:.2f}", corner.x, corner.y);
  return out + fmt::format(" opacity {:.2f} bright {:.2f} lift {:.2f} shadow {:.2f} {:.2f} {:.2f} {:.2f}",
                           i.opacity, i.brightness, i.lift, shadow.offset.x, shadow.offset.y, shadow.blur,
                           shadow.opacity);
}

std::string text_of(const FramePanel& p) {
  return fmt::format("panel {} at {:.2f} {:.2f} {:.2f} {:.2f}{} '{}' {:.2f} tone {}{}{}", p.panel.value,
                     p.area.min.x, p.area.min.y, p.area.max.x, p.area.max.y, p.overlay ? " overlay" : "",
                     p.text, p.fill, static_cast<int>(p.tone), p.off ? " off" : "", p.focus ? " focus" : "");
}

/// Does things at a table, and writes down what is told and drawn.
class Told {
 public:
  explicit Told(TableSetup setup) : hand(std::move(setup), {.window = {1200, 800}, .feel = springy()}) {
    look("begins");
  }

  void look(const std::string& what, double wait = 0) {
    hand.wait(wait);
    text += "== " + what + fmt::format(", {:.2f} s\n", hand.field.now());
    for (const Event& event : hand.told)
      text += fmt::format("{:.2f} {} {}\n", event.time, name_of(event.kind), describe(event, hand.field));
    hand.told.clear();
    std::vector<Shadow> shadows;
    const Frame& frame = hand.field.frame();
    shadows_of(frame, shadows);
    std::multiset<std::string> now;
    for (std::size_t i = 0; i < frame.items.size(); ++i) {
      const std::string line = text_of(frame.items[i], shadows[i]);
      if (shown_.count(line) == 0) text += line + "\n";
      now.insert(line);
    }
    for (const FramePanel& panel : frame.panels) {
      const std::string line = text_of(panel);
      if (shown_.count(line) == 0) text += line + "\n";
      now.insert(line);
    }
    shown_ = std::move(now);
  }

  /// On the way, soon after, and at rest.
  void watch(const std::string& what) {
    look(what, 0.03);
    look("a moment later", 0.12);
    hand.settle();
    look("at rest");
  }

  Hand hand;
  std::string text = {};

 private:
  std::multiset<std::string> shown_ = {};
};

}  // namespace

TEST_CASE("play: a session at a table on which everything is tells and shows what was written down") {
  const auto setup = load_table(source("tests/reference/everything.table.json"));
  REQUIRE(setup);
  Told t(*setup);
  Hand& h = t.hand;
  (void)h.field.switches().hide(PanelId{6});
  t.watch("the note, which takes all hits, is put away");
  const auto top = [&](const char* zone) { return h.middle(h.cards(zone).back()); };
  h.point(PointerPhase::move, h.middle("hand"));
  t.look("a card of the hand is hovered", 0.1);
  t.look("for longer", 1);
  h.point(PointerPhase::move, top("stock"));
  t.watch("the stock is hovered");
  h.tap(top("stock"));
  t.watch("a tap on the stock");
  h.point(PointerPhase::down, top("waste"));
  h.point(PointerPhase::move, top("waste") + Vec2{30, 30});
  t.look("a card of the waste is held", 0.1);
  h.point(PointerPhase::move, h.middle("bed"));
  t.look("over the bed", 0.2);
  h.point(PointerPhase::move, h.middle("found"));
  t.look("over what takes nothing", 0.2);
  h.point(PointerPhase::up, h.middle("found"));
  t.watch("let go there");
  h.drag(top("waste"), h.middle("hand"));
  t.watch("dropped into the hand");
  h.drag(h.middle(h.cards("hand").front()), h.middle("meadow"));
  t.watch("from the hand to the meadow");
  h.tap(top("plot"));
  t.watch("a tap on the plot");
  h.tap(top("hand"), PointerKind::touch);
  t.watch("a finger on the hand");
  h.drag(top("hand"), top("hand") - Vec2{0, 260});
  t.watch("flicked away or put back");
  for (const Key key :
       {Key::next, Key::next, Key::right, Key::down, Key::act, Key::next, Key::act, Key::second, Key::left,
        Key::cancel, Key::undo, Key::redo, Key::previous, Key::send, Key::send_top}) {
    h.key(key);
    t.look(fmt::format("key {}", static_cast<int>(key)), 0.05);
  }
  t.watch("after the keys");
  h.field.moves().set_judge([](const Proposal&) { return std::optional<Verdict>{}; });
  h.drag(h.middle(h.cards("hand").front()), h.middle("meadow"));
  t.watch("a move waits for its answer");
  for (const Proposal& waiting :
       std::vector<Proposal>(h.field.moves().waiting().begin(), h.field.moves().waiting().end()))
    (void)h.field.moves().answer(waiting.id, {.reason = Reason::refused_by_game});
  t.watch("it is refused");
  h.field.moves().set_judge({});
  (void)h.field.switches().switch_off(h.zone("hand"), "asleep");
  t.watch("the hand is switched off");
  (void)h.field.switches().switch_on(h.zone("hand"), "asleep");
  (void)h.field.switches().hide(h.zone("meadow"));
  t.watch("and the meadow hidden");
  (void)h.field.switches().show(h.zone("meadow"));
  h.field.resize({800, 600}, 1.5f, h.field.now());
  t.watch("a smaller window");
  (void)h.field.performances().shake(h.cards("hand").front());
  (void)h.field.performances().pulse(h.cards("meadow").front());
  t.watch("a card shakes, another swells");
  (void)h.field.edits().flip(h.cards("hand").front(), false);
  (void)h.field.edits().set_sideways(h.cards("meadow").front(), true);
  t.watch("a card is turned over, another sideways");
  (void)h.field.performances().perform(
      sequence({gather(h.zone("stock")), shuffle(h.zone("stock"), 7), deal(), finale()}));
  for (int i = 0; i < 14; ++i) t.look("a performance", 0.4);
  t.watch("its end");
  (void)h.field.start_round(5, true);
  t.watch("another round");
  check_kept("session.txt", t.text);
}
