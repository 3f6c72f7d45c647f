#include "core/mend/find/straight_on.h"

#include <algorithm>
#include <cmath>

namespace rim::mend {
namespace {

constexpr double kAtEnd = 1e-6;
constexpr double kLeastOpening = 0.003;  // radians

bool isStraight(const Segment& segment) { return segment.kind != SegmentKind::Cubic && !isArc(segment); }

/// How far p lies beside the line through `origin` along `way`; to its left is positive.
double beside(Point origin, Point way, Point p) { return cross(way, p - origin); }

/// Whether a segment that begins at the origin stays on the straight line along `way`, but for the rounding of its end.
bool staysOn(Point origin, Point way, const Piece& piece) {
  constexpr double kRoundingMm = 0.0005;
  constexpr double kSameWay = 0.0005;  // radians
  const Point ahead = piece.segment.end - origin;
  const double along = dot(ahead, way);
  return along > 2 * kRoundingMm && std::abs(cross(way, ahead)) <= kRoundingMm + kSameWay * along;
}

}  // namespace

bool StraightOn::from(Point place, Point way, std::size_t path) const {
  bool found = false;
  index_.near({place, place}, coincidentMm_, [&](std::size_t i) {
    const IndexedPiece& other = index_.pieces()[i];
    if (found || !isStraight(other.piece.segment) || !onOneLayer(drawing_, path, other.path)) return;
    const bool begins = distance(other.piece.start, place) <= coincidentMm_;
    const bool ends = distance(other.piece.segment.end, place) <= coincidentMm_;
    found = (begins && staysOn(place, way, other.piece)) || (ends && staysOn(place, way, reversed(other.piece)));
  });
  return found;
}

bool StraightOn::goesOn(const IndexedPiece& piece, double t, double inward) const {
  if (t > kAtEnd && t < 1 - kAtEnd) return true;
  const double end = t < 0.5 ? 0 : 1;
  const Point outward = (end == 0 ? -1.0 : 1.0) * tangentAt(piece.piece, end);
  // The stretch may lie beyond this end instead of before it.
  return (end == 0) == (inward > 0) && from(pointAt(piece.piece, end), outward, piece.path);
}

bool StraightOn::onlyPass(const IndexedPiece& a, const IndexedPiece& b, const Overlap& stretch) const {
  if (!isStraight(a.piece.segment) || !isStraight(b.piece.segment)) return false;
  const Point way = tangentAt(b.piece, 0);
  const Point fromA = pointAt(a.piece, stretch.from);
  const Point toA = pointAt(a.piece, stretch.to);
  const double opening = std::abs(beside(b.piece.start, way, toA) - beside(b.piece.start, way, fromA));
  if (opening < kLeastOpening * distance(fromA, toA)) return false;
  const double inward = stretch.otherTo - stretch.otherFrom;
  const auto passes = [&](double t, double u, double sign) {
    if (distance(pointAt(a.piece, t), pointAt(b.piece, u)) <= coincidentMm_) return true;
    return goesOn(a, t, sign) && goesOn(b, u, sign * inward);
  };
  return passes(stretch.from, stretch.otherFrom, 1) && passes(stretch.to, stretch.otherTo, -1);
}

bool StraightOn::isNeedle(const Piece& out, const Piece& back, std::size_t path) const {
  if (!isStraight(out.segment) || !isStraight(back.segment)) return false;
  const Point tip = out.segment.end;
  const Point out1 = tangentAt(out, 1);
  const Point back1 = -tangentAt(back, 0);
  if (std::abs(cross(out1, back1)) < kLeastOpening) return false;
  const bool through = from(tip, out1, path) && from(tip, back1, path);
  return through || (from(out.start, -out1, path) && from(back.segment.end, -back1, path));
}

}  // namespace rim::mend
