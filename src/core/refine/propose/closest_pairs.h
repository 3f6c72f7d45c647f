#pragma once

#include <utility>
#include <vector>

#include "core/geometry/affine.h"
#include "core/geometry/nearest_on_paths.h"

namespace rim::refine {

/// Places, and where each one's mapped place is nearest to some paths: what a round of iterated closest points works on
/// (P. Besl and N. McKay, "A method for registration of 3-D shapes", IEEE PAMI 14 (1992), 239-256).
struct ClosestPairs {
  std::vector<std::pair<Point, Point>> pairs;  ///< the place as it was, and the nearest one
  Point from;                                  ///< the means of both
  Point to;
};

/// Those whose mapped place has one within `reach` (>= 0); the means are (0, 0) when there are none.
ClosestPairs closestPairs(const std::vector<Point>& places, const Affine& map, const NearestOnPaths& paths,
                          double reach);

}  // namespace rim::refine
