#pragma once
// The inside of a playfield; not installed. Its parts are files, named below above what each of them does;
// docs/architecture.md says what each is for.
#include <functional>
#include <memory>
#include <span>
#include <string>
#include <vector>

#include "apsidon/cards/history.hpp"
#include "apsidon/hit/hit_index.hpp"
#include "apsidon/motion/clock.hpp"
#include "apsidon/motion/motion.hpp"
#include "apsidon/play/playfield.hpp"
#include "geometry/sin_cos.hpp"
#include "motion/run_merger.hpp"
#include "play/event_list.hpp"

namespace apsidon {

/// Something on the heap that is copied with its owner.
template <class T>
class Boxed {
 public:
  explicit Boxed(T value) : held_(std::make_unique<T>(std::move(value))) {}
  Boxed(const Boxed& other) : held_(std::make_unique<T>(*other.held_)) {}
  Boxed(Boxed&&) noexcept = default;
  Boxed& operator=(const Boxed& other) {
    if (this != &other) held_ = std::make_unique<T>(*other.held_);
    return *this;
  }
  Boxed& operator=(Boxed&&) noexcept = default;
  ~Boxed() = default;

  T& operator*() const { return *held_; }
  T* operator->() const { return held_.get(); }

 private:
  std::unique_ptr<T> held_;
};

struct Playfield::Impl {
  Impl(TableSetup setup, const PlayfieldOptions& options);

  // What a playfield keeps of a card beside the table, by the table's slot. What every frame asks of all
  // cards is kept apart from where they rest.
  struct CardState {
    CardId id = {};               ///< the card that has this slot
    ZoneId zone = {};             ///< where its poses were laid out
    std::uint32_t place = 0;      ///< in that zone
    bool waits = false;           ///< for the start of its way
    bool held = false;            ///< follows the pointer
    bool picked = false;          ///< is in the hand, held or not
    bool locked = false;          ///< waits at its target for an answer
    std::uint64_t departure = 0;  ///< order in which it left; 0: it has not left its place
    std::uint64_t waits_at = 0;   ///< where it is drawn while it waits
  };
  struct Rest {
    Pose neutral = {};
    Pose resting = {};
  };

  /// Cards of a performance that the table has just moved or turned, to be sent by it.
  struct Changed {
    std::size_t slot;
    Pose before;  ///< where it rested
  };

  /// One step of a performance. Some acts take several.
  struct Node {
    enum class Step { single, home, scatter, wreath, vanish, appear };

    Step step = Step::single;
    Act act = {};
    std::vector<std::size_t> after = {};  ///< nodes that have to end first
    bool begun = false;
    bool over = false;
    // On the clock of the performance:
    double starts = 0;
    double ends = 0;

    /// Something to tell of when its time has come: a departure, or a cue.
    struct Beat {
      double at;
      CardId card = {};
      std::size_t cue = no_cue;  ///< of the cues below
    };
    static constexpr std::size_t no_cue = ~std::size_t{0};
    std::vector<Beat> beats = {};
    std::vector<std::string> cues = {};
    std::size_t told = 0;
  };

  /// The acts of a script, each begun when those before it have ended.
  struct Performance {
    PerformanceId id = {};
    ClockIndex clock = 0;
    std::vector<Node> nodes = {};
    bool over = false;
  };

  /// Why poses changed, and so how cards get to the new ones.
  enum class Change { first, table, window, room };

  // playfield.cpp
  void advance_to(double time);
  void go_to(double own);
  void see_motion();
  void note(Event event);
  void note_card(EventKind kind, double time, CardId card, ZoneId to, PerformanceId by);
  [[nodiscard]] double told_at(double own) const;
  void solve_plan();
  bool give_up_places();
  [[nodiscard]] PlanWindow window() const;
  void travel(std::size_t slot, const Pose& goal, const Glide& glide, double delay = 0, ClockIndex by = 0);
  void put(std::size_t slot, const Pose& pose);
  void set_waits(std::size_t slot, bool waits);
  void fly(std::size_t slot, const Pose& goal, const Glide& glide, double delay = 0);
  void after_change();
  Verdict followed_up(Verdict verdict);
  void start_effect(CardId card, const CardEffect& effect, EffectKind kind, ClockIndex by);
  std::size_t slot(CardId id) const { return *setup.table.slot(id); }
  [[nodiscard]] double own_now() const { return motion.now(); }

