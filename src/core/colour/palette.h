#pragma once

#include <opencv2/core.hpp>
#include <optional>
#include <vector>

#include "core/colour/lab.h"

namespace rim::colour {

/// How much two colours must differ (CIEDE2000) to be two inks.
struct InkDifference {
  double least = 8;   ///< whatever their areas
  double small = 22;  ///< where the smaller one has hardly any area: noise and a JPEG make such colours
};

/// The colours of a picture's even areas.
///
/// `lab` is CV_32FC3; `even` marks the pixels that count (CV_8UC1). Colours are gathered in cells of
/// L*a*b*, the fullest first, everything near them with them; then the two that are told apart worst
/// (CIEDE2000, and how little of the picture the smaller one has) become one, again and again: until
/// all are clearly apart, or until as many are left as `count` says. Deterministic.
/// When fewer are found than `count`, what spreads widest is parted. At least one colour.
std::vector<Lab> paletteOf(const cv::Mat& lab, const cv::Mat& even, std::optional<int> count,
                           InkDifference difference = {});

/// Two groups of the marked pixels' colours, the larger group first (two means); the same colour twice when
/// there is nothing to tell apart.
std::pair<Lab, Lab> partedColours(const cv::Mat& lab, const cv::Mat& marked);

}  // namespace rim::colour
