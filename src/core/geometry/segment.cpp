#include "core/geometry/segment.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

#include "core/geometry/arc.h"

namespace rim {
namespace {

double nearestOnLine(Point start, const Segment& s, Point p) {
  const Point way = s.end - start;
  const double square = dot(way, way);
  return square > 0 ? std::clamp(dot(p - start, way) / square, 0.0, 1.0) : 0;
}

double nearestOnArc(Point start, const Segment& s, Point p) {
  const Arc arc = arcFromBulge(start, s.end, s.bulge);
  const double turn = angleBetween(start - arc.centre, p - arc.centre);
  for (const double whole : {0.0, 2 * std::numbers::pi, -2 * std::numbers::pi}) {
    const double t = (turn + whole) / arc.sweep;
    if (t >= 0 && t <= 1) return t;
  }
  return distance(p, start) <= distance(p, s.end) ? 0 : 1;
}

double nearestOnCubic(const Cubic& cubic, Point p) {
  constexpr int kSteps = 24;
  constexpr int kRounds = 8;
  double best = 0;
  double least = std::numeric_limits<double>::infinity();
  for (int i = 0; i <= kSteps; ++i) {
    const double t = static_cast<double>(i) / kSteps;
    const double off = distance(pointOn(cubic, t), p);
    if (off >= least) continue;
    least = off;
    best = t;
  }
  double t = best;
  for (int round = 0; round < kRounds; ++round) {
    const Point off = pointOn(cubic, t) - p;
    const Point d = derivative(cubic, t);
    const double bend = dot(d, d) + dot(off, secondDerivative(cubic, t));
    if (bend <= 1e-12) break;
    t = std::clamp(t - dot(off, d) / bend, 0.0, 1.0);
  }
  return distance(pointOn(cubic, t), p) <= least ? t : best;
}

void includeArc(Point start, const Segment& s, Box& box) {
  const Arc a = arcFromBulge(start, s.end, s.bulge);
  const double quarter = std::acos(-1.0) / 2;
  const double from = std::min(a.startAngle, a.startAngle + a.sweep);
  const double to = std::max(a.startAngle, a.startAngle + a.sweep);
  for (double k = std::ceil(from / quarter); k * quarter <= to; ++k) {
    box.include(a.centre + Point{std::cos(k * quarter), std::sin(k * quarter)} * a.radius);
  }
}

}  // namespace

Piece pieceOf(const Path& path, std::size_t i) { return {segmentStart(path, i), path.segments[i]}; }

bool isArc(const Segment& s) { return s.kind == SegmentKind::Arc; }

Cubic cubicOf(Point start, const Segment& s) { return {start, s.handle1, s.handle2, s.end}; }

Point pointAt(Point start, const Segment& s, double t) {
  if (s.kind == SegmentKind::Cubic) return pointOn(cubicOf(start, s), t);
  if (isArc(s)) return pointOn(arcFromBulge(start, s.end, s.bulge), t);
  return lerp(start, s.end, t);
}

Point tangentAt(Point start, const Segment& s, double t) {
  if (s.kind == SegmentKind::Cubic) return tangent(cubicOf(start, s), t);
  if (isArc(s)) {
    const Arc arc = arcFromBulge(start, s.end, s.bulge);
    const Point spoke = unit(pointOn(arc, t) - arc.centre);
    return arc.sweep > 0 ? leftNormal(spoke) : -leftNormal(spoke);
  }
  return unit(s.end - start);
}

double nearestOn(Point start, const Segment& s, Point p) {
  if (s.kind == SegmentKind::Cubic) return nearestOnCubic(cubicOf(start, s), p);
  return isArc(s) ? nearestOnArc(start, s, p) : nearestOnLine(start, s, p);
}

Segment partOf(Point start, const Segment& s, double a, double b) {
  if (s.kind == SegmentKind::Cubic) {
    Cubic cubic = split(cubicOf(start, s), b).first;
    if (a > 0) cubic = split(cubic, a / b).second;
    return Segment::cubic(cubic.p1, cubic.p2, cubic.p3);
  }
  const Point end = b < 1 ? pointAt(start, s, b) : s.end;
  if (isArc(s)) return Segment::arc(end, bulgeFromSweep(4 * std::atan(s.bulge) * (b - a)));
  return Segment::line(end);
}

double lengthOf(Point start, const Segment& s) {
  if (isArc(s)) {
    const Arc a = arcFromBulge(start, s.end, s.bulge);
    return a.radius * std::abs(a.sweep);
  }
  if (s.kind == SegmentKind::Cubic) return lengthOf(cubicOf(start, s));
  return distance(start, s.end);
}

Box boxOf(Point start, const Segment& s) {
  Box box;
  box.include(start);
  box.include(s.end);
  if (isArc(s)) includeArc(start, s, box);
  if (s.kind == SegmentKind::Cubic) {
    const Cubic c = cubicOf(start, s);
    for (const double t : extremes(c)) box.include(pointOn(c, t));
  }
  return box;
}

Piece reversed(const Piece& piece) {
  const Segment& s = piece.segment;
  return {s.end, {s.kind, piece.start, s.kind == SegmentKind::Arc ? -s.bulge : 0.0, s.handle2, s.handle1}};
}

}  // namespace rim