  // arrange.cpp
  [[nodiscard]] LayoutInput layout_input(ZoneId zone) const;
  void fill_laid(const Zone& zone);
  void lay_out_zone(ZoneId zone, Change change);
  [[nodiscard]] Pose outline_pose(ZoneId zone) const;
  [[nodiscard]] Room room_of(ZoneId zone) const;
  [[nodiscard]] bool closes_up(const Card& card) const;
  void make_room();
  void lay_out_room(const Zone& zone, LayoutInput in, const Room& room, bool closes);
  void keep_slots();
  void clear_retired();
  void lay_out_changed(Change change);
  void head_for(const Card& card, std::size_t slot, const Pose& resting, Change change);

  // time.cpp
  [[nodiscard]] double due() const;
  void run_due();
  [[nodiscard]] double input_due() const;
  void run_input_due(double time);
  void first_move();

  // perform.cpp
  PerformanceId perform(const Script& script);
  Performance* find(PerformanceId id);
  void begin_ready(Performance& performance);
  void begin(Performance& performance, Node& node);
  void act(Performance& performance, Node& node);
  void send_changed(Performance& performance, Node& node, const Choreography& how);
  void send(Performance& performance, Node& node, std::size_t slot, const Pose& goal, const Glide& glide,
            double delay, std::optional<std::uint64_t> waits_at = std::nullopt);
  void add_cues(Node& node, const Choreography& how);
  [[nodiscard]] bool has_come(const Performance& performance, double own) const;
  void end_nodes(Performance& performance);
  void tell(Performance& performance);
  void tell_all();
  void skip(PerformanceId id);
  void stop(PerformanceId id);
  void end(Performance& performance, EventKind kind, double time);

  // acts.cpp
  void act_deal(Performance& performance, Node& node);
  void act_gather(Performance& performance, Node& node);
  void act_shuffle(Performance& performance, Node& node);
  void act_draw(Performance& performance, Node& node);
  void act_move(Performance& performance, Node& node);
  void act_flip(Performance& performance, Node& node);
  void act_effect(Performance& performance, Node& node, const CardEffect& effect, EffectKind kind);
  void act_vanish(Performance& performance, Node& node);
  void act_appear(Performance& performance, Node& node);
  void act_wreath(Performance& performance, Node& node);
  void act_home(Performance& performance, Node& node);
  void scatter(Performance& performance, Node& node, std::span<const CardId> order);

  // input.cpp
  bool handle(const Gesture& gesture);
  bool press(const Gesture& gesture);
  void record(const Input& input);
  void close_gate(std::string_view reason);
  void open_gate(std::string_view reason);
  void let_go_of_all();
  void blur();

  // hover.cpp
  void hover_at(const Gesture& gesture);
  void follow_unseen(const PointerInput& input);
  void leave();
  void consider_hover();
  void set_hovered(CardId card);
  void rise(const Card& card);
  void sink();
  [[nodiscard]] Offset risen() const;
  [[nodiscard]] Spring rise_spring() const;
  void show_zoom(CardId card);
  [[nodiscard]] CardId hover_answer();
  [[nodiscard]] CardId topmost_neutral(Vec2 point);
  [[nodiscard]] double hover_due() const;
  void run_hover_due(double time);
  [[nodiscard]] Rect zoom_place(CardId card) const;

