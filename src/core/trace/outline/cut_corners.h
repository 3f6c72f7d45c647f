#pragma once

#include <vector>

#include "core/geometry/path.h"

namespace rim::trace::outline {

/// A closed outline whose corners near some places are cut off: its sides end about `cutPx` before the corner, short
/// ones a third of their length, and a line goes from one to the other. What is left of the sides stays where it is.
/// Nodes that turn by less than 10 degrees, or lie farther than `reachPx` from all places, stay.
Path withCornersCut(const Path& outline, const std::vector<Point>& places, double reachPx, double cutPx);

}  // namespace rim::trace::outline
