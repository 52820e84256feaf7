// apsidon check: what is wrong with a table, although it can be read.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <map>
#include <set>

#include "apsidon/art/art_file.hpp"
#include "apsidon/draw/gallery.hpp"
#include "apsidon/draw/paint.hpp"
#include "apsidon/studio/check_art.hpp"
#include "shared/common.hpp"

namespace apsidon::tool {
namespace {

struct CheckOptions {
  TableOptions table;
  std::string art;
  float finger = 44;
  Format format = Format::text;
};

struct Finding {
  std::string code;
  std::string zone;     ///< a zone, a panel or a face, or several of which the same was found
  std::string message;  ///< what was found, and what to change
};

/// Looks at one table in one window.
class Checker {
 public:
  Checker(const TableSetup& setup, const CheckOptions& options)
      : setup_(setup),
        options_(options),
        field_(setup, {.window = parse_size("--window", options.table.window),
                       .pixel_ratio = options.table.pixel_ratio}) {}

  std::vector<Finding> run() {
    check_window();
    if (!field_.where().fits()) {
      add("too-small", "",
          "the window shows no card at all: 'apsidon fit' names the zone that needs the room");
      return findings_;
    }
    for (const Zone& zone : setup_.table.zones()) {
      check_place(zone);
      check_longest(zone);
      check_held(zone);
    }
    check_reach();
    check_copies();
    check_faces();
    if (options_.art.empty()) check_rank_marks();
    check_proportions();
    if (!options_.art.empty()) check_pictures();
    return merged();
  }

 private:
  void add(std::string code, std::string zone, std::string message) {
    findings_.push_back({std::move(code), std::move(zone), std::move(message)});
  }

  /// The same thing said of several zones is said once.
  [[nodiscard]] std::vector<Finding> merged() const {
    std::vector<Finding> out;
    std::vector<std::vector<std::string>> zones;
    for (const Finding& f : findings_) {
      const auto same = std::find_if(out.begin(), out.end(), [&](const Finding& o) {
        return o.code == f.code && o.message == f.message;
      });
      if (same == out.end()) {
        out.push_back(f);
        zones.push_back({f.zone});
      } else {
        zones[static_cast<std::size_t>(same - out.begin())].push_back(f.zone);
      }
    }
    for (std::size_t i = 0; i < out.size(); ++i) {
      if (zones[i].size() == 2) out[i].zone = zones[i][0] + ", " + zones[i][1];
      if (zones[i].size() > 2) {
        out[i].zone = fmt::format("{} … {} ({} zones)", zones[i].front(), zones[i].back(), zones[i].size());
      }
    }
    return out;
  }

  /// More cards of a face than its deck has: a table that was written in the middle of a game may have made
  /// some.
  void check_copies() {
    const Deck& deck = setup_.table.deck();
    std::map<FaceId, int> named;
    for (const Zone& zone : setup_.table.zones()) {
      for (const CardId card : zone.cards) ++named[setup_.table.card(card)->face];
    }
    for (const auto& [face, count] : named) {
      if (face == hidden_face || count <= deck.options().copies) continue;
      add("face-too-often", "",
          fmt::format(
              "{} is on the table {} times, and the deck has {}: take the others away, or raise its copies",
              deck.text(face), count, deck.options().copies));
    }
  }

  /// Lengths in px do not shrink with the cards: what they push out of the window.
  void check_window() {
    const Rect window = grown(rect_at({0, 0}, parse_size("--window", options_.table.window)), 0.5f);
    const auto look_at = [&](const std::string& name, const Rect& area) {
      if (area.min.x >= window.min.x && area.min.y >= window.min.y && area.max.x <= window.max.x &&
          area.max.y <= window.max.y) {
        return;
      }
      add("off-window", name,
          fmt::format("it lies from {},{} to {},{}, beyond the window: lower the plan's lengths in px, or "
                      "give it a plan for such windows",
                      number(double{area.min.x}), number(double{area.min.y}), number(double{area.max.x}),
                      number(double{area.max.y})));
    };
    for (const Zone& zone : setup_.table.zones()) {
      if (!setup_.layout_of(zone.id).off_table) look_at(zone.name, *field_.where().area(zone.id));
    }
    for (std::uint32_t i = 1; i <= field_.where().panels().size(); ++i) {
      if (const auto area = field_.where().panel_area({i}))
        look_at(field_.where().panels()[i - 1].name, *area);
    }
  }

