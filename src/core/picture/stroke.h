#pragma once

#include <opencv2/core.hpp>

#include "core/picture/picture.h"

namespace rim::picture {

/// Both sides of every stroke moved outwards by half of `px` (inwards when negative).
Picture thickened(const Picture& picture, double px);

/// Breaks in the ink up to `px` wide are closed; elsewhere the picture stays as it is.
Picture withGapsFilled(const Picture& picture, double px);

/// Holes in the ink smaller than `areaPx2` become ink.
Picture withPinholesFilled(const Picture& picture, double areaPx2);

/// Ink smaller than `areaPx2` becomes paper.
Picture withoutSpecks(const Picture& picture, double areaPx2);

/// Widths of the strokes in px, measured where a stroke's middle line runs. What is wider than 24 px (32 px in
/// pictures of more than 1.5 megapixels) counts as an area, not as a stroke, unless there is nothing else.
struct StrokeWidths {
  double median = 0;    ///< 0: there is no ink
  double thinnest = 0;  ///< exceeded by 95 of 100 places
};
StrokeWidths strokeWidths(const cv::Mat& grey);

}  // namespace rim::picture
