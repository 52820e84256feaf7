#include "apsidon/cards/history.hpp"

#include <algorithm>
#include <iterator>

#include "cards/inside.hpp"

namespace apsidon {
namespace {

using cards_detail::Inside;
using cards_detail::KeptCard;

std::vector<CardId> cards_in(const std::vector<ZoneContents>& zones) {
  std::vector<CardId> cards;
  for (const ZoneContents& zone : zones) {
    for (const LyingCard& lying : zone.cards) cards.push_back(lying.card);
  }
  std::sort(cards.begin(), cards.end());
  return cards;
}

std::vector<CardId> only_in(const std::vector<CardId>& cards, const std::vector<CardId>& others) {
  std::vector<CardId> only;
  std::set_difference(cards.begin(), cards.end(), others.begin(), others.end(), std::back_inserter(only));
  return only;
}

void add(std::vector<KeptCard>& cards, KeptCard card) {
  const auto at = std::lower_bound(cards.begin(), cards.end(), card.first,
                                   [](const KeptCard& kept, CardId id) { return kept.first < id; });
  cards.insert(at, std::move(card));
}

}  // namespace

void History::start(const Table& table) {
  steps_.clear();
  done_ = 0;
  seen_.clear();
  at_.clear();
  sides_at_ = ~std::uint64_t{0};
  look(table);
}

/// Sees all zones as they are now.
void History::look(const Table& table) {
  const std::size_t zones = table.zones().size();
  seen_.resize(zones);
  at_.resize(zones, 0);
  for (const Zone& zone : table.zones()) {
    const std::size_t i = zone.id.value - 1;
    if (at_[i] == zone.revision) continue;
    seen_[i] = table.contents_of(zone.id);
    at_[i] = zone.revision;
  }
  if (sides_at_ == Inside::sides_revision(table)) return;
  sides_ = Inside::sides_of(table);
  sides_at_ = Inside::sides_revision(table);
}

/// What is another than it was; nothing when it cannot be told how to go back.
std::optional<History::Step> History::changes(const Table& table) const {
  Step step;
  for (const Zone& zone : table.zones()) {
    const std::size_t i = zone.id.value - 1;
    if (i < at_.size() && at_[i] == zone.revision) continue;
    ZoneContents now = table.contents_of(zone.id);
    if (i < seen_.size() && seen_[i] == now) continue;
    step.before.zones.push_back(i < seen_.size() ? seen_[i] : ZoneContents{.zone = zone.id});
    step.after.zones.push_back(std::move(now));
  }
  if (sides_at_ != Inside::sides_revision(table) && sides_ != Inside::sides_of(table)) {
    step.before.sides = sides_;
    step.after.sides = Inside::sides_of(table);
  }
  const std::vector<CardId> before = cards_in(step.before.zones);
  const std::vector<CardId> after = cards_in(step.after.zones);
  for (const CardId card : only_in(before, after)) {
    const auto options = Inside::find_retired(table, card);
    if (!options) return std::nullopt;
    step.left.emplace_back(card, *options);
  }
  for (const CardId card : only_in(after, before)) step.came.emplace_back(card, CardOptions{});
  return step;
}

/// The first state of all that has changed, and the last.
void History::join(Step& last, Step&& step) {
  for (std::size_t i = 0; i < step.after.zones.size(); ++i) {
    ZoneContents& after = step.after.zones[i];
    const auto it = std::find_if(last.after.zones.begin(), last.after.zones.end(),
                                 [&](const ZoneContents& c) { return c.zone == after.zone; });
    if (it != last.after.zones.end()) {
      *it = std::move(after);
      continue;
    }
    last.before.zones.push_back(std::move(step.before.zones[i]));
    last.after.zones.push_back(std::move(after));
  }
  if (step.after.sides) {
    if (!last.before.sides) last.before.sides = std::move(step.before.sides);
    last.after.sides = std::move(step.after.sides);
  }
  for (KeptCard& card : step.left) {
    // What came and left again within one step was never there.
    if (std::erase_if(last.came, [&](const KeptCard& c) { return c.first == card.first; }) == 0)
      add(last.left, std::move(card));
  }
  for (KeptCard& card : step.came) add(last.came, std::move(card));
}

void History::note(const Table& table, bool belongs) {
  std::optional<Step> step = changes(table);
  look(table);
  if (!step) {
    steps_.clear();
    done_ = 0;
    return;
  }
  if (step->after == State{}) return;
  steps_.erase(steps_.begin() + static_cast<std::ptrdiff_t>(done_), steps_.end());
  if (belongs && done_ > 0) {
    Step& last = steps_.back();
    join(last, std::move(*step));
    // What has come to nothing, as an open card that was covered again, is no step.
    if (last.before == last.after) {
      steps_.pop_back();
      --done_;
    }
    return;
  }
  if (belongs) return;  // nothing that it could belong to
  steps_.push_back(*std::move(step));
  if (steps_.size() > most_) steps_.pop_front();
  done_ = steps_.size();
}

/// The cards that leave now come back with the faces that they have now.
Verdict History::go(Table& table, Step& step, bool back) {
  const State& to = back ? step.before : step.after;
  for (auto& [card, options] : back ? step.came : step.left) {
    if (table.card(card)) options = Inside::options_of(table, card);
  }
  const Verdict verdict = Inside::arrange(table, to.zones, back ? &step.left : &step.came);
  if (verdict && to.sides) Inside::set_sides(table, *to.sides);
  return verdict;
}

Verdict History::undo(Table& table) {
  note(table, true);
  if (!can_undo()) return {.reason = Reason::nothing_to_undo};
  const Verdict verdict = go(table, steps_[done_ - 1], true);
  if (verdict) --done_;
  look(table);
  return verdict;
}

Verdict History::redo(Table& table) {
  // What has changed since would be lost: then there is nothing to redo.
  note(table, true);
  if (!can_redo()) return {.reason = Reason::nothing_to_redo};
  const Verdict verdict = go(table, steps_[done_], false);
  if (verdict) ++done_;
  look(table);
  return verdict;
}

}  // namespace apsidon
