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
inline Point pointOn(const Cubic& c, double t) {
  const double s = 1 - t;
  return c.p0 * (s * s * s) + c.p1 * (3 * s * s * t) + c.p2 * (3 * s * t * t) + c.p3 * (t * t * t);
}

/// First and second derivative by t.
inline Point derivative(const Cubic& c, double t) {
  const double s = 1 - t;
  return (c.p1 - c.p0) * (3 * s * s) + (c.p2 - c.p1) * (6 * s * t) + (c.p3 - c.p2) * (3 * t * t);
}
inline Point secondDerivative(const Cubic& c, double t) {
  return (c.p2 - c.p1 * 2 + c.p0) * (6 * (1 - t)) + (c.p3 - c.p2 * 2 + c.p1) * (6 * t);
}

/// The same curve as a polynomial in t: cheaper where many places of one curve are asked for.
class CubicPolynomial {
 public:
  explicit CubicPolynomial(const Cubic& c)
      : a_(c.p3 - c.p0 + (c.p1 - c.p2) * 3), b_((c.p0 - c.p1 * 2 + c.p2) * 3), c_((c.p1 - c.p0) * 3), d_(c.p0) {}
  /// What pointOn(), derivative() and secondDerivative() give; t may lie beyond 0..1.
  Point at(double t) const { return ((a_ * t + b_) * t + c_) * t + d_; }
  Point derivative(double t) const { return (a_ * (3 * t) + b_ * 2) * t + c_; }
  Point secondDerivative(double t) const { return a_ * (6 * t) + b_ * 2; }

 private:
  Point a_, b_, c_, d_;
};

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
