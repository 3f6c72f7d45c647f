#pragma once

#include <vector>

#include "core/geometry/path.h"

namespace rim {

/// Point in polygon: tells places inside a closed path from those outside it (even-odd rule); on the border either
/// answer is given. Its sides are sorted into level strips, so that a question looks at few of them. n log n memory and
/// time to build at most.
class PointInPolygon {
 public:
  /// Curves count as polygons within a ten-thousandth of the path's size.
  explicit PointInPolygon(const Path& closed);

  bool has(Point p) const;
  bool hasAll(const std::vector<Point>& places) const;

 private:
  Point before(std::size_t corner) const { return polygon_[corner == 0 ? polygon_.size() - 1 : corner - 1]; }
  std::size_t stripAt(double y) const;
  void sortIntoStrips();

  Box box_;
  std::vector<Point> polygon_;
  std::vector<std::vector<std::size_t>> strips_;  // the corners at which sides end that pass through
};

}  // namespace rim
