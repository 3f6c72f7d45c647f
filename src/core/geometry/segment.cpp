#include "core/geometry/segment.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <numbers>

#include "core/geometry/arc.h"
#include "core/geometry/golden_section.h"

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

/// The parameter of the place nearest to p between two others with one minimum between them, by Newton's method; by
/// golden sections where that does not settle, as near a cusp.
double nearestBetween(const Cubic& cubic, Point p, double low, double start, double high) {
  constexpr int kRounds = 8;
  constexpr double kSettled = 1e-10;
  double t = start;
  for (int round = 0; round < kRounds; ++round) {
    const Point off = pointOn(cubic, t) - p;
    const Point d = derivative(cubic, t);
    const double bend = dot(d, d) + dot(off, secondDerivative(cubic, t));
    if (bend <= 1e-12) break;
    const double next = std::clamp(t - dot(off, d) / bend, low, high);
    const bool settled = std::abs(next - t) < kSettled;
    t = next;
    if (settled && t > low && t < high) return t;
  }
  constexpr int kSteps = 44;
  return leastBetween(low, high, kSteps, [&](double at) { return distance(pointOn(cubic, at), p); });
}

double nearestOnCubic(const Cubic& cubic, Point p) {
  constexpr int kSteps = 24;
  std::array<double, kSteps + 1> off{};
  std::array<Point, kSteps + 1> place{};
  double least = std::numeric_limits<double>::infinity();
  double best = 0;
  for (int i = 0; i <= kSteps; ++i) {
    const auto k = static_cast<std::size_t>(i);
    place[k] = pointOn(cubic, static_cast<double>(i) / kSteps);
    off[k] = distance(place[k], p);
    if (off[k] >= least) continue;
    least = off[k];
    best = static_cast<double>(i) / kSteps;
  }
  // Between its neighbours a place that is nearer than both may hide one that is nearer than all.
  for (std::size_t i = 0; i <= kSteps; ++i) {
    const std::size_t before = i == 0 ? i : i - 1;
    const std::size_t behind = i == kSteps ? i : i + 1;
    if (off[before] < off[i] || off[behind] < off[i]) continue;
    const double room = std::max(distance(place[before], place[i]), distance(place[i], place[behind]));
    if (off[i] - room > least) continue;
    const double t = nearestBetween(cubic, p, static_cast<double>(before) / kSteps, static_cast<double>(i) / kSteps,
                                    static_cast<double>(behind) / kSteps);
    const double here = distance(pointOn(cubic, t), p);
    if (here >= least) continue;
    least = here;
    best = t;
  }
  return best;
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
