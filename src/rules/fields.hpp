#pragma once
// What a zone gives and takes: one list for reading and writing. Not installed.
#include "apsidon/rules/rulebook.hpp"

namespace apsidon {

template <class V>
void fields(ZoneRules& r, V& v) {
  v.pick("pick", r.pick);
  v.rule("drop", r.drop);
  v.rule("flip", r.flip);
  v.rule("reorient", r.reorient);
  v.select("select", r.select);
  v.match("match", r.match);
  v.stock("stock", r.stock);
  v.truth("exchanges", r.exchanges);
  v.truth("sorts", r.sorts);
  v.truth("inserts", r.inserts);
  v.truth("lays_sideways", r.lays_sideways);
  v.truth("lays_by_seat", r.lays_by_seat);
  v.truth("flips_uncovered", r.flips_uncovered);
  v.truth("takes_itself", r.takes_itself);
  v.zones("takes_from", r.takes_from);
  v.zones("sends_to", r.sends_to);
}

}  // namespace apsidon
