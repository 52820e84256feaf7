// Flips and turns as moves: judged, listed, proposed, undone, compared, on a bare table as on a playfield.
#include <algorithm>
#include <catch2/catch.hpp>
#include <map>
#include <set>

#include "apsidon/files/input_log.hpp"
#include "apsidon/files/table_file.hpp"
#include "apsidon/files/write_file.hpp"
#include "support/hand.hpp"
#include "support/loop.hpp"
#include "support/property.hpp"
#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// Covered pairs in two rows; who opens two that belong together has found them, and else it is the other
/// seat's turn.
struct HiddenPairs {
  TableSetup setup{glasshouse(2)};
  std::vector<ZoneId> rows;
  ZoneId found;

  HiddenPairs(Random& r, MatchEnd end) {
    (void)setup.table.create_seat("north");
    (void)setup.table.create_seat("south");
    (void)setup.table.set_turn({{{1}}});
    found = setup.add({.name = "found", .layout = {.kind = PileLayout{}, .longest = 12}});
    const MatchRule match{
        .open = 2, .end = end, .to = end == MatchEnd::stay ? ZoneId{} : found, .seconds = 0.3};
    std::vector<std::uint32_t> faces;
    for (std::uint32_t face = 1; face <= 5; ++face) faces.insert(faces.end(), {face, face});
    Random64 random(r.below(1u << 31));
    shuffle(std::span(faces), random);
    for (const char* name : {"upper", "lower"}) {
      std::vector<CardOptions> cards;
      for (std::size_t i = 0; i < 5; ++i) {
        cards.push_back({.face = {faces.back()}, .face_up = false});
        faces.pop_back();
      }
      rows.push_back(setup.add({.name = name,
                                .layout = {.kind = GridLayout{.columns = 5}, .longest = 5},
                                .rules = {.flip = rule::anything(), .match = match},
                                .handling = {.tap = TapKind::flip},
                                .cards = cards}));
    }
    setup.consequences = {{.name = "score", .follow = [](const FollowQuestion& q) -> std::vector<Edit> {
                             const SeatId seat = q.table.turn().front();
                             const MoveStep& first = q.steps.front();
                             // It is asked again after what it did itself.
                             if (q.steps.back().kind == MoveStep::Kind::counted ||
                                 q.steps.back().kind == MoveStep::Kind::turn_passed)
                               return {};
                             if (first.kind == MoveStep::Kind::matched) {
                               return {{.kind = EditKind::set_number,
                                        .name = "pairs",
                                        .value = q.table.number("pairs", seat) + 1,
                                        .seat = seat}};
                             }
                             if (first.kind != MoveStep::Kind::unmatched) return {};
                             return {{.kind = EditKind::set_turn, .seats = {{3 - seat.value}}}};
                           }}};
    setup.plans = {{.root = across({zone(rows[0], 1), zone(rows[1], 1), zone(found)})}};
  }
};

/// The same without tables, rules or time.
struct PlainPairs {
  std::map<CardId, FaceId> face;
  std::set<CardId> open;
  std::set<CardId> gone;  // found: taken away, or left open
  int turn = 1;
  std::map<int, int> pairs;

  explicit PlainPairs(const Table& table) {
    for (const Zone& zone : table.zones()) {
      for (const CardId card : zone.cards) face[card] = table.card(card)->face;
    }
  }
  std::set<CardId> flips() const {
    std::set<CardId> out;
    for (const auto& [card, of] : face) {
      if (!open.contains(card) && !gone.contains(card)) out.insert(card);
    }
    return out;
  }
  void flip(CardId card) {
    open.insert(card);
    if (open.size() < 2) return;
    if (face[*open.begin()] == face[*open.rbegin()]) {
      gone.insert(open.begin(), open.end());
      ++pairs[turn];
    } else {
      turn = 3 - turn;
    }
    open.clear();
  }
};

std::set<CardId> flips_of(const std::vector<Move>& moves) {
  std::set<CardId> out;
  for (const Move& move : moves) {
    REQUIRE(move.kind == MoveKind::flip);
    REQUIRE(move.on);
    out.insert(move.run.first);
  }
  return out;
}

