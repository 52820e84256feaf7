#include <algorithm>
#include <set>

#include "support/tables.hpp"
#include "support/whole.hpp"

using namespace apsidon;
using namespace apsidon::test;

namespace {

/// The longest run of places that stays in order, tried the slow way.
std::size_t longest_kept(const std::vector<std::size_t>& places) {
  std::vector<std::size_t> best(places.size(), 1);
  std::size_t longest = 0;
  for (std::size_t i = 0; i < places.size(); ++i) {
    for (std::size_t j = 0; j < i; ++j) {
      if (places[j] < places[i]) best[i] = std::max(best[i], best[j] + 1);
    }
    longest = std::max(longest, best[i]);
  }
  return longest;
}

}  // namespace

TEST_CASE("cards: after a sync the wanted zones hold exactly what was wanted, by as few moves as it takes") {
  for_all("sync", 5, [](Random& r) {
    Table table = random_setup(r).table;
    const Table before = table;
    const auto wish = random_wish(r, table);
    const SyncReport report = table.sync(wish);
    RC_ASSERT(report.verdict.allowed());
    assert_whole(table, before.card_count() + report.created.size() - report.retired.size());
    std::size_t fewest = 0;
    for (const WantedZone& w : wish) {
      const Zone& zone = *table.zone(*table.find_zone_by_key(w.key));
      RC_ASSERT(zone.cards.size() == w.cards.size());
      std::vector<std::size_t> stayed;
      for (std::size_t i = 0; i < w.cards.size(); ++i) {
        const Card& card = *table.card(zone.cards[i]);
        RC_ASSERT(card.key == w.cards[i].key);
        if (w.cards[i].face) RC_ASSERT(card.face == *w.cards[i].face);
        if (w.cards[i].face_up) RC_ASSERT(card.face_up == *w.cards[i].face_up);
        const Card* old = before.card(card.id);
        if (!old) continue;
        if (old->zone == zone.id) stayed.push_back(old->index);
        if (old->zone != zone.id) ++fewest;
      }
      fewest += stayed.size() - longest_kept(stayed);
    }
    RC_ASSERT(report.moved.size() == fewest);
    const std::set<CardId> distinct(report.moved.begin(), report.moved.end());
    RC_ASSERT(distinct.size() == report.moved.size());
    for (const CardId id : report.retired) RC_ASSERT(table.card(id) == nullptr);
    // The same wish again is no change.
    const auto revision = table.revision();
    const SyncReport again = table.sync(wish);
    RC_ASSERT(again.moved.empty() && again.created.empty() && again.retired.empty() && again.changed.empty());
    RC_ASSERT(table.revision() == revision);
  });
}

TEST_CASE("cards: an id is not used again after its card has retired") {
  Table table(glasshouse());
  const ZoneId zone = table.create_zone("a", {.key = 1});
  const CardId first = table.create_card(zone, {.key = 5});
  REQUIRE(table.sync(std::vector<WantedZone>{{.key = 1, .cards = {}}}).retired == std::vector{first});
  const SyncReport report = table.sync(std::vector<WantedZone>{{.key = 1, .cards = {{.key = 5}}}});
  REQUIRE(report.created.size() == 1);
  CHECK(report.created[0] != first);
  CHECK(table.card(first) == nullptr);
  CHECK(table.slot_count() == 1);
}

TEST_CASE("cards: a wish that makes no sense is refused whole") {
  Table table(glasshouse());
  const ZoneId zone = table.create_zone("a", {.key = 1});
  table.create_card(zone, {.key = 5});
  const auto revision = table.revision();
  const auto reason = [&](std::vector<WantedZone> wish) { return table.sync(wish).verdict.reason; };
  CHECK(reason({{.key = 0, .cards = {}}}) == Reason::missing_key);
  CHECK(reason({{.key = 9, .cards = {}}}) == Reason::unknown_key);
  CHECK(reason({{.key = 1, .cards = {}}, {.key = 1, .cards = {}}}) == Reason::repeated_key);
  CHECK(reason({{.key = 1, .cards = {{.key = 0}}}}) == Reason::missing_key);
  CHECK(reason({{.key = 1, .cards = {{.key = 7}, {.key = 7}}}}) == Reason::repeated_key);
  CHECK(reason({{.key = 1, .cards = {{.key = 7, .face = FaceId{99}}}}}) == Reason::unknown_face);
  CHECK(table.revision() == revision);
  CHECK(table.card_count() == 1);
}
