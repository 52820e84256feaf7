#include "play/performances.hpp"

#include <algorithm>
#include <utility>

namespace apsidon::play_detail {
namespace {

/// Whether a clock has shown this time. Asked by the table's clock, so that a rounding on the way to and fro
/// makes nothing early.
bool has_come(const Motion& motion, ClockIndex clock, double own) {
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

// A script becomes a list of steps, each with those that it waits for.

Performances::Indices Performances::add(std::vector<Node>& nodes, StepKind kind, const Act& act,
                                        const Indices& after) {
  nodes.push_back({.kind = kind, .act = act, .after = after});
  return {nodes.size() - 1};
}

Performances::Indices Performances::compile(std::vector<Node>& nodes, const Script& script, Indices after,
                                            const Feel& feel) {
  if (script.kind == Script::Kind::sequence) {
    for (const Script& part : script.parts) after = compile(nodes, part, after, feel);
    return after;
  }
  if (script.kind == Script::Kind::together) {
    Indices ends;
    for (const Script& part : script.parts) {
      for (const std::size_t end : compile(nodes, part, after, feel)) ends.push_back(end);
    }
    return script.parts.empty() ? after : ends;
  }
  return compile(nodes, script.act, after, feel);
}

Performances::Indices Performances::compile(std::vector<Node>& nodes, const Act& act, const Indices& after,
                                            const Feel& feel) {
  switch (act.kind) {
    case ActKind::shuffle: {
      Indices last = add(nodes, StepKind::home, act, add(nodes, StepKind::single, act, after));
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

void Performances::add(PerformanceId id, ClockIndex clock, const Script& script, const Feel& feel) {
  list_.push_back({.id = id, .clock = clock});
  (void)compile(list_.back().nodes, script, {}, feel);
}

bool Performances::needs_empty_hand(PerformanceId id) const {
  const auto& nodes = find(id)->nodes;
  return std::any_of(nodes.begin(), nodes.end(), [](const Node& node) {
    const ActKind kind = node.act.kind;
    return kind == ActKind::deal || kind == ActKind::gather || kind == ActKind::finale;
  });
}

std::optional<Performances::Step> Performances::next_ready(PerformanceId id, const Motion& motion) {
  Performance& p = *find(id);
  for (Node& node : p.nodes) {
    const bool ready = !node.begun && std::all_of(node.after.begin(), node.after.end(),
                                                  [&](std::size_t before) { return p.nodes[before].over; });
    if (!ready) continue;
    node.begun = true;
    node.starts = node.ends = motion.own_time(p.clock);
    return Step{id, static_cast<std::size_t>(&node - p.nodes.data())};
  }
  return std::nullopt;
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
}

double Performances::due(const Motion& motion) const {
  double next = never;
  for (const Performance& p : list_) {
    double own = never;
    for (const Node& n : p.nodes) {
      if (n.begun && !n.over) own = std::min(own, n.ends);
      if (n.told < n.beats.size()) own = std::min(own, n.beats[n.told].at);
    }
    if (own < never) next = std::min(next, motion.when(p.clock, own));
  }
  return next;
}

std::optional<PerformanceId> Performances::first_due(const Motion& motion) const {
  for (const Performance& p : list_) {
    const bool due = std::any_of(p.nodes.begin(), p.nodes.end(), [&](const Node& n) {
      return n.begun && !n.over && has_come(motion, p.clock, n.ends);
    });
    if (due) return p.id;
  }
  return std::nullopt;
}

bool Performances::end_steps(PerformanceId id, const Motion& motion) {
  Performance& p = *find(id);
  bool any = false;
  for (Node& n : p.nodes) {
    if (!n.begun || n.over || !has_come(motion, p.clock, n.ends)) continue;
    n.over = any = true;
  }
  return any;
}

void Performances::cut_short(PerformanceId id) {
  for (Node& n : find(id)->nodes) {
    if (!n.begun || n.over) continue;
    for (Beat& beat : n.beats) beat.at = long_ago;
    n.ends = long_ago;
  }
}

bool Performances::finished(PerformanceId id) const {
  const auto& nodes = find(id)->nodes;
  return std::all_of(nodes.begin(), nodes.end(), [](const Node& n) { return n.over; });
}

void Performances::tell(Performance& p, const Motion& motion, const Table& table, double time,
                        EventQueue& events) {
  for (Node& n : p.nodes) {
    for (; n.told < n.beats.size() && has_come(motion, p.clock, n.beats[n.told].at); ++n.told) {
      const Beat& beat = n.beats[n.told];
      if (beat.cue != no_cue) {
        events.tell({.kind = EventKind::cue, .time = time, .performance = p.id, .name = n.cues[beat.cue]});
      } else if (const Card* card = table.card(beat.card)) {
        events.tell_card(EventKind::departed, time, card->id, card->zone, p.id);
      }
    }
  }
}

void Performances::remove(PerformanceId id) {
  std::erase_if(list_, [&](const Performance& p) { return p.id == id; });
}

}  // namespace apsidon::play_detail
