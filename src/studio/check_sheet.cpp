#include "studio/check_sheet.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <optional>

#include "art/art_parts.hpp"
#include "studio/marks.hpp"

namespace apsidon::studio_detail {
namespace {

bool alike(const Pixel& a, const Pixel& b, int tolerance) {
  for (std::size_t i = 0; i < a.size(); ++i) {
    if (std::abs(int{a[i]} - int{b[i]}) > tolerance) return false;
  }
  return true;
}

/// What lies between the cards of a sheet: nothing, or one colour.
class Ground {
 public:
  /// As the corners of the picture have it; nothing where they do not agree.
  static std::optional<Ground> of(const Pixels& p) {
    const std::array<Pixel, 4> corners{p.at(0, 0), p.at(p.width - 1, 0), p.at(0, p.height - 1),
                                       p.at(p.width - 1, p.height - 1)};
    if (std::all_of(corners.begin(), corners.end(), [](const Pixel& c) { return c[3] < faint; }))
      return Ground(std::nullopt);
    const bool one = std::all_of(corners.begin(), corners.end(),
                                 [&](const Pixel& c) { return alike(c, corners.front(), tolerance); });
    return one ? std::optional(Ground(corners.front())) : std::nullopt;
  }
  [[nodiscard]] bool is(const Pixel& p) const {
    return colour_ ? alike(p, *colour_, tolerance) : p[3] < faint;
  }

 private:
  static constexpr int tolerance = 8;
  static constexpr int faint = 16;

  explicit Ground(std::optional<Pixel> colour) : colour_(colour) {}

  std::optional<Pixel> colour_;
};

/// Cards an equal distance apart, along one direction.
struct Row {
  float first = 0;
  float size = 0;
  float pitch = 0;
  int count = 0;
};

/// From the stretches that are not all ground; nothing unless they are alike and evenly apart.
std::optional<Row> regular(const std::vector<char>& filled) {
  std::vector<std::pair<int, int>> runs;
  for (std::size_t i = 0; i < filled.size(); ++i) {
    if (filled[i] == 0) continue;
    if (i == 0 || filled[i - 1] == 0) runs.emplace_back(static_cast<int>(i), static_cast<int>(i));
    runs.back().second = static_cast<int>(i) + 1;
  }
  if (runs.size() < 2) return std::nullopt;
  const auto n = static_cast<float>(runs.size() - 1);
  const auto first = static_cast<float>(runs.front().first);
  const float pitch = (static_cast<float>(runs.back().first) - first) / n;
  int size = 0;
  for (const auto& [begin, end] : runs) size = std::max(size, end - begin);
  for (std::size_t i = 0; i < runs.size(); ++i) {
    const auto [begin, end] = runs[i];
    if (size - (end - begin) > 1) return std::nullopt;
    if (std::abs(static_cast<float>(begin) - first - pitch * static_cast<float>(i)) > 1) return std::nullopt;
  }
  return Row{first, static_cast<float>(size), pitch, static_cast<int>(runs.size())};
}

bool holds(const Row& stated, const Row& found) {
  constexpr float slack = 0.75f;
  for (int i = 0; i < found.count; ++i) {
    const float begin = found.first + found.pitch * static_cast<float>(i);
    const float cell = stated.first + stated.pitch * static_cast<float>(i);
    if (begin < cell - slack || begin + found.size > cell + stated.size + slack) return false;
  }
  return true;
}

float tidy(float px) { return std::round(px * 100) / 100; }

/// The description that fits what was found: only another margin, where that is enough.
Row fitting(const Row& stated, const Row& found) {
  Row fits = found;
  fits.pitch = std::abs(found.pitch - std::round(found.pitch)) * static_cast<float>(found.count) < 1
                   ? std::round(found.pitch)
                   : found.pitch;
  Row moved = stated;
  moved.first = std::floor(found.first - std::max(stated.size - found.size, 0.0f) / 2);
  return moved.first >= 0 && holds(moved, found) ? moved : fits;
}

std::string pair(float x, float y) { return fmt::format("[{}, {}]", tidy(x), tidy(y)); }

class SheetChecker {
 public:
  SheetChecker(const Art& art, const Deck& deck, const ArtSheet& sheet, const ArtSources& from)
      : art_(art), deck_(deck), sheet_(sheet), pixels_(from.pixels_of(sheet.picture)), from_(from) {
    for (const FaceId face : deck.faces()) {
      const auto part = part_of(art, deck, face);
      if (part && part == art_detail::cell_of(sheet, deck, face)) cells_.push_back({face, part->part});
    }
  }

