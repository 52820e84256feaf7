// apsidon judge: may this card go there, and why not; or every legal move.
#include <fmt/format.h>

#include <algorithm>

#include "common.hpp"

namespace apsidon::tool {
namespace {

struct Options {
  std::string table;
  std::string card;
  std::string to;
  Format format = Format::text;
};

/// One card onto one zone, or a tap on a stock, with no card where that takes the waste back. A card that may
/// not be picked up is refused for that.
struct Judged {
  CardId card;
  ZoneId from;
  ZoneId to;
  std::size_t count = 0;
  Verdict verdict;
};

Judged judge(const TableSetup& setup, CardId card, ZoneId to) {
  const PickVerdict pick = judge_pick(setup.table, setup.rulebook(), card);
  const Verdict verdict =
      pick.verdict ? judge_drop(setup.table, setup.rulebook(), pick.run, to) : pick.verdict;
  return {card, setup.table.card(card)->zone, to, pick.run.count, verdict};
}

std::string line(const TableSetup& setup, const Judged& j) {
  const Table& table = setup.table;
  const std::string with = j.count > 1 ? fmt::format(" with the {} on it", j.count - 1) : "";
  const std::string zone = table.zone(j.to)->name;
  if (j.count == 0 && j.verdict) {
    const std::string& stock = table.zone(j.from)->name;
    return j.verdict.found > 0
               ? fmt::format("yes: a tap on {} gives {} to {}\n", stock, j.verdict.found, zone)
               : fmt::format("yes: a tap on {} takes {} back\n", stock, zone);
  }
  if (!j.verdict) {
    return fmt::format("no:  {} to {}: {} [{}]\n", card_text(table, j.card), zone, describe(j.verdict, table),
                       code_of(j.verdict.reason));
  }
  const std::string part = j.verdict.alternative >= 0
                               ? fmt::format(" (alternative {} of its rule)", j.verdict.alternative + 1)
                               : "";
  return fmt::format("yes: {}{} to {}{}\n", card_text(table, j.card), with, zone, part);
}

void report(const TableSetup& setup, const std::vector<Judged>& all, Format format) {
  const Table& table = setup.table;
  auto rows = nlohmann::ordered_json::array();
  std::string out = format == Format::csv ? "card,face,from,count,to,allowed,reason,alternative\n" : "";
  for (const Judged& j : all) {
    const Card* card = table.card(j.card);
    const std::string face = card ? table.deck().text(card->face) : "";
    const std::string& from = table.zone(j.from)->name;
    const std::string& to = table.zone(j.to)->name;
    const std::string reason(code_of(j.verdict.reason));
    if (format == Format::text) {
      out += line(setup, j);
    } else if (format == Format::csv) {
      out += fmt::format("{},{},{},{},{},{},{},{}\n", j.card.value, face, from, j.count, to,
                         j.verdict.allowed(), reason, j.verdict.alternative);
    } else {
      nlohmann::ordered_json row;
      row["card"] = j.card.value;
      row["face"] = face;
      row["from"] = from;
      row["count"] = j.count;
      row["to"] = to;
      row["allowed"] = j.verdict.allowed();
      row["reason"] = reason;
      row["alternative"] = j.verdict.alternative;
      row["sentence"] = describe(j.verdict, table);
      rows.push_back(row);
    }
  }
  format == Format::json ? print_json(rows) : print(out);
}

int run(const Options& options) {
  const TableSetup setup = load_setup({.file = options.table});
  const Table& table = setup.table;
  std::vector<CardId> cards;
  std::vector<ZoneId> zones;
  if (!options.card.empty()) cards.push_back(find_card(table, options.card));
  if (!options.to.empty()) zones.push_back(find_zone(table, options.to));
  const bool one = !cards.empty() && !zones.empty();
  const bool every = cards.empty() && zones.empty();  // then only what is legal is of interest
  for (const Zone& zone : table.zones()) {
    if (options.card.empty()) cards.insert(cards.end(), zone.cards.begin(), zone.cards.end());
    if (options.to.empty()) zones.push_back(zone.id);
  }
  std::vector<Judged> all;
  bool any = false;
  if (every) {
    for (const Move& move : legal_moves(table, setup.rulebook())) {
      const Verdict verdict = judge_move(table, setup.rulebook(), move);
      all.push_back({move.run.first, move.from, move.to, move.run.count, verdict});
      any = true;
    }
    cards.clear();
  }
  for (const CardId card : cards) {
    for (const ZoneId zone : zones) {
      const Judged j = judge(setup, card, zone);
      any = any || j.verdict.allowed();
      all.push_back(j);
    }
  }
  report(setup, all, options.format);
  if (options.format == Format::text && !one) {
    const auto legal =
        std::count_if(all.begin(), all.end(), [](const Judged& j) { return j.verdict.allowed(); });
    print(fmt::format("{} legal {}\n", legal, legal == 1 ? "move" : "moves"));
  }
  return any ? yes : no;
}

}  // namespace

void add_judge(CommandLine& line) {
  Words& words = line.verb("judge", "May a card go there, and why not (exit 1); or every legal move");
  auto options = std::make_shared<Options>();
  words.required_text("table", options->table, "TABLE", "The table file")
      .text("--card", options->card, "CARD",
            "A face (reed-2), an id (17) or a place (column-3:top); all unless stated")
      .text("--to", options->to, "ZONE", "The zone it should go to; all unless stated")
      .format(options->format)
      .example("apsidon judge data/potting-bench.table.json --card reed-2 --to bed-2")
      .does([options] { return run(*options); });
}

}  // namespace apsidon::tool
