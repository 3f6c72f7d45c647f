#pragma once

#include <stop_token>
#include <vector>

#include "core/picture/preparation.h"

namespace rim::picture {

/// A way to make a picture traceable, and what it promises.
struct PictureRecipe {
  std::vector<PreparationStep> steps;
  double score = 0;  ///< 0..1, higher is better
  Picture small;     ///< what it makes of a small copy of the picture
  cv::Mat ink;       ///< of the small copy what would be traced, to be shown: CV_8UC1, 255 is ink
};

/// Whole ways to make a picture traceable, the best first: straightened where a sheet is sure to be found, then as it
/// is, with even light, with shadows lifted (by several reaches), by a local threshold, each calmed where it is noisy
/// and enlarged where its strokes are thin. Each is tried on a small copy and judged by what would be traced: borders
/// whose contrast, as a share of the light beside them, is high all along, that miss no other such edge, and few
/// crumbs. What is simpler goes first where the gain is small. At most four, no two of which come to the same ink.
/// Throws Cancelled.
std::vector<PictureRecipe> recipesFor(const Picture& picture, const std::stop_token& stop = {});

/// The steps of the best of them; empty when nothing is needed. Throws Cancelled.
std::vector<PreparationStep> stepsToMakeTraceable(const Picture& picture, const std::stop_token& stop = {});

}  // namespace rim::picture
