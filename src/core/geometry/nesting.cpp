#include "core/geometry/nesting.h"

#include <cmath>

#include "core/geometry/box_index.h"
#include "core/geometry/inside.h"
#include "core/geometry/segment.h"

namespace rim {
Nesting nestingOf(const Paths& paths) {
  std::vector<Box> boxes;
  std::vector<std::size_t> closed;
  for (std::size_t i = 0; i < paths.size(); ++i) {
    if (!paths[i].closed || paths[i].segments.empty()) continue;
    closed.push_back(i);
    boxes.push_back(boxOf(paths[i]));
  }
  const BoxIndex index(boxes);
  std::vector<std::optional<Inside>> insides(closed.size());
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
      if (!insides[j]) insides[j].emplace(paths[other]);
      int inside = 0;
      for (const Point p : places) inside += insides[j]->has(p) ? 1 : 0;
      if (inside < 2) return;
      ++nesting.depth[own];
      auto& parent = nesting.parent[own];
      if (!parent || areas[other] < areas[*parent]) parent = other;
    });
  }
  return nesting;
}

}  // namespace rim
