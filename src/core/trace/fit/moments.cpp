#include "core/trace/fit/moments.h"

namespace rim::trace::fit {

Moments momentsOf(std::span<const Point> points) {
  MomentSums sums(points.front());
  for (const Point p : points) sums.add(p);
  return sums.central();
}

void MomentSums::add(const MomentSums& other) {
  // A point q of the other range is q + d here and z = |q|^2 becomes z + 2 d q + |d|^2: multiplied out.
  const MomentSums& o = other;
  const Point d = o.origin_ - origin_;
  const double dd = dot(d, d);
  const double linear = d.x * o.x_ + d.y * o.y_;
  const double z = o.xx_ + o.yy_;
  const double shiftedZ = z + 2 * linear + o.n_ * dd;
  n_ += o.n_;
  x_ += o.x_ + o.n_ * d.x;
  y_ += o.y_ + o.n_ * d.y;
  xx_ += o.xx_ + d.x * (2 * o.x_ + o.n_ * d.x);
  yy_ += o.yy_ + d.y * (2 * o.y_ + o.n_ * d.y);
  xy_ += o.xy_ + d.x * o.y_ + d.y * o.x_ + o.n_ * d.x * d.y;
  xz_ += o.xz_ + 2 * (d.x * o.xx_ + d.y * o.xy_) + dd * o.x_ + d.x * shiftedZ;
  yz_ += o.yz_ + 2 * (d.x * o.xy_ + d.y * o.yy_) + dd * o.y_ + d.y * shiftedZ;
  const double square = d.x * d.x * o.xx_ + 2 * d.x * d.y * o.xy_ + d.y * d.y * o.yy_;
  zz_ += o.zz_ + 4 * (d.x * o.xz_ + d.y * o.yz_) + 2 * dd * z + 4 * square + 4 * dd * linear + o.n_ * dd * dd;
}

double circleMeanSquare(const Moments& m, double most) {
  const double mz = m.xx + m.yy;
  const double covariance = m.xx * m.yy - m.xy * m.xy;
  const double varianceZ = m.zz - mz * mz;
  const double a3 = 4 * mz;
  const double a2 = -3 * mz * mz - m.zz;
  const double a1 = varianceZ * mz + 4 * covariance * mz - m.xz * m.xz - m.yz * m.yz;
  const double a0 = m.xz * (m.xz * m.yy - m.yz * m.xy) + m.yz * (m.yz * m.xx - m.xz * m.xy) - varianceZ * covariance;
  double x = 0;
  double y = a0;
  for (int i = 0; i < 20 && x <= most; ++i) {
    const double slope = a1 + x * (2 * a2 + 3 * a3 * x);
    const double next = x - y / slope;
    if (next == x || !std::isfinite(next)) break;
    const double value = a0 + next * (a1 + next * (a2 + next * a3));
    if (std::abs(value) >= std::abs(y)) break;
    // Converges quadratically: the circle does not change any more.
    constexpr double kFineEnough = 1e-10;  // of the spread of the points
    constexpr double kNextWillBe = 1e-5;   // of the root: the next step would be less than the square of it
    if (std::abs(next - x) <= std::max(kFineEnough * mz, kNextWillBe * std::abs(next))) return std::max(0.0, next);
    x = next;
    y = value;
  }
  return std::max(0.0, x);
}

std::optional<CircleFit> circleFrom(const Moments& m) {
  if (m.count < 3) return std::nullopt;
  return circleFrom(m, circleMeanSquare(m));
}

std::optional<CircleFit> circleFrom(const Moments& m, double root) {
  const double mz = m.xx + m.yy;
  const double determinant = root * root - root * mz + m.xx * m.yy - m.xy * m.xy;
  if (std::abs(determinant) < 1e-12 * mz * mz) return std::nullopt;
  const Point centre{(m.xz * (m.yy - root) - m.yz * m.xy) / determinant / 2,
                     (m.yz * (m.xx - root) - m.xz * m.xy) / determinant / 2};
  const double radius = std::sqrt(dot(centre, centre) + mz);
  if (!std::isfinite(radius) || radius > 1e6) return std::nullopt;
  // d = (|p - c|^2 - r^2) / (2 r) to first order.
  const double square = m.zz - mz * mz +
                        4 * (centre.x * centre.x * m.xx + 2 * centre.x * centre.y * m.xy + centre.y * centre.y * m.yy) -
                        4 * (centre.x * m.xz + centre.y * m.yz);
  return CircleFit{m.mean + centre, radius, std::max(0.0, square) / (4 * radius * radius)};
}

}  // namespace rim::trace::fit
