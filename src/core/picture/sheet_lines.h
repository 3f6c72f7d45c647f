#pragma once

#include <opencv2/core.hpp>
#include <vector>

#include "core/geometry/point.h"

namespace rim::picture {

/// A straight line as a place and a unit direction.
struct StraightLine {
  Point place;
  Point along;
};

/// Where two lines cross; nothing when they are almost parallel.
std::optional<Point> crossingOf(const StraightLine& a, const StraightLine& b);

/// The straight edges of a small CIE Lab picture (CV_32FC3), of its lightness and of its colours, at most `most` of
/// them: segments in line are one. Those come first that are longest and part the most different colours.
std::vector<StraightLine> longEdges(const cv::Mat& lab, std::size_t most);

}  // namespace rim::picture
