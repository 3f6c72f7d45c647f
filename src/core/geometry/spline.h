#pragma once

#include <vector>

#include "core/geometry/path.h"

namespace rim {

/// A B-spline curve, rational where weights differ, as a DXF SPLINE holds it.
struct Spline {
  int degree = 3;
  std::vector<double> knots;    ///< ascending; as many as control points + degree + 1
  std::vector<Point> controls;  ///< more than `degree`
  std::vector<double> weights;  ///< > 0, one for each control point; empty: all 1
};

/// Whether counts, order and weights are as they must be and all numbers finite.
bool isSound(const Spline& spline);

/// The point of a sound spline at the parameter u (de Boor's algorithm on homogeneous coordinates; L. Piegl and
/// W. Tiller, The NURBS Book, 2nd edition, 1997, A4.1).
Point pointOn(const Spline& spline, double u);

/// A sound spline as cubics. Spans of a polynomial spline of degree 3 or less are exact; others are halved until cubics
/// with the same ends and tangents leave them by at most `tolerance` (> 0), at most 64 a span. Closed when `closed` is
/// set or both ends are the same point.
Path pathOf(const Spline& spline, bool closed, double tolerance);

/// The smooth curve through at least two points in order: a cubic spline with natural ends over the lengths of the
/// chords (C. de Boor, A Practical Guide to Splines, 1978, chapter IV; natural ends: common practice, no source).
Path throughPoints(const std::vector<Point>& points, bool closed);

}  // namespace rim
