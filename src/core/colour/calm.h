#pragma once

#include <opencv2/core.hpp>
#include <stop_token>

#include "core/colour/inks.h"

namespace rim::colour {

/// The labels (CV_8UC1) with small parts given to a neighbouring ink wherever their colours, as far as noise and the
/// blocks of a JPEG let them be told apart, do not speak against it by more than their common border
/// and how usual the ink is nearby speak for it (a Potts model on parts: R. B. Potts, "Some generalized order-disorder
/// transformations", Proc. Cambridge Phil. Soc. 48 (1952), 106-109). How far colours can be told
/// apart is measured beside the borders: in a clean picture nothing changes. `lab` is CV_32FC3.
cv::Mat calmedParts(const cv::Mat& labels, const cv::Mat& lab, const std::vector<Lab>& palette,
                    const std::stop_token& stop);

}  // namespace rim::colour