  // carry.cpp
  struct Carry;
  [[nodiscard]] PickVerdict judge_pick(CardId card) const;
  bool pick_up(CardId card, const Gesture& gesture, Carry mode);
  bool start_drag(const Gesture& gesture);
  void carry_to(Vec2 pointer, double time);
  void let_go(const Gesture& gesture);
  void put_back(EventKind ending, const Event& event);
  void cancel_carry(Vec2 at);
  void cancel_all();
  void take(const Run& run, ZoneId home);
  void turn_to_drag_of(std::uint32_t pointer);
  /// Calls `with` for each run that is in the hand.
  template <class With>
  void each_carry(With with) const {
    if (carry.run.count > 0) with(carry);
    for (const Carry& other : other_drags) with(other);
  }
  void find_targets();
  void cancel_if_touched();
  void forget_carry();
  [[nodiscard]] std::size_t insertion_place(ZoneId zone, Vec2 point, std::optional<std::size_t> before) const;
  [[nodiscard]] Vec2 carried_middle(Vec2 pointer) const;
  [[nodiscard]] Event carry_event(EventKind kind, double time) const;
  ZoneId aim(Vec2 pointer) const;
  ZoneId zone_at(Vec2 point) const;
  PanelId panel_at(Vec2 point) const;

  // moves.cpp
  [[nodiscard]] Rulebook rulebook() const { return {setup.rules, setup.links}; }
  void propose(Proposal proposal, Vec2 at, double time);
  void settle(const Proposal& proposal, Event event, const Verdict& verdict);
  Verdict apply(const Proposal& proposal, double time);
  [[nodiscard]] static Event proposal_event(EventKind kind, const Proposal& proposal, double time);
  void follow_up(ZoneId from, double time);
  void uncover(ZoneId zone, double time);
  void take_what_fits(double time);
  void send_to_rest(const Run& run);
  void lock(const Proposal& proposal);
  void show_at_target(const Proposal& proposal, Change change);
  void place_locked();
  void unlock(const Proposal& proposal);
  void supersede_torn();
  void step_over(double time);
  Verdict go_back(bool redo);
  Verdict draw_stock(ZoneId stock, double time);
  Verdict send_best(CardId card, double time);

  // match.cpp
  Verdict turn_by_hand(CardId card, double time);
  void compare_when_enough(ZoneId zone);
  void find_opened();
  void compare(double time);

  // tap.cpp
  bool tap(const Gesture& gesture);
  bool do_tap(TapKind kind, CardId card, ZoneId zone, const Gesture& gesture);

  // keys.cpp
  struct Place {
    Hit what;
    Vec2 middle;
  };
  bool key(const KeyInput& input);
  void gather_places();
  void move_focus(Vec2 direction);
  void step_focus(int by);
  void set_focus(const Hit& what);
  void keep_focus();
  bool act_on_focus(TapKind other, double time);
  [[nodiscard]] std::optional<Vec2> middle_of(const Hit& what) const;

  // order.cpp
  std::size_t give_orders();
  void order_cards();
  [[nodiscard]] static std::uint64_t rest_order(ZoneId zone, std::uint64_t place);
  [[nodiscard]] static std::uint64_t flight_order(std::uint64_t departure);

  // frame.cpp
  const Frame& frame();
  void add_outlines();
  void add_panels();
  void add_cards(bool all_anew);
  void dim_zoomed();
  FrameItem& next_item();
  void show_moved();
  void show_anew();
  void show(std::span<const std::uint32_t> slots);
  void show_tilted(std::span<const std::uint32_t> slots, std::span<const geometry_detail::SinCos> rotations);
  /// What seldom changes while a card moves.
  struct Looks {
    CardId card;
    ZoneId zone;
    FaceId face;  ///< none while its back shows
    float brightness;
    bool back;
  };
  [[nodiscard]] Looks looks_of(std::size_t slot) const;
  void show_looks(FrameItem& item, std::size_t slot);
  bool refresh_looks();
  bool refresh_clips();
  void add_copies();
  void add_copies_of(const Carry& carry, std::uint64_t& count);
  void add_zoom();
  [[nodiscard]] double zoom_takes() const;
  [[nodiscard]] bool zoom_grew() const;

