#pragma once

#include <array>
#include <utility>
#include <vector>

#include "core/geometry/point.h"

namespace rim {

/// A cubic Bezier curve with both its ends.
struct Cubic {
  Point p0, p1, p2, p3;
};

/// The point at parameter t, 0..1.
Point pointOn(const Cubic& cubic, double t);

/// First and second derivative by t.
Point derivative(const Cubic& cubic, double t);
Point secondDerivative(const Cubic& cubic, double t);

/// Unit tangent at t; where the derivative vanishes (a handle of length 0) the limit is taken.
Point tangent(const Cubic& cubic, double t);

/// Both halves of the curve cut at t (de Casteljau's construction).
std::pair<Cubic, Cubic> split(const Cubic& cubic, double t);

/// The parameters in (0, 1), ascending, where the curve runs exactly upright or level.
std::vector<double> extremes(const Cubic& cubic);

/// Length by quadrature, halved until both halves agree with the whole to `relativeError` of the control polygon.
double lengthOf(const Cubic& cubic, double relativeError = 1e-7);

/// By how much, in radians, the curve turns on its way, both ways added up; looked at in 16 steps.
double turningOf(const Cubic& cubic);

/// How many equal parameter steps keep the chords of the curve within `chordError`
/// (second-derivative bound, Wang's formula: n = sqrt(6 max|second difference| / (8 e))).
int chordSteps(const Cubic& cubic, double chordError);

}  // namespace rim