void expect_pairs(const Table& table, const PlainPairs& plain) {
  for (const auto& [card, face] : plain.face) {
    const bool up = plain.open.contains(card) || plain.gone.contains(card);
    REQUIRE(table.card(card)->face_up == up);
    REQUIRE((table.number(opened_number, card) > 0) == plain.open.contains(card));
  }
  REQUIRE(table.is_on_turn({static_cast<std::uint32_t>(plain.turn)}));
  for (const std::uint32_t seat : {1u, 2u}) {
    const auto won = plain.pairs.find(static_cast<int>(seat));
    REQUIRE(table.number("pairs", SeatId{seat}) == (won == plain.pairs.end() ? 0 : won->second));
  }
}

/// A pot with two open cards and one that is covered, which may be flipped and turned, and a bed.
TableSetup flower_pot() {
  TableSetup setup(glasshouse());
  const ZoneId from = setup.add({.name = "pot",
                                 .layout = {.kind = SpreadLayout{}, .longest = 3, .sideways = true},
                                 .rules = {.pick = {.kind = PickKind::any},
                                           .flip = rule::rank_at_least(1),
                                           .reorient = rule::own("may-turn")},
                                 .handling = {.tap = TapKind::flip, .double_tap = TapKind::reorient},
                                 .cards = {{.face = {1}}, {.face = {2}}, {.face = {3}, .face_up = false}}});
  const ZoneId to = setup.add({.name = "bed", .rules = {.drop = rule::anything()}});
  setup.plans = {{.root = across({zone(from, 1), zone(to)})}};
  setup.bind("may-turn", [](const RuleQuestion& q) {
    return q.card == CardId{1} ? q.refuse({{"why", std::string("rooted")}}) : Verdict{};
  });
  return setup;
}

}  // namespace

TEST_CASE("play: flips: pairs are found alike on a bare table, on a playfield and by a plain model") {
  for_all("pairs", 2, [](Random& r) {
    const auto end = static_cast<MatchEnd>(r.below(3));
    HiddenPairs game(r, end);
    PlainPairs plain(game.setup.table);
    Table bare = game.setup.table;
    const Rulebook rules = game.setup.rulebook();
    Playfield field(game.setup, {.window = {800, 500}});
    for (int i = 0; i < 60 && !plain.flips().empty(); ++i) {
      REQUIRE(flips_of(legal_moves(bare, rules)) == plain.flips());
      REQUIRE(flips_of(field.rules().legal_moves()) == plain.flips());
      const std::vector<Move> moves = legal_moves(bare, rules);
      const Move move = moves[r.below(moves.size())];
      const bool by_hand = r.chance(0.5f);
      REQUIRE(apply_move(bare, rules, move).verdict);
      REQUIRE((by_hand ? field.moves().flip(move.run.first) : field.moves().make(move)));
      if (r.chance(0.1f)) {
        // The table goes on elsewhere while they are looked at: there they are compared as well.
        TableSetup again = game.setup;
        again.table = field.table();
        field = Playfield(std::move(again), {.window = {800, 500}});
      }
      (void)events_until(field, field.now() + 3);
      plain.flip(move.run.first);
      expect_pairs(bare, plain);
      expect_pairs(field.table(), plain);
      if (field.moves().can_undo() && r.chance(0.2f)) {
        REQUIRE(field.moves().undo());
        (void)events_until(field, field.now() + 0.1);
        REQUIRE(field.moves().redo());
        (void)events_until(field, field.now() + 3);
        expect_pairs(field.table(), plain);
      }
    }
    REQUIRE(flips_of(field.rules().legal_moves()) == plain.flips());
  });
}

