// What has to hold of a session, after each step and at its end.
#include <algorithm>
#include <cmath>
#include <unordered_set>

#include "apsidon/files/table_file.hpp"
#include "support/session.hpp"

namespace apsidon::test {
namespace {

bool is_drawable(const Pose& p) { return is_finite(p) && p.opacity >= 0 && p.opacity <= 1 && p.scale >= 0; }

}  // namespace

std::string Session::wrong(Random& r) {
  if (!wrong_event_.empty()) return wrong_event_;
  if (std::string why = wrong_cards(); !why.empty()) return why;
  if (std::string why = wrong_frame(); !why.empty()) return why;
  return wrong_answers(r);
}

std::string Session::wrong_cards() const {
  const Table& table = field_.table();
  std::unordered_set<std::uint32_t> seen;
  for (const Zone& zone : table.zones()) {
    for (std::size_t i = 0; i < zone.cards.size(); ++i) {
      const Card* card = table.card(zone.cards[i]);
      if (!card || card->zone != zone.id || card->index != i) return "a card is not where its zone has it";
      if (!seen.insert(card->id.value).second) return "a card lies in two places";
      for (const auto& pose : {field_.where().live_pose(card->id), field_.where().neutral_pose(card->id),
                               field_.where().resting_pose(card->id)}) {
        if (!pose || !is_drawable(*pose)) return "a pose cannot be drawn";
      }
    }
  }
  return seen.size() == table.card_count() ? "" : "a card lies in no zone";
}

std::string Session::wrong_frame() const {
  const Frame& frame = field_.frame();
  std::size_t cards = 0;
  for (std::size_t i = 0; i < frame.items.size(); ++i) {
    const FrameItem& item = frame.items[i];
    cards += item.kind == FrameKind::card ? 1 : 0;
    if (i > 0 && item.order < frame.items[i - 1].order) return "the frame is not in its order";
    for (const Vec2 corner : item.corners.corners) {
      if (!is_finite(corner)) return "a corner in the frame is not finite";
    }
    const Card* card = field_.table().card(item.card);
    const bool shows = item.kind == FrameKind::card && !item.back && item.face != hidden_face && card;
    // What was covered, and has another face by now, shows on what it showed until it is edge-on.
    if (shows && card->face != item.face && card->face_up)
      return "the frame shows another face than the card has";
  }
  return cards == field_.table().card_count() ? "" : "the frame has not every card once";
}

std::string Session::wrong_answers(Random& r) {
  const Vec2 at = some_point(r);
  if (is_finite(at)) {
    const Hit hit = field_.where().hit(at);
    Hit answered;
    for (const Explained& e : field_.where().explain(at)) {
      if (e.because == Explained::Because::answer) answered = e.what;
    }
    if (!(hit == answered)) return "a hit and its explanation disagree";
  }
  for (const Move& move : field_.rules().legal_moves()) {
    if (!field_.rules().judge_move(move)) return "a legal move is refused";
  }
  const Run held = field_.hand().held();
  if (held.count > 0) {
    const auto targets = field_.hand().targets();
    for (const Zone& zone : field_.table().zones()) {
      const bool listed = std::find(targets.begin(), targets.end(), zone.id) != targets.end();
      const Move move{.run = held, .from = field_.table().card(held.first)->zone, .to = zone.id};
      if (listed != field_.rules().judge_move(move).allowed()) return "a target and its verdict disagree";
    }
  }
  if (r.chance(0.1f) && std::isnan(field_.time().settles_at())) return "when it settles is no number";
  return {};
}

std::string Session::wrong_at_end() const {
  if (!wrong_event_.empty()) return wrong_event_;
  if (!field_.time().at_rest()) return "something never comes to rest";
  for (const Zone& zone : field_.table().zones()) {
    for (const CardId card : zone.cards) {
      if (*field_.where().live_pose(card) != *field_.where().resting_pose(card))
        return "a card rests beside its place";
    }
  }
  const auto settled =
      std::find_if(told_.rbegin(), told_.rend(), [](const Event& e) { return e.kind == EventKind::settled; });
  const auto moved =
      std::find_if(told_.rbegin(), told_.rend(), [](const Event& e) { return e.kind == EventKind::landed; });
  if (moved < settled) return "that all has settled is not told";
  return replay_differs(*this);
}

std::string replay_differs(const Session& session) {
  const auto table = parse_table(write_table(session.setup()), "table");
  if (!table) return describe(table.error()[0]);
  const std::string text = write_log(session.log(), session.setup());
  const auto log = parse_log(text, "log", *table);
  if (!log) return describe(log.error()[0]);
  if (write_log(*log, *table) != text) return "the log reads back as another";
  Playfield again(*table, log->options);
  std::vector<Event> told;
  const auto hear = [&](const Event& e) { told.push_back(e); };
  if (replay(again, log->inputs, session.field().now(), hear) != 0) return "a snapshot is not found again";
  while (const auto e = again.next_event(session.field().now())) hear(*e);
  for (std::size_t i = 0; i < std::min(told.size(), session.told().size()); ++i) {
    if (!(told[i] == session.told()[i])) {
      return "the replay tells " + event_line(told[i], again.table()) + " where it was " +
             event_line(session.told()[i], again.table());
    }
  }
  if (told.size() != session.told().size()) return "the replay tells more or fewer events";
  for (const Zone& zone : session.field().table().zones()) {
    if (!(again.table().contents_of(zone.id) == session.field().table().contents_of(zone.id)))
      return "the replay has another table";
    for (const CardId card : zone.cards) {
      if (*again.where().live_pose(card) != *session.field().where().live_pose(card))
        return "the replay has another pose";
    }
  }
  return again.frame().items == session.field().frame().items ? "" : "the replay has another frame";
}

}  // namespace apsidon::test