  std::vector<ArtFinding> findings() {
    if (pixels_.empty() || cells_.empty()) return {};
    const auto ground = Ground::of(pixels_);
    const bool off = ground && check_gutters(*ground);
    check_empty();
    if (ground && !off) check_cut(*ground);
    if (!off) check_ranks();
    return std::move(out_);
  }

 private:
  struct Cell {
    FaceId face;
    Rect part;
  };

  void say(const char* code, const std::string& face, std::string message) {
    out_.push_back({code, face, std::move(message)});
  }

  /// Whether cards lie elsewhere than the description has them.
  bool check_gutters(const Ground& ground) {
    std::vector<char> columns(static_cast<std::size_t>(pixels_.width), 0);
    std::vector<char> rows(static_cast<std::size_t>(pixels_.height), 0);
    for (int y = 0; y < pixels_.height; ++y) {
      for (int x = 0; x < pixels_.width; ++x) {
        if (ground.is(pixels_.at(x, y))) continue;
        columns[static_cast<std::size_t>(x)] = 1;
        rows[static_cast<std::size_t>(y)] = 1;
      }
    }
    const ArtSheet& s = sheet_;
    const Row across{s.margin.x, s.cell.width, s.cell.width + s.spacing.x, s.columns};
    const Row down{s.margin.y, s.cell.height, s.cell.height + s.spacing.y, 0};
    const auto is_across = regular(columns);
    const auto is_down = regular(rows);
    const bool good_across = !is_across || holds(across, *is_across);
    const bool good_down = !is_down || holds(down, *is_down);
    if (good_across && good_down) return false;
    const Row x = good_across ? across : fitting(across, *is_across);
    const Row y = good_down ? down : fitting(down, *is_down);
    const auto where = [](const Row& row) {
      return fmt::format("{} px every {} from {} on", tidy(row.size), tidy(row.pitch), tidy(row.first));
    };
    std::string found;
    if (!good_across) found += fmt::format(" across, {}", where(*is_across));
    if (!good_down) found += fmt::format("{} down, {}", found.empty() ? "" : ", and", where(*is_down));
    say("gutters", "",
        fmt::format("the cards of '{}' lie elsewhere than it is described:{}: \"cell\": {{\"width\": {}, "
                    "\"height\": {}}}, \"margin\": {}, \"spacing\": {} would fit",
                    s.picture, found, tidy(x.size), tidy(y.size), pair(x.first, y.first),
                    pair(x.pitch - x.size, y.pitch - y.size)));
    return true;
  }

  [[nodiscard]] bool within(const Rect& r) const {
    return r.min.x >= 0 && r.min.y >= 0 && r.max.x <= static_cast<float>(pixels_.width) &&
           r.max.y <= static_cast<float>(pixels_.height);
  }

  /// Whether a part has but one colour.
  [[nodiscard]] bool empty(const Rect& part) const {
    const int left = static_cast<int>(part.min.x), top = static_cast<int>(part.min.y);
    const int right = static_cast<int>(part.max.x), bottom = static_cast<int>(part.max.y);
    const Pixel& first = pixels_.at(left, top);
    for (int y = top; y < bottom; ++y) {
      for (int x = left; x < right; ++x) {
        const Pixel& p = pixels_.at(x, y);
        if (!alike(p, first, 3) && !(p[3] < 16 && first[3] < 16)) return false;
      }
    }
    return true;
  }

  /// Of a description, whether no cell that it gives to a face is empty or outside.
  [[nodiscard]] bool fills(const ArtSheet& described) const {
    Art art = art_;
    for (ArtSheet& sheet : art.sheets) {
      if (sheet == sheet_) sheet = described;
    }
    return std::all_of(cells_.begin(), cells_.end(), [&](const Cell& cell) {
      const auto part = part_of(art, deck_, cell.face);
      return part && within(part->part) && !part->part.empty() && !empty(part->part);
    });
  }

