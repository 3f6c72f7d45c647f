#pragma once

#include <vector>

#include "core/geometry/cubic.h"
#include "core/geometry/path.h"

namespace rim {

/// Arcs and lines that follow the cubic within `tolerance` (> 0), tangent to each other and, at its ends, to it.
///
/// An arc that leaves the curve's tangent a little on both sides follows it 1.45 times as far as one that keeps it: its
/// error is k h^3 / 125 (k: how fast the curvature changes, h: length), that of each of a pair of arcs between true
/// tangents k h^3 / 40. So only the curve's ends keep their tangents: from both, arcs reach as far as they follow, and
/// a pair of arcs joins them in the middle, whose joint lies where the pair follows best (the family of such pairs:
/// K. M. Bolton, "Biarc curves", Computer-Aided Design 7 (1975), 89-92). Of all ways with the fewest arcs the truest
/// is taken. Curves that need more than a dozen are halved before, cusps down to 2^-12.
std::vector<Segment> arcsFromCubic(const Cubic& cubic, double tolerance);

}  // namespace rim
