#pragma once

#include <opencv2/core.hpp>
#include <optional>

#include "core/geometry/point.h"

namespace rim::trace::contour {

/// The grey level of a picture (CV_8UC1) at an upright place, px, between the middles of the four pixels around; none
/// beyond the middles of its outermost pixels.
std::optional<double> levelAt(const cv::Mat& grey, Point p);

}  // namespace rim::trace::contour
