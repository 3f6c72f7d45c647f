#pragma once

#include <optional>
#include <span>
#include <vector>

#include "core/trace/fit/primitive.h"

namespace rim::trace::lines {

/// How a stroke's middle would run on beyond its last point, along a line or round a circle: its good continuation, as
/// perception takes lines to go on (M. Wertheimer, Psychologische Forschung 4 (1923), 301-350; cited from memory).
struct Continuation {
  fit::Primitive shape;
  Point tip;        ///< the last point, put on the shape
  Point direction;  ///< unit, on along the shape
};

/// Points of a stroke's middle lie about so far apart, px.
inline constexpr double kTrackStepPx = 0.5;

/// The continuation of points: of the line and the circle that follow as many of the last ones as they can the line,
/// unless the circle follows many more. Needs two points that differ.
Continuation continuationOf(std::span<const Point> points, double width);

/// Where both meet: the place that both shapes have in common nearest to what lies between their tips, if it lies
/// ahead of both, or behind by less than `backPx`, and within `reachPx` of both tips.
std::optional<Point> meetingOf(const Continuation& a, const Continuation& b, double backPx, double reachPx);

/// The shape's points from its tip on to the place of it that is nearest to `end`, without the tip; only `end` when
/// that lies behind the tip.
std::vector<Point> pointsOnTo(const Continuation& from, Point end);

/// Points from one tip round a corner at `at` to the other, both tips left out: both run on to the corner, or, where
/// the pen's middle stayed `missing` px behind it, to an arc that passes it by so much, as far as they have room for
/// it. `corner` is the number of the point at the corner, or in the arc's middle.
struct CornerRun {
  std::vector<Point> points;
  std::size_t corner = 0;
};
CornerRun roundCorner(const Continuation& from, const Continuation& to, Point at, double missing);

/// By how much the pen's middle stayed behind a corner where strokes `width` px wide turn by `turn` radians, when from
/// there to the ink's edge outside it is `clearance` px: 0 where that says that the corner is sharp; none where it is
/// no corner but a bend of more than half a width's radius.
std::optional<double> missingAt(double clearance, double turn, double width);

/// Points between two tips, both left out, along a cubic that goes smoothly from one shape over into the other.
std::vector<Point> bridge(const Continuation& from, const Continuation& to);

}  // namespace rim::trace::lines
