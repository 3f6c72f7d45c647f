#pragma once

#include <array>
#include <optional>
#include <vector>

#include "core/geometry/point.h"

namespace rim::trace {

/// What is made exact where the border allows it. Each can be switched off.
struct Rules {
  bool level = true;       ///< lines within 0.3 degrees of level or upright become so
  bool parallel = true;    ///< lines of an outline within 0.3 degrees of parallel or square to each other
  bool equalRadii = true;  ///< arcs of an outline, and circles, whose radii hardly differ
  bool concentric = true;  ///< circles whose centres hardly differ
  bool tangent = true;     ///< arcs that go over smoothly into lines or each other touch them exactly

  friend bool operator==(const Rules&, const Rules&) = default;
};

/// What is made of the ink.
enum class TraceMethod {
  Outline,     ///< its borders
  Centreline,  ///< the middles of its strokes
  Mixed,       ///< middles of strokes up to a width, borders of the rest
};

/// As in files and on the command line, in their order.
inline constexpr std::array<const char*, 3> kTraceMethodNames{"outline", "centreline", "mixed"};

/// Where a stroke's middle ends that meets no other.
enum class StrokeEnds {
  Pen,  ///< where the pen's middle stopped: half a width inside the ink's tip
  Ink,  ///< at the tip
};

inline constexpr std::array<const char*, 2> kStrokeEndsNames{"pen", "ink"};

/// What may be asked for, px.
inline constexpr double kMostHealPx = 1000;
inline constexpr double kLeastStrokeLimitPx = 0.1;
inline constexpr double kMostStrokeLimitPx = 10'000;
inline constexpr std::size_t kMostSwitched = 10'000;

/// Somebody's word that a part is a line, or an area, against its width.
struct PartSwitch {
  Point at;            ///< a place on the part, upright px
  bool whole = false;  ///< all ink that hangs together with it becomes what the part was not

  friend bool operator==(const PartSwitch&, const PartSwitch&) = default;
};

/// How strokes become lines.
struct StrokeSettings {
  std::optional<double> limitPx;  ///< mixed: the widest stroke that becomes a line; none: found
  double healPx = 0;              ///< breaks up to this are closed where two ends point at each other, >= 0
  StrokeEnds ends = StrokeEnds::Pen;
  /// Mixed: what is a line instead of an area, or the other way, one after the other.
  std::vector<PartSwitch> switched{};

  friend bool operator==(const StrokeSettings&, const StrokeSettings&) = default;
};

/// How a picture is traced.
struct TraceSettings {
  std::optional<int> threshold;  ///< 0..255, darker is ink; none: Otsu's
  bool lightIsInk = false;       ///< the light part is the ink
  double tolerancePx = 0.35;     ///< how far an outline may leave the measured border, 0.05..10
  double minAreaPx2 = 4;         ///< smaller islands and holes are left out, >= 0
  double cornerReadiness = 50;   ///< 0..100
  Rules rules;                   ///< what is made exact where the border allows it
  TraceMethod method = TraceMethod::Outline;
  StrokeSettings strokes;  ///< with methods that make lines of them

  friend bool operator==(const TraceSettings&, const TraceSettings&) = default;
};

}  // namespace rim::trace
