#pragma once
// Base tracks: what is kept of a card on its way, and how a pose is made of it. Not installed.
#include <array>
#include <optional>
#include <span>
#include <vector>

#include "apsidon/geometry/pose.hpp"
#include "apsidon/motion/glide.hpp"
#include "apsidon/motion/motion.hpp"
#include "motion/due_tree.hpp"
#include "motion/first_change.hpp"
#include "motion/spring_shares.hpp"

namespace apsidon::motion_detail {

inline constexpr std::size_t channels = 8;
/// The numbers of a pose that move, in the order in which a pose has them.
using Values = std::array<float, channels>;
enum Channel : std::size_t { x, y, rotation, scale, flip_angle, opacity, brightness, lift };

inline constexpr std::int32_t plain = -1;

/// One card on its way. At a time: goal + offset * a + velocity * b + left * c, where a, b and c are the same
/// for all channels.
struct Record {
  Values goal{};
  Values offset{};    // from the goal to where it started
  Values velocity{};  // of a spring at its start; or what is left of the velocity before
  Values left{};      // what is left of the position before
  // On the clock of the record:
  double start = 0;
  double lands = 0;
  double edge = never;     // when it is edge-on, until then
  double arrives = never;  // on a spring: when it is at its goal first, until then
  double left_start = 0;
  float left_seconds = 0;  // 0: nothing is left
  float seconds = 0;       // of the way
  float lift = 0;
  std::uint32_t slot = 0;
  std::int32_t way = plain;  // where its bend is kept
  ClockIndex clock = 0;
  bool waits = false;  // for its start
};

/// What only few ways have: a bend, points on the way, a time of its own for the flip.
struct Bend {
  float bend = 0;
  float flip_from = 0;
  float flip_to = 1;
  std::vector<Vec2> through = {};
};

/// All records that move alike: by one clock, on one curve or one spring. Records are kept in parts, so that
/// what is read of each in every frame lies together.
class Bucket {
 public:
  struct Way {
    Values goal, offset;
  };
  /// What only interrupted ways and springs that started with a velocity have.
  struct Left {
    Values velocity, left;
    double start;
    float seconds;
  };
  /// What is out of the ordinary with a record; 0 for most.
  enum Special : std::uint8_t { has_left = 1, has_velocity = 2, has_lift = 4, has_bend = 8, waits = 16 };
  struct Due {
    double lands, edge, arrives;
  };

  ClockIndex clock = 0;  // that they go by
  Easing curve = {};
  std::optional<Spring> spring = {};
  SpringForm form{Spring{}};
  std::vector<Way> ways = {};
  // One array a number, so that a block of them is done at once.
  std::vector<double> starts = {};
  std::vector<double> nexts = {};  // when something is due
  std::vector<float> seconds = {};
  std::vector<float> lifts = {};
  std::vector<std::uint8_t> specials = {};
  std::vector<std::uint32_t> slots = {};
  std::vector<std::int32_t> whos = {};  // where the bend is kept, of those that have one
  std::vector<Left> lefts = {};         // of those that are so marked
  std::vector<Due> dues = {};

  [[nodiscard]] bool moves_like(const Glide& glide, ClockIndex by) const {
    return clock == by && spring == glide.spring && (spring || curve == glide.curve);
  }
  [[nodiscard]] std::size_t size() const { return count_; }
  [[nodiscard]] std::span<const std::uint32_t> all_slots() const { return std::span(slots).first(count_); }
  [[nodiscard]] Record record(std::size_t i) const;
  void push(const Record& record);
  void set(std::size_t i, const Record& record);
  /// The last one gets its place.
  void erase(std::size_t i);
  void move(std::size_t from, std::size_t to);
  /// Keeps the first `count` records.
  void cut(std::size_t count) { count_ = count; }
  /// Notes when something is due next: it leaves, is edge-on, arrives, or lands.
  void find_next(std::size_t i);
  /// A time before which nothing is due, and the block of `due_block` records of which it is known.
  [[nodiscard]] double least_due() const { return dues_first_.least(); }
  [[nodiscard]] std::size_t first_block() const { return dues_first_.first(); }
  /// Finds when a block is due: records that have left it may have been the first.
  void look_again(std::size_t block);
  void look_again_at_all();
  /// When something is due first.
  [[nodiscard]] double next_due();

 private:
  void make_room(std::size_t count);
  [[nodiscard]] double due_of(std::size_t block) const;

  std::size_t count_ = 0;    // of records; the arrays are as long as the most that there were
  DueTree dues_first_ = {};  // by block
};

/// Position and velocity at a time of the record's clock, without effects.
struct State {
  Values value{};
  Values velocity{};
};
[[nodiscard]] State state_of(const Bucket& bucket, const Record& record, const Bend* bend, double time);

/// What a bend changes in a pose that went straight: `shares` of the way are behind it.
void bend_pose(const Record& record, const Bend& bend, double time, float share, Pose& pose);

/// Writes the poses of records [begin, end), at most `block_size` of them, for this time of theirs.
void write_poses(const Bucket& bucket, std::size_t begin, std::size_t end, double now,
                 std::span<const Bend> bends, std::span<Pose> poses);

/// How many records are written at once.
inline constexpr std::size_t block_size = 16;
/// For how many it is known together when one of them is due.
inline constexpr std::size_t due_block = 8;

[[nodiscard]] Values values_of(const Pose& pose);
[[nodiscard]] Pose pose_of(const Values& values, float flip_axis);
/// Values with a share of an offset.
[[nodiscard]] Values plus(const Values& values, const Offset& offset, float share);

}  // namespace apsidon::motion_detail
