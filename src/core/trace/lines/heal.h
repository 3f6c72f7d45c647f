#pragma once

#include <vector>

#include "core/trace/lines/stroke_lines.h"

namespace rim::trace::lines {

/// Whether two ends point at each other, each aside by less than 35 degrees: where they are, and the unit vectors that
/// lead on beyond them.
bool pointAtEachOther(Point a, Point beyondA, Point b, Point beyondB);

/// Joins lines whose free ends point at each other over a break of `mostPx` at most, smoothly, the nearest first. A
/// ring that was broken closes.
std::vector<StrokeLine> healed(std::vector<StrokeLine> lines, double mostPx);

}  // namespace rim::trace::lines
