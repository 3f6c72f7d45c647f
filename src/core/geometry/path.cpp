#include "core/geometry/path.h"

#include <algorithm>

#include "core/geometry/arc.h"
#include "core/geometry/segment.h"

namespace rim {
namespace {

/// Green's theorem: the part of 1/2 (x dy - y dx) that the segment adds.
double areaUnder(Point start, const Segment& s) {
  const double chordPart = cross(start, s.end) / 2;
  if (isArc(s)) {
    const Arc a = arcFromBulge(start, s.end, s.bulge);
    return chordPart + a.radius * a.radius * (a.sweep - std::sin(a.sweep)) / 2;
  }
  if (s.kind == SegmentKind::Cubic) {
    const Point a = s.handle1 - start;
    const Point b = s.handle2 - start;
    const Point c = s.end - start;
    return chordPart + (3 * cross(a, b) + 3 * cross(a, c) + 6 * cross(b, c)) / 20;
  }
  return chordPart;
}

}  // namespace

Point segmentStart(const Path& path, std::size_t i) { return i == 0 ? path.start : path.segments[i - 1].end; }

Point endOf(const Path& path) { return path.segments.empty() ? path.start : path.segments.back().end; }

void lineOnTo(Path& path, Point to) {
  constexpr double kThere = 1e-9;
  if (distance(endOf(path), to) > kThere) path.segments.push_back(Segment::line(to));
}

Point startTangent(Point start, const Segment& s) {
  if (s.kind == SegmentKind::Cubic) return tangent(cubicOf(start, s), 0);
  const Point chord = unit(s.end - start);
  if (s.kind == SegmentKind::Line) return chord;
  const double half = -2 * std::atan(s.bulge);
  return chord * std::cos(half) + leftNormal(chord) * std::sin(half);
}

Point endTangent(Point start, const Segment& s) {
  if (s.kind == SegmentKind::Cubic) return tangent(cubicOf(start, s), 1);
  const Point chord = unit(s.end - start);
  if (s.kind == SegmentKind::Line) return chord;
  const double half = 2 * std::atan(s.bulge);
  return chord * std::cos(half) + leftNormal(chord) * std::sin(half);
}

std::size_t nodeCount(const Path& path) { return path.segments.size() + (path.closed ? 0 : 1); }

double signedArea(const Path& path) {
  // Measured from the start, so that places far from the origin do not cost digits.
  double area = 0;
  const Path near = scaled(path, 1, -path.start);
  Point from = near.start;
  for (const Segment& s : near.segments) {
    area += areaUnder(from, s);
    from = s.end;
  }
  return area + cross(from, near.start) / 2;
}

double pathLength(const Path& path) {
  double sum = 0;
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    sum += lengthOf(segmentStart(path, i), path.segments[i]);
  }
  return sum;
}

Box boxOf(const Path& path) {
  Box box;
  box.include(path.start);
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    box.include(boxOf(segmentStart(path, i), path.segments[i]));
  }
  return box;
}

void append(Path& path, const Path& more) {
  path.segments.insert(path.segments.end(), more.segments.begin(), more.segments.end());
}

Path reversed(const Path& path) {
  Path back;
  back.closed = path.closed;
  back.start = endOf(path);
  for (std::size_t i = path.segments.size(); i-- > 0;) {
    back.segments.push_back(reversed(pieceOf(path, i)).segment);
  }
  return back;
}

Path begunAt(Path closed, std::size_t node) {
  closed.start = segmentStart(closed, node);
  std::rotate(closed.segments.begin(), closed.segments.begin() + static_cast<std::ptrdiff_t>(node),
              closed.segments.end());
  return closed;
}

Path polygonThrough(const std::vector<Point>& corners) {
  Path path{corners.front(), {}, true};
  for (std::size_t i = 1; i < corners.size(); ++i) path.segments.push_back(Segment::line(corners[i]));
  path.segments.push_back(Segment::line(corners.front()));
  return path;
}

Path scaled(const Path& path, double factor, Point offset) {
  const auto map = [factor, offset](Point p) { return p * factor + offset; };
  Path out{map(path.start), {}, path.closed};
  out.segments.reserve(path.segments.size());
  for (const Segment& s : path.segments) {
    Segment t = s;
    t.end = map(s.end);
    if (s.kind == SegmentKind::Cubic) {
      t.handle1 = map(s.handle1);
      t.handle2 = map(s.handle2);
    }
    out.segments.push_back(t);
  }
  return out;
}

}  // namespace rim
