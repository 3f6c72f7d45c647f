#include "core/io/svg/svg_fill.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numeric>

#include "core/geometry/nesting.h"
#include "core/geometry/point_in_polygon.h"
#include "core/geometry/segment.h"

namespace rim::io::svg {
namespace {

std::vector<Point> placesOn(const Path& path) {
  std::vector<Point> places;
  for (std::size_t s = 0; s < path.segments.size(); ++s) {
    for (const double t : {0.25, 0.5, 0.75, 1.0}) places.push_back(pointAt(pieceOf(path, s), t));
  }
  return places;
}

}  // namespace

std::vector<bool> hiddenByFill(const std::vector<Path>& shape) {
  std::vector<bool> hidden(shape.size(), false);
  if (shape.size() < 2) return hidden;
  const Nesting nesting = nestingOf(shape);
  std::vector<std::size_t> order(shape.size());
  std::iota(order.begin(), order.end(), std::size_t{0});
  std::sort(order.begin(), order.end(),
            [&nesting](std::size_t a, std::size_t b) { return nesting.depth[a] < nesting.depth[b]; });
  std::vector<double> areas;
  for (const Path& path : shape) areas.push_back(signedArea(path));
  std::vector<int> windingInside(shape.size(), 0);
  std::map<std::size_t, PointInPolygon> insides;
  const auto isWithin = [&](std::size_t p, std::size_t outer) {
    constexpr double kClearlySmaller = 0.999;
    if (std::abs(areas[p]) > kClearlySmaller * std::abs(areas[outer])) return false;
    return insides.try_emplace(outer, shape[outer]).first->second.hasAll(placesOn(shape[p]));
  };
  for (const std::size_t p : order) {
    if (!shape[p].closed) continue;
    const int around = nesting.parent[p] ? windingInside[*nesting.parent[p]] : 0;
    windingInside[p] = around + (areas[p] < 0 ? -1 : 1);
    hidden[p] = around != 0 && windingInside[p] != 0 && isWithin(p, *nesting.parent[p]);
  }
  return hidden;
}

}  // namespace rim::io::svg
