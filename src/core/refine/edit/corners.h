#pragma once

#include <vector>

#include "core/geometry/path.h"

namespace rim::refine {

/// A corner of a path that was changed.
struct CornerChange {
  Point at;            ///< the new corner, or the middle of the new arc
  double movedMm = 0;  ///< between the old line and the new one, at most
};

struct ChangedPath {
  Path path;
  std::vector<CornerChange> changes;
};

/// The path with corners that are rounded or cut off made sharp: both sides run on, straight lines straight and arcs
/// along their circles, until they meet. Only where no more than `missingMm` (> 0) is missing of either side, what lies
/// between turns one way, and both sides are longer than what is missing. Sides of many pieces that lie on one line
/// within a twentieth of `missingMm`, or 0.03 mm, become one.
ChangedPath sharpened(const Path& path, double missingMm);

/// The path with its sharp corners (10 degrees and more) made arcs of this radius (mm, > 0), tangent to both sides,
/// where both are long enough; between lines and arcs. Sides that two corners share are long enough for both.
ChangedPath filleted(const Path& path, double radiusMm);

}  // namespace rim::refine
