#include "core/mend/repair/meet.h"

#include <algorithm>
#include <numbers>
#include <optional>

#include "core/geometry/arc.h"
#include "core/geometry/intersect.h"
#include "core/geometry/path_place.h"

namespace rim::mend {
namespace {

constexpr double kLeastCorner = 5 * std::numbers::pi / 180;

/// The same segment from or to another end: see withEnds.
Piece withEnd(const Piece& piece, Point end) {
  const Path moved = withEnds({piece.start, {piece.segment}, false}, piece.start, end);
  return {moved.start, moved.segments.front()};
}
Piece withStart(const Piece& piece, Point start) {
  const Path moved = withEnds({piece.start, {piece.segment}, false}, start, piece.segment.end);
  return {moved.start, moved.segments.front()};
}

/// What a segment lies on when it is lengthened at an end: a circle, or a straight line.
struct Carrier {
  bool circle = false;
  Point at;     // centre, or a point of the line
  Point along;  // of the line
  double radius = 0;
};

Carrier carrierOf(const Piece& piece, bool atEnd) {
  if (isArc(piece.segment)) {
    const Arc arc = arcFromBulge(piece.start, piece.segment.end, piece.segment.bulge);
    return {true, arc.centre, {}, arc.radius};
  }
  return {false, atEnd ? piece.segment.end : piece.start, tangentAt(piece, atEnd ? 1 : 0), 0};
}

std::vector<Point> meetingsOf(const Carrier& a, const Carrier& b) {
  if (a.circle && b.circle) return circlesMeet(a.at, a.radius, b.at, b.radius);
  if (a.circle) return lineMeetsCircle(b.at, b.along, a.at, a.radius);
  if (b.circle) return lineMeetsCircle(a.at, a.along, b.at, b.radius);
  const double bend = cross(a.along, b.along);
  if (std::abs(bend) < 1e-9) return {};
  return {a.at + a.along * (cross(b.at - a.at, b.along) / bend)};
}

/// The piece lengthened or cut back to end at p, a place on its carrier; none when nothing would be left of it, or an
/// arc would go round too far. A cubic takes a straight end: `tail`.
struct Reached {
  Segment segment;
  std::optional<Segment> tail;
};

std::optional<Reached> reaching(const Piece& piece, Point p) {
  if (piece.segment.kind == SegmentKind::Cubic) {
    if (dot(p - piece.segment.end, tangentAt(piece, 1)) < 0) return {};
    return Reached{piece.segment, p == piece.segment.end ? std::nullopt : std::optional(Segment::line(p))};
  }
  if (!isArc(piece.segment)) {
    if (dot(p - piece.start, piece.segment.end - piece.start) <= 0) return {};
    return Reached{Segment::line(p), {}};
  }
  const Arc arc = arcFromBulge(piece.start, piece.segment.end, piece.segment.bulge);
  double sweep = arc.sweep + angleBetween(piece.segment.end - arc.centre, p - arc.centre);
  constexpr double kMostSweep = 1.9 * std::numbers::pi;
  if (sweep * arc.sweep <= 0 || std::abs(sweep) > kMostSweep) return {};
  return Reached{Segment::arc(p, bulgeFromSweep(sweep)), {}};
}

/// Both brought to p.
std::optional<Joint> jointAt(const Piece& before, const Piece& after, Point p) {
  const auto first = reaching(before, p);
  const auto second = reaching(reversed(after), p);
  if (!first || !second) return {};
  Joint joint;
  joint.before = first->segment;
  if (first->tail) joint.between.push_back(*first->tail);
  if (second->tail) {
    joint.between.push_back(Segment::line(after.start));
    joint.after = after.segment;
  } else {
    joint.after = reversed({reversed(after).start, second->segment}).segment;
  }
  return joint;
}

/// Cut back to where both cross, the crossing that takes least away.
std::optional<Joint> cutBack(const Piece& before, const Piece& after, double mostMm) {
  std::optional<Meeting> best;
  double least = mostMm;
  const double sizeBefore = lengthOf(before);
  const double sizeAfter = lengthOf(after);
  for (const Meeting& m : meetings(before, after)) {
    const double away = std::max((1 - m.t) * sizeBefore, m.u * sizeAfter);
    if (away > least || m.t <= 0 || m.u >= 1) continue;
    least = away;
    best = m;
  }
  if (!best) return {};
  Joint joint;
  joint.before = partOf(before.start, before.segment, 0, best->t);
  joint.before.end = best->place;
  joint.after = best->u > 0 ? partOf(after.start, after.segment, best->u, 1) : after.segment;
  return joint;
}

std::optional<Joint> meet(const Piece& before, const Piece& after, double mostMm) {
  if (auto cut = cutBack(before, after, mostMm)) return cut;
  std::optional<Point> best;
  double least = mostMm;
  for (const Point p : meetingsOf(carrierOf(before, true), carrierOf(after, false))) {
    const double away = std::max(distance(p, before.segment.end), distance(p, after.start));
    if (away > least) continue;
    least = away;
    best = p;
  }
  return best ? jointAt(before, after, *best) : std::nullopt;
}

Segment bridge(const Piece& before, const Piece& after) {
  const Point from = before.segment.end;
  const Point to = after.start;
  const Point d1 = tangentAt(before, 1);
  const Point d2 = tangentAt(after, 0);
  const Point way = to - from;
  constexpr double kStraight = 0.02;
  const bool straight = std::abs(angleBetween(d1, way)) < kStraight && std::abs(angleBetween(d2, way)) < kStraight;
  const bool forward = dot(d1, way) > 0 && dot(d2, way) > 0;
  if (straight || !forward) return Segment::line(to);
  const double third = length(way) / 3;
  return Segment::cubic(from + d1 * third, to - d2 * third, to);
}

}  // namespace

Joint joint(const Piece& before, const Piece& after, const MendSettings& settings) {
  const Point from = before.segment.end;
  const Point to = after.start;
  if (from == to) return {before.segment, {}, after.segment};
  const double gap = distance(from, to);
  const double corner = std::abs(angleBetween(tangentAt(before, 1), tangentAt(after, 0)));
  if (gap > settings.coincidentMm && corner > kLeastCorner) {
    constexpr double kReach = 2;
    if (const auto met = meet(before, after, kReach * settings.gapMm)) return *met;
  }
  if (gap <= settings.doubleMm) {
    const Point middle = lerp(from, to, 0.5);
    return {withEnd(before, middle).segment, {}, withStart(after, middle).segment};
  }
  return {before.segment, {bridge(before, after)}, after.segment};
}

std::vector<Segment> asOne(const Piece& before, const Piece& after, double touchMm) {
  const Point from = before.start;
  const Point to = after.segment.end;
  const Point node = before.segment.end;
  if (before.segment.kind == SegmentKind::Cubic || after.segment.kind == SegmentKind::Cubic) return {};
  const bool bent = isArc(before.segment);
  if (bent != isArc(after.segment) || from == to) return {};
  if (!bent) {
    if (dot(node - from, to - node) <= 0) return {};
    const Piece whole{from, Segment::line(to)};
    if (distanceTo(whole, node) > touchMm) return {};
    return {whole.segment};
  }
  const double sweep = 4 * (std::atan(before.segment.bulge) + std::atan(after.segment.bulge));
  constexpr double kMostSweep = 1.1 * std::numbers::pi;
  if (before.segment.bulge * after.segment.bulge <= 0 || std::abs(sweep) > kMostSweep) return {};
  const Piece whole{from, Segment::arc(to, bulgeFromSweep(sweep))};
  for (const Point p : {pointAt(before, 0.5), node, pointAt(after, 0.5)}) {
    if (distanceTo(whole, p) > touchMm) return {};
  }
  return {whole.segment};
}

}  // namespace rim::mend