  /// What else the description might say so that no cell is empty.
  [[nodiscard]] std::string filling() const {
    ArtSheet other = sheet_;
    other.order = sheet_.order == SheetOrder::by_suit ? SheetOrder::by_rank : SheetOrder::by_suit;
    if (fills(other))
      return fmt::format(": \"order\": \"{}\" would fit",
                         other.order == SheetOrder::by_suit ? "by-suit" : "by-rank");
    for (int down = 0; down <= 2; ++down) {
      for (int across = 0; across <= 2; ++across) {
        other = sheet_;
        other.margin.x += static_cast<float>(across) * (sheet_.cell.width + sheet_.spacing.x);
        other.margin.y += static_cast<float>(down) * (sheet_.cell.height + sheet_.spacing.y);
        if (fills(other))
          return fmt::format(": \"margin\": {} would fit", pair(other.margin.x, other.margin.y));
      }
    }
    return ": draw them, or leave those ranks or suits out of the sheet";
  }

  void check_empty() {
    std::vector<std::string> names;
    for (const Cell& cell : cells_) {
      if (within(cell.part) && !cell.part.empty() && empty(cell.part)) names.push_back(deck_.text(cell.face));
    }
    if (names.empty()) return;
    constexpr std::size_t most = 6;
    const std::size_t more = names.size() > most ? names.size() - most : 0;
    names.resize(names.size() - more);
    say("empty-cell", names.size() == 1 && more == 0 ? names.front() : "",
        fmt::format("'{}' has nothing in the {} of {}{}{}", sheet_.picture,
                    names.size() + more == 1 ? "cell" : "cells", fmt::join(names, ", "),
                    more > 0 ? fmt::format(" and {} more", more) : "", filling()));
  }

  /// How far a drawing goes on beyond its cell on each side, px: left, top, right, bottom.
  [[nodiscard]] std::array<int, 4> beyond(const Rect& part, const Ground& ground) const {
    const int left = static_cast<int>(part.min.x), top = static_cast<int>(part.min.y);
    const int right = static_cast<int>(part.max.x), bottom = static_cast<int>(part.max.y);
    const auto filled = [&](int x0, int y0, int x1, int y1) {
      if (x0 < 0 || y0 < 0 || x1 > pixels_.width || y1 > pixels_.height) return false;
      for (int y = y0; y < y1; ++y) {
        for (int x = x0; x < x1; ++x) {
          if (!ground.is(pixels_.at(x, y))) return true;
        }
      }
      return false;
    };
    const int across = static_cast<int>(sheet_.spacing.x), down = static_cast<int>(sheet_.spacing.y);
    const auto far = [](int most, const auto& at) {
      int n = 0;
      while (n < most && at(n)) ++n;
      return n;
    };
    return {far(across, [&](int n) { return filled(left - n - 1, top, left - n, bottom); }),
            far(down, [&](int n) { return filled(left, top - n - 1, right, top - n); }),
            far(across, [&](int n) { return filled(right + n, top, right + n + 1, bottom); }),
            far(down, [&](int n) { return filled(left, bottom + n, right, bottom + n + 1); })};
  }

  void check_cut(const Ground& ground) {
    std::array<int, 4> most{};
    std::string face;
    int cut = 0;
    for (const Cell& cell : cells_) {
      if (!within(cell.part)) continue;
      const auto out = beyond(cell.part, ground);
      if (out == std::array<int, 4>{}) continue;
      ++cut;
      if (face.empty()) face = deck_.text(cell.face);
      for (std::size_t i = 0; i < 4; ++i) most[i] = std::max(most[i], out[i]);
    }
    if (cut == 0) return;
    const auto [left, top, right, bottom] = most;
    const auto px = [](int n) { return static_cast<float>(n); };
    const ArtSheet& s = sheet_;
    say("cuts", face,
        fmt::format(
            "the cells of '{}' cut {} of its drawings, up to {} px of them: \"cell\": {{\"width\": {}, "
            "\"height\": {}}}, \"margin\": {}, \"spacing\": {} would hold them",
            s.picture, cut, std::max({left, top, right, bottom}), tidy(s.cell.width + px(left + right)),
            tidy(s.cell.height + px(top + bottom)), pair(s.margin.x - px(left), s.margin.y - px(top)),
            pair(s.spacing.x - px(left + right), s.spacing.y - px(top + bottom))));
  }

