#pragma once

#include <opencv2/core.hpp>

#include "core/geometry/path.h"

namespace rim::trace::contour {

/// Shares of pixels in a part of a picture.
struct Coverage {
  cv::Rect where;      ///< columns and rows of the picture
  cv::Mat1f shares{};  ///< of each of these pixels, 0..1 for a simple path that runs counter-clockwise
};

/// How much of each pixel a closed path (upright px) covers in a picture of this size: the pixels of its box and
/// `marginPx` (>= 0) round it, as far as they are in the picture. Clockwise paths cover negatively, so the shares of
/// outlines and their holes add up. Exact for lines; curves are taken as chords within 0.005 px. What lies outside the
/// picture is left out.
///
/// Each edge adds the area at its right to the pixels that it passes, and its height to all pixels farther right: the
/// unweighted area of E. Catmull, "A hidden-surface algorithm with anti-aliasing", SIGGRAPH '78, 6-11, summed by edges.
Coverage coverageOf(const Path& path, cv::Size picture, int marginPx = 0);

}  // namespace rim::trace::contour
