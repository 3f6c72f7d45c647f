#include "core/refine/propose/closest_pairs.h"

namespace rim::refine {

ClosestPairs closestPairs(const std::vector<Point>& places, const Affine& map, const NearestOnPaths& paths,
                          double reach) {
  ClosestPairs closest;
  for (const Point place : places) {
    const auto to = paths.within(map(place), reach);
    if (!to) continue;
    closest.pairs.emplace_back(place, *to);
    closest.from = closest.from + place;
    closest.to = closest.to + *to;
  }
  if (closest.pairs.empty()) return closest;
  const double share = 1 / static_cast<double>(closest.pairs.size());
  closest.from = closest.from * share;
  closest.to = closest.to * share;
  return closest;
}

}  // namespace rim::refine