  void check_place(const Zone& zone) {
    const ZoneLayout& place = setup_.layout_of(zone.id);
    if (place.gives_up && zone.cards.empty()) return;
    const Rect area = *field_.where().area(zone.id);
    const float smaller = std::min(area.width(), area.height());
    if (smaller < options_.finger) {
      add("small-target", zone.name,
          fmt::format("its area is {} px across, a finger wants {}: raise its factor, or let the plan have "
                      "fewer zones side by "
                      "side",
                      number(double{smaller}), number(double{options_.finger})));
    }
  }

  /// Lays the zone out at its longest: is it crowded, and are its strips wide enough for a corner mark?
  void check_longest(const Zone& zone) {
    const ZoneLayout& place = setup_.layout_of(zone.id);
    const auto n = static_cast<std::size_t>(place.longest);
    if (n < 2 || place.scrolls || (place.gives_up && zone.cards.empty())) return;
    std::vector<LaidCard> cards(n);
    for (std::size_t i = 0; i < static_cast<std::size_t>(place.longest_covered); ++i)
      cards[i].face_up = false;
    std::vector<Pose> poses(n);
    const Size card = field_.where().card_size() * place.factor;
    const LayoutReport report = lay_out(place.kind,
                                        {.area = *field_.where().area(zone.id),
                                         .card = card,
                                         .cards = cards,
                                         .facing = field_.where().facing(zone.id)},
                                        poses);
    if (report.crowded) {
      add("crowded", zone.name,
          fmt::format("with {} cards, its longest, strips are below their least: give it a larger share, or "
                      "say a smaller "
                      "longest",
                      n));
    }
    const LayoutTraits traits = traits_of(place.kind);
    const bool strips = traits.strips && traits.apart == 0;
    // Where only covered cards lie and none can be taken there is nothing to read.
    const bool covered = std::none_of(zone.cards.begin(), zone.cards.end(),
                                      [&](CardId id) { return setup_.table.card(id)->face_up; });
    const ZoneRules& rules = setup_.rules_of(zone.id);
    if (!strips || (covered && rules.pick.kind == PickKind::nothing && rules.drop.kind == RuleKind::nothing))
      return;
    float strip = 1e9f;
    for (std::size_t k = 1; k < n; ++k) {
      if (cards[k - 1].face_up) strip = std::min(strip, length(poses[k].centre - poses[k - 1].centre));
    }
    const Marks marks = marks_in_strip(card.width, traits.axis == LayoutAxis::down);
    if (strip >= marks.suit) return;
    add("thin-strip", zone.name,
        fmt::format(
            "with {} cards an open strip is {} px, a rank takes {} and a suit {}: raise its least strip, "
            "or say a smaller longest",
            n, number(double{strip}), number(double{marks.rank}), number(double{marks.suit})));
  }

  /// How wide a strip has to be for corner marks to be read in it, px.
  struct Marks {
    float rank = 0;
    float suit = 0;
  };
  /// A full card has the suit below the rank, a compact one beside it, and once more large in its middle. A
  /// little of a mark may be covered.
  static Marks marks_in_strip(float width, bool along_top) {
    const bool compact = width < compact_width;
    if (along_top) return compact ? Marks{0.33f * width, 0.33f * width} : Marks{0.25f * width, 0.37f * width};
    return compact ? Marks{0.52f * width, 0.52f * width} : Marks{0.24f * width, 0.24f * width};
  }

