#include "core/trace/fit/ellipse.h"

#include <Eigen/Dense>
#include <array>
#include <numbers>

#include "core/geometry/arc.h"

namespace rim::trace::fit {
namespace {

constexpr int kEllipseRounds = 6;
constexpr int kUnknowns = 5;
using Vector5 = Eigen::Matrix<double, kUnknowns, 1>;
using Matrix5 = Eigen::Matrix<double, kUnknowns, kUnknowns>;

/// Area, mean and second central moments of the area within a polygon (Green's theorem).
struct AreaMoments {
  double area = 0;
  Point mean;
  double xx = 0, yy = 0, xy = 0;
};

AreaMoments areaMoments(std::span<const Point> points) {
  const Point origin = points.front();
  double area = 0, x = 0, y = 0, xx = 0, yy = 0, xy = 0;
  for (std::size_t i = 0; i < points.size(); ++i) {
    const Point a = points[i] - origin;
    const Point b = points[(i + 1) % points.size()] - origin;
    const double c = cross(a, b);
    area += c / 2;
    x += c * (a.x + b.x) / 6;
    y += c * (a.y + b.y) / 6;
    xx += c * (a.x * a.x + a.x * b.x + b.x * b.x) / 12;
    yy += c * (a.y * a.y + a.y * b.y + b.y * b.y) / 12;
    xy += c * (2 * a.x * a.y + a.x * b.y + b.x * a.y + 2 * b.x * b.y) / 24;
  }
  if (area == 0) return {};
  const Point mean{x / area, y / area};
  return {area, origin + mean, xx / area - mean.x * mean.x, yy / area - mean.y * mean.y, xy / area - mean.x * mean.y};
}

/// The ellipse of uniform density with these moments: half axes twice the standard deviations.
std::optional<Ellipse> withMoments(const AreaMoments& m) {
  if (m.area == 0) return std::nullopt;
  Eigen::Matrix2d spread;
  spread << m.xx, m.xy, m.xy, m.yy;
  const Eigen::SelfAdjointEigenSolver<Eigen::Matrix2d> solver(spread);
  if (solver.info() != Eigen::Success || solver.eigenvalues()[0] <= 0) return std::nullopt;
  const auto axis = solver.eigenvectors().col(1);
  return Ellipse{
      m.mean, {axis[0], axis[1]}, 2 * std::sqrt(solver.eigenvalues()[1]), 2 * std::sqrt(solver.eigenvalues()[0])};
}

struct Residual {
  double off = 0;
  Vector5 slope;  ///< by centre x and y in the ellipse's own frame, the half axes and the turn
};

Residual residualAt(const Ellipse& e, Point p) {
  const Point d = p - e.centre;
  const double u = dot(d, e.axis);
  const double v = cross(e.axis, d);
  const double a2 = e.along * e.along;
  const double b2 = e.across * e.across;
  const double value = u * u / a2 + v * v / b2 - 1;
  const double steep = 2 * std::sqrt(u * u / (a2 * a2) + v * v / (b2 * b2));
  Residual r;
  r.off = value / steep;
  r.slope << -2 * u / a2, -2 * v / b2, -2 * u * u / (a2 * e.along), -2 * v * v / (b2 * e.across),
      2 * u * v * (1 / a2 - 1 / b2);
  r.slope /= steep;
  return r;
}

Ellipse changed(const Ellipse& e, const Vector5& step) {
  const double turn = step[4];
  const Point axis = e.axis * std::cos(turn) + leftNormal(e.axis) * std::sin(turn);
  return {e.centre + e.axis * step[0] + leftNormal(e.axis) * step[1], unit(axis), e.along + step[2],
          e.across + step[3]};
}

}  // namespace

std::optional<Ellipse> fitEllipse(std::span<const Point> points) {
  if (points.size() <= kUnknowns) return std::nullopt;
  std::optional<Ellipse> ellipse = withMoments(areaMoments(points));
  for (int round = 0; ellipse && round < kEllipseRounds; ++round) {
    Matrix5 normal = Matrix5::Zero();
    Vector5 right = Vector5::Zero();
    for (const Point p : points) {
      const Residual r = residualAt(*ellipse, p);
      if (!std::isfinite(r.off)) return std::nullopt;
      normal += r.slope * r.slope.transpose();
      right -= r.slope * r.off;
    }
    // Nearly round: the turn is hardly known and must not run away.
    normal(4, 4) += 1e-6 * static_cast<double>(points.size());
    const Vector5 step = normal.ldlt().solve(right);
    if (!step.allFinite()) return std::nullopt;
    ellipse = changed(*ellipse, step);
    if (ellipse->along <= 0 || ellipse->across <= 0) return std::nullopt;
    if (step.norm() < 1e-6) break;
  }
  return ellipse;
}

double likenessToEllipse(std::span<const Point> points) {
  const AreaMoments m = areaMoments(points);
  const double determinant = m.xx * m.yy - m.xy * m.xy;
  if (m.area == 0 || determinant <= 0) return 0;
  // The half axes are twice the standard deviations along them.
  return std::abs(m.area) / (4 * std::numbers::pi * std::sqrt(determinant));
}

double distanceFrom(const Ellipse& ellipse, Point p) { return residualAt(ellipse, p).off; }

Path pathOf(const Ellipse& ellipse, double turn, double tolerancePx) {
  // A unit circle's cubics, stretched: affine maps take Bezier curves to Bezier curves.
  const double larger = std::max(ellipse.along, ellipse.across);
  const auto place = [&](Point onCircle) {
    return ellipse.centre + ellipse.axis * (ellipse.along * onCircle.x) +
           leftNormal(ellipse.axis) * (ellipse.across * onCircle.y);
  };
  Path path{place({1, 0}), {}, true};
  Point from{1, 0};
  constexpr int kQuarters = 4;
  for (int k = 1; k <= kQuarters; ++k) {
    // Exact, so that ends of level axes are level.
    const std::array<Point, kQuarters> ends{Point{0, turn}, Point{-1, 0}, Point{0, -turn}, Point{1, 0}};
    const Point to = ends[static_cast<std::size_t>(k - 1)];
    const Segment quarter = Segment::arc(to, turn * bulgeFromSweep(std::numbers::pi / 2));
    for (const Segment& s : cubicsFromArc(from, quarter, tolerancePx / larger))
      path.segments.push_back(Segment::cubic(place(s.handle1), place(s.handle2), place(s.end)));
    from = to;
  }
  path.segments.back().end = path.start;
  return path;
}

}  // namespace rim::trace::fit
