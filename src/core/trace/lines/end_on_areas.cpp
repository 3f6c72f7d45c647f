#include "core/trace/lines/end_on_areas.h"

#include <algorithm>

#include "core/geometry/intersect.h"
#include "core/geometry/nearest_on_paths.h"
#include "core/geometry/point_in_polygon.h"

namespace rim::trace::lines {
namespace {

/// The borders of areas, found by where they are.
class AreaBorders {
 public:
  explicit AreaBorders(const std::vector<Path>& areas) : pieces_(Paths(areas)) {
    for (const Path& area : areas) inside_.emplace_back(area);
  }

  bool has(Point p) const {
    return std::count_if(inside_.begin(), inside_.end(), [p](const PointInPolygon& area) { return area.has(p); }) % 2 ==
           1;
  }

  /// Where the way from one place to another first crosses a border.
  std::optional<Point> firstCrossing(Point from, Point to) const {
    const Piece way{from, Segment::line(to)};
    std::optional<Point> first;
    pieces_.near(boxOf(way), 0, [&](std::size_t i) {
      for (const Meeting& m : meetings(way, pieces_.pieces()[i])) {
        if (!first || distance(m.place, from) < distance(*first, from)) first = m.place;
      }
    });
    return first;
  }

 private:
  NearestOnPaths pieces_;
  std::vector<PointInPolygon> inside_;
};

/// Lets points that end (the last one) in an area, or before it, end on its border.
void endOnBorder(std::vector<Point>& points, const FreeEnd& end, const AreaBorders& areas) {
  std::optional<Point> last;
  while (points.size() > 2 && areas.has(points.back())) {
    last = points.back();
    points.pop_back();
  }
  // A stroke widens where it meets an area, and was cut short there by no more than this.
  const Point beyond = last ? *last : points.back() + end.on.direction * (4 * end.width + 4);
  if (const auto border = areas.firstCrossing(points.back(), beyond)) points.push_back(*border);
}

}  // namespace

void endOnAreas(std::vector<StrokeLine>& lines, const std::vector<Path>& areas) {
  const AreaBorders borders(areas);
  for (StrokeLine& line : lines) {
    for (std::size_t end = 0; end < 2; ++end) {
      if (!line.freeEnds[end] || !line.freeEnds[end]->atArea) continue;
      if (end == 0) std::reverse(line.points.begin(), line.points.end());
      endOnBorder(line.points, *line.freeEnds[end], borders);
      if (end == 0) std::reverse(line.points.begin(), line.points.end());
    }
  }
}

}  // namespace rim::trace::lines
