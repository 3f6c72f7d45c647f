#pragma once

#include <optional>
#include <vector>

#include "core/geometry/path.h"
#include "core/refine/propose/proposal.h"

namespace rim::refine {

/// An exact shape that a closed path is nearly.
struct ExactShape {
  TrueUpKind kind = TrueUpKind::Circle;
  Path path;           ///< runs the way of the old one
  double movedMm = 0;  ///< the two-sided distance between both
  Point at;            ///< where that is
};

/// The simplest exact shape of these kinds that a closed path is nearly, by least squares of places all along it; none
/// when all leave it by more than `withinMm` or some hundredths of its smaller side, or when it is one already. Where
/// several do, the one with the least mean distance is taken, a simpler one before one with more to choose. The path
/// may have `heldNodes` nodes more than need be, as lines end on it there.
std::optional<ExactShape> exactShapeOf(const Path& closed, const std::set<TrueUpKind>& kinds, double withinMm,
                                       std::size_t heldNodes = 0);

/// About `count` places evenly along a path, its nodes not among them on purpose.
std::vector<Point> placesAlong(const Path& path, int count);

/// The largest distance of one path from the other, either way, and where; looked at in about `places` places.
struct Apart {
  double mm = 0;
  Point at;
};
Apart apartBy(const Path& a, const Path& b, int places = 240);

}  // namespace rim::refine
