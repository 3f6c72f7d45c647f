#pragma once

#include <cstddef>
#include <functional>
#include <stop_token>
#include <vector>

#include "core/geometry/edge_grid.h"

namespace rim {

inline constexpr std::size_t kMostCrossingPlaces = 32;

/// A closed polyline that crosses or touches itself or another one, and where.
struct Crossing {
  std::size_t polyline = 0;  ///< index
  Point place;               ///< a point that both have in common
};

/// Where closed polylines cross or touch, by ascending index; a crossing of two is listed for both. Each pair of edges
/// counts once. Where `mayMeet` says so nothing is amiss. Of each polyline up to kMostCrossingPlaces.
///
/// Needs closed polylines without repeated neighbouring points. Two edges count when they share a
/// point, except neighbours sharing their common node. Edges are sorted into a grid with
/// cells about as wide as an edge is long, so the time grows linearly with the total number of
/// edges as long as they are spread out; worst case quadratic when all lie in one cell.
/// Throws Cancelled when `stop` is requested.
std::vector<Crossing> findCrossings(const std::vector<Polyline>& closed, std::stop_token stop,
                                    const std::function<bool(Point)>& mayMeet = {});

}  // namespace rim
