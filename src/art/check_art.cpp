// What is wrong with a deck's art, and what to change.
#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <cmath>
#include <set>

#include "apsidon/art/art.hpp"
#include "apsidon/files/nearest.hpp"

namespace apsidon {
namespace {

/// The words of a picture's name in the order of the alphabet, without its folder and ending:
/// "joker-black.png" and "black_joker.png" have the same.
std::vector<std::string> words_of(const std::string& picture) {
  const std::size_t from = picture.find_last_of('/') + 1;
  const std::size_t to = std::max(std::min(picture.find_last_of('.'), picture.size()), from);
  std::vector<std::string> words{""};
  for (const char c : picture.substr(from, to - from)) {
    const auto byte = static_cast<unsigned char>(c);
    const bool part = byte >= 0x80 || std::isalnum(byte) != 0;
    if (part) words.back() += static_cast<char>(std::tolower(byte));
    if (!part && !words.back().empty()) words.emplace_back();
  }
  std::erase(words, "");
  std::sort(words.begin(), words.end());
  return words;
}

class ArtChecker {
 public:
  ArtChecker(const Art& art, const Deck& deck, const PictureSize& size_of,
             const std::vector<std::string>& there)
      : art_(art), deck_(deck), size_of_(size_of) {
    find_unused(there);
  }

  std::vector<ArtFinding> findings() {
    check_names();
    for (const ArtSheet& sheet : art_.sheets) check_columns(sheet);
    check_backs();
    for (const FaceId face : deck_.faces()) check_face(face);
    check_details();
    if (first_ && !art_.card.empty() &&
        std::abs(first_->width * art_.card.height / (first_->height * art_.card.width) - 1) > 0.01f) {
      say("proportions", "",
          fmt::format("parts have {}x{} px, the card is stated as {}x{}: the same proportions are expected",
                      first_->width, first_->height, art_.card.width, art_.card.height));
    }
    if (any_missing_ && !unused_.empty()) say_unused();
    return std::move(out_);
  }

 private:
  void say(const char* code, const std::string& face, std::string message) {
    out_.push_back({code, face, std::move(message)});
  }

  /// Pictures that are there and that nothing names: among them is what a missing one is called.
  void find_unused(const std::vector<std::string>& there) {
    std::set<std::string> used;
    const auto use = [&](const std::optional<PicturePart>& part) {
      if (part) used.insert(part->picture);
    };
    for (const FaceId face : deck_.faces()) {
      use(part_of(art_, deck_, face));
      use(detail_of(art_, deck_, face));
      use(back_of(art_, deck_, face));
    }
    use(art_.back);
    for (const ArtSheet& sheet : art_.sheets) used.insert(sheet.picture);
    for (const auto& [suit, back] : art_.backs) use(back);
    std::copy_if(there.begin(), there.end(), std::back_inserter(unused_),
                 [&](const std::string& picture) { return !used.contains(picture); });
  }

  void say_unused() {
    constexpr std::size_t most = 12;
    std::string list;
    for (std::size_t i = 0; i < std::min(unused_.size(), most); ++i) list += (i > 0 ? ", " : "") + unused_[i];
    if (unused_.size() > most) list += fmt::format(" and {} more", unused_.size() - most);
    say("unused", "", fmt::format("pictures that are there and that nothing names: {}", list));
  }

  /// By the same words in any order, else by the fewest edits.
  [[nodiscard]] std::optional<std::string> nearest(const std::string& picture) const {
    const std::vector<std::string> words = words_of(picture);
    const auto same = std::find_if(unused_.begin(), unused_.end(),
                                   [&](const std::string& other) { return words_of(other) == words; });
    if (same != unused_.end()) return *same;
    // Folders are as a rule alike, and say nothing.
    const auto file_name = [](const std::string& path) { return path.substr(path.find_last_of('/') + 1); };
    std::vector<std::string> names;
    std::transform(unused_.begin(), unused_.end(), std::back_inserter(names), file_name);
    const auto near = nearest_name(file_name(picture), names);
    if (!near) return std::nullopt;
    return unused_[static_cast<std::size_t>(std::find(names.begin(), names.end(), *near) - names.begin())];
  }

  /// What the art says of suits, ranks and faces has to be of the deck.
  void check_names() {
    std::vector<std::string> suits;
    for (const Suit& suit : deck_.options().suits) suits.push_back(suit.name);
    std::vector<std::string> faces;
    const auto& ranks = deck_.options().ranks;
    const auto check = [&](const char* code, const char* what, const std::string& name,
                           const std::vector<std::string>& known, const std::string& where) {
      if (std::find(known.begin(), known.end(), name) != known.end()) return;
      const auto near = nearest_name(name, known);
      say(code, "",
          fmt::format("{} names the {} '{}', which the deck does not have{}", where, what, name,
                      near ? fmt::format(": did it mean '{}'?", *near) : ""));
    };
    const std::vector<FaceId> all = deck_.faces();
    for (const FaceId face : all) faces.push_back(deck_.text(face));
    const bool some_lack =
        std::any_of(all.begin(), all.end(), [&](FaceId face) { return !part_of(art_, deck_, face); });
    for (const ArtSheet& sheet : art_.sheets) {
      if (!some_lack) break;  // a sheet may be of a larger deck
      const std::string where = fmt::format("the sheet '{}'", sheet.picture);
      for (const std::string& suit : sheet.suits) check("unknown-suit", "suit", suit, suits, where);
      for (const std::string& rank : sheet.ranks) check("unknown-rank", "rank", rank, ranks, where);
    }
    for (const auto& [suit, back] : art_.backs) check("unknown-suit", "suit", suit, suits, "'backs'");
    for (const auto& [face, part] : art_.parts) check("unknown-face", "face", face, faces, "'parts'");
  }

