#include "core/geometry/path_place.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <utility>

#include "core/geometry/arc.h"
#include "core/geometry/segment.h"

namespace rim {
PathPlace startPlace(const Path& path) { return {0, 0, path.start, 0}; }

PathPlace endPlace(const Path& path) { return {path.segments.size() - 1, 1, path.segments.back().end, 0}; }

PathPlace nearestOn(const Path& path, Point p) {
  PathPlace best;
  best.off = std::numeric_limits<double>::infinity();
  Point start = path.start;
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Segment& s = path.segments[i];
    const double t = nearestOn(start, s, p);
    const Point place = pointAt(start, s, t);
    if (distance(place, p) < best.off) best = {i, t, place, distance(place, p)};
    start = s.end;
  }
  return best;
}

Point tangentOn(const Path& path, const PathPlace& place) {
  return tangentAt(segmentStart(path, place.segment), path.segments[place.segment], place.t);
}

Path stretchOf(const Path& path, const PathPlace& from, const PathPlace& to) {
  const std::size_t n = path.segments.size();
  const bool over = !isBefore(from, to);
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
  if (isArc(first)) first = Segment::arc(first.end, bulgeThrough(start, pointAt(path.start, first, 0.5), first.end));
  if (first.kind == SegmentKind::Cubic) first.handle1 = first.handle1 + (start - path.start);
  path.start = start;
  Segment& last = path.segments.back();
  const Point before = segmentStart(path, path.segments.size() - 1);
  if (isArc(last)) last = Segment::arc(last.end, bulgeThrough(before, pointAt(before, last, 0.5), end));
  if (last.kind == SegmentKind::Cubic) last.handle2 = last.handle2 + (end - last.end);
  last.end = end;
  return path;
}

}  // namespace rim