  // marks.cpp
  void forget_marks();
  Marks& mark(std::size_t item);
  Marks& mark_card(CardId card);
  void add_marks();
  void mark_target(ZoneId zone, bool aimed);
  [[nodiscard]] std::optional<std::size_t> outline_of(ZoneId zone) const;
  void mark_refused();
  void show_refused(bool is);

  // hits.cpp
  Hit hit(Vec2 point);
  [[nodiscard]] Rect clip_of(std::size_t slot) const;
  void refresh_hits();
  [[nodiscard]] bool many_moved() const;
  [[nodiscard]] HitShape hit_shape(std::size_t slot) const;
  [[nodiscard]] CardId look_for(Vec2 point) const;
  [[nodiscard]] CardId topmost(Vec2 point);

  // sketch.cpp
  void sketch_strips(Sketch& sketch, const Zone& zone) const;
  void sketch_insertion(Sketch& sketch, const Zone& zone) const;

  TableSetup setup;
  PlayfieldOptions options;
  Clock clock;    // the table's, over the time of the inputs
  Motion motion;  // goes by the clock of the table
  GestureReader gestures;

  static constexpr std::uint64_t never_laid = ~std::uint64_t{0};
  std::optional<std::size_t> plan;
  PlanResult solved;
  std::vector<Rect> areas = {};  // by zone
  std::vector<std::uint64_t> laid_revision =
      {};                                   // by zone: the revision of the table's zone that is laid out
  std::vector<LayoutReport> reports = {};   // by zone
  std::vector<float> offsets = {};          // by zone: how far it is scrolled, px
  std::vector<char> empty = {};             // by zone: whether it was empty when the areas were made
  std::vector<Rect> panel_areas = {};       // by panel
  std::vector<CardState> cards = {};        // by slot
  std::vector<Rest> rests = {};             // by slot
  std::vector<PerformanceId> part_of = {};  // by slot: whose step sent it
  std::vector<Room> rooms = {};             // by zone: that its resting poses make
  std::vector<char> closed_up = {};         // by zone: whether it has closed up where the held cards were
  std::vector<LaidCard> laid = {};          // scratch
  std::vector<Pose> poses = {};             // scratch
  std::vector<LaidCard> roomy_laid = {};    // scratch
  std::vector<Pose> roomy_poses = {};       // scratch

  // The hand.
  struct Taken {
    CardId card;
    std::size_t slot;
  };
  struct Carry {
    enum class Mode : std::uint8_t { drag, tap, keys };
    Mode mode = Mode::drag;
    std::uint32_t by = 0;  ///< the pointer that drags
    PointerKind kind = PointerKind::mouse;
    Run run = {};  ///< no cards: nothing is held
    ZoneId home = {};
    std::uint64_t home_revision = 0;
    Vec2 grip = {};     ///< from the pointer to the middle of the first card
    Vec2 pointer = {};  ///< where it was last
    double time = 0;    ///< when it was there
    bool tilts = false;
    ZoneId aimed = {};
    std::optional<std::size_t> insert_at = {};  ///< in the aimed-at zone
    std::vector<ZoneId> targets = {};
    /// As they were picked up: the game may tear the run apart, or take cards away.
    std::vector<Taken> cards = {};
  } carry;
  std::vector<Carry> other_drags = {};  ///< of other pointers, while several may drag
  struct Pressed {
    std::uint32_t pointer = 0;
    Hit on = {};
  };
  std::vector<Pressed> pressed = {};  ///< what each pointer went down on
  std::uint64_t proposals = 0;
  std::vector<Proposal> waiting = {};
  std::vector<std::vector<CardId>> waiting_cards = {};  // of each: the cards that it was made with
  Judge judge = {};
  History history;
  std::vector<CardId> opened = {};  // by taps, to be compared
  std::optional<double> compare_at = {};
  ZoneId comparing = {};
  bool none_left = false;  // that no move is left was said

  std::vector<std::string> gates = {};
  Recorder recorder = {};

