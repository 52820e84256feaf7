#include "apsidon/play/script.hpp"

#include <utility>

namespace apsidon {
namespace {

Script one(Act act) { return {.act = std::move(act)}; }

}  // namespace

Script sequence(std::vector<Script> parts) {
  return {.kind = Script::Kind::sequence, .parts = std::move(parts)};
}
Script together(std::vector<Script> parts) {
  return {.kind = Script::Kind::together, .parts = std::move(parts)};
}
Script deal() { return one({.kind = ActKind::deal}); }
Script gather(ZoneId to, ZoneId from, bool keeps_sides) {
  return one({.kind = ActKind::gather, .from = from, .to = to, .keeps_sides = keeps_sides});
}
Script scatter(ZoneId zone, std::uint64_t seed) {
  return one({.kind = ActKind::scatter, .to = zone, .seed = seed});
}
Script reload(ZoneId stock, ZoneId from, std::uint64_t seed) {
  return sequence({gather(stock, from), shuffle(stock, seed)});
}
Script shuffle(ZoneId zone, std::uint64_t seed) {
  return one({.kind = ActKind::shuffle, .to = zone, .seed = seed});
}
Script draw(ZoneId from, ZoneId to, std::size_t count, bool face_up) {
  return one({.kind = ActKind::draw, .from = from, .to = to, .count = count, .face_up = face_up});
}
Script move_cards(std::vector<CardId> cards, ZoneId to) {
  return one({.kind = ActKind::move, .to = to, .cards = std::move(cards)});
}
Script flip(std::vector<CardId> cards, bool face_up) {
  return one({.kind = ActKind::flip, .cards = std::move(cards), .face_up = face_up});
}
Script reveal(std::vector<CardId> cards, double seconds) {
  std::vector<CardId> same = cards;
  return sequence({flip(std::move(cards), true), wait(seconds), flip(std::move(same), false)});
}
Script shake(std::vector<CardId> cards) { return one({.kind = ActKind::shake, .cards = std::move(cards)}); }
Script pulse(std::vector<CardId> cards) { return one({.kind = ActKind::pulse, .cards = std::move(cards)}); }
Script collect(std::vector<CardId> cards, ZoneId to) {
  return one({.kind = ActKind::collect, .to = to, .cards = std::move(cards)});
}
Script finale() { return one({.kind = ActKind::finale}); }
Script wait(double seconds) { return one({.kind = ActKind::wait, .seconds = seconds}); }

}  // namespace apsidon
