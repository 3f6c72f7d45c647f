#pragma once

#include <opencv2/core.hpp>
#include <optional>

#include "core/trace/lines/stroke_lines.h"

namespace rim::trace::lines {

/// How wide a stroke is by the ink that lies across it: the sum of its darkness along lines square to it, against paper
/// beside it and ink in its middle; the median along the line, px. Where a stroke is narrow the place of its border
/// depends on the threshold, what ink there is does not. None for wide strokes (beyond kWidestByGreysPx), short ones
/// and those that have no paper beside them.
std::optional<double> widthByGreys(const cv::Mat& grey, const StrokeLine& line, double widthPx);

inline constexpr double kWidestByGreysPx = 12;

}  // namespace rim::trace::lines
