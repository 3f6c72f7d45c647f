#include "core/geometry/nearest_on_paths.h"

#include <algorithm>
#include <cmath>
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
  // Of the boxes that are nearest one bounds how far there is to look; among few pieces all are looked at sooner.
  double least = reach;
  constexpr std::size_t kFirst = 2;
  constexpr std::size_t kFew = 60;
  if (pieces_.size() > kFew || !std::isfinite(reach)) {
    for (const std::size_t i : index_.nearest(p, kFirst)) least = std::min(least, rim::distanceTo(pieces_[i], p));
  }
  Box spot;
  spot.include(p);
  index_.near(spot, least, [&](std::size_t i) {
    const Point place = pointAt(pieces_[i], nearestOn(pieces_[i], p));
    if (distance(place, p) > least) return;
    least = distance(place, p);
    best = place;
  });
  return best;
}

double NearestOnPaths::distanceTo(Point p) const {
  constexpr double kAnywhere = std::numeric_limits<double>::infinity();
  if (pieces_.empty()) return kAnywhere;
  const auto nearest = within(p, kAnywhere);
  return nearest ? distance(*nearest, p) : kAnywhere;
}

}  // namespace rim