TEST_CASE("play: flips: a card is flipped and turned as its zone's rules have it, and back by undo") {
  Hand h(flower_pot());
  const auto moves = h.field.rules().legal_moves();
  const auto of = [&](MoveKind kind) {
    return std::count_if(moves.begin(), moves.end(), [&](const Move& move) { return move.kind == kind; });
  };
  CHECK(of(MoveKind::flip) == 2);      // the ranks from 2 on; a covered card has one, too
  CHECK(of(MoveKind::reorient) == 2);  // all but the first
  CHECK(h.field.moves().flip({1}).reason == Reason::too_low);
  CHECK(h.field.moves().reorient({1}).reason == Reason::own_rule);
  CHECK(h.field.moves().reorient({2}));
  CHECK(h.field.table().card({2})->sideways);
  CHECK(h.field.moves().flip({3}));
  CHECK(h.field.table().card({3})->face_up);
  h.settle();
  CHECK(h.count(EventKind::flipped) == 1);
  CHECK(h.count(EventKind::reoriented) == 1);
  CHECK(h.last(EventKind::reoriented)->proposal != 0);
  CHECK(describe(*h.last(EventKind::reoriented), h.field) == "Fern-2 turned by a quarter in pot.");
  CHECK(h.field.moves().undo());
  CHECK(h.field.moves().undo());
  CHECK_FALSE(h.field.table().card({2})->sideways);
  CHECK_FALSE(h.field.moves().can_undo());
  // What lies so already, lies elsewhere, or goes nowhere as a flip.
  const ZoneId pot = h.zone("pot");
  const Move flip{.kind = MoveKind::flip, .on = true, .run = {{2}, 1}, .from = pot};
  CHECK(h.field.moves().make(flip).reason == Reason::other_side);
  Move wrong = flip;
  wrong.on = false;
  wrong.from = h.zone("bed");
  CHECK(h.field.moves().make(wrong).reason == Reason::other_run);
  wrong = flip;
  wrong.run.count = 2;
  CHECK(h.field.moves().make(wrong).reason == Reason::other_run);
  CHECK(flip_move(h.field.table(), {}, {2}).verdict.reason == Reason::flip_nothing);
  CHECK(reorient_move(h.field.table(), {}, {2}).verdict.reason == Reason::reorient_nothing);
  CHECK(flip_move(h.field.table(), {}, {9}).verdict.reason == Reason::unknown_card);
  CHECK(h.field.switches().switch_off(CardId{3}));
  CHECK(h.field.moves().flip({3}).reason == Reason::switched_off);
}

TEST_CASE("play: flips: a flip is a proposal, which the game answers now, later, with no, or by doing it") {
  Hand h(flower_pot());
  std::optional<Verdict> says;
  h.field.moves().set_judge([&](const Proposal&) { return says; });
  const auto waiting = [&] { return h.field.moves().waiting().size(); };
  CHECK(h.field.moves().flip({3}));
  REQUIRE(waiting() == 1);
  CHECK_FALSE(h.field.table().card({3})->face_up);
  CHECK(h.field.moves().flip({3}).reason == Reason::locked);
  CHECK(h.field.edits().set_face({3}, {7}));  // the server tells what is on it
  CHECK(h.field.moves().answer(h.field.moves().waiting()[0].id));
  CHECK(h.field.table().card({3})->face_up);
  // A no leaves it.
  CHECK(h.field.moves().flip({3}));
  CHECK_FALSE(h.field.moves().answer(h.field.moves().waiting()[0].id, {.reason = Reason::refused_by_game}));
  CHECK(h.field.table().card({3})->face_up);
  // Done by the game itself it is answered by that.
  CHECK(h.field.moves().reorient({2}));
  CHECK(h.field.edits().sync({}).verdict);
  CHECK(waiting() == 1);
  CHECK(h.field.edits().set_sideways({2}, true));
  if (waiting() == 1) CHECK_FALSE(h.field.moves().answer(h.field.moves().waiting()[0].id));
  CHECK(h.field.table().card({2})->sideways);
  says = Verdict{.reason = Reason::refused_by_game};
  CHECK_FALSE(h.field.moves().flip({3}));
  says = Verdict{};
  CHECK(h.field.moves().flip({3}));
  CHECK_FALSE(h.field.table().card({3})->face_up);
}

TEST_CASE("play: flips: a tap flips, two taps turn, and a table from a file has the same") {
  const TableSetup written = flower_pot();
  auto read = parse_table(write_table(written), "pot");
  REQUIRE(read);
  CHECK(read->unbound() == std::vector<std::string>{"may-turn"});
  CHECK(read->rules_of({1}).flip == written.rules_of({1}).flip);
  read->bind("may-turn", [](const RuleQuestion&) { return Verdict{}; });
  Hand h(*std::move(read));
  const Vec2 at = h.field.where().resting_pose({3})->centre;
  const auto click = [&] {
    send(h.field, PointerInput{.phase = PointerPhase::down, .at = at, .time = h.field.now() + 0.02});
    send(h.field, PointerInput{.phase = PointerPhase::up, .at = at, .time = h.field.now() + 0.02});
  };
  click();
  (void)events_until(h.field, h.field.now() + 1);  // no second one comes
  CHECK(h.field.table().card({3})->face_up);
  click();
  click();
  (void)events_until(h.field, h.field.now() + 1);
  CHECK(h.field.table().card({3})->sideways);
  CHECK(h.field.table().card({3})->face_up);
}

