#pragma once

#include <optional>
#include <vector>

#include "core/geometry/path.h"
#include "core/trace/contour/border.h"

namespace rim::trace::outline {

/// So many sides a polygon may have that is brought to where greys say, when it is small.
inline constexpr std::size_t kMostSides = 12;

/// The border in lines that leave it by no more than `withinPx`; begun at the point that lies farthest from its first
/// one. Nothing when that makes no polygon.
std::optional<Path> inLines(const contour::Border& border, double withinPx);

/// Polygons of at most kMostSides sides that a small border may be: itself in ever fewer lines, the tightest rectangle
/// round it, the triangle of points that lie farthest apart.
std::vector<Path> likelyPolygons(const contour::Border& border);

}  // namespace rim::trace::outline
