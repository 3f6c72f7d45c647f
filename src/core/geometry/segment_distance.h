#pragma once

#include <algorithm>

#include "core/geometry/point.h"

namespace rim {

/// The distance of p from the straight line from a to b, its ends included, in the points' unit.
inline double distanceToSegment(Point p, Point a, Point b) {
  const Point way = b - a;
  const double square = dot(way, way);
  const double t = square > 0 ? std::clamp(dot(p - a, way) / square, 0.0, 1.0) : 0;
  return distance(p, a + way * t);
}

}  // namespace rim
