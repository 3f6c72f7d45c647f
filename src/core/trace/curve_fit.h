#pragma once

#include <optional>
#include <span>

#include "core/geometry/cubic.h"

namespace rim {

/// A cubic and its distances from the points, measured at their parameters.
struct CurveFit {
  Cubic cubic;
  double largest = 0;
  double meanSquare = 0;
};

/// The cubic from `start` to `end` that leaves along `startTangent` and arrives along
/// `endTangent` (unit vectors) and whose handle lengths give the least squared distances to the
/// points. The points are in order; start and end need not be among them.
///
/// Least squares in the handle lengths with Newton steps of the parameters in turn. Source:
/// P. J. Schneider, "An Algorithm for Automatically Fitting Digitized Curves", Graphics
/// Gems (1990), 612-626. Known weakness: handles that come out backwards or longer than the
/// way along the points are replaced by a third of the chord.
CurveFit fitCubic(Point start, Point startTangent, Point end, Point endTangent, std::span<const Point> points);

}  // namespace rim
