#include "core/mend/branches.h"

#include "core/geometry/segment.h"

namespace rim {
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

bool Branches::lies(const End& end, std::size_t but, bool endsCount) const {
  Box place;
  place.include(end.place);
  bool found = false;
  index_.near(place, coincidentMm_, [&](std::size_t i) {
    const IndexedPiece& other = index_.pieces()[i];
    if (found || other.path == end.path || other.path == but) return;
    if (distanceTo(other.piece, end.place) > coincidentMm_) return;
    const Path& path = paths_[other.path];
    const bool atEnd = !path.closed && (distance(path.start, end.place) <= coincidentMm_ ||
                                        distance(path.segments.back().end, end.place) <= coincidentMm_);
    found = endsCount || !atEnd;
  });
  return found;
}

bool Branches::atJunction(const End& one, const End& other) const {
  if (!partsAnArea(one.path) || !partsAnArea(other.path)) return false;
  Box place;
  place.include(one.place);
  bool third = false;
  bool doubled = false;
  index_.near(place, coincidentMm_, [&](std::size_t i) {
    const IndexedPiece& found = index_.pieces()[i];
    if (found.path == one.path || found.path == other.path) return;
    if (distanceTo(found.piece, one.place) > coincidentMm_) return;
    third = third || paths_[found.path].closed || partsAnArea(found.path);
    for (const Point way : waysFrom(found.piece, one.place, coincidentMm_)) {
      doubled = doubled || isAlong(way, -one.outward) || isAlong(way, -other.outward);
    }
  });
  return third && !doubled;
}

}  // namespace rim
