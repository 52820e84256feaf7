// Scripts: begun act by act, each at the very time at which those before it end.
#include "play/impl.hpp"

#include <algorithm>
#include <cmath>

namespace apsidon {
namespace {

using Indices = std::vector<std::size_t>;

}  // namespace

PerformanceId Playfield::Impl::perform(const Script& script) {
  auto made = Boxed<Performance>({});
  made->id = {++last_performance};
  made->clock = motion.add_clock();

  // The script as a list of steps, each with those that it waits for.
  struct Compiler {
    std::vector<Node>& nodes;
    const Feel& feel;

    Indices add(Node node, const Indices& after) const {
      node.after = after;
      nodes.push_back(std::move(node));
      return {nodes.size() - 1};
    }
    Indices add(Node::Step step, const Act& act, const Indices& after) const {
      return add(Node{.step = step, .act = act}, after);
    }
    Indices compile(const Script& script, Indices after) const {
      if (script.kind == Script::Kind::sequence) {
        for (const Script& part : script.parts) after = compile(part, after);
        return after;
      }
      if (script.kind == Script::Kind::together) {
        Indices ends;
        for (const Script& part : script.parts) {
          for (const std::size_t end : compile(part, after)) ends.push_back(end);
        }
        return script.parts.empty() ? after : ends;
      }
      return compile(script.act, after);
    }
    Indices compile(const Act& act, const Indices& after) const {
      switch (act.kind) {
        case ActKind::shuffle: {
          Indices last = add(Node::Step::home, act, add(Node::Step::single, act, after));
          for (int i = 1; i < feel.shuffle_rounds; ++i)
            last = add(Node::Step::home, act, add(Node::Step::scatter, act, last));
          return last;
        }
        case ActKind::collect:
          return add(Node::Step::appear, act, add(Node::Step::vanish, act, after));
        case ActKind::finale: {
          const Act pause{.kind = ActKind::wait, .seconds = double{feel.finale_stay}};
          return add(Node::Step::home, act,
                     add(Node::Step::single, pause, add(Node::Step::wreath, act, after)));
        }
        default:
          return add(Node::Step::single, act, after);
      }
    }
  };
  (void)Compiler{made->nodes, options.feel}.compile(script, {});

  // What moves many cards at once is begun with an empty hand.
  const auto whole = [](const Node& node) {
    return node.act.kind == ActKind::deal || node.act.kind == ActKind::gather ||
           node.act.kind == ActKind::finale;
  };
  if (std::any_of(made->nodes.begin(), made->nodes.end(), whole)) cancel_all();

  Performance& p = *made;
  performances.push_back(std::move(made));
  note({.kind = EventKind::began, .time = told_at(own_now()), .performance = p.id});
  begin_ready(p);
  end_nodes(p);
  tell(p);
  return p.id;
}

Playfield::Impl::Performance* Playfield::Impl::find(PerformanceId id) {
  const auto it = std::find_if(performances.begin(), performances.end(),
                               [&](const auto& p) { return p->id == id && !p->over; });
  return it == performances.end() ? nullptr : &**it;
}

/// Begins every step whose time has come: it follows on the last of those that it waits for.
void Playfield::Impl::begin_ready(Performance& p) {
  for (Node& node : p.nodes) {
    if (node.begun) continue;
    const bool ready = std::all_of(node.after.begin(), node.after.end(),
                                   [&](std::size_t before) { return p.nodes[before].over; });
    if (!ready) continue;
    node.starts = node.ends = motion.own_time(p.clock);
    node.begun = true;
    begin(p, node);
  }
}

void Playfield::Impl::begin(Performance& p, Node& node) {
  acting = p.id;
  switch (node.step) {
    case Node::Step::single:
      act(p, node);
      break;
    case Node::Step::home:
      act_home(p, node);
      break;
    case Node::Step::scatter:
      scatter(p, node,
              setup.table.zone(node.act.to) ? std::span(setup.table.zone(node.act.to)->cards)
                                            : std::span<const CardId>{});
      break;
    case Node::Step::wreath:
      act_wreath(p, node);
      break;
    case Node::Step::vanish:
      act_vanish(p, node);
      break;
    case Node::Step::appear:
      act_appear(p, node);
      break;
  }
  acting = {};
  const auto earlier = [](const Node::Beat& a, const Node::Beat& b) { return a.at < b.at; };
  if (!std::is_sorted(node.beats.begin(), node.beats.end(), earlier)) {
    std::stable_sort(node.beats.begin(), node.beats.end(), earlier);
  }
  stale = true;
}

/// Sends a card on the clock of the performance.
void Playfield::Impl::send(Performance& p, Node& node, std::size_t s, const Pose& goal, const Glide& glide,
                           double delay, std::optional<std::uint64_t> waits_at) {
  CardState& state = cards[s];
  if (state.held || state.locked) return;
  // Until it leaves it is drawn where it is.
  const bool waits = state.departure > 0 && state.waits;
  if (!waits || waits_at) {
    state.waits_at = waits_at.value_or(state.departure > 0 ? flight_order(state.departure)
                                                           : rest_order(state.zone, state.place));
  }
  part_of[s] = p.id;
  state.departure = ++departures;
  travel(s, goal, glide, delay, p.clock);
  node.ends = std::max(node.ends, motion.lands_at(s));
  node.beats.push_back({.at = node.starts + delay, .card = state.id});
}

/// Sends what the table has just changed, in the order in which it is listed, to where it rests now.
void Playfield::Impl::send_changed(Performance& p, Node& node, const Choreography& how) {
  std::vector<Changed> list = std::move(*taken_down);
  taken_down = nullptr;
  float farthest = 0;
  const auto distance = [&](const Changed& c) {
    return length(c.before.centre - rests[c.slot].resting.centre);
  };
  for (const Changed& c : list) farthest = std::max(farthest, distance(c));
  for (std::size_t i = 0; i < list.size(); ++i) {
    const double delay = i < node.act.delays.size()
                             ? std::max(node.act.delays[i], 0.0)
                             : departure(how, {i, list.size(), distance(list[i]), farthest});
    send(p, node, list[i].slot, rests[list[i].slot].resting, how.glide, std::isfinite(delay) ? delay : 0,
         cards[list[i].slot].waits_at);
  }
  add_cues(node, how);
}

void Playfield::Impl::add_cues(Node& node, const Choreography& how) {
  for (const Cue& cue : how.cues) {
    node.beats.push_back(
        {.at = node.starts + (node.ends - node.starts) * double{cue.at}, .cue = node.cues.size()});
    node.cues.push_back(cue.name);
  }
}

/// Whether a clock shows this time, or would but for a rounding on the way to and fro.
bool Playfield::Impl::has_come(const Performance& p, double own) const {
  return motion.own_time(p.clock) >= own || motion.when(p.clock, own) <= own_now();
}

/// Ends the steps whose time has come, begins those that waited for them, and at last the whole.
void Playfield::Impl::end_nodes(Performance& p) {
  for (bool again = true; again;) {
    again = false;
    for (Node& node : p.nodes) {
      if (!node.begun || node.over || !has_come(p, node.ends)) continue;
      node.over = again = true;
    }
    if (again) begin_ready(p);
  }
  if (std::all_of(p.nodes.begin(), p.nodes.end(), [](const Node& n) { return n.over; })) {
    tell(p);
    end(p, EventKind::ended, told_at(own_now()));
  }
}

/// Tells of departures and cues whose time has come.
void Playfield::Impl::tell(Performance& p) {
  if (p.over) return;
  const double now = motion.own_time(p.clock);
  for (Node& node : p.nodes) {
    for (; node.told < node.beats.size() && node.beats[node.told].at <= now; ++node.told) {
      const Node::Beat& beat = node.beats[node.told];
      const double time = told_at(motion.when(p.clock, beat.at));
      if (beat.cue != Node::no_cue) {
        note({.kind = EventKind::cue, .time = time, .performance = p.id, .name = node.cues[beat.cue]});
      } else if (const Card* card = setup.table.card(beat.card)) {
        note_card(EventKind::departed, time, card->id, card->zone, p.id);
      }
    }
  }
}

void Playfield::Impl::tell_all() {
  for (const auto& p : performances) tell(*p);
  std::erase_if(performances, [](const auto& p) { return p->over; });
}

void Playfield::Impl::end(Performance& p, EventKind kind, double time) {
  p.over = true;
  std::replace(part_of.begin(), part_of.end(), p.id, PerformanceId{});
  motion.remove_clock(p.clock);
  note({.kind = kind, .time = time, .performance = p.id});
}

void Playfield::Impl::skip(PerformanceId id) {
  Performance* p = find(id);
  if (!p) return;
  see_motion();
  // A step at a time: what is in flight arrives, what waited for it begins.
  while (!p->over) {
    for (std::size_t s = 0; s < cards.size(); ++s) {
      if (part_of[s] == id && !cards[s].held) motion.finish(s);
    }
    go_to(own_now());
    for (Node& node : p->nodes) {
      if (!node.begun || node.over) continue;
      for (Node::Beat& beat : node.beats) beat.at = std::min(beat.at, motion.own_time(p->clock));
      node.ends = motion.own_time(p->clock);
    }
    tell(*p);
    end_nodes(*p);
  }
}

void Playfield::Impl::stop(PerformanceId id) {
  Performance* p = find(id);
  if (!p) return;
  for (std::size_t s = 0; s < cards.size(); ++s) {
    const CardState& state = cards[s];
    if (part_of[s] != id || state.held || !setup.table.card(state.id)) continue;
    travel(s, rests[s].resting, options.feel.back);
  }
  end(*p, EventKind::stopped, told_at(own_now()));
}

PerformanceId Playfield::perform(const Script& script) { return impl_->perform(script); }
PerformanceId Playfield::deal() { return impl_->perform(apsidon::deal()); }
bool Playfield::performing(PerformanceId id) const { return impl_->find(id) != nullptr; }
void Playfield::skip(PerformanceId id) { impl_->skip(id); }
void Playfield::stop(PerformanceId id) { impl_->stop(id); }

void Playfield::set_pace(PerformanceId id, double pace) {
  if (!(pace >= 0 && pace <= 1000)) {
    ++impl_->ignored;
  } else if (const Impl::Performance* p = impl_->find(id)) {
    impl_->motion.set_speed(p->clock, pace);
  }
}

void Playfield::set_feel(Feel feel) {
  check(feel);
  impl_->options.feel = std::move(feel);
}

const Feel& Playfield::feel() const { return impl_->options.feel; }

}  // namespace apsidon