TEST_CASE("play: flips: what a tap does has to be allowed by a rule, and what is compared as well") {
  TableSetup setup(glasshouse());
  const ZoneId pot = setup.add({.name = "pot", .handling = {.tap = TapKind::flip}});
  setup.plans = {{.root = zone(pot)}};
  CHECK_THROWS_WITH(check(setup),
                    "zone 'pot': a tap flips its cards, and its rules let nobody: a rule 'flip' is expected, "
                    "of all its cards 'anything'");
  setup.rules_of(pot).flip = rule::anything();
  CHECK_NOTHROW(check(setup));
  setup.handling_of(pot).double_tap = TapKind::reorient;
  CHECK_THROWS_WITH(check(setup), Catch::Matchers::Contains("a tap turns its cards"));
  setup.handling_of(pot) = {};
  setup.rules_of(pot).flip = rule::nothing();
  setup.rules_of(pot).match = MatchRule{.end = MatchEnd::stay};
  CHECK_THROWS_WITH(check(setup), Catch::Matchers::Contains("open cards match"));
}

TEST_CASE("play: marks: a card, a zone and a panel glow by name, for a time or until it is taken back") {
  TableSetup setup = flower_pot();
  setup.table.create_seat("south");
  const PanelId panel = setup.add_panel({.name = "south", .kind = PanelKind::counter, .text = "{points}"});
  setup.plans[0].root.parts.push_back(apsidon::panel(panel, {.px = 90}, {.px = 40}));
  Hand h(std::move(setup));
  auto&& switches = h.field.switches();
  const auto glowing = [&] {
    int items = 0;
    for (const FrameItem& item : h.field.frame().items) items += item.marks.glows ? 1 : 0;
    return items;
  };
  CHECK(glowing() == 0);
  CHECK(switches.mark(CardId{2}, "hint", 1));
  CHECK(switches.mark(CardId{2}, "best"));
  CHECK(glowing() == 1);
  REQUIRE(h.field.frame().marked.size() == 2);
  CHECK(h.field.frame().marked[0] == FrameMark{CardId{2}, "hint"});
  CHECK_FALSE(switches.is_off(CardId{2}));
  (void)events_until(h.field, h.field.now() + 0.9);
  CHECK(switches.marks(CardId{2}).size() == 2);
  (void)events_until(h.field, h.field.now() + 0.2);
  REQUIRE(switches.marks(CardId{2}).size() == 1);
  CHECK(switches.marks(CardId{2})[0] == "best");
  CHECK(switches.unmark(CardId{2}, "best"));
  CHECK(glowing() == 0);
  CHECK(switches.mark(h.zone("pot"), "yours"));
  CHECK(glowing() == 3);
  CHECK(switches.mark(h.zone("bed"), "yours"));
  CHECK(glowing() == 4);  // its outline
  CHECK(switches.mark(panel, "winner"));
  CHECK(h.field.frame().panels.front().glows);
  CHECK(switches.mark(CardId{77}, "hint").reason == Reason::unknown_card);
  // No mark lasts by itself for longer than an hour.
  CHECK(switches.mark(CardId{2}, "long", 1e9));
  (void)events_until(h.field, h.field.now() + 3599);
  CHECK(switches.marks(CardId{2}).size() == 1);
  (void)events_until(h.field, h.field.now() + 2);
  CHECK(switches.marks(CardId{2}).empty());
  // As text, as another language says it.
  const auto input =
      parse_input(R"({"switch": "mark", "card": 3, "reason": "asked", "seconds": 0.1})", flower_pot());
  REQUIRE(input);
  CHECK(h.field.call(*input).verdict);
  CHECK(switches.marks(CardId{3}).size() == 1);
  h.wait(0.2);
  CHECK(switches.marks(CardId{3}).empty());
  // Marked again, its time begins anew; a card that leaves takes its marks along.
  CHECK(switches.mark(CardId{1}, "hint", 1));
  (void)events_until(h.field, h.field.now() + 0.8);
  CHECK(switches.mark(CardId{1}, "hint", 1));
  (void)events_until(h.field, h.field.now() + 0.8);
  CHECK(switches.marks(CardId{1}).size() == 1);
  CHECK(switches.mark(CardId{1}, "best"));
  CHECK(h.field.edits().remove({1}));
  CHECK(switches.marks(CardId{1}).empty());
  (void)h.field.frame();
  (void)events_until(h.field, h.field.now() + 0.5);
  CHECK(switches.marks(CardId{1}).empty());
}

