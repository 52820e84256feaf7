// A log from a file can be written, read again as the same, and replayed.
#include "apsidon/apsidon.hpp"
#include "apsidon/files/input_log.hpp"
#include "fuzz.hpp"
#include "lines.hpp"

using namespace apsidon;
using namespace apsidon::fuzz;

namespace {

TableSetup small() {
  TableSetup setup(standard_deck());
  const char* names[] = {"stock", "waste", "hand"};
  std::uint32_t face = 1;
  std::vector<PlanNode> nodes;
  for (const char* name : names) {
    const ZoneId id =
        setup.add({.name = name,
                   .key = face,
                   .layout = {.kind = SpreadLayout{}, .longest = 9},
                   .rules = {.pick = {.kind = PickKind::any}, .drop = rule::anything(), .sorts = true},
                   .handling = {.hover = HoverKind::raise, .zoom = true, .tap = TapKind::pick}});
    for (int i = 0; i < 4; ++i, ++face) setup.table.create_card(id, {.face = {face}, .key = face});
    nodes.push_back(zone(id));
  }
  setup.add_panel({.name = "button", .kind = PanelKind::button});
  setup.plans = {{.root = down(nodes)}};
  setup.deal_from = {1};
  return setup;
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  static const TableSetup setup = small();
  const auto log = parse_log(text_of(data, size), "log", setup);
  if (!log) return expect_sentence(log.error()), 0;
  const std::string written = write_log(*log, setup);
  const auto again = parse_log(written, "again", setup);
  expect(again.has_value(), "a log that was written is read");
  expect(again->inputs == log->inputs, "a log reads back as the same");
  if (log->inputs.size() > 60) return 0;
  Playfield field(setup, log->options);
  std::vector<Input> recorded;
  field.set_recorder([&](const Input& input) { recorded.push_back(input); });
  double last = field.now();
  int heard = 0;
  // A log may name any time: what goes on in between is not played for ever.
  const double until = log->options.start_time + 30;
  (void)replay(field, log->inputs, until, [&](const Event& e) {
    expect(e.time >= last, "events come in order of time");
    last = e.time;
    expect(++heard < 100'000, "a short log has an end");
  });
  for (const Zone& zone : field.table().zones()) {
    for (const CardId card : zone.cards)
      expect(is_finite(*field.where().live_pose(card)), "a pose is finite");
  }
  const auto session =
      parse_log(write_log({.options = log->options, .inputs = recorded}, setup), "session", setup);
  expect(session.has_value(), "what is recorded is read: " + (session ? "" : describe(session.error()[0])));
  expect(session->inputs == recorded, "what is recorded reads back as the same");
  return 0;
}
