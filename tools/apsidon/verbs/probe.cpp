// apsidon probe: what lies at a point.
#include <fmt/format.h>

#include "shared/common.hpp"

namespace apsidon::tool {
namespace {

struct ProbeOptions {
  TableOptions table;
  std::string at;
  Format format = Format::text;
};

std::string_view kind_of(const Hit& hit) {
  return hit.card ? "card" : hit.zone ? "zone" : hit.panel ? "panel" : "nothing";
}

std::string_view why(Explained::Because because) {
  switch (because) {
    case Explained::Because::answer:
      return "answer";
    case Explained::Because::covered:
      return "covered";
    case Explained::Because::held:
      return "held";
    case Explained::Because::zoomed:
      return "zoomed";
    case Explained::Because::clipped:
      return "clipped";
  }
  return "";
}

std::string name_of(const Hit& what, const Playfield& field) {
  if (what.card) return card_text(field.table(), what.card);
  return what.zone ? field.table().zone(what.zone)->name : field.where().panels()[what.panel.value - 1].name;
}

/// All that lies below the answer, one a line.
void print_stack(const std::vector<Explained>& stack, const Playfield& field) {
  for (const Explained& e : stack) {
    if (e.because == Explained::Because::answer) continue;
    print(
        fmt::format("  {} {} lies there too: {}\n", kind_of(e.what), name_of(e.what, field), why(e.because)));
  }
}

nlohmann::ordered_json json_of(const std::vector<Explained>& stack, const Playfield& field) {
  auto out = nlohmann::ordered_json::array();
  for (const Explained& e : stack) {
    nlohmann::ordered_json entry;
    entry["kind"] = std::string(kind_of(e.what));
    entry["name"] = name_of(e.what, field);
    entry["because"] = std::string(why(e.because));
    out.push_back(entry);
  }
  return out;
}

int run(const ProbeOptions& options) {
  const Playfield field = load_playfield(options.table);
  const Table& table = field.table();
  const Vec2 at = parse_point("--at", options.at);
  const Hit hit = field.where().hit(at);
  const std::vector<Explained> stack = field.where().explain(at);
  const PickVerdict pick = field.rules().judge_pick(hit.card);
  const Card* card = table.card(hit.card);
  const std::string zone = hit.zone ? table.zone(hit.zone)->name : "";
  const std::string panel = hit.panel ? field.where().panels()[hit.panel.value - 1].name : "";
  const std::size_t insertion = hit.zone ? field.where().insertion_index(hit.zone, at).value_or(0) : 0;

  if (options.format == Format::json) {
    nlohmann::ordered_json json = json_of_verb("probe");
    json["at"] = {rounded(double{at.x}), rounded(double{at.y})};
    json["hit"] = std::string(kind_of(hit));
    if (hit.panel) json["panel"] = panel;
    if (hit.zone) {
      json["zone"] = zone;
      json["insertion"] = insertion;
    }
    if (card) {
      json["card"] = hit.card.value;
      json["index"] = card->index;
      json["face"] = table.deck().text(card->face);
      json["face_up"] = card->face_up;
      json["pick"] = std::string(code_of(pick.verdict.reason));
      json["run"] = pick.run.count;
    }
    json["stack"] = json_of(stack, field);
    print_json(json);
  } else if (options.format == Format::csv) {
    print(fmt::format("hit,zone,index,card,face,pick,run,insertion,panel\n"));
    const std::string index = hit.zone ? fmt::format("{}", insertion) : "";
    if (card) {
      print(fmt::format("card,{},{},{},{},{},{},{},\n", csv(zone), card->index, hit.card.value,
                        csv(table.deck().text(card->face)), code_of(pick.verdict.reason), pick.run.count,
                        index));
    } else {
      print(fmt::format("{},{},,,,,,{},{}\n", kind_of(hit), csv(zone), index, csv(panel)));
    }
  } else if (card) {
    print(fmt::format("at {},{} lies {}, {}\n", number(double{at.x}), number(double{at.y}),
                      card_text(table, hit.card), card->face_up ? "open" : "covered"));
    if (pick.verdict) {
      print(pick.run.count == 1
                ? "  it may be picked up\n"
                : fmt::format("  it may be picked up, with the {} on it\n", pick.run.count - 1));
    } else {
      print(fmt::format("  it may not be picked up: {} [{}]\n", printable(describe(pick.verdict, table)),
                        code_of(pick.verdict.reason)));
    }
    print(fmt::format("  a card held here would come to lie at place {} of {}\n", insertion, zone));
  } else if (hit.panel) {
    print(fmt::format("at {},{} lies the panel {}\n", number(double{at.x}), number(double{at.y}), panel));
  } else if (hit.zone) {
    print(fmt::format("at {},{} lies no card; it is in the area of {}\n", number(double{at.x}),
                      number(double{at.y}), zone));
  } else {
    print(fmt::format("at {},{} lies nothing\n", number(double{at.x}), number(double{at.y})));
  }
  if (options.format == Format::text) print_stack(stack, field);
  return hit.zone || hit.panel ? yes : no;
}

}  // namespace

void add_probe(CommandLine& line) {
  Words& words = line.verb("probe", "What lies at a point: a card, a zone, a panel, or nothing (exit 1)");
  auto options = std::make_shared<ProbeOptions>();
  options->table.add_to(words);
  words.required_text("--at", options->at, "X,Y", "The point, px from the top left")
      .format(options->format)
      .example("apsidon probe data/potting-bench.table.json --at 640,400")
      .does([options] { return run(*options); });
}

}  // namespace apsidon::tool
