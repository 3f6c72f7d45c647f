#pragma once

#include <opencv2/core.hpp>
#include <optional>

namespace rim::picture {

/// The grey levels that stand for ink and paper.
struct InkLevels {
  double dark = 0;
  double light = 255;
  double middle() const { return (dark + light) / 2; }
};

/// The means of Otsu's two groups; none when the picture (CV_8UC1) has one tone only.
std::optional<InkLevels> inkLevelsOf(const cv::Mat& grey);

/// How deep every pixel's middle lies in the ink, in px, CV_32FC1: positive in ink, negative in
/// paper, 0 on the border. Ink is the darker of Otsu's two groups. Distances are measured from
/// edge pixels, each moved by how much ink lies round it, so they are good to 0.15 px. What lies farther
/// from the border than `reachPx` (0..60) comes out as some depth beyond that reach.
/// Empty when the picture has one tone only.
cv::Mat depthNearBorder(const cv::Mat& grey, double reachPx);

/// Black ink on white paper with its border where `depth` is -`px`: 0 gives the same border.
cv::Mat inkAtDepth(const cv::Mat& depth, double px);

}  // namespace rim::picture
