#pragma once

#include <opencv2/core.hpp>
#include <optional>

#include "core/picture/picture.h"

namespace rim::picture {

/// Grey levels of colours (CV_8UC3), 0 black to 255 white, CV_8UC1: the luma of ITU-R BT.601
/// (0.299 R + 0.587 G + 0.114 B), rounded.
cv::Mat greyOf(const cv::Mat& bgr);

Histogram histogramOf(const cv::Mat& grey);

/// The threshold, 1..255, that parts the grey levels into two groups with the largest variance
/// between them; what is darker than it is ink. Nothing when there is one level only.
///
/// Source: N. Otsu, "A threshold selection method from gray-level histograms", IEEE Trans.
/// Systems, Man and Cybernetics 9 (1979), 62-66. Between the two levels that the best parting
/// separates every threshold gives the same two groups; the one half-way between the means of
/// the groups is taken, because border points are interpolated at it: ink and paper that are 0
/// and 255 have their border at 127.5 and not at the first level above 0.
std::optional<int> otsuThreshold(const Histogram& histogram);

}  // namespace rim::picture
