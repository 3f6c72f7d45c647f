#pragma once

#include <opencv2/core.hpp>
#include <vector>

#include "core/trace/contour/border.h"

namespace rim::trace::contour {

/// By how much the edges of a picture (CV_8UC1) are smeared: the standard deviation, px, of the Gaussian blur that
/// makes an edge rise as these borders' do at half grey, in the median. Hardly more than 0.5 where only pixels smear
/// them; at most 6. 0 when there are no borders, or ink and paper hardly differ.
double blurOf(const cv::Mat& grey, TwoTone tone, const std::vector<Border>& borders);

/// By how much borders turn in all, radians, whichever way, as chords of 2.5 px see it. A blur hardly changes that:
/// what it rounds off turns as far as the corner did. Steps and ripples turn more.
double turningOf(const std::vector<Border>& borders);

}  // namespace rim::trace::contour
