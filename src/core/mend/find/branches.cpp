#include "core/mend/find/branches.h"

#include "core/geometry/segment.h"

namespace rim::mend {
namespace {

/// The directions in which a piece leads away from a place on it.
std::vector<Point> waysFrom(const Piece& piece, Point place, double coincident) {
  if (distance(piece.start, place) <= coincident) return {tangentAt(piece, 0)};
  if (distance(piece.segment.end, place) <= coincident) return {-tangentAt(piece, 1)};
  const Point along = tangentAt(piece, nearestOn(piece, place));
  return {along, -along};
}

bool isAlong(Point way, Point other) {
  constexpr double kSameWay = 0.05;
  return std::abs(angleBetween(way, other)) < kSameWay;
}

}  // namespace

void Branches::eachPieceAt(Point place, const std::function<void(const IndexedPiece&)>& visit) const {
  index_.near({place, place}, coincidentMm_, [&](std::size_t i) {
    const IndexedPiece& piece = index_.pieces()[i];
    if (distanceTo(piece.piece, place) <= coincidentMm_) visit(piece);
  });
}

bool Branches::lies(const End& end, std::size_t but, bool endsCount) const {
  bool found = false;
  eachPieceAt(end.place, [&](const IndexedPiece& other) {
    if (found || other.path == end.path || other.path == but) return;
    const Path& path = paths_[other.path];
    const bool atEnd = !path.closed && (distance(path.start, end.place) <= coincidentMm_ ||
                                        distance(path.segments.back().end, end.place) <= coincidentMm_);
    found = endsCount || !atEnd;
  });
  return found;
}

bool Branches::atJunction(const End& one, const End& other) const {
  if (!partsAnArea(one.path) || !partsAnArea(other.path)) return false;
  bool third = false;
  bool doubled = false;
  eachPieceAt(one.place, [&](const IndexedPiece& found) {
    if (found.path == one.path || found.path == other.path) return;
    third = third || paths_[found.path].closed || partsAnArea(found.path);
    for (const Point way : waysFrom(found.piece, one.place, coincidentMm_)) {
      doubled = doubled || isAlong(way, -one.outward) || isAlong(way, -other.outward);
    }
  });
  return third && !doubled;
}

}  // namespace rim::mend
