#include "play/requests/performances.hpp"

#include <algorithm>
#include <utility>

namespace apsidon::play_detail {
namespace {

/// Whether a clock has shown this time. Asked by the table's clock, so that a rounding on the way to and fro
/// makes nothing early.
bool has_come(const motion_detail::TableMotion& motion, ClockIndex clock, double own) {
  return motion.when(clock, own) <= motion.now();
}

}  // namespace

const Performances::Performance* Performances::find(PerformanceId id) const {
  const auto it = std::find_if(list_.begin(), list_.end(), [&](const Performance& p) { return p.id == id; });
  return it == list_.end() ? nullptr : &*it;
}

Performances::Performance* Performances::find(PerformanceId id) {
  return const_cast<Performance*>(std::as_const(*this).find(id));
}

// A script becomes a list of steps, each with those that wait for it.

std::size_t Performances::add(std::vector<Node>& nodes, StepKind kind, const Act& act,
                              std::span<const std::size_t> after) {
  const std::size_t own = nodes.size();
  nodes.push_back({.kind = kind, .act = act, .first = after.empty(), .waits_for = after.size()});
  for (const std::size_t before : after) nodes[before].then.push_back(own);
  return own;
}

std::size_t Performances::add(std::vector<Node>& nodes, StepKind kind, const Act& act, const Index& after) {
  return add(nodes, kind, act, after ? std::span(&*after, 1) : std::span<const std::size_t>{});
}

/// Returns the step with whose end all of the script has ended; `after` where there is none.
Performances::Index Performances::compile(std::vector<Node>& nodes, const Script& script, Index after,
                                          const Feel& feel) {
  if (script.kind == Script::Kind::sequence) {
    for (const Script& part : script.parts) after = compile(nodes, part, after, feel);
    return after;
  }
  if (script.kind == Script::Kind::together) {
    std::vector<std::size_t> ends;
    for (const Script& part : script.parts) {
      const std::size_t before = nodes.size();
      const Index end = compile(nodes, part, after, feel);
      if (nodes.size() > before) ends.push_back(*end);
    }
    if (ends.size() < 2) return ends.empty() ? after : ends.front();
    return add(nodes, StepKind::join, {}, ends);
  }
  return compile(nodes, script.act, after, feel);
}

std::size_t Performances::compile(std::vector<Node>& nodes, const Act& act, const Index& after,
                                  const Feel& feel) {
  switch (act.kind) {
    case ActKind::scatter:
      return add(nodes, StepKind::straight, act, after);
    case ActKind::shuffle: {
      if (feel.shuffle_look == ShuffleLook::straight) return add(nodes, StepKind::straight, act, after);
      std::size_t last = add(nodes, StepKind::home, act, add(nodes, StepKind::single, act, after));
      for (int i = 1; i < feel.shuffle_rounds; ++i) {
        last = add(nodes, StepKind::home, act, add(nodes, StepKind::scatter, act, last));
      }
      return last;
    }
    case ActKind::collect:
      return add(nodes, StepKind::appear, act, add(nodes, StepKind::vanish, act, after));
    case ActKind::finale: {
      const Act pause{.kind = ActKind::wait, .seconds = double{feel.finale_stay}};
      return add(nodes, StepKind::home, act,
                 add(nodes, StepKind::single, pause, add(nodes, StepKind::wreath, act, after)));
    }
    default:
      return add(nodes, StepKind::single, act, after);
  }
}

void Performances::add(PerformanceId id, ClockIndex clock, const Script& script, const Feel& feel,
                       bool closes_gate) {
  Performance& p = list_.emplace_back(Performance{.id = id, .clock = clock, .closes_gate = closes_gate});
  (void)compile(p.nodes, script, {}, feel);
  p.left = p.nodes.size();
  p.changes_left = static_cast<std::size_t>(std::count_if(p.nodes.begin(), p.nodes.end(), changes_table));
  for (std::size_t i = 0; i < p.nodes.size(); ++i) {
    if (p.nodes[i].first) p.ready.insert(p.ready.end(), i);
  }
}

bool Performances::needs_empty_hand(PerformanceId id) const {
  const auto& nodes = find(id)->nodes;
  return std::any_of(nodes.begin(), nodes.end(), [](const Node& node) {
    const ActKind kind = node.act.kind;
    return kind == ActKind::deal || kind == ActKind::gather || kind == ActKind::finale;
  });
}

std::optional<Performances::Step> Performances::next_ready(PerformanceId id,
                                                           const motion_detail::TableMotion& motion) {
  Performance& p = *find(id);
  if (p.ready.empty()) return std::nullopt;
  const std::size_t index = *p.ready.begin();
  p.ready.erase(p.ready.begin());
  if (changes_table(p.nodes[index])) --p.changes_left;
  p.nodes[index].starts = p.nodes[index].ends = motion.own_time(p.clock);
  return Step{id, index};
}

StepPlan Performances::plan(const Step& step, const std::optional<Act>& change, std::vector<Shift> shifts,
                            const Scene& scene) const {
  const Node& n = node(step);
  switch (n.kind) {
    case StepKind::single:
      // A shuffle first scatters the cards in the order before, which the picture still shows.
      if (n.act.kind == ActKind::shuffle) {
        return plan_scatter(n, change ? std::span(change->cards) : std::span<const CardId>{}, scene);
      }
      return plan_act(change ? Node{.act = *change} : n, std::move(shifts), scene);
    case StepKind::straight:
      return plan_changed(n, scene.feel.shuffle, shifts, scene);
    case StepKind::home:
      return plan_home(n, step.performance, scene);
    case StepKind::scatter: {
      const Zone* zone = scene.setup.table.zone(n.act.to);
      return plan_scatter(n, zone ? std::span(zone->cards) : std::span<const CardId>{}, scene);
    }
    case StepKind::wreath:
      return plan_wreath(scene);
    case StepKind::vanish:
      return plan_vanish(change->cards, scene);
    case StepKind::appear:
      return plan_appear(n, step.performance, scene);
    case StepKind::join:
      break;
  }
  return {};
}

void Performances::depart(const Step& step, CardId card, double delay, double lands) {
  Node& n = node(step);
  n.ends = std::max(n.ends, lands);
  n.beats.push_back({.at = n.starts + delay, .card = card});
}

void Performances::begun(const Step& step, const StepPlan& plan) {
  Node& n = node(step);
  n.ends = std::max(n.ends, n.starts + plan.seconds);
  for (const Cue& cue : plan.cues) {
    n.beats.push_back({.at = n.starts + (n.ends - n.starts) * double{cue.at}, .cue = n.cues.size()});
    n.cues.push_back(cue.name);
  }
  const auto earlier = [](const Beat& a, const Beat& b) { return a.at < b.at; };
  if (!std::is_sorted(n.beats.begin(), n.beats.end(), earlier)) {
    std::stable_sort(n.beats.begin(), n.beats.end(), earlier);
  }
  Performance& p = *find(step.performance);
  p.ending.emplace(n.ends, step.index);
  if (!n.beats.empty()) p.telling.emplace(n.beats.front().at, step.index);
}

double Performances::due(const motion_detail::TableMotion& motion) const {
  double next = never;
  for (const Performance& p : list_) {
    double own = p.ending.empty() ? never : p.ending.begin()->first;
    if (!p.telling.empty()) own = std::min(own, p.telling.begin()->first);
    if (own < never) next = std::min(next, motion.when(p.clock, own));
  }
  return next;
}

std::optional<PerformanceId> Performances::first_due(const motion_detail::TableMotion& motion) const {
  for (const Performance& p : list_) {
    if (!p.ending.empty() && has_come(motion, p.clock, p.ending.begin()->first)) return p.id;
  }
  return std::nullopt;
}

bool Performances::end_steps(PerformanceId id, const motion_detail::TableMotion& motion) {
  Performance& p = *find(id);
  bool any = false;
  while (!p.ending.empty() && has_come(motion, p.clock, p.ending.begin()->first)) {
    const std::size_t index = p.ending.begin()->second;
    p.ending.erase(p.ending.begin());
    end(p, index);
    any = true;
  }
  return any;
}

/// Lets those begin that have waited for a step. A join is over with the last that it waits for.
void Performances::end(Performance& p, std::size_t index) {
  --p.left;
  for (const std::size_t then : p.nodes[index].then) {
    if (--p.nodes[then].waits_for > 0) continue;
    if (p.nodes[then].kind == StepKind::join) {
      end(p, then);
    } else {
      p.ready.insert(then);
    }
  }
}

void Performances::cut_short(PerformanceId id) {
  Performance& p = *find(id);
  const auto bring_forward = [](Agenda& agenda) {
    Agenda now;
    for (const auto& [time, index] : agenda) now.emplace(long_ago, index);
    agenda = std::move(now);
  };
  for (const auto& [time, index] : p.telling) {
    for (Beat& beat : p.nodes[index].beats) beat.at = long_ago;
  }
  bring_forward(p.ending);
  bring_forward(p.telling);
}

bool Performances::finished(PerformanceId id) const { return find(id)->left == 0; }

void Performances::tell(Performance& p, const motion_detail::TableMotion& motion, const Table& table,
                        double time, EventQueue& events) {
  while (!p.telling.empty() && has_come(motion, p.clock, p.telling.begin()->first)) {
    auto next = p.telling.extract(p.telling.begin());  // which takes nothing from the heap when it comes back
    Node& n = p.nodes[next.value().second];
    const Beat& beat = n.beats[n.told++];
    if (beat.cue != no_cue) {
      events.tell({.kind = EventKind::cue, .time = time, .performance = p.id, .name = n.cues[beat.cue]});
    } else if (const Card* card = table.card(beat.card)) {
      events.tell_card(EventKind::departed, time, *card, p.id);
    }
    if (n.told == n.beats.size()) continue;
    next.value().first = n.beats[n.told].at;
    p.telling.insert(std::move(next));
  }
}

void Performances::remove(PerformanceId id) {
  std::erase_if(list_, [&](const Performance& p) { return p.id == id; });
}

}  // namespace apsidon::play_detail
