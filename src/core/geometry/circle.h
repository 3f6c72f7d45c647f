#pragma once

#include <optional>

#include "core/geometry/path.h"

namespace rim {

struct CircleOf {
  Point centre;
  double radius = 0;
};

/// The circle that a closed path of arcs is exactly, within a millionth of its radius (or of 1); none: it is none.
std::optional<CircleOf> circleOf(const Path& closed);

/// A circle as a closed path of two half circles that begins at its right; `turn` 1 runs counter-clockwise, -1
/// clockwise. `radius` > 0.
Path circlePathOf(Point centre, double radius, double turn);

}  // namespace rim
