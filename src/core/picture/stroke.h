#pragma once

#include <opencv2/core.hpp>

#include "core/picture/picture.h"

namespace rim {

/// How deep every pixel's middle lies in the ink, in px, CV_32FC1: positive in ink, negative in
/// paper, 0 on the border. Ink is the darker of Otsu's two groups. Distances are measured from
/// edge pixels, each moved by how much of it is covered, so they are good to about 0.2 px.
/// Empty when the picture has one tone only.
cv::Mat depthInInk(const cv::Mat& grey);

/// Black ink on white paper with its border where `depth` is -`px`: 0 gives the same border.
cv::Mat inkAtDepth(const cv::Mat& depth, double px);

/// Both sides of every stroke moved outwards by half of `px` (inwards when negative).
Picture thickened(const Picture& picture, double px);

/// Breaks in the ink up to `px` wide are closed; elsewhere the picture stays as it is.
Picture withGapsFilled(const Picture& picture, double px);

/// Holes in the ink smaller than `areaPx2` become ink.
Picture withPinholesFilled(const Picture& picture, double areaPx2);

/// Ink smaller than `areaPx2` becomes paper.
Picture withoutSpecks(const Picture& picture, double areaPx2);

/// Widths of the strokes in px, measured where a stroke's middle line runs.
struct StrokeWidths {
  double median = 0;    ///< 0: there is no ink
  double thinnest = 0;  ///< exceeded by 95 of 100 places
};
StrokeWidths strokeWidths(const cv::Mat& grey);

}  // namespace rim
