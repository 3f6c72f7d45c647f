#pragma once

#include <optional>
#include <span>
#include <vector>

#include "core/geometry/cubic.h"

namespace rim::trace::fit {

/// What is known of a curve's ends: where they are and, unless it is to be found, the unit tangent
/// in running direction.
struct CurveEnds {
  Point start;
  std::optional<Point> startTangent;
  Point end;
  std::optional<Point> endTangent;
};

/// A cubic and its distances from the points, measured at their parameters.
struct CurveFit {
  Cubic cubic;
  double largest = 0;
  double meanSquare = 0;
};

/// Whether a cubic makes a hook or a loop that no border has: it turns by more than 200 degrees in all
/// (turningOf()), or starts or ends more than 120 degrees off its chord.
bool hooks(const Cubic& cubic);

/// The cubic between the ends with the least squared distances to the points. The points are in
/// order; start and end need not be among them. Nothing when no sensible cubic follows them: one
/// that turns back, hooks, or has handles longer than the way along the points.
///
/// Least squares in the handles, with Newton steps of the points' parameters in turn as in
/// P. J. Schneider, "An Algorithm for Automatically Fitting Digitized Curves", Graphics Gems
/// (1990), 612-626; after the first rounds only distances across the curve count, which converges
/// quadratically (orthogonal distance regression by Gauss and Newton).
std::optional<CurveFit> fitCubic(const CurveEnds& ends, std::span<const Point> points);

/// Moves the points' parameters towards the places of the cubic nearest to them (one Newton step).
void improveParameters(const Cubic& cubic, std::span<const Point> points, std::span<double> parameters);

/// The parameters of the places of the cubic nearest to points that lie near it, in order along it: from the nearest of
/// evenly spread ones by Newton steps.
std::vector<double> nearestParameters(const Cubic& cubic, std::span<const Point> points);

}  // namespace rim::trace::fit
