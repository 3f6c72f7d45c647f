#pragma once

#include "core/geometry/point.h"

namespace rim {

/// A box with `by` (>= 0) more on every side; an empty one stays empty.
inline Box grown(Box box, double by) {
  if (box.empty()) return box;
  return {box.low - Point{by, by}, box.high + Point{by, by}};
}

}  // namespace rim
