#include "core/geometry/places_along.h"

#include <algorithm>
#include <cmath>

#include "core/geometry/flatten.h"

namespace rim {

std::vector<Point> placesAlong(const Path& path, double chordError, double step) {
  const std::vector<Point> points = flatten(path, chordError);
  std::vector<Point> places;
  for (std::size_t i = 0; i < points.size(); ++i) {
    if (!path.closed && i + 1 == points.size()) {
      places.push_back(points[i]);
      break;
    }
    const Point to = points[(i + 1) % points.size()];
    const int steps = std::max(1, static_cast<int>(std::ceil(distance(points[i], to) / step)));
    for (int k = 0; k < steps; ++k) places.push_back(lerp(points[i], to, static_cast<double>(k) / steps));
  }
  return places;
}

}  // namespace rim
