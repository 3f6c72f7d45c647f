#pragma once

#include <opencv2/core.hpp>
#include <optional>
#include <stop_token>

#include "core/trace/contour/border.h"

namespace rim::trace::contour {

/// Larger pictures keep their blur: taking it away would take longer than all the rest.
inline constexpr double kMostDeblurredPixels = 300'000;
/// Edges that are smeared by less (blurOf()) are left as they are: pixels alone smear them by half a pixel.
inline constexpr double kBlurredPx = 0.95;

/// The picture (CV_8UC1) as it was before a Gaussian blur of `blurPx` (blurOf(), pixels' own smear among it) rounded
/// its corners, but for what pixels smear themselves: the picture between the levels of ink and paper whose blur comes
/// nearest to what is there, as near as its noise allows. Landweber's iteration, projected to what levels there may be,
/// and stopped by the noise (L. Landweber, "An iteration formula for Fredholm integral equations of the first kind",
/// American Journal of Mathematics 73 (1951), 615-624; V. A. Morozov's discrepancy principle, 1966), with Nesterov's
/// momentum. Nothing where noise would grow: when there is more of it than a 500th of the contrast. Needs a blur of
/// kBlurredPx or more. Throws Cancelled.
std::optional<cv::Mat> deblurred(const cv::Mat& grey, TwoTone tone, double blurPx, const std::stop_token& stop = {});

}  // namespace rim::trace::contour
