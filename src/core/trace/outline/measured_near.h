#pragma once

#include <vector>

#include "core/geometry/path.h"

namespace rim::trace::outline {

/// An open path that follows its own border's measured `points` near some places and stays what it is elsewhere.
///
/// `path` follows start, points, end in this order, loosely: where they lie within `reachPx` of one of the `places`
/// lines lead from one to the next, elsewhere the path is kept. The result runs from `start` to `end`. With no place
/// near it is the path with its own ends.
Path measuredNear(const Path& path, const std::vector<Point>& points, Point start, Point end,
                  const std::vector<Point>& places, double reachPx);

}  // namespace rim::trace::outline
