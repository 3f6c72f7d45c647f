#pragma once

#include <opencv2/core.hpp>
#include <optional>

namespace rim::picture {

/// Small letters in a row.
struct Lettering {
  double heightPx = 0;  ///< of most of the letters of the row with the smallest ones
  int letters = 0;      ///< in all rows of so small ones
  bool bold = false;    ///< strokes are wider than a sixth of the height
};

/// Rows of ink (CV_8UC1, not 0) as wide as five letters and more, of parts of about the same height, below `belowPx`,
/// that stand beside each other no farther apart than they are high, and fill their boxes as letters do. Nothing when
/// there are none.
std::optional<Lettering> smallLettering(const cv::Mat& ink, double belowPx);

}  // namespace rim::picture
