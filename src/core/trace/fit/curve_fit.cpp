#include "core/trace/fit/curve_fit.h"

#include <Eigen/Cholesky>
#include <array>

namespace rim::trace::fit {
namespace {

constexpr int kRoundsAlong = 2;         // whole distances at parameters that are still rough
constexpr int kRoundsAcross = 6;        // distances across the curve only
constexpr double kSettledPx = 0.01;     // handles that move by less are where they should be
constexpr double kSettledShare = 0.98;  // and those that leave more than this share of the misfit of before
/// Where a curve is cut is vague: points a little beyond its ends are compared with it prolonged.
constexpr double kBeyond = 0.15;
constexpr double kShortestHandle = 0.01;  // of the chord's third

using Matrix = Eigen::Matrix<double, 4, 4>;
using Vector = Eigen::Matrix<double, 4, 1>;

/// The columns are what is sought, as directions of both handles (x and y of the first, then of the last one): all
/// four, or one along a tangent, beside which a column is left empty.
Matrix directionsOf(const CurveEnds& ends) {
  Matrix directions = Matrix::Identity();
  const auto keepTo = [&directions](Eigen::Index handle, Point direction) {
    directions.block<2, 2>(handle, handle) << direction.x, 0, direction.y, 0;
  };
  if (ends.startTangent) keepTo(0, *ends.startTangent);
  if (ends.endTangent) keepTo(2, -*ends.endTangent);
  return directions;
}

/// Weighted sums of an axis times itself.
struct AxisSums {
  double xx = 0, xy = 0, yy = 0;
  void add(Point axis, double weight) {
    xx += weight * axis.x * axis.x;
    xy += weight * axis.x * axis.y;
    yy += weight * axis.y * axis.y;
  }
  Eigen::Matrix2d matrix() const { return (Eigen::Matrix2d() << xx, xy, xy, yy).finished(); }
};

/// The normal equations of both handles.
class Equations {
 public:
  /// A point is to lie `rest` off what the ends alone make of its parameter, as far as that is seen along an axis of
  /// any length.
  void add(Point axis, double first, double last, Point rest) {
    const double square = dot(axis, axis);
    const double perSquare = square > 0 ? 1 / square : 0;
    firsts_.add(axis, first * first * perSquare);
    both_.add(axis, first * last * perSquare);
    lasts_.add(axis, last * last * perSquare);
    const Point off = axis * (dot(rest, axis) * perSquare);
    first_ = first_ + off * first;
    last_ = last_ + off * last;
  }

  Matrix normal() const {
    Matrix normal;
    normal << firsts_.matrix(), both_.matrix(), both_.matrix(), lasts_.matrix();
    return normal;
  }
  Vector right() const { return {first_.x, first_.y, last_.x, last_.y}; }

