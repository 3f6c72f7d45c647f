#pragma once

#include <optional>
#include <span>
#include <vector>

#include "core/geometry/cubic.h"

namespace rim::trace::fit {

/// Cubics that follow each other smoothly, each with the border's points beside it.
struct SmoothRun {
  std::vector<Cubic> cubics;
  std::vector<std::vector<Point>> points;  ///< of each cubic
  std::vector<double> weights;             ///< what a point of each cubic counts
  std::optional<Point> startTangent;       ///< unit tangents that the ends must keep; none: free
  std::optional<Point> endTangent;
  /// With a tangent: the end may move along it, as where a straight edge goes over into a curve.
  bool startSlides = false;
  bool endSlides = false;
  bool closed = false;  ///< the last cubic goes over smoothly into the first
};

/// The same cubics moved together so that the squared distances of all points are least while
/// neighbours keep a common tangent (G1) exactly: nodes between them, tangents and handles are all
/// sought at once by the method of Levenberg and Marquardt (D. W. Marquardt, Journal of the Society for Industrial and
/// Applied Mathematics 11 (1963), 431-441). The two ends of an open run stay
/// where they are, or slide. When nothing better is found they are returned with their tangents made common.
///
/// Long runs are taken some cubics at a time, so time grows with their number only.
std::vector<Cubic> polished(SmoothRun run);

}  // namespace rim::trace::fit
