#pragma once

#include <cstddef>

#include "core/geometry/path.h"

namespace rim {

/// A place on a path: a segment and how far along it.
struct PathPlace {
  std::size_t segment = 0;
  double t = 0;    ///< 0..1: of a line's length, an arc's sweep, a cubic's parameter
  Point place;     ///< where that is
  double off = 0;  ///< distance from what was asked for
};

/// Whether one place of a path comes before another one along it.
inline bool isBefore(const PathPlace& a, const PathPlace& b) {
  return a.segment != b.segment ? a.segment < b.segment : a.t < b.t;
}

/// Where a path starts, and where it ends. The path needs a segment.
PathPlace startPlace(const Path& path);
PathPlace endPlace(const Path& path);

/// The place of the path nearest to p; of cubics to about 1e-9 of their size. The path needs a segment.
PathPlace nearestOn(const Path& path, Point p);

/// The unit tangent at a place of the path, in running direction.
Point tangentOn(const Path& path, const PathPlace& place);

/// The open path from one place to another one farther along; on a closed path it goes on over the start when `to`
/// does not lie farther along.
Path stretchOf(const Path& path, const PathPlace& from, const PathPlace& to);

/// The open path with other ends: lines just end there, arcs keep the middle of their sweep, cubics the
/// handle's way from the end.
Path withEnds(Path path, Point start, Point end);

}  // namespace rim
