#pragma once

#include <functional>
#include <vector>

#include "core/geometry/path.h"

namespace rim::test {

/// The centre of gravity of the region that closed paths enclose, holes taken away (by their
/// direction), from the formula for polygons over chords of 0.005 units error.
Point centreOfGravity(const std::vector<Path>& paths);

/// The summed signed area: outer borders less holes.
double enclosedArea(const std::vector<Path>& paths);

/// The value that 95 of 100 samples of the paths (one every 0.05 units or less) do not exceed.
double percentile95(const std::vector<Path>& paths, const std::function<double(Point)>& distance);

/// The distance from p to the sides of a polygon.
double distanceToPolygon(Point p, const std::vector<Point>& corners);

/// Whether any path crosses or touches itself or another one, at chords of `chordError`.
bool anyCrossing(const std::vector<Path>& paths, double chordError = 0.01);

}  // namespace rim::test
