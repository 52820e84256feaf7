#include "support/tables.hpp"
#include "support/whole.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// Something that only moves, turns or puts cards elsewhere.
void change(Random& r, Table& table) {
  const CardId card{static_cast<std::uint32_t>(r.between(1, 20))};
  const ZoneId zone{static_cast<std::uint32_t>(r.between(1, 3))};
  switch (r.below(6)) {
    case 0:
      (void)table.flip(card, r.chance(0.5f));
      break;
    case 1:
      (void)table.set_sideways(card, r.chance(0.5f));
      break;
    case 2:
      (void)table.recycle(zone, {zone.value % 3 + 1});
      break;
    case 3:
      (void)table.shuffle(zone, r.below(1000));
      break;
    case 4:
      (void)table.set_position(card, {r.uniform(0, 1), r.uniform(0, 1)});
      break;
    default:
      (void)table.move(table.run_from(card), zone);
      break;
  }
}

Table some_table() {
  Table table(glasshouse());
  for (const char* name : {"a", "b", "c"}) table.create_zone(name);
  for (std::uint32_t i = 0; i < 20; ++i) table.create_card({i % 3 + 1}, {.face = {i + 1}});
  return table;
}

}  // namespace

TEST_CASE("cards: undo goes back through every state, and redo forward through them") {
  for_all("histories", 30, [](Random& r) {
    Table table = some_table();
    History history;
    history.start(table);
    std::vector<std::vector<ZoneContents>> states{contents_of(table)};
    for (int i = 0; i < 15; ++i) {
      change(r, table);
      history.note(table);
      if (contents_of(table) != states.back()) states.push_back(contents_of(table));
      if (r.chance(0.3f)) {
        // What follows belongs to the step before; before the first it cannot be taken back.
        change(r, table);
        history.note(table, true);
        states.back() = contents_of(table);
        // A step that has come to nothing is none.
        if (states.size() > 1 && states.back() == states[states.size() - 2]) states.pop_back();
      }
    }
    for (std::size_t at = states.size() - 1; at > 0; --at) {
      RC_ASSERT(history.undo(table).allowed());
      RC_ASSERT(contents_of(table) == states[at - 1]);
    }
    RC_ASSERT(history.undo(table).reason == Reason::nothing_to_undo);
    for (std::size_t at = 1; at < states.size(); ++at) {
      RC_ASSERT(history.redo(table).allowed());
      RC_ASSERT(contents_of(table) == states[at]);
    }
    RC_ASSERT(history.redo(table).reason == Reason::nothing_to_redo);
    assert_whole(table, 20);
  });
}

TEST_CASE("cards: a new step ends what could be redone, a card that was removed comes back") {
  Table table = some_table();
  History history(2);
  history.start(table);
  const auto step = [&](std::uint32_t card) {
    CHECK(table.flip({card}, !table.card({card})->face_up).allowed());
    history.note(table);
  };
  for (std::uint32_t card = 1; card <= 3; ++card) step(card);
  CHECK(history.undo(table).allowed());
  CHECK(history.undo(table).allowed());
  CHECK(history.undo(table).reason == Reason::nothing_to_undo);  // only the last two are kept
  CHECK_FALSE(table.card({1})->face_up);
  step(5);
  CHECK_FALSE(history.can_redo());
  CHECK(table.set_face({5}, {9}).allowed());  // what was seen stays seen
  CHECK(history.undo(table).allowed());
  CHECK(table.card({5})->face == FaceId{9});
  step(6);
  CHECK(table.remove({7}).allowed());
  history.note(table);
  CHECK(history.undo(table).allowed());  // it comes back where it lay
  CHECK(table.card({7}) != nullptr);
  CHECK(history.redo(table).allowed());
  CHECK(table.card({7}) == nullptr);
}

TEST_CASE("cards: a history that starts again knows the table as it is then") {
  Table table = some_table();
  History history;
  history.start(table);
  history.start(table);  // nothing has changed since
  CHECK(table.flip({1}, !table.card({1})->face_up).allowed());
  history.note(table);
  const auto before = contents_of(some_table());
  CHECK(history.undo(table).allowed());
  CHECK(contents_of(table) == before);
}

TEST_CASE("cards: zones are arranged anew whole or not at all") {
  Table table = some_table();
  const auto before = contents_of(table);
  ZoneContents a = table.contents_of({1});
  ZoneContents b = table.contents_of({2});
  const std::uint64_t revision = table.revision();
  const ZoneContents both[] = {a, b};
  CHECK(table.arrange(both).allowed());
  CHECK(table.revision() == revision);  // nothing has changed
  ZoneContents twice = b;
  twice.cards[0] = a.cards[0];
  const ZoneContents wrong[] = {a, twice};
  CHECK(table.arrange(wrong).reason == Reason::unknown_card);
  ZoneContents less = a;
  less.cards.pop_back();
  CHECK(table.arrange({&less, 1}).reason == Reason::unknown_index);
  const ZoneContents same[] = {a, a};
  CHECK(table.arrange(same).reason == Reason::unknown_zone);
  CHECK(contents_of(table) == before);
  std::swap(a.cards, b.cards);
  const ZoneContents swapped[] = {a, b};
  CHECK(table.arrange(swapped).allowed());
  CHECK(table.contents_of({1}) == a);
  CHECK(table.card(a.cards[0].card)->zone == ZoneId{1});
  assert_whole(table, 20);
}
