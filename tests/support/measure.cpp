#include "support/measure.h"

#include <algorithm>

#include "core/geometry/crossing.h"
#include "core/geometry/flatten.h"

namespace rim::test {

Point centreOfGravity(const std::vector<Path>& paths) {
  double area = 0;
  Point moment;
  for (const Path& path : paths) {
    const std::vector<Point> points = flatten(path, 0.005);
    for (std::size_t i = 0; i < points.size(); ++i) {
      const Point a = points[i];
      const Point b = points[(i + 1) % points.size()];
      area += cross(a, b) / 2;
      moment = moment + (a + b) * (cross(a, b) / 6);
    }
  }
  return moment * (1 / area);
}

double enclosedArea(const std::vector<Path>& paths) {
  double sum = 0;
  for (const Path& path : paths) sum += signedArea(path);
  return sum;
}

double percentile95(const std::vector<Path>& paths, const std::function<double(Point)>& distanceOf) {
  constexpr double kStep = 0.05;
  std::vector<double> distances;
  for (const Path& path : paths) {
    const std::vector<Point> points = flatten(path, 0.001);
    for (std::size_t i = 0; i < points.size(); ++i) {
      const Point a = points[i];
      const Point b = points[(i + 1) % points.size()];
      const int steps = 1 + static_cast<int>(distance(a, b) / kStep);
      for (int k = 0; k < steps; ++k) distances.push_back(distanceOf(lerp(a, b, k / double(steps))));
    }
  }
  const auto at = distances.begin() + static_cast<std::ptrdiff_t>(0.95 * static_cast<double>(distances.size()));
  std::nth_element(distances.begin(), at, distances.end());
  return *at;
}

double distanceToPolygon(Point p, const std::vector<Point>& corners) {
  double least = 1e300;
  for (std::size_t i = 0; i < corners.size(); ++i) {
    const Point a = corners[i];
    const Point side = corners[(i + 1) % corners.size()] - a;
    const double t = std::clamp(dot(p - a, side) / dot(side, side), 0.0, 1.0);
    least = std::min(least, distance(p, a + side * t));
  }
  return least;
}

bool anyCrossing(const std::vector<Path>& paths, double chordError) {
  std::vector<Polyline> polylines;
  for (const Path& path : paths) polylines.push_back(flatten(path, chordError));
  return !findCrossings(polylines, {}).empty();
}

}  // namespace rim::test
