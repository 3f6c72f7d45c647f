#pragma once

#include <vector>

#include "core/geometry/segment.h"

namespace rim {

/// A stretch that two segments run along together: from t = from to t = to of the first (from < to), from u = otherFrom
/// to u = otherTo of the second (descending when it runs the other way).
struct Overlap {
  double from = 0;
  double to = 1;
  double otherFrom = 0;
  double otherTo = 1;
};

/// The stretches, longest first, on which both segments lie within `tolerance` (> 0) of each other all the way.
///
/// A stretch begins where one of the two begins and ends where one of the two ends: segments that only come near each
/// other in passing, or that part slowly from a common end, share none. They must run within 20 degrees of each other.
/// Lines, arcs and cubics in any pairing; looked at in 9 places between the ends. There is nearly always but one; two
/// arcs that together go more than all the way round share two.
std::vector<Overlap> overlapsOf(const Piece& a, const Piece& b, double tolerance);

}  // namespace rim
