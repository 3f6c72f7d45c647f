#pragma once

#include <opencv2/core.hpp>

#include "core/trace/contour/border.h"

namespace rim::trace::contour {

/// The most that a border may be off, in px, by the grain of its picture: what ink and paper, where
/// they should be even, waver near their borders, against the contrast between them. A clean
/// picture's borders are hardly off at all, however wildly they turn.
///
/// 16 tiles of a large picture are looked at, wider ones where those show too little. Infinite when no even ink or
/// paper lies near borders.
double mostNoiseByGrain(const cv::Mat& grey, TwoTone tone);

}  // namespace rim::trace::contour
