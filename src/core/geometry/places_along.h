#pragma once

#include <vector>

#include "core/geometry/path.h"

namespace rim {

/// Places along the path in running order, no farther apart than `step` (> 0): the points of flatten() and others
/// between them. `chordError` as there. Of an open path the end is among them; a closed one's start is not repeated.
std::vector<Point> placesAlong(const Path& path, double chordError, double step);

}  // namespace rim
