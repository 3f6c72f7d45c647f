#include "core/geometry/nearest_on_paths.h"

#include <algorithm>
#include <limits>

namespace rim {

std::vector<Box> NearestOnPaths::gathered(const Paths& paths, std::vector<Piece>& pieces) {
  std::vector<Box> boxes;
  for (const Path& path : paths) {
    for (std::size_t i = 0; i < path.segments.size(); ++i) {
      pieces.push_back(pieceOf(path, i));
      boxes.push_back(boxOf(pieces.back()));
    }
  }
  return boxes;
}

std::optional<Point> NearestOnPaths::within(Point p, double reach) const {
  std::optional<Point> best;
  double least = reach;
  Box spot;
  spot.include(p);
  index_.near(spot, reach, [&](std::size_t i) {
    const Point place = pointAt(pieces_[i], nearestOn(pieces_[i], p));
    if (distance(place, p) > least) return;
    least = distance(place, p);
    best = place;
  });
  return best;
}

double NearestOnPaths::distanceTo(Point p) const {
  // Of the boxes that are nearest one bounds how far there is to look.
  double least = std::numeric_limits<double>::infinity();
  constexpr std::size_t kFirst = 4;
  for (const std::size_t i : index_.nearest(p, kFirst)) least = std::min(least, rim::distanceTo(pieces_[i], p));
  if (pieces_.empty()) return least;
  const auto nearest = within(p, least);
  return nearest ? std::min(least, distance(*nearest, p)) : least;
}

}  // namespace rim
