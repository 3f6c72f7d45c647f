#pragma once

#include <vector>

#include "core/trace/lines/stroke_lines.h"

namespace rim {

/// Joins lines whose free ends point at each other over a break of `mostPx` at most, smoothly, the nearest first. A
/// ring that was broken closes.
std::vector<StrokeLine> healed(std::vector<StrokeLine> lines, double mostPx);

}  // namespace rim
