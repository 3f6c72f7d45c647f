#include "core/geometry/curve_form.h"

#include <numbers>

#include "core/geometry/arc.h"
#include "core/geometry/arc_spline.h"
#include "core/geometry/cubic.h"
#include "core/geometry/flatten.h"

namespace rim {
namespace {

Path asLines(const Path& path, double tolerance) {
  const std::vector<Point> points = flatten(path, tolerance);
  Path out{points.front(), {}, path.closed};
  for (std::size_t i = 1; i < points.size(); ++i) out.segments.push_back(Segment::line(points[i]));
  if (path.closed && points.size() > 1) out.segments.push_back(Segment::line(points.front()));
  return out;
}

}  // namespace

Path inForm(const Path& path, CurveForm form, double tolerance) {
  if (form == CurveForm::Lines) return asLines(path, tolerance);
  Path out{path.start, {}, path.closed};
  Point from = path.start;
  for (const Segment& s : path.segments) {
    if (form == CurveForm::Beziers && s.kind == SegmentKind::Arc) {
      const std::vector<Segment> cubics = cubicsFromArc(from, s, tolerance);
      out.segments.insert(out.segments.end(), cubics.begin(), cubics.end());
    } else if (form == CurveForm::Arcs && s.kind == SegmentKind::Cubic) {
      const std::vector<Segment> arcs = arcsFromCubic({from, s.handle1, s.handle2, s.end}, tolerance);
      out.segments.insert(out.segments.end(), arcs.begin(), arcs.end());
    } else {
      out.segments.push_back(s);
    }
    from = s.end;
  }
  return out;
}

Path inQuarters(const Path& path) {
  Path out{path.start, {}, path.closed};
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Segment& s = path.segments[i];
    constexpr double kQuarter = std::numbers::pi / 2 + 1e-9;
    const double sweep = s.kind == SegmentKind::Arc ? 4 * std::atan(s.bulge) : 0;
    const auto parts = static_cast<int>(std::max(1.0, std::ceil(std::abs(sweep) / kQuarter)));
    if (parts == 1) {
      out.segments.push_back(s);
      continue;
    }
    const Arc arc = arcFromBulge(segmentStart(path, i), s.end, s.bulge);
    for (int k = 1; k <= parts; ++k)
      out.segments.push_back(Segment::arc(k == parts ? s.end : pointOn(arc, static_cast<double>(k) / parts),
                                          bulgeFromSweep(sweep / parts)));
  }
  return out;
}

}  // namespace rim
