#pragma once

#include <vector>

#include "core/trace/lines/stroke_lines.h"
#include "core/trace/tracing.h"

namespace rim::trace::lines {

/// How wide the strokes of these nets are, narrowest first, in steps of about 2 %.
std::vector<WidthShare> widthSharesOf(const std::vector<StrokeNet>& nets);

/// The widest stroke that is one, when the others are areas: half-way between the means of the two groups that their
/// widths fall into best (Otsu's criterion on the logarithm of the width: N. Otsu, "A threshold selection method from
/// gray-level histograms", IEEE Transactions on Systems, Man and Cybernetics 9 (1979), 62-66). Infinite when they are
/// one group.
double strokeLimitOf(const std::vector<WidthShare>& shares);

}  // namespace rim::trace::lines
