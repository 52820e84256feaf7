#include "support/tables.hpp"

using namespace apsidon;
using apsidon::test::glasshouse;

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
                    "deck: copies is 0: 1 or more is expected");
  CHECK_THROWS_WITH(Deck({.suits = {{"a", "g"}, {"a", "g"}}, .ranks = {"1"}}),
                    "deck: suit 'a' is named twice: distinct names are expected");
  CHECK_THROWS_WITH(Deck({.suits = {{"a", "g"}}, .ranks = {"1", "2", "1"}}),
                    "deck: rank '1' is named twice: distinct names are expected");
  CHECK_THROWS_AS(Deck({.suits = {{"a-b", "g"}}, .ranks = {"1"}}), Error);
}
