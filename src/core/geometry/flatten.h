#pragma once

#include <vector>

#include "core/geometry/path.h"

namespace rim {

/// The path as points whose chords leave it by at most `chordError` (> 0, in the path's unit).
/// Every node of the path is among the points. The last point of a closed path is not repeated.
std::vector<Point> flatten(const Path& path, double chordError);

}  // namespace rim