  void check_columns(const ArtSheet& sheet) {
    const auto whole = size_of_(sheet.picture);
    const float pitch = sheet.cell.width + sheet.spacing.x;
    if (!whole || !(pitch > 0)) return;
    const int room = static_cast<int>((whole->width - sheet.margin.x + sheet.spacing.x) / pitch + 1e-3f);
    // One row may be stated longer than the picture is.
    const std::size_t cells = (sheet.suits.empty() ? deck_.options().suits.size() : sheet.suits.size()) *
                              (sheet.ranks.empty() ? deck_.options().ranks.size() : sheet.ranks.size());
    if (room == sheet.columns || (room < sheet.columns && cells <= static_cast<std::size_t>(room))) return;
    say("columns", "",
        fmt::format("'{}' has room for {} columns of {} px, its description says {}: all rows but the first "
                    "would show other faces",
                    sheet.picture, room, sheet.cell.width, sheet.columns));
  }

  void check_backs() {
    const auto check_one = [&](const PicturePart& back, const std::string& name) {
      if (!back.picture.empty()) (void)check_part(back, name);
    };
    check_one(art_.back, "the back");
    for (const auto& [suit, back] : art_.backs) check_one(back, fmt::format("the back of {}", suit));
    if (!art_.back.picture.empty() && !art_.back.part.empty()) seen_[key_of(art_.back)] = "the back";
  }

  void check_face(FaceId face) {
    const std::string name = deck_.text(face);
    auto part = part_of(art_, deck_, face);
    if (!part)
      return say("no-part", name, "no part, sheet or pattern has it: name its part, or add it to a sheet");
    const auto size = check_part(*part, name);
    if (!size) return;
    if (part->part.empty()) part->part = rect_at({0, 0}, *size);
    if (const auto [at, fresh] = seen_.try_emplace(key_of(*part), name); !fresh)
      say("shared-part", name,
          fmt::format("it shows the same part as {}: one of them has another", at->second));
    if (!first_) first_ = size;
    if (*size == *first_) return;
    say("unequal-parts", name,
        fmt::format("its part has {}x{} px, that of the first face {}x{}: parts of one size are expected",
                    size->width, size->height, first_->width, first_->height));
  }

  /// Larger pictures are for all faces, or the pattern is wrong.
  void check_details() {
    std::size_t faces = 0;
    std::vector<std::string> missing;
    for (const FaceId face : deck_.faces()) {
      const auto part = detail_of(art_, deck_, face);
      if (!part) continue;
      ++faces;
      if (!size_of_(part->picture)) missing.push_back(part->picture);
    }
    if (missing.empty()) return;
    any_missing_ = true;
    const auto near = nearest(missing.front());
    say("no-detail", "",
        fmt::format(
            "of {} larger pictures {} are not there, the first is '{}'{}: those faces zoom as they are",
            faces, missing.size(), missing.front(),
            near ? fmt::format("; the nearest that is there is '{}'", *near) : ""));
  }

  /// The size of a part that is there and within its picture.
  std::optional<Size> check_part(const PicturePart& part, const std::string& name) {
    const auto whole = size_of_(part.picture);
    if (!whole) {
      say_missing(part.picture, name, whole.error().front());
      return std::nullopt;
    }
    const Rect& r = part.part;
    if (r.empty()) return *whole;
    if (r.min.x >= 0 && r.min.y >= 0 && r.max.x <= whole->width && r.max.y <= whole->height) return r.size();
    say("outside", name,
        fmt::format("its part from {},{} to {},{} is not within '{}', which has {}x{} px: margin, spacing, "
                    "cell or columns of the sheet are off",
                    r.min.x, r.min.y, r.max.x, r.max.y, part.picture, whole->width, whole->height));
    return std::nullopt;
  }

  void say_missing(const std::string& picture, const std::string& name, const Problem& why) {
    if (!told_.insert(picture).second) return;
    if (why.code != ProblemCode::cannot_read)
      return say("no-picture", name,
                 fmt::format("the picture '{}' cannot be shown: {}", picture, why.message));
    any_missing_ = true;
    const auto near = nearest(picture);
    say("no-picture", name,
        fmt::format("the picture '{}' is not there{}", picture,
                    near ? fmt::format(": the nearest that is there is '{}'", *near) : ""));
  }

  static std::string key_of(const PicturePart& part) {
    const Rect& r = part.part;
    return fmt::format("{} {} {} {} {}", part.picture, r.min.x, r.min.y, r.max.x, r.max.y);
  }

  const Art& art_;
  const Deck& deck_;
  const PictureSize& size_of_;
  std::vector<std::string> unused_ = {};
  std::vector<ArtFinding> out_ = {};
  std::map<std::string, std::string> seen_ = {};  // part -> face
  std::set<std::string> told_ = {};               // pictures that are missing and were told of
  std::optional<Size> first_ = {};
  bool any_missing_ = false;
};

}  // namespace

std::vector<ArtFinding> check_art(const Art& art, const Deck& deck, const PictureSize& size_of,
                                  const std::vector<std::string>& others) {
  return ArtChecker(art, deck, size_of, others).findings();
}

}  // namespace apsidon