  void check_held(const Zone& zone) {
    const ZoneLayout& place = setup_.layout_of(zone.id);
    // A pack that is not dealt yet lies there for a moment.
    if (zone.id == setup_.round.stock || zone.id == setup_.deal_from) return;
    if (zone.cards.size() > static_cast<std::size_t>(place.longest)) {
      add("over-longest", zone.name,
          fmt::format("it holds {} cards, its longest is {}: raise 'longest' to what the game can put there",
                      zone.cards.size(), place.longest));
    }
  }

  /// Zones to which cards come by themselves: by a round, a stock, a match, a flick, a finish.
  [[nodiscard]] std::set<ZoneId> fed() const {
    std::set<ZoneId> zones{setup_.deal_from, setup_.round.stock};
    for (const DealtZone& dealt : setup_.round.zones) zones.insert(dealt.zone);
    zones.insert(setup_.finish.into.begin(), setup_.finish.into.end());
    for (const Zone& zone : setup_.table.zones()) {
      const ZoneRules& rules = setup_.rules_of(zone.id);
      const ZoneHandling& handling = setup_.handling_of(zone.id);
      zones.insert(rules.sends_to.begin(), rules.sends_to.end());
      if (rules.stock) zones.insert(rules.stock->to);
      if (rules.takes_itself) zones.insert(zone.id);
      if (rules.match) zones.insert(rules.match->to);
      const FlickTargets& flicks = handling.flick_to;
      zones.insert({flicks.left, flicks.right, flicks.up, flicks.down});
    }
    return zones;
  }

  /// Zones that lie empty and neither take nor give anything, nor wait to be given a place; what has none is
  /// a box into which the game itself puts cards.
  void check_reach() {
    const std::set<ZoneId> others = fed();
    for (const Zone& zone : setup_.table.zones()) {
      const ZoneRules& rules = setup_.rules_of(zone.id);
      const bool inert = rules.drop.kind == RuleKind::nothing && rules.pick.kind == PickKind::nothing;
      const ZoneLayout& layout = setup_.layout_of(zone.id);
      const bool waits = others.contains(zone.id) || layout.gives_up || layout.off_table;
      if (!zone.cards.empty() || !inert || waits) continue;
      add("unreachable", zone.name,
          "it is empty and takes no drops, and no round, stock, match or other zone brings cards there: give "
          "it "
          "a 'drop' rule");
    }
  }

  /// All faces but one: a line of the file was forgotten.
  void check_faces() {
    std::set<FaceId> shown;
    for (const Zone& zone : setup_.table.zones()) {
      for (const CardId id : zone.cards) shown.insert(setup_.table.card(id)->face);
    }
    std::vector<FaceId> missing;
    for (const FaceId face : setup_.table.deck().faces()) {
      if (!shown.contains(face)) missing.push_back(face);
    }
    if (missing.size() != 1 || shown.contains(hidden_face)) return;
    add("missing-face", "",
        fmt::format("all faces of the deck are on the table but {}: add it where it belongs",
                    setup_.table.deck().text(missing.front())));
  }

  /// Words do not fit in a corner; a deck all of whose ranks are words has a face of its own for that.
  void check_rank_marks() {
    const Deck& deck = setup_.table.deck();
    std::string shortened;
    bool any_whole = false;
    for (int rank = 0; rank < deck.rank_count(); ++rank) {
      const std::string& name = deck.options().ranks[static_cast<std::size_t>(rank)];
      const std::string mark = rank_mark(deck, rank);
      any_whole = any_whole || mark == name;
      if (mark != name) shortened += fmt::format("{}{} as {}", shortened.empty() ? "" : ", ", name, mark);
    }
    if (shortened.empty() || !any_whole) return;
    add("rank-shortened", "",
        fmt::format("corners have room for three letters: they show {}; name the ranks as they shall show",
                    shortened));
  }

  void check_pictures() {
    const Gallery gallery = load_gallery(options_.art, options_.table.trust);
    for (const ArtFinding& f : check_art(gallery, setup_.table.deck())) add(f.code, f.face, f.message);
    if (gallery.art().sampling == Sampling::nearest) check_scale(gallery);
  }

