#pragma once

#include <cstdint>
#include <opencv2/core.hpp>

#include "core/colour/inks.h"

namespace rim::trace::inks {

/// How much of each pixel each ink covers: near a border a pixel is taken for the mixture of two inks there, or three,
/// that comes nearest to its colour, elsewhere it has its own ink.
class InkShares {
 public:
  /// `bgr` (CV_8UC3) and the inks of its pixels.
  InkShares(const cv::Mat& bgr, const colour::InkMap& map);

  /// One ink's share beside the largest other one's, as grey levels (CV_8UC1) that can be traced in two tones: darker
  /// than kEvenShares where the ink covers more than any other, and somewhat below the darkest and above the palest
  /// what noise makes of the purest pixels.
  cv::Mat levelsOf(std::uint8_t ink) const;

  static constexpr int kEvenShares = 128;

 private:
  cv::Mat inks_;     ///< CV_8UC3: the pixel's own ink, and those that it is mixed with
  cv::Mat covered_;  ///< CV_32FC3: what each covers of it; pure ones are covered by 1 and a little more or less
};

}  // namespace rim::trace::inks
