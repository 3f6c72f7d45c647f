#pragma once

#include "core/geometry/path.h"
#include "core/trace/contour/border.h"
#include "core/trace/outline/fit_outline.h"

namespace rim::trace::outline {

/// How far a fitted outline may leave its border.
struct GuardLimits {
  double farthestPx = 0.7;  ///< along a piece
  double roundingPx = 1.2;  ///< how wide pixels and blur smear an edge: what they take off a corner's tip
};

/// Along a piece twice the tolerance and at least 0.7 px; three deviations of the border's noise, up to 1.5 px, where
/// it wavers.
GuardLimits guardLimitsFor(const contour::Border& border, const FitSettings& settings);

/// Points of the border near which a closed outline and its border lie farther apart than the limits say, measured both
/// ways: from places along the outline to the border, and from the border's points to the outline. Near a corner the
/// outline may lie beyond the border by what is rounded off there (mostRetreat(), trace/outline/join.h). In running
/// order; none when the outline holds. Needs a border of three points or more.
std::vector<Point> strayingFrom(const contour::Border& border, const Path& outline, const GuardLimits& limits);

/// The border fitted, and fitted closer where what comes of it strays (FitSettings::roundingPx, gapPx); what strays
/// even then is lines of the border's points. Throws Cancelled when `stop` is requested.
Path fitWithin(const contour::Border& border, const FitSettings& settings, const std::stop_token& stop);

/// The outline where it holds, and lines of the border's points where it does not: what comes of it leaves the border
/// nowhere by more than the limits say. The plain border, in lines that leave it by less than half a pixel, is the
/// floor, and taken where it has fewer nodes.
Path guarded(Path outline, const contour::Border& border, const GuardLimits& limits);

}  // namespace rim::trace::outline
