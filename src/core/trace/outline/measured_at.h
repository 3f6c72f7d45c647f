#pragma once

#include <vector>

#include "core/geometry/path.h"
#include "core/trace/contour/border.h"

namespace rim::trace::outline {

/// Where an outline is to be its border's own points.
struct MeasuredStretches {
  std::vector<Point> places;  ///< upright px
  double reachPx = 4;         ///< points within this of a place are taken
  std::vector<double>
      roomPx;             ///< of each point of the border: how far chords may leave it (trace/outline/room_beside.h)
  bool asCurves = false;  ///< a stretch becomes one cubic where that leaves its points by no more than there is room
};

/// The whole border as a closed path of lines that leave it by no more than there is room.
Path borderWithin(const contour::Border& border, const std::vector<double>& roomPx);

/// A closed outline that is its border near some places and stays what it is elsewhere. `path` follows the border
/// loosely, running the same way; where both lie along each other is told by how far along they are, so that the two
/// edges of a hairline are not taken for each other. With no place near it is the path, begun elsewhere.
Path measuredAt(const Path& path, const contour::Border& border, const MeasuredStretches& measured);

}  // namespace rim::trace::outline
