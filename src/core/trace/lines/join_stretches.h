#pragma once

#include <vector>

#include "core/trace/lines/pen_stretches.h"
#include "core/trace/lines/stroke_lines.h"

namespace rim::trace::lines {

/// The lines that stretches of the way of a pen `width` px wide make together.
///
/// A stretch that comes onto the end of another one goes on in it. Ends that other strokes hide go on to the end that
/// they face, straight or along one arc; where two ends come onto a line that they touch, they go on in each other; the
/// others run on to the first line ahead, and of what is left over two ends meet at a corner. A stretch that comes
/// along onto a line which bends away there goes on in the part that it continues, and the rest of that line ends at
/// it. What is added lies as deep in the ink as the pen's middle does.
std::vector<StrokeLine> joined(const BorderNearby& border, const std::vector<PenStretch>& stretches, double width);

}  // namespace rim::trace::lines