 private:
  AxisSums firsts_, both_, lasts_;
  Point first_, last_;
};

/// The cubic whose handles give the least squares at these parameters; `across`: only the part of
/// each distance counts that lies across the curve.
Cubic leastSquares(const CurveEnds& ends, const Matrix& directions, const Cubic& now, std::span<const Point> points,
                   std::span<const double> parameters, bool across) {
  const CubicPolynomial curve(now);
  Equations equations;
  for (std::size_t i = 0; i < points.size(); ++i) {
    const double t = parameters[i];
    const double s = 1 - t;
    const double b1 = 3 * s * s * t;
    const double b2 = 3 * s * t * t;
    const Point rest = points[i] - ends.start * (s * s * s + b1) - ends.end * (b2 + t * t * t);
    if (across) {
      equations.add(leftNormal(curve.derivative(t)), b1, b2, rest);
    } else {
      equations.add({1, 0}, b1, b2, rest);
      equations.add({0, 1}, b1, b2, rest);
    }
  }
  Matrix normal = directions.transpose() * equations.normal() * directions;
  // A little towards what is: along the curve its handles are free to slide.
  const double hold = 3e-3 * normal.trace() + 1e-12;
  normal.diagonal().array() += hold;
  const Point first = now.p1 - ends.start;
  const Point last = now.p2 - ends.end;
  const Vector right = directions.transpose() * (equations.right() + hold * Vector(first.x, first.y, last.x, last.y));
  const Vector handles = directions * normal.ldlt().solve(right);
  return {ends.start, ends.start + Point{handles(0), handles(1)}, ends.end + Point{handles(2), handles(3)}, ends.end};
}

bool isSensible(const Cubic& cubic, const CurveEnds& ends, double way) {
  const double first = length(cubic.p1 - cubic.p0);
  const double second = length(cubic.p3 - cubic.p2);
  const double least = kShortestHandle * distance(ends.start, ends.end) / 3;
  if (!(first > least && second > least && first < way && second < way)) return false;
  if (ends.startTangent && dot(cubic.p1 - cubic.p0, *ends.startTangent) <= 0) return false;
  if (ends.endTangent && dot(cubic.p3 - cubic.p2, *ends.endTangent) <= 0) return false;
  return !hooks(cubic);
}

/// Parameters by the way along the points, as a beginning.
std::vector<double> chordParameters(Point start, Point end, std::span<const Point> points) {
  std::vector<double> t;
  t.reserve(points.size());
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

double meanSquareOf(const Cubic& cubic, std::span<const Point> points, std::span<const double> parameters) {
  const CubicPolynomial curve(cubic);
  double sum = 0;
  for (std::size_t i = 0; i < points.size(); ++i) {
    const Point off = curve.at(parameters[i]) - points[i];
    sum += dot(off, off);
  }
  return points.empty() ? 0 : sum / static_cast<double>(points.size());
}

}  // namespace

bool hooks(const Cubic& c) {
  constexpr double kMostTurning = 3.5;
  constexpr double kMostOffChord = 2.1;
  const Point chord = c.p3 - c.p0;
  const Point first = c.p1 - c.p0;
  const Point middle = c.p2 - c.p1;
  const Point last = c.p3 - c.p2;
  // A Bezier curve turns no more than its control polygon, which turns by 180 degrees at most here: most curves are
  // seen to be sensible without an angle.
  const bool turnsLittle = dot(first, middle) >= 0 && dot(middle, last) >= 0;
  if (turnsLittle && dot(chord, first) >= 0 && dot(chord, last) >= 0) return false;
  const auto offChord = [chord](Point leg) {
    return leg == Point{} || chord == Point{} ? 0 : std::abs(angleBetween(chord, leg));
  };
  return offChord(first) > kMostOffChord || offChord(last) > kMostOffChord || turningOf(c) > kMostTurning;
}

void improveParameters(const Cubic& cubic, std::span<const Point> points, std::span<double> parameters) {
  const CubicPolynomial curve(cubic);
  for (std::size_t i = 0; i < points.size(); ++i) {
    double& t = parameters[i];
    const Point off = curve.at(t) - points[i];
    const Point d = curve.derivative(t);
    const double bend = dot(d, d) + dot(off, curve.secondDerivative(t));
    if (bend > 1e-12) t = std::clamp(t - dot(off, d) / bend, -kBeyond, 1 + kBeyond);
  }
}

std::vector<double> nearestParameters(const Cubic& cubic, std::span<const Point> points) {
  constexpr std::size_t kSamples = 32;
  std::array<Point, kSamples + 1> samples;
  for (std::size_t k = 0; k <= kSamples; ++k)
    samples[k] = pointOn(cubic, static_cast<double>(k) / static_cast<double>(kSamples));
  std::vector<double> parameters;
  parameters.reserve(points.size());
  std::size_t nearest = 0;
  for (const Point p : points) {
    const auto square = [&](std::size_t k) { return dot(samples[k] - p, samples[k] - p); };
    if (parameters.empty()) {
      for (std::size_t k = 1; k <= kSamples; ++k) nearest = square(k) < square(nearest) ? k : nearest;
    }
    // Neighbouring points lie beside neighbouring samples.
    while (nearest < kSamples && square(nearest + 1) < square(nearest)) ++nearest;
    while (nearest > 0 && square(nearest - 1) < square(nearest)) --nearest;
    parameters.push_back(static_cast<double>(nearest) / static_cast<double>(kSamples));
  }
  constexpr int kRounds = 3;
  for (int round = 0; round < kRounds; ++round) improveParameters(cubic, points, parameters);
  return parameters;
}

std::optional<CurveFit> fitCubic(const CurveEnds& ends, std::span<const Point> points) {
  std::vector<double> parameters = chordParameters(ends.start, ends.end, points);
  double way = distance(ends.start, points.empty() ? ends.end : points.front());
  for (std::size_t i = 0; i < points.size(); ++i)
    way += distance(points[i], i + 1 < points.size() ? points[i + 1] : ends.end);
  const Matrix directions = directionsOf(ends);
  const Point third = (ends.end - ends.start) * (1.0 / 3);
  CurveFit fit{{ends.start, ends.start + third, ends.end - third, ends.end}, 0, 0};
  for (int round = 0; round < kRoundsAlong + kRoundsAcross; ++round) {
    const CurveFit before = fit;
    fit.cubic = leastSquares(ends, directions, before.cubic, points, parameters, round >= kRoundsAlong);
    improveParameters(fit.cubic, points, parameters);
    fit.meanSquare = meanSquareOf(fit.cubic, points, parameters);
    const double moved = distance(before.cubic.p1, fit.cubic.p1) + distance(before.cubic.p2, fit.cubic.p2);
    if (round > kRoundsAlong && (moved < kSettledPx || fit.meanSquare > kSettledShare * before.meanSquare)) break;
  }
  if (!isSensible(fit.cubic, ends, way)) return std::nullopt;
  double before = 0;
  for (std::size_t i = 0; i < points.size(); ++i) {
    // Points are in order; a curve on which they are not loops or turns back.
    if (parameters[i] < before - 0.02) return std::nullopt;
    before = parameters[i];
    const double off = distance(pointOn(fit.cubic, parameters[i]), points[i]);
    fit.largest = std::max(fit.largest, off);
  }
  return fit;
}

}  // namespace rim::trace::fit
