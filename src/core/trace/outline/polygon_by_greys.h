#pragma once

#include <optional>

#include "core/geometry/path.h"
#include "core/trace/contour/coverage.h"

namespace rim::trace::outline {

/// A polygon whose sides are moved and turned until its coverage agrees best with what is wanted.
///
/// `start` is a closed path of three lines or more (upright px of a picture of this size); `wanted` how much of each
/// pixel round it is to be covered, with the sign of coverageOf(). Sides within `levelDegrees` (>= 0) of level or
/// upright become so and stay so. Nothing when sides come to be parallel or the polygon leaves the part of the picture.
///
/// Gauss and Newton's method on the sides, from the derivatives of coverage (see addCoverageDerivatives()).
std::optional<Path> polygonByGreys(const Path& start, const contour::Coverage& wanted, cv::Size picture,
                                   double levelDegrees);

/// How the shares of pixels in `where` change as the ends of an edge of a closed path are moved: adds the change a px
/// of the start (x, then y) to `byStart`, of the end to `byEnd`. Of each pixel it is the length of the edge in it,
/// weighted by how near that end is, times the outward normal (Reynolds' transport theorem); exact.
void addCoverageDerivatives(Point start, Point end, const cv::Rect& where, cv::Size picture, cv::Mat1d (&byStart)[2],
                            cv::Mat1d (&byEnd)[2]);

}  // namespace rim::trace::outline
