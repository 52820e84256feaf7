// Cards that are flipped and compared, over a server: it alone knows the faces, every flip is a move that it
// makes on its bare table, and a player who remembers all that was open has found everything in the end.
#include <cstdio>
#include <map>
#include <optional>

#include "apsidon/files/table_file.hpp"
#include "apsidon/play/edits_group.hpp"
#include "apsidon/play/moves_group.hpp"
#include "apsidon/play/playfield.hpp"
#include "apsidon/play/rules_group.hpp"
#include "apsidon/rules/move.hpp"

using namespace apsidon;

namespace {

/// What a player knows of the faces so far.
struct Memory {
  const Deck& deck;
  std::map<CardId, FaceId> seen = {};

  /// A card that belongs to what lies open, else one of which all others are known, else a new one.
  [[nodiscard]] CardId next(const std::vector<Move>& flips, const std::optional<FaceId>& open) const {
    for (const Move& move : flips) {
      const auto known = seen.find(move.run.first);
      if (open && known != seen.end() && deck.belong_together(known->second, *open)) return known->first;
    }
    for (const Move& move : flips) {
      if (!seen.contains(move.run.first)) return move.run.first;
    }
    return flips.front().run.first;
  }
};

}  // namespace

int main(int argc, char** argv) {
  const auto file = load_table(argc > 1 ? argv[1] : "data/seed-drawer-start.table.json");
  if (!file) return std::puts(describe(file.error().front()).c_str()), 3;
  const TableSetup setup = dealt(*file, 7);
  Table server = setup.table;
  const Rulebook rules = setup.rulebook();

  TableSetup covered = setup;
  for (const Zone& zone : setup.table.zones()) {
    for (const CardId card : zone.cards) (void)covered.table.set_face(card, hidden_face);
  }
  Playfield field(covered);
  field.moves().set_judge([](const Proposal&) { return std::nullopt; });  // the server answers

  Memory memory{setup.table.deck()};
  std::optional<FaceId> open;
  int flips = 0;
  for (auto legal = field.rules().legal_moves(); !legal.empty(); legal = field.rules().legal_moves()) {
    const CardId card = memory.next(legal, open);
    (void)field.moves().flip(card);
    const Proposal proposal = field.moves().waiting().front();
    const FaceId face = server.card(card)->face;
    if (!apply_move(server, rules, proposal.move).verdict) return 1;
    (void)field.edits().set_face(card, face);
    (void)field.moves().answer(proposal.id);
    ++flips;
    memory.seen[card] = face;
    open = server.card(card)->face_up && server.number(opened_number, card) > 0 ? std::optional(face)
                                                                                : std::nullopt;
    while (field.next_event(field.now() + 2)) {
    }
  }
  bool same = true;
  for (const Zone& zone : server.zones())
    same = same && field.table().contents_of(zone.id) == server.contents_of(zone.id);
  std::printf("%d flips, %zu cards found; the client's table is %s the server's.\n", flips,
              server.zone(*server.find_zone("found"))->cards.size(), same ? "like" : "unlike");
  return same ? 0 : 1;
}
