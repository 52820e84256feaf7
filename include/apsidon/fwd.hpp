#pragma once
// Names of the types that a client passes around, without what is behind them.

namespace apsidon {

// geometry
struct Pose;
struct Insets;
struct Rect;
struct Size;
struct Vec2;
struct Sketch;

// cards
class Deck;
class Table;

// layout
struct Plan;

// gesture
struct GestureThresholds;
struct PointerInput;

// motion
struct Feel;

// rules
struct Move;
struct MoveVerdict;
struct PickVerdict;
struct Rule;

// play
class Playfield;
class WhereGroup;
class HandGroup;
class RulesGroup;
class MovesGroup;
class EditsGroup;
class TimeGroup;
class GateGroup;
class PerformancesGroup;
class SwitchesGroup;
struct ZoneBehaviour;
struct DragOptions;
struct Event;
struct Frame;
struct FrameChanges;
struct Hit;
struct HoverOptions;
struct Input;
struct KeyInput;
struct Outcome;
struct PlayfieldOptions;
struct Proposal;
struct Script;
struct TableSetup;

namespace play_detail {
struct Impl;    // inside of a playfield
struct Groups;  // its groups
struct Whole;   // both
struct AnyInput;
}  // namespace play_detail

}  // namespace apsidon
