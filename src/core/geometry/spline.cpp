#include "core/geometry/spline.h"

#include <algorithm>

#include "core/geometry/segment.h"

namespace rim {
namespace {

struct Weighted {
  Point p;  ///< times w
  double w = 1;
};

Weighted mix(const Weighted& a, const Weighted& b, double t) { return {lerp(a.p, b.p, t), a.w + (b.w - a.w) * t}; }

std::size_t spanOf(const Spline& s, double u) {
  const auto degree = static_cast<std::ptrdiff_t>(s.degree);
  const auto first = s.knots.begin() + degree;
  const auto last = s.knots.begin() + static_cast<std::ptrdiff_t>(s.controls.size());
  const auto above = std::upper_bound(first, last, u);
  return static_cast<std::size_t>(std::max(above - s.knots.begin() - 1, degree));
}

Point pointIn(const Spline& s, std::size_t span, double u) {
  const auto degree = static_cast<std::size_t>(s.degree);
  std::vector<Weighted> d(degree + 1);
  for (std::size_t j = 0; j <= degree; ++j) {
    const std::size_t i = span - degree + j;
    const double w = s.weights.empty() ? 1 : s.weights[i];
    d[j] = {s.controls[i] * w, w};
  }
  for (std::size_t r = 1; r <= degree; ++r) {
    for (std::size_t j = degree; j >= r; --j) {
      const std::size_t i = span - degree + j;
      const double width = s.knots[i + degree - r + 1] - s.knots[i];
      d[j] = mix(d[j - 1], d[j], width > 0 ? (u - s.knots[i]) / width : 0);
    }
  }
  return d[degree].p * (1 / d[degree].w);
}

/// The cubic through four places of the curve at u, a third, two thirds and v: exact when the span is a polynomial of
/// degree 3 or less.
Piece cubicThrough(const Spline& s, std::size_t span, double u, double v) {
  const Point p0 = pointIn(s, span, u);
  const Point p3 = pointIn(s, span, v);
  const Point a = pointIn(s, span, u + (v - u) / 3);
  const Point b = pointIn(s, span, u + (v - u) * 2 / 3);
  // The Bernstein form solved at t = 1/3 and 2/3.
  const Point h1 = (p0 * -5 + a * 18 - b * 9 + p3 * 2) * (1.0 / 6);
  const Point h2 = (p0 * 2 - a * 9 + b * 18 - p3 * 5) * (1.0 / 6);
  return {p0, Segment::cubic(h1, h2, p3)};
}

void addSpan(const Spline& s, std::size_t span, double u, double v, double tolerance, int depth, Path& path) {
  const Piece piece = cubicThrough(s, span, u, v);
  double off = 0;
  for (const double t : {1.0 / 6, 0.5, 5.0 / 6}) {
    const Point p = pointIn(s, span, u + (v - u) * t);
    off = std::max(off, distanceTo(piece, p));
  }
  if (off <= tolerance || depth == 0) {
    path.segments.push_back(piece.segment);
    return;
  }
  addSpan(s, span, u, (u + v) / 2, tolerance, depth - 1, path);
  addSpan(s, span, (u + v) / 2, v, tolerance, depth - 1, path);
}

bool finite(double v) { return std::isfinite(v); }

/// Slopes at the nodes of the natural spline through the points: a tridiagonal system, solved by elimination.
std::vector<Point> naturalSlopes(const std::vector<Point>& points, const std::vector<double>& steps) {
  const std::size_t n = points.size();
  std::vector<double> upper(n, 0);
  std::vector<Point> right(n);
  double pivot = 2;
  right[0] = (points[1] - points[0]) * (3 / steps[0] / pivot);
  upper[0] = 1 / pivot;
  for (std::size_t i = 1; i < n; ++i) {
    const bool last = i + 1 == n;
    const double h0 = steps[i - 1];
    const double h1 = last ? 0 : steps[i];
    const Point r = last ? (points[i] - points[i - 1]) * (3 / h0)
                         : ((points[i] - points[i - 1]) * (h1 / h0) + (points[i + 1] - points[i]) * (h0 / h1)) * 3;
    const double lower = last ? 1 : h1;
    pivot = (last ? 2 : 2 * (h0 + h1)) - lower * upper[i - 1];
    upper[i] = last ? 0 : h0 / pivot;
    right[i] = (r - right[i - 1] * lower) * (1 / pivot);
  }
  for (std::size_t i = n - 1; i-- > 0;) right[i] = right[i] - right[i + 1] * upper[i];
  return right;
}

}  // namespace

bool isSound(const Spline& s) {
  constexpr int kHighestDegree = 25;
  if (s.degree < 1 || s.degree > kHighestDegree) return false;
  const auto degree = static_cast<std::size_t>(s.degree);
  if (s.controls.size() <= degree || s.knots.size() != s.controls.size() + degree + 1) return false;
  if (!s.weights.empty() && s.weights.size() != s.controls.size()) return false;
  return std::all_of(s.knots.begin(), s.knots.end(), finite) && std::is_sorted(s.knots.begin(), s.knots.end()) &&
         s.knots[degree] < s.knots[s.controls.size()] &&
         std::all_of(s.controls.begin(), s.controls.end(), [](Point p) { return finite(p.x) && finite(p.y); }) &&
         std::all_of(s.weights.begin(), s.weights.end(), [](double w) { return finite(w) && w > 0; });
}

Point pointOn(const Spline& s, double u) { return pointIn(s, spanOf(s, u), u); }

Path pathOf(const Spline& s, bool closed, double tolerance) {
  constexpr int kDeepest = 6;
  const auto degree = static_cast<std::size_t>(s.degree);
  Path path{pointIn(s, spanOf(s, s.knots[degree]), s.knots[degree]), {}, closed};
  for (std::size_t span = degree; span < s.controls.size(); ++span) {
    if (s.knots[span] < s.knots[span + 1])
      addSpan(s, span, s.knots[span], s.knots[span + 1], tolerance, kDeepest, path);
  }
  const Point end = path.segments.back().end;
  const double size = std::max(boxOf(path).width(), boxOf(path).height());
  if (distance(end, path.start) <= 1e-9 * size) {
    path.segments.back().end = path.start;
    path.closed = true;
  } else if (closed) {
    path.segments.push_back(Segment::line(path.start));
  }
  return path;
}

Path throughPoints(const std::vector<Point>& given, bool closed) {
  std::vector<Point> points;
  for (const Point p : given) {
    if (points.empty() || !(points.back() == p)) points.push_back(p);
  }
  if (closed && points.size() > 1 && !(points.back() == points.front())) points.push_back(points.front());
  Path path{points.front(), {}, closed};
  if (points.size() < 2) return path;
  std::vector<double> steps;
  for (std::size_t i = 0; i + 1 < points.size(); ++i) steps.push_back(distance(points[i], points[i + 1]));
  const std::vector<Point> slopes = naturalSlopes(points, steps);
  for (std::size_t i = 0; i + 1 < points.size(); ++i) {
    path.segments.push_back(Segment::cubic(points[i] + slopes[i] * (steps[i] / 3),
                                           points[i + 1] - slopes[i + 1] * (steps[i] / 3), points[i + 1]));
  }
  return path;
}

}  // namespace rim
