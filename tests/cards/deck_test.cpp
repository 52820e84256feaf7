#include <catch2/catch.hpp>
#include <map>

#include "support/tables.hpp"

using namespace apsidon;
using namespace apsidon::test;

TEST_CASE("cards: every face of a deck is found by its text") {
  const Deck deck = glasshouse();
  CHECK(deck.face_count() == 52);
  for (const FaceId face : deck.faces()) {
    CHECK(deck.find(deck.text(face)) == face);
    CHECK(deck.face(deck.suit_of(face), deck.rank_of(face)) == face);
  }
  CHECK(deck.text(*deck.find("poppy-10")) == "poppy-10");
  CHECK(deck.rank_of(*deck.find("poppy-10")) == 9);
}

TEST_CASE("cards: what is no face is not found") {
  const Deck deck = glasshouse();
  for (const char* text : {"", "fern", "fern-", "-7", "fern-14", "oak-7", "fern-7-7", "Fern-7"}) {
    CHECK_FALSE(deck.find(text).has_value());
  }
  CHECK(deck.find("hidden") == hidden_face);
  CHECK(deck.text({999}) == "hidden");
  CHECK(deck.suit_of(hidden_face) == -1);
  CHECK(deck.rank_of({53}) == -1);
  CHECK(deck.face(4, 0) == hidden_face);
}

TEST_CASE("cards: suits of one colour compare equal in colour") {
  const Deck deck = glasshouse();
  CHECK(deck.colour_of(*deck.find("fern-1")) == deck.colour_of(*deck.find("reed-13")));
  CHECK(deck.colour_of(*deck.find("fern-1")) != deck.colour_of(*deck.find("poppy-1")));
  CHECK(deck.colour_of(hidden_face) == -1);
}

TEST_CASE("cards: a deck that makes no sense is refused with the value and what is expected") {
  CHECK_THROWS_WITH(Deck({.suits = {}, .ranks = {"1"}}), "deck: no suits: at least one is expected");
  CHECK_THROWS_WITH(Deck({.suits = {{"a", "g"}}, .ranks = {}}), "deck: no ranks: at least one is expected");
  CHECK_THROWS_WITH(Deck({.suits = {{"a", "g"}}, .ranks = {"1"}, .copies = 0}),
                    "deck: copies is 0: 1 to 1000000 is expected");
  CHECK_THROWS_WITH(Deck({.suits = {{"a", "g"}, {"a", "g"}}, .ranks = {"1"}}),
                    "deck: suit 'a' is named twice: distinct names are expected");
  CHECK_THROWS_WITH(Deck({.suits = {{"a", "g"}}, .ranks = {"1", "2", "1"}}),
                    "deck: rank '1' is named twice: distinct names are expected");
  CHECK_THROWS_AS(Deck({.suits = {{"a-b", "g"}}, .ranks = {"1"}}), Error);
}

TEST_CASE("cards: jokers are faces of no rank, with a name and perhaps a colour") {
  const Deck deck({.suits = {{"fern", "green"}, {"poppy", "orange"}},
                   .ranks = {"1", "2", "3"},
                   .jokers = {{"moth", "orange"}, {"bee", ""}, {"wasp", "black"}, {"hornet", "black"}}});
  CHECK(deck.face_count() == 10);
  for (const FaceId face : deck.faces()) CHECK(deck.find(deck.text(face)) == face);
  const FaceId moth = *deck.find("moth");
  CHECK(deck.is_joker(moth));
  CHECK(deck.joker(0) == moth);
  CHECK(deck.joker(4) == hidden_face);
  CHECK_FALSE(deck.is_joker(*deck.find("fern-3")));
  CHECK_FALSE(deck.is_joker(hidden_face));
  CHECK(deck.suit_of(moth) == -1);
  CHECK(deck.rank_of(moth) == -1);
  CHECK(deck.colour_of(moth) == deck.colour_of(*deck.find("poppy-1")));
  CHECK(deck.colour_of(*deck.find("bee")) == -1);
  CHECK(deck.colour_of(*deck.find("wasp")) == deck.colour_of(*deck.find("hornet")));
  CHECK(deck.colour_of(*deck.find("wasp")) != deck.colour_of(moth));
  const auto with = [](std::vector<Joker> jokers) {
    return Deck({.suits = {{"a", "g"}}, .ranks = {"1"}, .jokers = std::move(jokers)});
  };
  CHECK_THROWS_WITH(with({{"x", ""}, {"x", ""}}),
                    "deck: joker 'x' is named twice: distinct names are expected");
  CHECK_THROWS_AS(with({{"hidden", ""}}), Error);
  CHECK_THROWS_AS(with({{"a-1", ""}}), Error);
}

