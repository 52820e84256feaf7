#include "apsidon/rules/describe.hpp"

#include <fmt/args.h>
#include <fmt/format.h>

#include <algorithm>
#include <optional>

#include "apsidon/geometry/error.hpp"
#include "rules/sentence.hpp"

namespace apsidon {
namespace {

Phrases english_reasons() {
  Phrases p;
  const auto say = [&](Reason reason, std::string text) {
    p.by_reason[static_cast<std::size_t>(reason)] = std::move(text);
  };
  say(Reason::allowed, "Allowed.");
  say(Reason::unknown_card, "{card} is not on the table.");
  say(Reason::unknown_zone, "That zone is not on the table.");
  say(Reason::unknown_index, "{zone} has no such place.");
  say(Reason::out_of_range, "A number of this call is out of its range.");
  say(Reason::unknown_key, "No zone has the key {key}.");
  say(Reason::unknown_face, "{card} cannot be judged here: a face is not known.");
  say(Reason::unknown_move, "The table has no such move.");
  say(Reason::unknown_seat, "That seat is not at the table.");
  say(Reason::missing_key, "A wanted card or zone has no key.");
  say(Reason::repeated_key, "The key {key} is wanted twice.");
  say(Reason::empty_zone, "{zone} is empty.");
  say(Reason::pick_nothing, "{zone} gives no cards by hand.");
  say(Reason::flip_nothing, "Cards in {zone} are not flipped by hand.");
  say(Reason::reorient_nothing, "Cards in {zone} are not turned by a quarter by hand.");
  say(Reason::select_nothing, "Cards in {zone} are not chosen.");
  say(Reason::other_side, "{card} lies so already.");
  say(Reason::not_top, "{card} is covered: {zone} gives its top card only.");
  say(Reason::face_down, "{card} lies face down.");
  say(Reason::not_linked,
      "{card} does not follow {onto}, so the cards from there on cannot be picked up together.");
  say(Reason::switched_off, "{card} cannot be played now.");
  say(Reason::other_run, "From {card} on, {wanted} cards are picked up together in {zone}, not {found}.");
  say(Reason::same_zone, "{card} lies in {zone} already.");
  say(Reason::drop_nothing, "{zone} takes no cards.");
  say(Reason::not_rank_down, "{card} is not one rank below {onto}, as {zone} builds down.");
  say(Reason::not_rank_up, "{card} is not one rank above {onto}, as {zone} builds up.");
  say(Reason::not_same_suit, "{card} is not of the suit of {onto}, as {zone} asks.");
  say(Reason::not_same_colour, "{card} is not of the colour of {onto}, as {zone} asks.");
  say(Reason::not_empty, "{zone} takes a card only while it is empty.");
  say(Reason::needs_card, "{zone} is empty: {card} has nothing to lie on.");
  say(Reason::not_rank_on_empty, "{zone} begins with rank {wanted_rank}; {card} has another.");
  say(Reason::nothing_chosen, "Nothing is chosen.");
  say(Reason::too_few, "{zone} takes at least {wanted} at once here; there are {found}.");
  say(Reason::no_sequence, "They do not follow on each other.");
  say(Reason::too_many, "{zone} takes at most {wanted} at once here; from {card} on there are {found}.");
  say(Reason::negated, "{zone} does not take {card}.");
  say(Reason::no_rank, "{card} has no suit or rank to go by.");
  say(Reason::not_same_rank, "{card} is not of the rank of {onto}, as {zone} asks.");
  say(Reason::not_together, "{card} does not belong together with {onto}.");
  say(Reason::wrong_source, "{zone} takes no cards from where {card} lies.");
  say(Reason::needs_neighbours,
      "Of the places beside {zone}, at least {wanted} must be filled; {found} are.");
  say(Reason::waits_for, "{zone} waits: of the places before it, {wanted} must be filled; {found} are.");
  say(Reason::wrong_suit, "{zone} wants the suit {wanted_suit}; {card} is of another.");
  say(Reason::too_low, "{zone} wants rank {wanted_rank} or higher; {card} is too low.");
  say(Reason::number_low, "{number} is {found}, and at least {wanted} is asked for.");
  say(Reason::number_high, "{number} is {found}, and at most {wanted} is asked for.");
  say(Reason::number_differs, "{number} is {found}, and {wanted} is asked for.");
  say(Reason::not_on_turn, "It is another player's turn.");
  say(Reason::not_own_zone, "{zone} belongs to another player.");
  say(Reason::own_rule, "{zone} does not take {card}.");
  say(Reason::no_exchange, "{onto} may not go to {zone}, where {card} comes from.");
  say(Reason::locked, "{card} waits for an answer.");
  say(Reason::in_hand, "{card} is in the hand already.");
  say(Reason::in_flight, "{card} is still on its way.");
  say(Reason::open_already, "{card} is open already.");
  say(Reason::no_passes, "{zone} cannot be gone through again: {found} of {wanted} passes are used.");
  say(Reason::no_stock, "{zone} gives no cards at a tap.");
  say(Reason::too_many_open, "{wanted} cards are open already.");
  say(Reason::refused_by_game, "{card} may not go to {zone} now.");
  say(Reason::game_failed, "The game could not say whether {card} may go to {zone}.");
  say(Reason::superseded, "The table has changed meanwhile: the move of {card} to {zone} no longer counts.");
  say(Reason::unknown_proposal, "No move waits for this answer.");
  say(Reason::nothing_to_undo, "There is nothing to undo.");
  say(Reason::nothing_to_finish, "What is left cannot be finished yet.");
  say(Reason::nothing_to_redo, "There is nothing to redo.");
  say(Reason::unknown_panel, "That panel is not on the table.");
  say(Reason::unknown_timer, "That countdown is over.");
  say(Reason::unknown_performance, "That performance is over.");
  say(Reason::undo_forbidden, "What was done cannot be taken back now.");
  say(Reason::no_focus, "The keys cannot act on this now.");
  say(Reason::unbound, "The game has no function for a rule of {zone}.");
  say(Reason::no_preview, "{card} cannot be shown larger now.");
  p.others = " Nor does it fit there in any other way.";
  return p;
}

std::string card_text(CardId id, FaceId face, const Table& table, const Names& names) {
  if (table.deck().has(face)) return spoken(face, table.deck(), names);
  const Card* card = table.card(id);
  if (!card) return id ? fmt::format("card {}", id.value) : "that card";
  // Naming a covered card would tell what it hides.
  return card->face_up && table.deck().has(card->face) ? spoken(card->face, table.deck(), names)
                                                       : "the covered card";
}

std::string fill(const std::string& text, const Verdict& v, const Table& table, const Names& names) {
  const Zone* zone = table.zone(v.zone);
  const auto& ranks = table.deck().options().ranks;
  const bool rank = v.wanted >= 0 && static_cast<std::size_t>(v.wanted) < ranks.size();
  fmt::dynamic_format_arg_store<fmt::format_context> args;
  args.push_back(fmt::arg("card", card_text(v.card, v.face, table, names)));
  args.push_back(fmt::arg("onto", card_text(v.onto, v.onto_face, table, names)));
  args.push_back(fmt::arg("zone", zone ? spoken(zone->name, names) : std::string("the zone")));
  args.push_back(fmt::arg("wanted", v.wanted));
  args.push_back(fmt::arg("found", v.found));
  args.push_back(fmt::arg(
      "wanted_rank", rank ? spoken(ranks[static_cast<std::size_t>(v.wanted)], names) : std::string("?")));
  const auto& suits = table.deck().options().suits;
  const bool suit = v.wanted >= 0 && static_cast<std::size_t>(v.wanted) < suits.size();
  args.push_back(fmt::arg("wanted_suit", suit ? spoken(suits[static_cast<std::size_t>(v.wanted)].name, names)
                                              : std::string("?")));
  args.push_back(fmt::arg("others", v.others));
  args.push_back(fmt::arg("key", v.key));
  args.push_back(fmt::arg("number", spoken(v.rule, names)));
  return fmt::vformat(text, args);
}

std::string text_of(const VerdictArgument& argument, const Table& table, const Names& names) {
  if (const auto* number = std::get_if<std::int64_t>(&argument.value)) return fmt::format("{}", *number);
  if (const auto* text = std::get_if<std::string>(&argument.value)) return *text;
  if (const auto* card = std::get_if<CardId>(&argument.value)) return card_text(*card, {}, table, names);
  const Zone* zone = table.zone(std::get<ZoneId>(argument.value));
  return zone ? spoken(zone->name, names) : "the zone";
}

/// A template of the game's own.
std::string fill_own(const std::string& text, const Verdict& v, const Table& table, const Names& names) {
  const auto value_of = [&](std::string_view name) -> std::optional<std::string> {
    for (const VerdictArgument& argument : v.arguments) {
      if (argument.name == name) return text_of(argument, table, names);
    }
    const auto known = {"card", "onto", "zone", "wanted", "found"};
    if (std::find(known.begin(), known.end(), name) == known.end()) return std::nullopt;
    return fill(fmt::format("{{{}}}", name), v, table, names);
  };
  return filled_in(text, value_of);
}

}  // namespace

std::string spoken(std::string_view name, const Names& names) {
  const auto it = names.words.find(name);
  return it == names.words.end() ? std::string(name) : it->second;
}

std::string spoken(FaceId face, const Deck& deck, const Names& names) {
  if (!deck.has(face)) return deck.text(face);
  if (deck.is_joker(face) || names.card.empty()) return spoken(deck.text(face), names);
  const DeckOptions& options = deck.options();
  const std::string rank = spoken(options.ranks[static_cast<std::size_t>(deck.rank_of(face))], names);
  const std::string suit = spoken(options.suits[static_cast<std::size_t>(deck.suit_of(face))].name, names);
  return filled_in(names.card, [&](std::string_view name) -> std::optional<std::string> {
    if (name == "rank") return rank;
    if (name == "suit") return suit;
    return std::nullopt;
  });
}

const Phrases& default_phrases() {
  static const Phrases phrases = english_reasons();
  return phrases;
}

void check(const Phrases& phrases) {
  const Table nobody(Deck({.suits = {{"a", "a"}}, .ranks = {"1"}}));
  const auto look = [&](std::string_view what, const std::string& text) {
    try {
      (void)fill(text, {}, nobody, {});
    } catch (const fmt::format_error& e) {
      throw Error(
          fmt::format("phrase for {}: '{}': {}; {{card}}, {{onto}}, {{zone}}, {{wanted}}, {{found}}, "
                      "{{wanted_rank}}, {{wanted_suit}}, {{others}}, {{key}} or {{number}} is expected",
                      what, text, e.what()));
    }
  };
  for (std::size_t i = 0; i < phrases.by_reason.size(); ++i) {
    look(code_of(static_cast<Reason>(i)), phrases.by_reason[i]);
  }
  look("others", phrases.others);
}

std::string describe(const Verdict& verdict, const Table& table, const Phrases& phrases) {
  const auto i = static_cast<std::size_t>(verdict.reason);
  if (i >= phrases.by_reason.size()) return {};
  // Which number it is, and what is expected of it, is said by the check that refused it; likewise which
  // rule.
  if (verdict.reason == Reason::out_of_range || verdict.reason == Reason::unbound) {
    for (const VerdictArgument& argument : verdict.arguments) {
      const auto* problem = std::get_if<std::string>(&argument.value);
      if (argument.name == "problem" && problem) return as_sentence(*problem + ".");
    }
  }
  const auto own = phrases.by_rule.find(verdict.rule);
  std::string text =
      as_sentence(own != phrases.by_rule.end() ? fill_own(own->second, verdict, table, phrases.names)
                                               : fill(phrases.by_reason[i], verdict, table, phrases.names));
  if (verdict.others > 0) text += fill(phrases.others, verdict, table, phrases.names);
  return text;
}

}  // namespace apsidon
