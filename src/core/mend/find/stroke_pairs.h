#pragma once

#include <vector>

#include "core/drawing/drawing.h"

namespace rim {

/// The two edges of a drawn stroke that closes on itself.
struct StrokePair {
  std::size_t outer = 0;
  std::size_t inner = 0;
  double widthMm = 0;         ///< the stroke's width: the median distance between the edges
  std::vector<Point> unlike;  ///< places of the outer edge that the inner one does not follow, such as a whisker
};

/// Closed outlines directly within each other that run side by side all along, at most `widestMm` (> 0) apart: at
/// seven in ten places of either and eight in ten of both the distance is within a quarter of the median (sharp corners
/// reach farther), and the way round is at least 8 widths. Each outline is in one pair at most.
std::vector<StrokePair> strokePairs(const Drawing& drawing, double widestMm);

}  // namespace rim
