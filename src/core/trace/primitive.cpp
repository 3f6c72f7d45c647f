#include "core/trace/primitive.h"

namespace rim {
namespace {

Point meanOf(std::span<const Point> points) {
  Point sum;
  for (const Point p : points) sum = sum + p;
  return sum * (1.0 / static_cast<double>(points.size()));
}

double signedDistance(const Primitive& primitive, Point p) {
  if (primitive.kind == Primitive::Kind::Line) return cross(primitive.direction, p - primitive.place);
  return distance(primitive.place, p) - std::abs(primitive.radius);
}

std::optional<Point> meetLines(const Primitive& a, const Primitive& b) {
  const double bend = cross(a.direction, b.direction);
  if (std::abs(bend) < 1e-9) return std::nullopt;
  return a.place + a.direction * (cross(b.place - a.place, b.direction) / bend);
}

Point nearer(Point p, Point q, Point near) { return distance(p, near) <= distance(q, near) ? p : q; }

std::optional<Point> meetLineCircle(const Primitive& line, const Primitive& circle, Point near) {
  const Point foot = project(line, circle.place);
  const double off = distance(foot, circle.place);
  const double under = circle.radius * circle.radius - off * off;
  if (under < 0) return std::nullopt;
  const Point half = line.direction * std::sqrt(under);
  return nearer(foot - half, foot + half, near);
}

std::optional<Point> meetCircles(const Primitive& a, const Primitive& b, Point near) {
  const double d = distance(a.place, b.place);
  if (d < 1e-9) return std::nullopt;
  const double along = (d * d + a.radius * a.radius - b.radius * b.radius) / (2 * d);
  const double under = a.radius * a.radius - along * along;
  if (under < 0) return std::nullopt;
  const Point axis = unit(b.place - a.place);
  const Point foot = a.place + axis * along;
  const Point half = leftNormal(axis) * std::sqrt(under);
  return nearer(foot - half, foot + half, near);
}

/// Sums over centred points, z = x^2 + y^2, each divided by their number.
struct Moments {
  double xx = 0, yy = 0, xy = 0, xz = 0, yz = 0, zz = 0;
};

Moments momentsOf(std::span<const Point> points, Point mean) {
  Moments m;
  for (const Point p : points) {
    const Point q = p - mean;
    const double z = dot(q, q);
    m.xx += q.x * q.x;
    m.yy += q.y * q.y;
    m.xy += q.x * q.y;
    m.xz += q.x * z;
    m.yz += q.y * z;
    m.zz += z * z;
  }
  const double k = 1.0 / static_cast<double>(points.size());
  return {m.xx * k, m.yy * k, m.xy * k, m.xz * k, m.yz * k, m.zz * k};
}

/// The smallest root of Taubin's characteristic polynomial, by Newton's method from 0.
double taubinRoot(const Moments& m) {
  const double mz = m.xx + m.yy;
  const double covariance = m.xx * m.yy - m.xy * m.xy;
  const double varianceZ = m.zz - mz * mz;
  const double a3 = 4 * mz;
  const double a2 = -3 * mz * mz - m.zz;
  const double a1 = varianceZ * mz + 4 * covariance * mz - m.xz * m.xz - m.yz * m.yz;
  const double a0 = m.xz * (m.xz * m.yy - m.yz * m.xy) + m.yz * (m.yz * m.xx - m.xz * m.xy) - varianceZ * covariance;
  double x = 0;
  double y = a0;
  for (int i = 0; i < 20; ++i) {
    const double slope = a1 + x * (2 * a2 + 3 * a3 * x);
    const double next = x - y / slope;
    if (next == x || !std::isfinite(next)) break;
    const double value = a0 + next * (a1 + next * (a2 + next * a3));
    if (std::abs(value) >= std::abs(y)) break;
    x = next;
    y = value;
  }
  return x;
}

}  // namespace

Primitive fitLine(std::span<const Point> points) {
  const Point mean = meanOf(points);
  const Moments m = momentsOf(points, mean);
  const double angle = std::atan2(2 * m.xy, m.xx - m.yy) / 2;
  Point direction{std::cos(angle), std::sin(angle)};
  if (dot(direction, points.back() - points.front()) < 0) direction = -direction;
  return {Primitive::Kind::Line, mean, direction, 0};
}

std::optional<Primitive> fitCircle(std::span<const Point> points) {
  if (points.size() < 3) return std::nullopt;
  const Point mean = meanOf(points);
  const Moments m = momentsOf(points, mean);
  const double mz = m.xx + m.yy;
  const double x = taubinRoot(m);
  const double determinant = x * x - x * mz + m.xx * m.yy - m.xy * m.xy;
  if (std::abs(determinant) < 1e-12 * mz * mz) return std::nullopt;
  const Point centre{(m.xz * (m.yy - x) - m.yz * m.xy) / determinant / 2,
                     (m.yz * (m.xx - x) - m.xz * m.xy) / determinant / 2};
  double radius = std::sqrt(dot(centre, centre) + mz);
  if (!std::isfinite(radius) || radius > 1e6) return std::nullopt;
  double turn = 0;
  for (std::size_t i = 1; i < points.size(); ++i) {
    turn += angleBetween(points[i - 1] - mean - centre, points[i] - mean - centre);
  }
  if (turn < 0) radius = -radius;
  return Primitive{Primitive::Kind::Circle, mean + centre, {}, radius};
}

Deviation deviationOf(const Primitive& primitive, std::span<const Point> points) {
  Deviation deviation;
  for (const Point p : points) {
    const double d = signedDistance(primitive, p);
    deviation.largest = std::max(deviation.largest, std::abs(d));
    deviation.meanSquare += d * d;
  }
  deviation.meanSquare /= static_cast<double>(std::max<std::size_t>(1, points.size()));
  return deviation;
}

Point project(const Primitive& primitive, Point p) {
  if (primitive.kind == Primitive::Kind::Line) {
    return primitive.place + primitive.direction * dot(p - primitive.place, primitive.direction);
  }
  return primitive.place + unit(p - primitive.place) * std::abs(primitive.radius);
}

Point tangentAt(const Primitive& primitive, Point p) {
  if (primitive.kind == Primitive::Kind::Line) return primitive.direction;
  return leftNormal(unit(p - primitive.place)) * (primitive.radius < 0 ? -1.0 : 1.0);
}

std::optional<Point> meetingPoint(const Primitive& a, const Primitive& b, Point near) {
  const bool lineA = a.kind == Primitive::Kind::Line;
  const bool lineB = b.kind == Primitive::Kind::Line;
  if (lineA && lineB) return meetLines(a, b);
  if (lineA) return meetLineCircle(a, b, near);
  if (lineB) return meetLineCircle(b, a, near);
  return meetCircles(a, b, near);
}

}  // namespace rim
