#pragma once

#include <array>
#include <cstdint>
#include <vector>

#include "core/geometry/point.h"

namespace rim::sketch {

/// A flat region in triangles, counter-clockwise, and the edges at its rim, the region at their left.
struct Cap {
  std::vector<Point> points;
  std::vector<std::array<std::uint32_t, 3>> triangles;
  std::vector<std::array<std::uint32_t, 2>> rim;
};

/// What rings of points enclose (even-odd) as a constrained Delaunay triangulation. Rings that touch share points.
Cap capOf(const std::vector<std::vector<Point>>& rings);

}  // namespace rim::sketch
