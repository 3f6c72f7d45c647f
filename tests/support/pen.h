#pragma once

#include <functional>
#include <vector>

#include "core/geometry/point.h"
#include "core/picture/picture.h"

namespace rim::test {

/// The way of a pen's middle, upright px.
struct PenStroke {
  std::vector<Point> way;  ///< close together
  bool closed = false;
};

/// Points along a curve, its parameter running from 0 to 1.
PenStroke along(const std::function<Point(double)>& curve, bool closed = false);
/// From point to point.
PenStroke straight(const std::vector<Point>& corners, bool closed = false);

/// Black strokes with round tips and joins on white paper, drawn at 32 times the size.
cv::Mat penDrawing(int width, int height, const std::vector<PenStroke>& strokes, double penPx);

/// How far p is from the nearest of the ways, px.
double distanceToWays(Point p, const std::vector<PenStroke>& strokes);

}  // namespace rim::test
