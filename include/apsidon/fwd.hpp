#pragma once
// Names of the types that a client passes around, without what is behind them.

namespace apsidon {

// geometry
struct Pose;
struct Insets;
struct Rect;
struct Size;
struct Vec2;
class Sketch;

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
class Recorder;
class WhereView;
class WhereCalls;
class HandView;
class HandCalls;
class RulesView;
class MovesView;
class MovesCalls;
class EditsCalls;
class TimeView;
class TimeCalls;
class GateView;
class GateCalls;
class PerformancesView;
class PerformancesCalls;
class RulesCalls;
class SwitchesView;
class SwitchesCalls;
struct ZoneBehaviour;
struct DragOptions;
struct Event;
struct Frame;
struct FrameChanges;
struct Hit;
struct HoverOptions;
struct Input;
struct KeyInput;
struct PlayfieldOptions;
struct Proposal;
struct Script;
struct TableSetup;

namespace play_detail {
struct Impl;  // inside of a playfield
}  // namespace play_detail

}  // namespace apsidon
