#include "core/geometry/nesting.h"

#include <cmath>

#include "core/geometry/box_index.h"
#include "core/geometry/flatten.h"
#include "core/geometry/segment.h"

namespace rim {
namespace {

bool containedIn(const std::vector<Point>& polygon, Point p) {
  bool inside = false;
  Point a = polygon.back();
  for (const Point b : polygon) {
    if ((a.y > p.y) != (b.y > p.y) && p.x < a.x + (b.x - a.x) * ((p.y - a.y) / (b.y - a.y))) inside = !inside;
    a = b;
  }
  return inside;
}

/// The path as a polygon fine enough for its own size.
std::vector<Point> polygonOf(const Path& closed) {
  const Box box = boxOf(closed);
  constexpr double kShareOfSize = 1e-4;
  return flatten(closed, std::max(1e-9, kShareOfSize * std::max(box.width(), box.height())));
}

}  // namespace

bool contains(const Path& closed, Point p) { return containedIn(polygonOf(closed), p); }

Nesting nestingOf(const std::vector<Path>& paths) {
  std::vector<Box> boxes;
  std::vector<std::size_t> closed;
  for (std::size_t i = 0; i < paths.size(); ++i) {
    if (!paths[i].closed || paths[i].segments.empty()) continue;
    closed.push_back(i);
    boxes.push_back(boxOf(paths[i]));
  }
  const BoxIndex index(boxes);
  std::vector<std::vector<Point>> polygons(closed.size());
  Nesting nesting{std::vector<std::optional<std::size_t>>(paths.size()), std::vector<int>(paths.size(), 0)};
  std::vector<double> areas(paths.size(), 0);
  for (const std::size_t i : closed) areas[i] = std::abs(signedArea(paths[i]));
  for (std::size_t k = 0; k < closed.size(); ++k) {
    const std::size_t own = closed[k];
    const std::size_t n = paths[own].segments.size();
    std::vector<Point> places;
    for (const std::size_t s : {std::size_t{0}, n / 3, 2 * n / 3})
      places.push_back(pointAt(pieceOf(paths[own], s), 0.5));
    index.covering(boxes[k], [&](std::size_t j) {
      const std::size_t other = closed[j];
      if (other == own || areas[other] < areas[own] || (areas[other] == areas[own] && other > own)) return;
      if (polygons[j].empty()) polygons[j] = polygonOf(paths[other]);
      int inside = 0;
      for (const Point p : places) inside += containedIn(polygons[j], p) ? 1 : 0;
      if (inside < 2) return;
      ++nesting.depth[own];
      auto& parent = nesting.parent[own];
      if (!parent || areas[other] < areas[*parent]) parent = other;
    });
  }
  return nesting;
}

}  // namespace rim
