#include "core/geometry/fewer_points.h"

#include <algorithm>

#include "core/geometry/segment_distance.h"

namespace rim {

std::vector<Point> fewerPoints(std::span<const Point> points, double tolerance) {
  return fewerPoints(points, std::vector<double>(points.size(), tolerance));
}

std::vector<Point> fewerPoints(std::span<const Point> points, std::span<const double> tolerances) {
  if (points.size() < 3) return {points.begin(), points.end()};
  std::vector<bool> kept(points.size(), false);
  kept.front() = kept.back() = true;
  std::vector<std::pair<std::size_t, std::size_t>> open{{0, points.size() - 1}};
  while (!open.empty()) {
    const auto [first, last] = open.back();
    open.pop_back();
    std::size_t farthest = first;
    double most = 1;
    for (std::size_t i = first + 1; i < last; ++i) {
      constexpr double kLeast = 1e-12;  // of a tolerance of 0
      const double off = distanceToSegment(points[i], points[first], points[last]) / std::max(tolerances[i], kLeast);
      if (off <= most) continue;
      most = off;
      farthest = i;
    }
    if (farthest == first) continue;
    kept[farthest] = true;
    open.emplace_back(first, farthest);
    open.emplace_back(farthest, last);
  }
  std::vector<Point> few;
  for (std::size_t i = 0; i < points.size(); ++i) {
    if (kept[i]) few.push_back(points[i]);
  }
  return few;
}

}  // namespace rim
