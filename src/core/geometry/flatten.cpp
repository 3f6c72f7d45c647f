#include "core/geometry/flatten.h"

#include "core/geometry/arc.h"
#include "core/geometry/cubic.h"

namespace rim {
namespace {

void addArc(Point start, const Segment& s, double chordError, std::vector<Point>& points) {
  const Arc a = arcFromBulge(start, s.end, s.bulge);
  // A chord over the angle w leaves the circle by r (1 - cos(w / 2)).
  const double cosine = std::max(-0.5, 1 - chordError / std::max(a.radius, chordError));
  const double step = 2 * std::acos(cosine);
  const int steps = static_cast<int>(std::clamp(std::ceil(std::abs(a.sweep) / step), 1.0, 10000.0));
  for (int i = 1; i < steps; ++i) points.push_back(pointOn(a, static_cast<double>(i) / steps));
}

void addCubic(Point start, const Segment& s, double chordError, std::vector<Point>& points) {
  const Cubic c{start, s.handle1, s.handle2, s.end};
  const int steps = chordSteps(c, chordError);
  for (int i = 1; i < steps; ++i) points.push_back(pointOn(c, static_cast<double>(i) / steps));
}

}  // namespace

std::vector<Point> flatten(const Path& path, double chordError) {
  std::vector<Point> points{path.start};
  Point from = path.start;
  for (const Segment& s : path.segments) {
    if (s.kind == SegmentKind::Arc) addArc(from, s, chordError, points);
    if (s.kind == SegmentKind::Cubic) addCubic(from, s, chordError, points);
    points.push_back(s.end);
    from = s.end;
  }
  if (path.closed && points.size() > 1) points.pop_back();
  return points;
}

}  // namespace rim
