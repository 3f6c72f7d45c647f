#pragma once

#include <opencv2/core.hpp>
#include <vector>

#include "core/trace/contour/border.h"
#include "core/trace/lines/stroke_lines.h"

namespace rim::trace::lines {

/// A picture of grey levels in which only what is wider than a stroke is left of the ink: where strokes run into it,
/// its border goes on as if they were not there.
///
/// The ink is opened by a disc as wide as the widest stroke (mathematical morphology: J. Serra, "Image Analysis and
/// Mathematical Morphology" (1982)), by its distance transform; what that takes off an area's corners stays. The nets
/// tell what is an area: discs alone would find one wherever strokes cross. A stroke that is to be an area
/// (switchParts()) keeps all ink that lies nearer to its middle than to any other.
cv::Mat areasOnly(const cv::Mat& grey, contour::TwoTone tone, const std::vector<StrokeNet>& nets, double limitPx);

}  // namespace rim::trace::lines
