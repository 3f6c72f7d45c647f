#pragma once

#include <opencv2/core.hpp>
#include <stop_token>
#include <vector>

#include "core/trace/contour/border.h"

namespace rim::trace::contour {

/// How many times as fine as its pixels a picture of this size is followed: 5 or 3 when it is small, so that things a
/// few pixels wide come out as they are, 1 when it is large.
int finenessFor(cv::Size picture);

/// The borders as followBorders() finds them (see there for what it throws) in the picture enlarged `fineness` (1, 3 or
/// 5) times, in upright px of the picture as it is: between its samples an edge runs as smoothly as its greys allow.
///
/// Enlarged by Lanczos' kernel (C. E. Duchon, "Lanczos filtering in one and two dimensions", Journal of Applied
/// Meteorology 18 (1979), 1016-1022). It goes through the samples, so a border crosses their rows and columns between
/// the same samples as at their own size; of its points those count as measured in rows and columns that lie on them.
std::vector<Border> followFineBorders(const cv::Mat& grey, TwoTone tone, double minAreaPx2, int fineness,
                                      std::stop_token stop = {});

}  // namespace rim::trace::contour
