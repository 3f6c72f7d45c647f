#include "core/geometry/outermost.h"

#include <numbers>

#include "core/geometry/arc.h"
#include "core/geometry/cubic.h"

namespace rim {
namespace {

constexpr double kCubicOffArc = 4e-4;
constexpr double kLeastShare = 1e-6;  // of a segment: a nearer extreme is its end

/// Whether the curve goes on beyond its ends at p by so little that p needs no node.
bool hardlyBeyond(Point p, Point start, Point end, double reach) {
  constexpr double kShareOfReach = 0.01;
  const auto beyond = [p](Point q) { return std::min(std::abs(p.x - q.x), std::abs(p.y - q.y)); };
  return std::min(beyond(start), beyond(end)) < kShareOfReach * reach;
}

bool touches(const Box& box, Point p, double reach) {
  return p.x < box.low.x + reach || p.x > box.high.x - reach || p.y < box.low.y + reach || p.y > box.high.y - reach;
}

void addArc(Point start, const Segment& s, const Box& box, double reach, std::vector<Segment>& out) {
  constexpr double kQuarter = std::numbers::pi / 2;
  const Arc arc = arcFromBulge(start, s.end, s.bulge);
  const double sign = arc.sweep < 0 ? -1 : 1;
  double done = 0;
  // Quarter turns in running order, counted from the angle where the arc starts.
  for (double k = std::floor(sign * arc.startAngle / kQuarter) + 1;; ++k) {
    const double share = (k * kQuarter - sign * arc.startAngle) / std::abs(arc.sweep);
    // Turned round: a share that is no number ends the loop, too.
    if (!(share < 1 - kLeastShare)) break;
    const Point p = pointOn(arc, share);
    if (share < kLeastShare || !touches(box, p, reach + kCubicOffArc * arc.radius)) continue;
    if (hardlyBeyond(p, start, s.end, reach)) continue;
    out.push_back(Segment::arc(p, bulgeFromSweep(arc.sweep * (share - done))));
    done = share;
  }
  out.push_back(Segment::arc(s.end, bulgeFromSweep(arc.sweep * (1 - done))));
}

void addCubic(Point start, const Segment& s, const Box& box, double reach, std::vector<Segment>& out) {
  Cubic rest{start, s.handle1, s.handle2, s.end};
  double done = 0;
  for (const double t : extremes(rest)) {
    if (t < done + kLeastShare || t > 1 - kLeastShare) continue;
    const auto [part, after] = split(rest, (t - done) / (1 - done));
    if (!touches(box, part.p3, reach) || hardlyBeyond(part.p3, start, s.end, reach)) continue;
    out.push_back(Segment::cubic(part.p1, part.p2, part.p3));
    rest = after;
    done = t;
  }
  out.push_back(Segment::cubic(rest.p1, rest.p2, s.end));
}

}  // namespace

Path withOutermostNodes(const Path& path, const Box& box, double reach, CurveForm form) {
  Path out{path.start, {}, path.closed};
  Point from = path.start;
  for (const Segment& s : path.segments) {
    if (s.kind == SegmentKind::Arc && form != CurveForm::Arcs) {
      addArc(from, s, box, reach, out.segments);
    } else if (s.kind == SegmentKind::Cubic && form != CurveForm::Beziers) {
      addCubic(from, s, box, reach, out.segments);
    } else {
      out.segments.push_back(s);
    }
    from = s.end;
  }
  return out;
}

}  // namespace rim