  /// By how many ranks the row of a suit is off, as far as its corner marks tell.
  [[nodiscard]] int shift_of(int suit, const std::vector<std::vector<MarkShape>>& words) const {
    const auto n = words.size();
    std::vector<float> scores(n, 0);
    int told = 0;
    for (const Cell& cell : cells_) {
      if (deck_.suit_of(cell.face) != suit || !within(cell.part)) continue;
      const auto mark = shape_in_corner(pixels_, cell.part);
      if (!mark) continue;
      ++told;
      for (std::size_t shift = 0; shift < n; ++shift) {
        float best = 0;
        for (const MarkShape& word : words[(place_of(cell.face) + shift) % n])
          best = std::max(best, likeness(*mark, word));
        scores[shift] += best;
      }
    }
    // A few marks say little, and a difference has to be plain.
    constexpr int fewest = 5;
    constexpr float plain = 0.15f, good = 0.5f;
    if (told < fewest) return 0;
    const auto best = std::max_element(scores.begin(), scores.end());
    const auto share = [&](float score) { return score / static_cast<float>(told); };
    const bool clear = share(*best) > good && share(*best) > share(scores.front()) + plain;
    return clear ? static_cast<int>(best - scores.begin()) : 0;
  }

  [[nodiscard]] const std::vector<std::string>& ranks() const {
    return sheet_.ranks.empty() ? deck_.options().ranks : sheet_.ranks;
  }
  [[nodiscard]] std::size_t place_of(FaceId face) const {
    const auto rank = static_cast<std::size_t>(deck_.rank_of(face));
    if (sheet_.ranks.empty()) return rank;
    const auto at = std::find(sheet_.ranks.begin(), sheet_.ranks.end(), deck_.options().ranks[rank]);
    return static_cast<std::size_t>(at - sheet_.ranks.begin());
  }

  void check_ranks() {
    constexpr std::size_t most_ranks = 40;
    if (!from_.lettered || ranks().size() < 2 || ranks().size() > most_ranks) return;
    std::vector<std::vector<MarkShape>> words;
    for (const std::string& rank : ranks()) {
      words.emplace_back();
      for (const Pixels& word : from_.lettered(rank)) {
        if (const auto shape = shape_of_word(word)) words.back().push_back(*shape);
      }
    }
    std::vector<int> off;
    int shift = 0;
    int looked_at = 0;
    for (int suit = 0; suit < deck_.suit_count(); ++suit) {
      const bool here = std::any_of(cells_.begin(), cells_.end(),
                                    [&](const Cell& cell) { return deck_.suit_of(cell.face) == suit; });
      if (!here) continue;
      ++looked_at;
      const int own = shift_of(suit, words);
      if (own == 0 || (shift != 0 && own != shift)) continue;
      shift = own;
      off.push_back(suit);
    }
    if (off.empty()) return;
    std::vector<std::string> seen = ranks();
    std::rotate(seen.begin(), seen.begin() + shift, seen.end());
    const bool all = static_cast<int>(off.size()) == looked_at;
    const std::string suit = deck_.options().suits[static_cast<std::size_t>(off.front())].name;
    say("rank-off", "",
        fmt::format(
            "by the corner marks of '{}' {} begin{} with {}, not with {}: \"ranks\": [\"{}\"] would fit{}",
            sheet_.picture, all ? "its suits" : fmt::format("the row of {}", suit), all ? "" : "s",
            seen.front(), ranks().front(), fmt::join(seen, "\", \""),
            all ? "" : ", in a sheet entry of its own"));
  }

  const Art& art_;
  const Deck& deck_;
  const ArtSheet& sheet_;
  Pixels pixels_;
  const ArtSources& from_;
  std::vector<Cell> cells_ = {};
  std::vector<ArtFinding> out_ = {};
};

}  // namespace

std::vector<ArtFinding> check_sheet(const Art& art, const Deck& deck, const ArtSheet& sheet,
                                    const ArtSources& from) {
  return SheetChecker(art, deck, sheet, from).findings();
}

}  // namespace apsidon::studio_detail
