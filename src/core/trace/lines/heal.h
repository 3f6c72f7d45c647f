#pragma once

#include <vector>

#include "core/trace/lines/stroke_lines.h"

namespace rim {

/// A break in a stroke.
struct StrokeBreak {
  Point from;        ///< the pen's middle at one side of it, upright px
  Point to;          ///< and at the other
  double gapPx = 0;  ///< between the ink's tips
};

/// Joins lines whose free ends point at each other over a break of `mostPx` at most, smoothly, the nearest first. A
/// ring that was broken closes. What was joined is added to `healed`, when given.
std::vector<StrokeLine> healed(std::vector<StrokeLine> lines, double mostPx,
                               std::vector<StrokeBreak>* breaks = nullptr);

}  // namespace rim
