#include "core/trace/curve_fit.h"

#include <vector>

namespace rim {
namespace {

constexpr int kRounds = 5;

std::vector<double> chordParameters(Point start, Point end, std::span<const Point> points) {
  std::vector<double> t;
  double way = 0;
  Point from = start;
  for (const Point p : points) {
    way += distance(from, p);
    t.push_back(way);
    from = p;
  }
  way += distance(from, end);
  for (double& value : t) value = way > 0 ? value / way : 0;
  return t;
}

struct Ends {
  Point start, startTangent, end, endTangent;
};

Cubic withHandles(const Ends& e, double first, double second) {
  return {e.start, e.start + e.startTangent * first, e.end - e.endTangent * second, e.end};
}

Cubic leastSquares(const Ends& e, std::span<const Point> points, const std::vector<double>& parameters, double way) {
  double a11 = 0, a12 = 0, a22 = 0, r1 = 0, r2 = 0;
  for (std::size_t i = 0; i < points.size(); ++i) {
    const double t = parameters[i];
    const double s = 1 - t;
    const double b1 = 3 * s * s * t;
    const double b2 = 3 * s * t * t;
    const Point fixed = e.start * (s * s * s + b1) + e.end * (b2 + t * t * t);
    const Point u = e.startTangent * b1;
    const Point v = e.endTangent * -b2;
    const Point rest = points[i] - fixed;
    a11 += dot(u, u);
    a12 += dot(u, v);
    a22 += dot(v, v);
    r1 += dot(u, rest);
    r2 += dot(v, rest);
  }
  const double determinant = a11 * a22 - a12 * a12;
  const double third = distance(e.start, e.end) / 3;
  if (determinant < 1e-9 * a11 * a22) return withHandles(e, third, third);
  const double first = (r1 * a22 - r2 * a12) / determinant;
  const double second = (a11 * r2 - a12 * r1) / determinant;
  const double least = 0.01 * third;
  const auto usable = [&](double handle) { return handle > least && handle < way; };
  return withHandles(e, usable(first) ? first : third, usable(second) ? second : third);
}

void improve(const Cubic& cubic, std::span<const Point> points, std::vector<double>& parameters) {
  for (std::size_t i = 0; i < points.size(); ++i) {
    double& t = parameters[i];
    const Point off = pointOn(cubic, t) - points[i];
    const Point d = derivative(cubic, t);
    const double bend = dot(d, d) + dot(off, secondDerivative(cubic, t));
    if (bend > 1e-12) t = std::clamp(t - dot(off, d) / bend, 0.0, 1.0);
  }
}

}  // namespace

CurveFit fitCubic(Point start, Point startTangent, Point end, Point endTangent, std::span<const Point> points) {
  const Ends ends{start, startTangent, end, endTangent};
  double way = distance(start, end);
  Point from = start;
  double along = 0;
  for (const Point p : points) {
    along += distance(from, p);
    from = p;
  }
  way = std::max(way, along + distance(from, end));
  std::vector<double> parameters = chordParameters(start, end, points);
  CurveFit fit{leastSquares(ends, points, parameters, way), 0, 0};
  for (int round = 0; round < kRounds; ++round) {
    improve(fit.cubic, points, parameters);
    fit.cubic = leastSquares(ends, points, parameters, way);
  }
  improve(fit.cubic, points, parameters);
  for (std::size_t i = 0; i < points.size(); ++i) {
    const double off = distance(pointOn(fit.cubic, parameters[i]), points[i]);
    fit.largest = std::max(fit.largest, off);
    fit.meanSquare += off * off / static_cast<double>(points.size());
  }
  return fit;
}

}  // namespace rim