TEST_CASE(
    "cards: a joker is refused by rules of rank and suit, and compared by its colour where it has one") {
  TableSetup setup(Deck({.suits = {{"fern", "green"}, {"poppy", "orange"}},
                         .ranks = {"1", "2"},
                         .jokers = {{"moth", "orange"}, {"bee", ""}}}));
  const Deck& deck = setup.table.deck();
  const ZoneId from = setup.add({.name = "from", .cards = {open_card(deck, "moth"), open_card(deck, "bee")}});
  const auto onto = [&](const std::string& name, Rule drop, std::vector<CardOptions> cards) {
    return setup.add({.name = name, .rules = {.drop = std::move(drop)}, .cards = std::move(cards)});
  };
  const std::vector<CardOptions> poppy{open_card(deck, "poppy-1")};
  const ZoneId down = onto("down", rule::rank_down(), poppy);
  const ZoneId suit = onto("suit", rule::same_suit(), poppy);
  const ZoneId colour = onto("colour", rule::same_colour(), poppy);
  const ZoneId first = onto("first", rule::rank_on_empty(0), {});
  const ZoneId any = onto("any", rule::anything(), {});
  const auto cards = setup.table.zone(from)->cards;
  const auto ask = [&](CardId card, ZoneId zone) {
    return judge_drop(setup.table, setup.rulebook(), {card, 1}, zone).reason;
  };
  CHECK(ask(cards[1], down) == Reason::no_rank);
  CHECK(ask(cards[1], suit) == Reason::no_rank);
  CHECK(ask(cards[1], first) == Reason::no_rank);
  CHECK(ask(cards[1], colour) == Reason::no_rank);
  CHECK(ask(cards[1], any) == Reason::allowed);
  REQUIRE(setup.table.move({cards[0], 1}, from));
  CHECK(ask(cards[0], colour) == Reason::allowed);
  CHECK(ask(cards[0], down) == Reason::no_rank);
}

TEST_CASE("cards: faces compare by rank, the lowest as the highest where that is asked for") {
  const Deck deck = standard_deck(2);
  CHECK(deck.face_count() == 54);
  const auto compare = [&](const char* a, const char* b, Ace ace = Ace::low) {
    return deck.compare_ranks(*deck.find(a), *deck.find(b), ace);
  };
  CHECK(compare("hearts-A", "spades-K") == -1);
  CHECK(compare("hearts-A", "spades-K", Ace::high) == 1);
  CHECK(compare("hearts-A", "spades-A", Ace::high) == 0);
  CHECK(compare("clubs-10", "clubs-9") == 1);
  CHECK_FALSE(compare("joker1", "clubs-9").has_value());
  CHECK_FALSE(deck.compare_ranks(hidden_face, *deck.find("clubs-9")).has_value());
  CHECK(standard_deck(0, 2).options().copies == 2);
  CHECK_THROWS_WITH(standard_deck(5), "deck: 5 jokers: 0 to 4 are expected");
}

TEST_CASE("cards: a matching game gets whole sets, some of them special, the same for the same seed") {
  DeckOptions options{.suits = {{"a", "g"}, {"b", "g"}, {"c", "g"}, {"d", "g"}}, .ranks = {"1", "2", "3"}};
  for (const char* suit : {"a", "b", "c", "d"}) {
    const std::string s = suit;
    options.sets.push_back({.faces = {s + "-1", s + "-2", s + "-3"}, .special = s == "d"});
  }
  const Deck deck(options);
  CHECK(deck.belong_together(*deck.find("b-1"), *deck.find("b-3")));
  CHECK_FALSE(deck.belong_together(*deck.find("b-1"), *deck.find("c-1")));
  CHECK_FALSE(deck.belong_together(hidden_face, hidden_face));
  for (std::uint64_t seed = 0; seed < 50; ++seed) {
    Random64 random(seed);
    Random64 again(seed);
    const auto faces = matching_faces(deck, 3, 1, random);
    CHECK(faces == matching_faces(deck, 3, 1, again));
    std::map<int, int> of_set;
    for (const FaceId face : faces) ++of_set[deck.traits(face).set];
    CHECK(of_set.size() == 3);
    CHECK(of_set[3] == 3);  // the special one
    for (const auto& [set, count] : of_set) CHECK(count == 3);
  }
  Random64 random(1);
  CHECK_THROWS_WITH(matching_faces(deck, 5, 1, random),
                    "matching faces: 5 sets, 1 of them special: at most 4 and 1 are expected");
  options.sets.push_back({.faces = {"a-1"}});
  CHECK_THROWS_WITH(Deck(options), "deck: 'a-1' is in two sets: one is expected");
  options.sets.back().faces = {"x-1"};
  CHECK_THROWS_WITH(Deck(options), "deck: a set has 'x-1': a face of the deck is expected");
}
