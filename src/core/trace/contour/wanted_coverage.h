#pragma once

#include <opencv2/core.hpp>
#include <optional>

#include "core/trace/contour/border.h"

namespace rim::trace::contour {

/// How much of each pixel the ink covers, told by its grey between those of the ink and the paper beside it.
struct WantedCoverage {
  cv::Mat1f shares;  ///< of each pixel: 0 as pale as the paper, 1 as dark as the ink; a little beyond where it is noisy
  /// How steeply edges rise: of the steps between neighbours on both sides of the half, three quarters are no larger.
  /// 0.5 and more where only pixels cover edges partly; less where a blur of 0.7 px or an enlargement smears them.
  double steepness = 0;
  double noise = 0;  ///< how much even ink and paper waver, standard deviation in shares
};

/// A picture whose even parts waver by less is clean: its greys are those of edges, and not of noise or of a JPEG.
inline constexpr double kCleanNoise = 0.008;

/// Even ink and paper are pixels whose neighbours lie on the same side of the threshold; every pixel is measured
/// against the nearest of both. Where a side is nowhere near as wide as that, its level is the median of all that is
/// even, and where nothing is, of its darkest or palest pixels. Nothing when ink and paper hardly differ, next to
/// nothing is even (noise), or they waver too much for greys to say anything. `grey` is CV_8UC1; time grows with the
/// pixels.
std::optional<WantedCoverage> wantedCoverage(const cv::Mat& grey, TwoTone tone);

}  // namespace rim::trace::contour
