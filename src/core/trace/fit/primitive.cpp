#include "core/trace/fit/primitive.h"

#include "core/trace/fit/moments.h"

namespace rim::trace::fit {
namespace {

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

}  // namespace

Primitive fitLine(std::span<const Point> points) {
  const Moments m = momentsOf(points);
  const double angle = std::atan2(2 * m.xy, m.xx - m.yy) / 2;
  Point direction{std::cos(angle), std::sin(angle)};
  if (dot(direction, points.back() - points.front()) < 0) direction = -direction;
  return {Primitive::Kind::Line, m.mean, direction, 0};
}

std::optional<Primitive> fitCircle(std::span<const Point> points) {
  if (points.size() < 3) return std::nullopt;
  const auto circle = circleFrom(momentsOf(points));
  if (!circle) return std::nullopt;
  double turn = 0;  // twice the area that the spokes sweep over
  for (std::size_t i = 1; i < points.size(); ++i)
    turn += cross(points[i - 1] - circle->centre, points[i] - points[i - 1]);
  return Primitive{Primitive::Kind::Circle, circle->centre, {}, turn < 0 ? -circle->radius : circle->radius};
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

}  // namespace rim::trace::fit
