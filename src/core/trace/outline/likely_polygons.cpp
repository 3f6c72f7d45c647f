#include "core/trace/outline/likely_polygons.h"

#include <opencv2/imgproc.hpp>

#include "core/geometry/fewer_points.h"

namespace rim::trace::outline {
namespace {

/// The path turned to run like the border.
Path runningLike(const contour::Border& border, Path path) {
  return (signedArea(path) < 0) == (contour::borderArea(border) < 0) ? path : reversed(path);
}

/// The tightest rectangle round the border.
Path rectangleRound(const contour::Border& border) {
  std::vector<cv::Point2f> points;
  for (const Point p : border) points.emplace_back(static_cast<float>(p.x), static_cast<float>(p.y));
  cv::Point2f corners[4];
  cv::minAreaRect(points).points(corners);
  const auto corner = [&corners](int k) { return Point{corners[k].x, corners[k].y}; };
  return runningLike(border, polygonThrough({corner(3), corner(0), corner(1), corner(2)}));
}

/// The triangle of two points of the border that lie far apart and the one that lies farthest off their line.
Path triangleIn(const contour::Border& border) {
  const auto farthest = [&border](auto off) {
    return *std::max_element(border.begin(), border.end(), [&](Point a, Point b) { return off(a) < off(b); });
  };
  const Point a = farthest([&border](Point p) { return distance(p, border.front()); });
  const Point b = farthest([a](Point p) { return distance(p, a); });
  const Point c = farthest([a, b](Point p) { return std::abs(cross(b - a, p - a)); });
  return runningLike(border, polygonThrough({a, b, c}));
}

}  // namespace

std::optional<Path> inLines(const contour::Border& border, double withinPx) {
  const auto farthest = std::max_element(border.begin(), border.end(), [&](Point a, Point b) {
    return distance(a, border.front()) < distance(b, border.front());
  });
  contour::Border round(farthest, border.end());
  round.insert(round.end(), border.begin(), farthest + 1);
  std::vector<Point> few = fewerPoints(round, withinPx);
  if (few.size() < 4) return std::nullopt;
  few.pop_back();
  return polygonThrough(few);
}

std::vector<Path> likelyPolygons(const contour::Border& border) {
  constexpr double kFewPx[] = {0.35, 0.5, 0.7, 0.9, 1.2};
  std::vector<Path> polygons;
  std::size_t tried = 0;
  for (const double withinPx : kFewPx) {
    auto polygon = inLines(border, withinPx);
    if (!polygon || polygon->segments.size() == tried || polygon->segments.size() > kMostSides) continue;
    tried = polygon->segments.size();
    polygons.push_back(std::move(*polygon));
  }
  polygons.push_back(rectangleRound(border));
  polygons.push_back(triangleIn(border));
  return polygons;
}

}  // namespace rim::trace::outline