TEST_CASE("play: plans: a mirrored plan has its seats on the other side, and their cards turned to them") {
  TableSetup setup(glasshouse());
  std::vector<ZoneId> hands;
  for (const Facing facing : {Facing::bottom, Facing::left, Facing::top, Facing::right}) {
    hands.push_back(setup.add({.name = std::string("hand-") + std::to_string(hands.size()),
                               .layout = {.kind = HandLayout{}, .longest = 5, .facing = facing},
                               .cards = {{.face = {1}}, {.face = {2}}}}));
  }
  setup.plans = {{.root = seats({zone(hands[0]), zone(hands[1]), zone(hands[2]), zone(hands[3])}, space(1))}};
  Hand h(setup);
  const Rect left = *h.field.where().area(hands[1]);
  const Rect right = *h.field.where().area(hands[3]);
  REQUIRE(left.max.x < right.min.x);
  std::vector<Plan> plans = setup.plans;
  plans[0].mirrored = true;
  REQUIRE(h.field.edits().set_plans(plans));
  h.settle();
  CHECK(*h.field.where().area(hands[1]) == right);
  CHECK(*h.field.where().area(hands[3]) == left);
  CHECK(h.field.where().facing(hands[1]) == Facing::right);
  CHECK(h.field.where().facing(hands[0]) == Facing::bottom);
  const Pose turned = *h.field.where().live_pose(h.field.table().zone(hands[1])->cards[0]);
  const Pose other = *h.field.where().live_pose(h.field.table().zone(hands[3])->cards[0]);
  CHECK(turned.rotation != Approx(other.rotation));
  CHECK(right.contains(turned.centre));
}

TEST_CASE("play: edits: a sync brings the numbers of cards and zones, and refuses what is no number") {
  TableSetup setup(glasshouse());
  const ZoneId bed = setup.add({.name = "bed",
                                .key = 5,
                                .layout = {.kind = SpreadLayout{}, .longest = 3},
                                .numbers = {{"water", 2}},
                                .cards = {{.face = {1}, .key = 11, .numbers = {{"hits", 1}}}}});
  setup.plans = {{.root = zone(bed)}};
  Hand h(std::move(setup));
  const auto sync = [&](WantedZone zone) { return h.field.edits().sync({{std::move(zone)}}); };
  CHECK(sync({.key = 5, .cards = {{.key = 11}}}).verdict);
  CHECK(h.field.table().number("hits", CardId{1}) == 1);
  const SyncReport report = sync(
      {.key = 5,
       .cards = {{.key = 11, .numbers = Numbers{{"hits", 3}}}, {.key = 12, .numbers = Numbers{{"hits", 9}}}},
       .numbers = Numbers{{"water", 7}, {"air", 1}}});
  CHECK(report.verdict);
  CHECK(report.changed == std::vector<CardId>{{1}});
  CHECK(h.field.table().number("hits", CardId{1}) == 3);
  CHECK(h.field.table().number("hits", CardId{2}) == 9);
  CHECK(h.field.table().number("water", bed) == 7);
  CHECK(h.field.table().number("air", bed) == 1);
  CHECK(sync({.key = 5, .cards = {{.key = 11}}, .numbers = Numbers{}}).verdict);
  CHECK(h.field.table().number("water", bed) == 0);
  const Verdict wrong = sync({.key = 5, .cards = {{.key = 11, .numbers = Numbers{{"", 3}}}}}).verdict;
  CHECK(wrong.reason == Reason::out_of_range);
  CHECK(sync({.key = 5, .numbers = Numbers{{"cards", 3}}}).verdict.reason == Reason::out_of_range);
}

TEST_CASE("play: flips: who plays at a table without that seat is told so") {
  CHECK_THROWS_WITH(Playfield(flower_pot(), {.seat = {3}}),
                    "playfield: seat 3: none, or one of the table's 0 is expected");
}
