#pragma once

#include <opencv2/core.hpp>

#include "core/picture/picture.h"

namespace rim::picture {

/// How bright the paper is at every pixel of a grey picture (CV_8UC1), shadows with edges among it: what is darker is
/// filled with the paper beside it, up to `reachPx` (>= 3) across (grey-scale closing; J. Serra, "Image analysis and
/// mathematical morphology" (1982), chapter 12).
cv::Mat paperLevels(const cv::Mat& grey, double reachPx);

/// The picture with the paper near white everywhere, in shadow and in light. What is dark and wider than `reachPx` is
/// taken for paper in a shadow.
Picture withoutShadows(const Picture& picture, double reachPx);

}  // namespace rim::picture
