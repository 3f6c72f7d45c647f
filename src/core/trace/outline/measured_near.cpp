#include "core/trace/outline/measured_near.h"

#include <algorithm>
#include <iterator>
#include <utility>

#include "core/geometry/path_place.h"

namespace rim::trace::outline {
namespace {

/// What lies between two places, if the second one lies farther along; then a line to where the first one is.
void keep(Path& result, const Path& path, const PathPlace& from, const PathPlace& to) {
  if (std::pair(to.segment, to.t) <= std::pair(from.segment, from.t)) return;
  lineOnTo(result, from.place);
  const Path kept = stretchOf(path, from, to);
  result.segments.insert(result.segments.end(), kept.segments.begin(), kept.segments.end());
}

/// The places that may be within reach of the way: most are far off, as there are thousands in a large picture.
std::vector<Point> placesNear(const std::vector<Point>& way, const std::vector<Point>& places, double reachPx) {
  Box box;
  for (const Point p : way) box.include(p);
  std::vector<Point> near;
  std::copy_if(places.begin(), places.end(), std::back_inserter(near), [&](Point p) {
    return !apart(box, {p, p}, reachPx);
  });
  return near;
}

}  // namespace

Path measuredNear(const Path& path, const std::vector<Point>& points, Point start, Point end,
                  const std::vector<Point>& places, double reachPx) {
  std::vector<Point> way{start};
  way.insert(way.end(), points.begin(), points.end());
  way.push_back(end);
  const std::vector<Point> nearby = placesNear(way, places, reachPx);
  const auto isNear = [&](std::size_t i) {
    return std::any_of(nearby.begin(), nearby.end(), [&](Point p) { return distance(p, way[i]) <= reachPx; });
  };
  const PathPlace pathEnd{path.segments.size() - 1, 1, endOf(path), 0};
  PathPlace at{0, 0, path.start, 0};
  Path result{start, {}, false};
  bool onPath = true;
  for (std::size_t i = 0; i < way.size(); ++i) {
    if (!isNear(i)) {
      if (!onPath) at = nearestOn(path, way[i - 1]);
      onPath = true;
      continue;
    }
    if (onPath && i > 0) keep(result, path, at, nearestOn(path, way[i]));
    lineOnTo(result, way[i]);
    onPath = false;
  }
  if (onPath) keep(result, path, at, pathEnd);
  lineOnTo(result, end);
  if (result.segments.empty()) result.segments.push_back(Segment::line(end));
  return result;
}

}  // namespace rim::trace::outline
