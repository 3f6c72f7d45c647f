#pragma once

#include <algorithm>
#include <cmath>
#include <limits>
#include <optional>
#include <span>

#include "core/geometry/point.h"

namespace rim::trace::fit {

/// Central moments of points, each divided by their number; z is the squared distance from the
/// mean. They hold all that the best line and the best circle need.
struct Moments {
  double count = 0;
  Point mean;
  double xx = 0, yy = 0, xy = 0, xz = 0, yz = 0, zz = 0;
};

Moments momentsOf(std::span<const Point> points);

/// Moments of a range that grows at its ends, in constant time a point. Exact to about 1e-6 px as
/// long as all points lie within 10 000 px of `origin`.
class MomentSums {
 public:
  explicit MomentSums(Point origin) : origin_(origin) {}
  void add(Point p);
  /// Adds the points of another range, whatever its origin.
  void add(const MomentSums& other);
  Moments central() const;
  /// lineMeanSquare() of central(), without the moments that only circles need.
  double lineMeanSquare() const;

 private:
  Point origin_;
  double n_ = 0, x_ = 0, y_ = 0, xx_ = 0, yy_ = 0, xy_ = 0, xz_ = 0, yz_ = 0, zz_ = 0;
};

/// The mean squared distance of points with these central moments from their best line.
inline double lineMeanSquare(double xx, double yy, double xy) {
  const double half = (xx - yy) / 2;
  return std::max(0.0, (xx + yy) / 2 - std::sqrt(half * half + xy * xy));
}

inline double lineMeanSquare(const Moments& m) { return lineMeanSquare(m.xx, m.yy, m.xy); }

/// A circle and the mean squared distance of the points from it (to first order in the distance).
struct CircleFit {
  Point centre;
  double radius = 0;
  double meanSquare = 0;
};

/// The circle that fits the points; nothing when they are fewer than three, straight to within
/// rounding, or its radius would be over 1e6. Source: G. Taubin, "Estimation of planar curves,
/// surfaces and nonplanar space curves defined by implicit equations", IEEE PAMI 13 (1991),
/// 1115-1138, in the form with Newton's method of N. Chernov, "Circular and Linear Regression"
/// (2010), 5.10.
std::optional<CircleFit> circleFrom(const Moments& moments);

/// The mean squared distance of three or more points from that circle, to within 1e-5 of it; once it is seen to be more
/// than `most`, any number between `most` and it: the smallest root of Taubin's characteristic polynomial, to which
/// Newton's method rises from 0.
double circleMeanSquare(const Moments& moments, double most = std::numeric_limits<double>::infinity());

/// The same circle when its mean square is known from circleMeanSquare().
std::optional<CircleFit> circleFrom(const Moments& moments, double meanSquare);

// Called for every pair of places where a piece might begin and end.

inline void MomentSums::add(Point p) {
  const Point q = p - origin_;
  const double z = dot(q, q);
  ++n_;
  x_ += q.x;
  y_ += q.y;
  xx_ += q.x * q.x;
  yy_ += q.y * q.y;
  xy_ += q.x * q.y;
  xz_ += q.x * z;
  yz_ += q.y * z;
  zz_ += z * z;
}

inline double MomentSums::lineMeanSquare() const {
  const double k = 1 / n_;
  const double mx = x_ * k;
  const double my = y_ * k;
  return fit::lineMeanSquare(xx_ * k - mx * mx, yy_ * k - my * my, xy_ * k - mx * my);
}

inline Moments MomentSums::central() const {
  const double k = 1 / n_;
  const double mx = x_ * k;
  const double my = y_ * k;
  const double mm = mx * mx + my * my;
  const double xx = xx_ * k;
  const double yy = yy_ * k;
  const double xy = xy_ * k;
  const double z = xx + yy;
  Moments m;
  m.count = n_;
  m.mean = origin_ + Point{mx, my};
  m.xx = xx - mx * mx;
  m.yy = yy - my * my;
  m.xy = xy - mx * my;
  // z about the mean is z - 2 (mx x + my y) + mm; products with it are multiplied out.
  m.xz = xz_ * k - mx * z - 2 * mx * m.xx - 2 * my * m.xy;
  m.yz = yz_ * k - my * z - 2 * mx * m.xy - 2 * my * m.yy;
  const double linear = 4 * (mx * mx * xx + 2 * mx * my * xy + my * my * yy);
  m.zz = zz_ * k + linear + mm * mm - 4 * (mx * xz_ + my * yz_) * k + 2 * mm * z - 4 * mm * mm;
  return m;
}

}  // namespace rim::trace::fit
