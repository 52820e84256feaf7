// apsidon judge: may this card go there, and why not; or every legal move.
#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>

#include "shared/common.hpp"

namespace apsidon::tool {
namespace {

struct JudgeOptions {
  std::string table;
  std::string card;
  std::string to;
  bool trust = false;
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
  std::string does = {};  ///< of what is no card's way to a zone: in words
};

/// What a move is that is no run's way to a zone; empty when it is one, or a tap on a stock.
std::string words_of(const TableSetup& setup, const Move& move) {
  const Table& table = setup.table;
  if (move.kind == MoveKind::flip)
    return fmt::format("{} is flipped in {}", card_text(table, move.run.first), table.zone(move.from)->name);
  if (move.kind == MoveKind::reorient)
    return fmt::format("{} is turned by a quarter in {}", card_text(table, move.run.first),
                       table.zone(move.from)->name);
  if (move.kind == MoveKind::several) {
    std::vector<std::string> cards;
    for (const CardId card : move.cards) cards.push_back(card_text(table, card));
    return fmt::format("{} together to {}", fmt::join(cards, ", "), table.zone(move.to)->name);
  }
  if (move.kind != MoveKind::named) return {};
  return fmt::format("the move '{}'", setup.named_moves[static_cast<std::size_t>(move.named)].name);
}

Judged judge(const TableSetup& setup, CardId card, ZoneId to) {
  const PickVerdict pick = judge_pick(setup.table, setup.rulebook(), card);
  const Verdict verdict =
      pick.verdict ? judge_drop(setup.table, setup.rulebook(), pick.run, to) : pick.verdict;
  return {card, setup.table.card(card)->zone, to, pick.run.count, verdict, {}};
}

std::string line(const TableSetup& setup, const Judged& j) {
  const Table& table = setup.table;
  if (!j.does.empty()) return fmt::format("yes: {}\n", printable(j.does));
  const std::string with = j.count > 1 ? fmt::format(" with the {} on it", j.count - 1) : "";
  const std::string zone = table.zone(j.to)->name;
  if (j.count == 0 && j.verdict) {
    const std::string& stock = table.zone(j.from)->name;
    return j.verdict.found > 0
               ? fmt::format("yes: a tap on {} gives {} to {}\n", stock, j.verdict.found, zone)
               : fmt::format("yes: a tap on {} takes {} back\n", stock, zone);
  }
  if (!j.verdict) {
    return fmt::format("no:  {} to {}: {} [{}]\n", card_text(table, j.card), zone,
                       printable(describe(j.verdict, table)), code_of(j.verdict.reason));
  }
  const std::string part = j.verdict.alternative >= 0
                               ? fmt::format(" (alternative {} of its rule)", j.verdict.alternative + 1)
                               : "";
  return fmt::format("yes: {}{} to {}{}\n", card_text(table, j.card), with, zone, part);
}

/// Prints judgements one by one: of a large table they are too many to be kept.
class Report {
 public:
  Report(const TableSetup& setup, Format format) : setup_(setup), format_(format) {
    if (format == Format::csv) print("card,face,from,count,to,allowed,reason,alternative\n");
    if (format == Format::json) print(opened_json("judge", "judged"));
  }

  void add(const Judged& j) {
    any_ = any_ || j.verdict.allowed();
    if (j.verdict.allowed()) ++legal_;
    if (format_ == Format::text) return print(line(setup_, j));
    const Table& table = setup_.table;
    const Card* card = table.card(j.card);
    const std::string face = card ? table.deck().text(card->face) : "";
    const auto name_of_zone = [&](ZoneId zone) { return zone ? table.zone(zone)->name : std::string{}; };
    const std::string from = name_of_zone(j.from);
    const std::string to = name_of_zone(j.to);
    const std::string reason(code_of(j.verdict.reason));
    if (format_ == Format::csv) {
      return print(fmt::format("{},{},{},{},{},{},{},{}\n", j.card.value, csv(face), csv(from), j.count,
                               csv(to), j.verdict.allowed(), reason, j.verdict.alternative));
    }
    nlohmann::ordered_json row;
    row["card"] = j.card.value;
    row["face"] = face;
    row["from"] = from;
    row["count"] = j.count;
    row["to"] = to;
    row["allowed"] = j.verdict.allowed();
    row["reason"] = reason;
    row["alternative"] = j.verdict.alternative;
    row["sentence"] = j.does.empty() ? describe(j.verdict, table) : j.does;
    print((rows_++ > 0 ? ",\n " : "\n ") + row.dump());
  }

  void end(bool counted) const {
    if (format_ == Format::json) print(rows_ > 0 ? "\n]}\n" : "]}\n");
    if (format_ == Format::text && counted)
      print(fmt::format("{} legal {}\n", legal_, legal_ == 1 ? "move" : "moves"));
  }
  [[nodiscard]] bool any() const { return any_; }

 private:
  const TableSetup& setup_;
  Format format_;
  bool any_ = false;
  std::size_t legal_ = 0;
  std::size_t rows_ = 0;
};

int run(const JudgeOptions& options) {
  const TableSetup setup = load_setup({.file = options.table, .trust = options.trust});
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
  Report report(setup, options.format);
  if (every) {
    constexpr std::size_t most = 100'000;
    std::vector<Move> moves;
    if (!find_legal_moves(table, setup.rulebook(), moves, most)) {
      print_error(
          moves.size() == most
              ? fmt::format("apsidon judge: the first {} legal moves: name a --card or a --to for others",
                            most)
              : fmt::format("apsidon judge: of cards that may be chosen together the {} smallest sets were "
                            "looked at, and there are more",
                            most_selections));
    }
    for (const Move& move : moves) {
      const Verdict verdict = judge_move(table, setup.rulebook(), move);
      report.add({move.run.first, move.from, move.to, move.run.count, verdict, words_of(setup, move)});
    }
    cards.clear();
  }
  for (const CardId card : cards) {
    for (const ZoneId zone : zones) report.add(judge(setup, card, zone));
  }
  report.end(!one);
  return report.any() ? yes : no;
}

}  // namespace

void add_judge(CommandLine& line) {
  Words& words = line.verb("judge", "May a card go there, and why not (exit 1); or every legal move");
  auto options = std::make_shared<JudgeOptions>();
  words.required_text("table", options->table, "TABLE", "The table file")
      .text("--card", options->card, "CARD",
            "A face (reed-2), an id (17) or a place (column-3:top); all unless stated")
      .text("--to", options->to, "ZONE", "The zone it should go to; all unless stated")
      .flag("--trust", options->trust, "The deck that the table names may lie anywhere, not only beside it")
      .format(options->format)
      .example("apsidon judge data/potting-bench.table.json --card reed-2 --to bed-2")
      .does([options] { return run(*options); });
}

}  // namespace apsidon::tool