  // The pointer that presses nothing.
  struct Hover {
    bool here = false;  ///< whether a pointer is over the window
    Vec2 at = {};
    CardId card = {};                       ///< that is hovered
    std::optional<std::size_t> risen = {};  ///< its slot, where it leans up
    CardId candidate = {};                  ///< that will be, at `due`
    double due = 0;
    bool waits = false;
    double zoom_due = 0;  ///< when the hovered card zooms; infinity: it does not
    CardId zoomed = {};
    double zoomed_at = 0;  ///< on the table's clock
  } hover;
  bool neutral_stale = true;
  HitIndex neutral_hits;

  Hit focus = {};
  Vec2 focus_at = {};
  std::vector<Place> focus_places = {};  // scratch
  std::uint64_t departures = 0;
  bool unsettled = false;  // something has moved since `settled` was told

  std::vector<Boxed<Performance>> performances = {};
  std::uint32_t last_performance = 0;
  PerformanceId acting = {};                   // whose act changes the table just now
  std::vector<Changed>* taken_down = nullptr;  // where changes of the table go while an act makes them
  struct Timer {
    TimerId id;
    double rings;  // on the table's clock
  };
  std::vector<Timer> timers = {};
  std::uint32_t last_timer = 0;
  struct RunningCountdown {
    Countdown countdown;
    bool at_first_move;
  };
  std::vector<RunningCountdown> countdowns = {};  // by CountdownId - 1
  std::size_t sent = 0;                           // cards sent since the last change of the table

  EventList coming = {};  // since the last advance_to of the client
  EventList events = {};  // what the client may read
  motion_detail::RunMerger<Event> event_merger;
  std::uint64_t ignored = 0;

  struct Ordered {
    std::uint64_t order;
    std::uint32_t rank;  ///< on the table: what is drawn at one place keeps the order of its zone
    std::uint32_t slot : 31;
    std::uint32_t away : 1;  ///< it is held, flies, or waits to

    [[nodiscard]] bool before(const Ordered& other) const {
      return order != other.order ? order < other.order : rank < other.rank;
    }
    [[nodiscard]] bool shows_as(const Ordered& other) const {
      return order == other.order && slot == other.slot && away == other.away;
    }
  };
  std::vector<Ordered> ordered = {};         // cards by their order in the frame
  std::vector<Ordered> ordered_before = {};  // and in the last whose order was another
  std::vector<Ordered> orders = {};          // by slot, scratch
  std::vector<Ordered> order_strays = {};    // scratch
  motion_detail::RunMerger<Ordered> stray_merger;
  std::vector<char> covered = {};           // by zone: whether a card lies in it
  std::vector<std::uint32_t> by_rank = {};  // slots, by place in the zones of the table
  std::uint64_t table_ranked = never_laid;  // the revision of the table that `by_rank` has
  Frame drawn;
  bool stale = true;                           // the frame
  double zoom_drawn = 0;                       // the time of the zoom in it
  std::size_t first_card = 0;                  // among the items of the frame
  std::size_t items_used = 0;                  // of those in the frame, while it is made
  bool dimmed = false;                         // an item is not as its card lies
  std::vector<Rect> clips = {};                // by zone
  std::vector<std::uint32_t> item_of = {};     // by slot: its item in the frame
  std::vector<Looks> looks = {};               // by slot
  std::vector<char> anew = {};                 // by slot: is still to be drawn in this frame
  std::uint64_t table_drawn = never_laid;      // the revision of the table whose faces are in `looks`
  std::vector<std::uint32_t> marked = {};      // items
  std::vector<std::uint32_t> refused = {};     // slots that are marked so
  bool hits_stale = true;                      // the hit index
  std::vector<std::uint32_t> hits_moved = {};  // places whose poses have changed since; more than a few: all
  int asked = 0;                               // beside the index, at this frame
  std::uint64_t seen_motion = 0;
  HitIndex hits;
};

}  // namespace apsidon
