#include "core/geometry/path_place.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <utility>

#include "core/geometry/arc.h"
#include "core/geometry/cubic.h"

namespace rim {
namespace {

Cubic cubicOf(Point start, const Segment& s) { return {start, s.handle1, s.handle2, s.end}; }

Point pointAt(Point start, const Segment& s, double t) {
  if (s.kind == SegmentKind::Cubic) return pointOn(cubicOf(start, s), t);
  if (s.kind == SegmentKind::Arc && s.bulge != 0) return pointOn(arcFromBulge(start, s.end, s.bulge), t);
  return lerp(start, s.end, t);
}

double nearestOnLine(Point start, const Segment& s, Point p) {
  const Point way = s.end - start;
  const double square = dot(way, way);
  return square > 0 ? std::clamp(dot(p - start, way) / square, 0.0, 1.0) : 0;
}

double nearestOnArc(Point start, const Segment& s, Point p) {
  const Arc arc = arcFromBulge(start, s.end, s.bulge);
  const double turn = angleBetween(start - arc.centre, p - arc.centre);
  for (const double whole : {0.0, 2 * M_PI, -2 * M_PI}) {
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

/// The part of a segment from a to b.
Segment partOf(Point start, const Segment& s, double a, double b) {
  if (s.kind == SegmentKind::Cubic) {
    Cubic cubic = split(cubicOf(start, s), b).first;
    if (a > 0) cubic = split(cubic, a / b).second;
    return Segment::cubic(cubic.p1, cubic.p2, cubic.p3);
  }
  const Point end = b < 1 ? pointAt(start, s, b) : s.end;
  if (s.kind == SegmentKind::Arc && s.bulge != 0)
    return Segment::arc(end, bulgeFromSweep(4 * std::atan(s.bulge) * (b - a)));
  return Segment::line(end);
}

/// The bulge of the arc from start to end through a point between them.
double bulgeThrough(Point start, Point middle, Point end) {
  return bulgeFromSweep(2 * (M_PI - std::abs(angleBetween(start - middle, end - middle)))) *
         (cross(middle - start, end - middle) > 0 ? 1 : -1);
}

}  // namespace

PathPlace nearestOn(const Path& path, Point p) {
  PathPlace best;
  best.off = std::numeric_limits<double>::infinity();
  Point start = path.start;
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Segment& s = path.segments[i];
    double t = 0;
    if (s.kind == SegmentKind::Cubic) {
      t = nearestOnCubic(cubicOf(start, s), p);
    } else if (s.kind == SegmentKind::Arc && s.bulge != 0) {
      t = nearestOnArc(start, s, p);
    } else {
      t = nearestOnLine(start, s, p);
    }
    const Point place = pointAt(start, s, t);
    if (distance(place, p) < best.off) best = {i, t, place, distance(place, p)};
    start = s.end;
  }
  return best;
}

Point tangentOn(const Path& path, const PathPlace& place) {
  const Point start = segmentStart(path, place.segment);
  const Segment& s = path.segments[place.segment];
  if (s.kind == SegmentKind::Cubic) return tangent(cubicOf(start, s), place.t);
  if (s.kind == SegmentKind::Arc && s.bulge != 0) {
    const Arc arc = arcFromBulge(start, s.end, s.bulge);
    const Point spoke = unit(pointOn(arc, place.t) - arc.centre);
    return arc.sweep > 0 ? leftNormal(spoke) : -leftNormal(spoke);
  }
  return unit(s.end - start);
}

Path stretchOf(const Path& path, const PathPlace& from, const PathPlace& to) {
  const std::size_t n = path.segments.size();
  const bool over = std::pair(to.segment, to.t) <= std::pair(from.segment, from.t);
  const std::size_t last = to.segment + (over ? n : 0);
  constexpr double kShortest = 1e-9;
  Path stretch{from.place, {}, false};
  for (std::size_t i = from.segment; i <= last; ++i) {
    const double a = i == from.segment ? from.t : 0;
    const double b = i == last ? to.t : 1;
    if (b - a <= kShortest) continue;
    stretch.segments.push_back(partOf(segmentStart(path, i % n), path.segments[i % n], a, b));
  }
  if (stretch.segments.empty()) stretch.segments.push_back(Segment::line(to.place));
  return stretch;
}

Path withEnds(Path path, Point start, Point end) {
  Segment& first = path.segments.front();
  if (first.kind == SegmentKind::Arc && first.bulge != 0) {
    first.bulge = bulgeThrough(start, pointAt(path.start, first, 0.5), first.end);
  }
  if (first.kind == SegmentKind::Cubic) first.handle1 = first.handle1 + (start - path.start);
  path.start = start;
  Segment& last = path.segments.back();
  const Point before = segmentStart(path, path.segments.size() - 1);
  if (last.kind == SegmentKind::Arc && last.bulge != 0)
    last.bulge = bulgeThrough(before, pointAt(before, last, 0.5), end);
  if (last.kind == SegmentKind::Cubic) last.handle2 = last.handle2 + (end - last.end);
  last.end = end;
  return path;
}

}  // namespace rim
