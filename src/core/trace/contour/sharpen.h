#pragma once

#include <opencv2/core.hpp>
#include <span>
#include <vector>

#include "core/trace/contour/border.h"

namespace rim::trace::contour {

/// Where sharpenBorder() puts an edge.
enum class EdgeLevel {
  Coverage,   ///< half-way between the ink and the paper found beside it, whatever the threshold
  Threshold,  ///< where the threshold lies between ink and paper
};

/// The border with its points moved to where the ink's coverage says that the edge is.
///
/// A pixel at an edge is as dark as much of it is covered. Interpolating between two samples puts
/// an edge off by up to 0.086 px even in a clean picture; adding up the coverage of a row (or
/// column, whichever crosses the edge more squarely) over the whole rise from ink to paper gives
/// the exact place for straight edges. The method is the moment-preserving edge of
/// A. J. Tabatabai and O. R. Mitchell, "Edge location to subpixel values in digital imagery",
/// IEEE PAMI 6 (1984), 188-201, in its first moment with local levels.
///
/// Points where ink or paper is too thin to show its own level, and points on the rim of the
/// picture, stay where they are; no point moves by more than 0.6 px. Of the crossings with rows
/// and columns those are kept that lie across the edge, so there are fewer points than before; where
/// none does for more than 1.6 px, as round a corner, the border's own points stay.
/// Within `keepPx` of the places `keep` the border is left as it is.
Border sharpenBorder(const cv::Mat& grey, TwoTone tone, EdgeLevel level, const Border& border,
                     std::span<const Point> keep = {}, double keepPx = 0);

/// A border and which of its points were measured: the others are where interpolation puts them, or on the rim.
struct SharpBorder {
  Border points;
  std::vector<bool> measured;
};

/// The same for a border that was followed `fineness` times as fine as the picture (trace/contour/fine_borders.h). Its
/// points between rows and columns are left out where those beside them were measured and stay where they were not.
SharpBorder sharpFineBorder(const cv::Mat& grey, TwoTone tone, EdgeLevel level, const Border& border, int fineness,
                            std::span<const Point> keep = {}, double keepPx = 0);

}  // namespace rim::trace::contour
