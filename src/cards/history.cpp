#include "apsidon/cards/history.hpp"

#include <algorithm>

namespace apsidon {
namespace {

std::vector<CardId> cards_in(const std::vector<ZoneContents>& zones) {
  std::vector<CardId> cards;
  for (const ZoneContents& zone : zones) {
    for (const LyingCard& lying : zone.cards) cards.push_back(lying.card);
  }
  std::sort(cards.begin(), cards.end());
  return cards;
}

}  // namespace

void History::start(const Table& table) {
  steps_.clear();
  done_ = 0;
  seen_.clear();
  at_.clear();
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
}

History::Step History::changes(const Table& table) const {
  Step step;
  for (const Zone& zone : table.zones()) {
    const std::size_t i = zone.id.value - 1;
    if (i < at_.size() && at_[i] == zone.revision) continue;
    ZoneContents now = table.contents_of(zone.id);
    if (i < seen_.size() && seen_[i] == now) continue;
    step.before.push_back(i < seen_.size() ? seen_[i] : ZoneContents{.zone = zone.id});
    step.after.push_back(std::move(now));
  }
  return step;
}

void History::note(const Table& table, bool belongs) {
  Step step = changes(table);
  look(table);
  if (step.after.empty()) return;
  if (cards_in(step.before) != cards_in(step.after)) {
    steps_.clear();
    done_ = 0;
    return;
  }
  steps_.erase(steps_.begin() + static_cast<std::ptrdiff_t>(done_), steps_.end());
  if (belongs && done_ > 0) {
    // The first state of every zone, and the last.
    Step& last = steps_.back();
    for (std::size_t i = 0; i < step.after.size(); ++i) {
      const auto same = [&](const ZoneContents& c) { return c.zone == step.after[i].zone; };
      const auto it = std::find_if(last.after.begin(), last.after.end(), same);
      if (it != last.after.end()) {
        *it = std::move(step.after[i]);
        continue;
      }
      last.before.push_back(std::move(step.before[i]));
      last.after.push_back(std::move(step.after[i]));
    }
    // What has come to nothing, as an open card that was covered again, is no step.
    if (last.before == last.after) {
      steps_.pop_back();
      --done_;
    }
    return;
  }
  if (belongs) return;  // nothing that it could belong to
  steps_.push_back(std::move(step));
  if (steps_.size() > most_) steps_.pop_front();
  done_ = steps_.size();
}

Verdict History::undo(Table& table) {
  note(table, true);
  if (!can_undo()) return {.reason = Reason::nothing_to_undo};
  const Verdict verdict = table.arrange(steps_[done_ - 1].before);
  if (verdict) --done_;
  look(table);
  return verdict;
}

Verdict History::redo(Table& table) {
  // What has changed since would be lost: then there is nothing to redo.
  note(table, true);
  if (!can_redo()) return {.reason = Reason::nothing_to_redo};
  const Verdict verdict = table.arrange(steps_[done_].after);
  if (verdict) ++done_;
  look(table);
  return verdict;
}

}  // namespace apsidon
