// What is wrong with a deck's art, and what to change.
#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <cmath>
#include <set>

#include "apsidon/files/nearest.hpp"
#include "apsidon/studio/check_art.hpp"
#include "art/art_parts.hpp"
#include "studio/check_sheet.hpp"

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
  ArtChecker(const Art& art, const Deck& deck, const ArtSources& from) : art_(art), deck_(deck), from_(from) {
    find_unused(from.there);
  }

  std::vector<ArtFinding> findings() {
    check_names();
    for (const ArtSheet& sheet : art_.sheets) check_columns(sheet);
    check_pixels();
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
      use(art_detail::detail_of(art_, deck_, face));
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
    std::vector<std::string> words = suits;
    words.insert(words.end(), ranks.begin(), ranks.end());
    words.insert(words.end(), faces.begin(), faces.end());
    std::vector<std::string> jokers;
    for (const Joker& joker : deck_.options().jokers) jokers.push_back(joker.name);
    for (const auto& [word, name] : art_.names)
      check("unknown-name", "suit, rank or face", word, words, "'names'");
    for (const auto& [joker, of] : art_.jokers) check("unknown-face", "joker", joker, jokers, "'jokers'");
    for (const auto& [face, part] : art_.parts) check("unknown-face", "face", face, faces, "'parts'");
  }

  /// What the pixels of sheets tell, and whether the key colour is in any picture.
  void check_pixels() {
    if (!from_.pixels_of) return;
    for (const ArtSheet& sheet : art_.sheets) {
      if (!from_.size_of(sheet.picture)) continue;
      for (ArtFinding& f : studio_detail::check_sheet(art_, deck_, sheet, from_))
        out_.push_back(std::move(f));
    }
    if (art_.key_colour) check_key_colour();
  }

  void check_key_colour() {
    std::set<std::string> pictures;
    for (const FaceId face : deck_.faces()) {
      const auto part = part_of(art_, deck_, face);
      if (part && from_.size_of(part->picture)) pictures.insert(part->picture);
    }
    std::optional<Pixel> corner;
    for (const std::string& picture : pictures) {
      const Pixels pixels = from_.pixels_of(picture);
      if (pixels.empty()) continue;
      if (std::any_of(pixels.all.begin(), pixels.all.end(), [](const Pixel& p) { return p[3] == 0; })) return;
      if (!corner) corner = pixels.at(0, 0);
    }
    if (!corner) return;
    const Rgb& key = *art_.key_colour;
    say("key-colour", "",
        fmt::format("no picture has the key colour #{:02X}{:02X}{:02X}: the first one's corner is "
                    "#{:02X}{:02X}{:02X}; state that, or leave 'key_colour' out",
                    key.red, key.green, key.blue, (*corner)[0], (*corner)[1], (*corner)[2]));
  }

  void check_columns(const ArtSheet& sheet) {
    const auto whole = from_.size_of(sheet.picture);
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
    if (!art_.backs.empty() && !deck_.options().suit_backs) {
      say("backs-alike", "",
          "'backs' has backs by suit, and the deck says that its backs are alike, so that they never show: "
          "\"backs\": \"by-suit\" in the deck shows them");
    }
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
    bool told = false;
    for (const FaceId face : deck_.faces()) {
      const auto part = art_detail::detail_of(art_, deck_, face);
      if (!part) continue;
      ++faces;
      const auto size = from_.size_of(part->picture);
      if (!size) missing.push_back(part->picture);
      if (size && !told) told = compare_detail(face, *size);
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

  /// A larger picture is like the face's own, and larger; whether something was said.
  bool compare_detail(FaceId face, Size detail) {
    const auto own = part_of(art_, deck_, face);
    const auto whole = own ? from_.size_of(own->picture) : Result<Size>(Problem{});
    if (!whole) return false;
    const Size part = own->part.empty() ? *whole : own->part.size();
    const std::string sizes = fmt::format("the larger picture has {}x{} px, that of the card {}x{}",
                                          detail.width, detail.height, part.width, part.height);
    if (std::abs(detail.width * part.height / (detail.height * part.width) - 1) > 0.02f) {
      say("detail-proportions", deck_.text(face),
          fmt::format("{}: it would be stretched; the same proportions are expected", sizes));
      return true;
    }
    if (detail.width >= part.width) return false;
    say("small-detail", deck_.text(face),
        fmt::format("{}: a larger one is expected, or no 'detail_pattern'", sizes));
    return true;
  }

  /// The size of a part that is there and within its picture.
  std::optional<Size> check_part(const PicturePart& part, const std::string& name) {
    const auto whole = from_.size_of(part.picture);
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
  const ArtSources& from_;
  std::vector<std::string> unused_ = {};
  std::vector<ArtFinding> out_ = {};
  std::map<std::string, std::string> seen_ = {};  // part -> face
  std::set<std::string> told_ = {};               // pictures that are missing and were told of
  std::optional<Size> first_ = {};
  bool any_missing_ = false;
};

}  // namespace

std::vector<ArtFinding> check_art(const Art& art, const Deck& deck, const ArtSources& from) {
  return ArtChecker(art, deck, from).findings();
}

}  // namespace apsidon
