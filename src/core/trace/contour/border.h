#pragma once

#include <cmath>
#include <cstdint>
#include <opencv2/core.hpp>
#include <stop_token>
#include <vector>

#include "core/geometry/point.h"

namespace rim::trace::contour {

/// What is ink in a picture of grey levels.
struct TwoTone {
  int threshold = 128;      ///< 0..255: darker than this is ink
  bool lightIsInk = false;  ///< the other way round: this or lighter is ink
};

/// A closed border between ink and paper, in upright pixels; the ink lies at the left of the way
/// along it, so islands run counter-clockwise and holes clockwise.
using Border = std::vector<Point>;

/// No more points are followed, all borders together: a dense picture of 16 megapixels has a million, noise one a
/// pixel.
inline constexpr std::size_t kMostBorderPoints = 6'000'000;

/// Follows every border between ink and paper at sub-pixel accuracy.
///
/// Contract: `grey` is CV_8UC1. Grey levels are taken as samples at the middles of the pixels and
/// interpolated along rows and columns; the border is the line at half a level below the
/// threshold, so no sample lies on it. Where four samples form a saddle, the bilinear surface
/// decides which ink is connected (G. M. Nielson and B. Hamann, "The asymptotic decider",
/// Visualization '91, 83-91). The borders are closed, and none touches or crosses itself or
/// another. Ink at the rim of the picture is closed exactly along the rim. Borders that
/// enclose less than `minAreaPx2` square pixels are left out; what lies inside them is
/// smaller still.
/// Order: by the topmost row, then the leftmost column, of the place where a border is first met.
/// Time grows with pixels and border length, on all processors; memory is nine bits a pixel and the points.
/// Throws InputError when there are more than kMostBorderPoints, Cancelled when `stop` is requested.
std::vector<Border> followBorders(const cv::Mat& grey, TwoTone tone, double minAreaPx2, std::stop_token stop = {});

/// Whether a coordinate is that of a row's or column's middle, in px. Of a border point one coordinate is; on the
/// picture's rim none or both may be.
inline bool isSampleMiddle(double coordinate) {
  constexpr double kRoundingPx = 1e-9;
  return std::abs(coordinate - std::floor(coordinate) - 0.5) < kRoundingPx;
}

/// The area a border encloses in square pixels, counter-clockwise positive.
double borderArea(const Border& border);

}  // namespace rim::trace::contour
