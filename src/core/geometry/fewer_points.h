#pragma once

#include <span>
#include <vector>

#include "core/geometry/point.h"

namespace rim {

/// The fewest of the points, the first and the last among them, that the method finds whose chords leave no other by
/// more than `tolerance` (>= 0). Source: D. H. Douglas and T. K. Peucker, "Algorithms for the reduction of the number
/// of points required to represent a digitized line or its caricature", Cartographica 10 (1973), 112-122. n log n for
/// most lines, n^2 at worst.
std::vector<Point> fewerPoints(std::span<const Point> points, double tolerance);

/// The same with a tolerance (> 0) for each of the points.
std::vector<Point> fewerPoints(std::span<const Point> points, std::span<const double> tolerances);

}  // namespace rim
