#pragma once

#include <cstddef>
#include <stop_token>
#include <vector>

#include "core/geometry/point.h"

namespace rim {

using Polyline = std::vector<Point>;

/// Which of the closed polylines cross or touch themselves or another one; ascending indexes.
///
/// Needs closed polylines without repeated neighbouring points. Two edges count when they share a
/// point, except neighbours sharing their common node. Edges are sorted into a grid with
/// cells about as wide as an edge is long, so the time grows linearly with the total number of
/// edges as long as they are spread out; worst case quadratic when all lie in one cell.
/// Throws Cancelled when `stop` is requested.
std::vector<std::size_t> crossingPolylines(const std::vector<Polyline>& closed, std::stop_token stop);

}  // namespace rim