  /// Pixels of pixel art are all as large, or some are seen to be wider than others.
  void check_scale(const Gallery& gallery) {
    const auto size_of = [&](const std::string& name) { return gallery.size_of(name); };
    const Deck& deck = setup_.table.deck();
    const CardPicture first =
        picture_of(gallery.art(), deck, ShownCard{.face = deck.faces().front()}, size_of);
    if (!first.part) return;
    const Size own = first.part->part.size();
    for (const Zone& zone : setup_.table.zones()) {
      const float shown =
          field_.where().card_size().width * setup_.layout_of(zone.id).factor * options_.table.pixel_ratio;
      const float times = shown / own.width;
      const float whole = std::max(std::round(times), 1.0f);
      if (std::abs(times - whole) < 0.01f) continue;
      add("uneven-scale", zone.name,
          fmt::format(
              "its cards show pictures of {}x{} px {} times as large, some of their pixels wider than "
              "others: \"whole_multiples\": true in the plan, and a factor of 1, make it {}",
              number(double{own.width}), number(double{own.height}), number(double{times}),
              std::max(std::floor(times), 1.0f)));
    }
  }

  /// Pictures that would be stretched, or leave bars.
  void check_proportions() {
    const Size& art = setup_.art_size;
    if (art.empty()) return;
    const float wanted = art.width / art.height;
    for (const Plan& plan : setup_.plans) {
      if (std::abs(plan.aspect / wanted - 1) <= 0.01f) continue;
      add("proportions", "",
          fmt::format(
              "plan '{}' makes cards {} times as wide as high, the art of {}x{} px is {}: leave out the "
              "plan's aspect to take the art's",
              plan.name, number(double{plan.aspect}), number(double{art.width}), number(double{art.height}),
              number(double{wanted})));
    }
  }

  const TableSetup& setup_;
  const CheckOptions& options_;
  Playfield field_;
  std::vector<Finding> findings_;
};

int run(const CheckOptions& options) {
  const TableSetup setup = load_setup(options.table);
  const std::vector<Finding> findings = Checker(setup, options).run();
  if (options.format == Format::json) {
    auto json = json_of_verb("check");
    json["findings"] = nlohmann::ordered_json::array();
    for (const Finding& f : findings)
      json["findings"].push_back({{"code", f.code}, {"of", f.zone}, {"message", f.message}});
    json["unbound"] = setup.unbound();
    print_json(json);
  } else if (options.format == Format::csv) {
    std::string out = "code,of,message\n";
    for (const Finding& f : findings) out += fmt::format("{},{},{}\n", f.code, csv(f.zone), csv(f.message));
    print(out);
  } else {
    for (const Finding& f : findings) {
      print(fmt::format("{}{}: {} [{}]\n", options.table.file, f.zone.empty() ? "" : ": " + f.zone, f.message,
                        f.code));
    }
    print(findings.empty()
              ? fmt::format("{}: nothing found in a window of {}\n", options.table.file, options.table.window)
              : fmt::format("{} {} in a window of {}\n", findings.size(),
                            findings.size() == 1 ? "finding" : "findings", options.table.window));
    // No mistake of the table: a game gives them.
    for (const std::string& name : setup.unbound())
      print(
          fmt::format("'{}' is a function in the game's code: setup.bind(\"{}\", …) gives it\n", name, name));
  }
  return findings.empty() ? yes : no;
}

}  // namespace

void add_check(CommandLine& line) {
  Words& words = line.verb("check", "What is wrong with a table in a window, and what to change (exit 1)");
  auto options = std::make_shared<CheckOptions>();
  options->table.add_to(words);
  words.text("--art", options->art, "ART", "Also what is wrong with the pictures of this art file")
      .number("--finger", options->finger, 1, 1000, "PX",
              "The smallest target for a finger; 44 unless stated")
      .format(options->format)
      .example("apsidon check data/potting-bench.table.json --window 390x844")
      .does([options] { return run(*options); });
}

}  // namespace apsidon::tool
