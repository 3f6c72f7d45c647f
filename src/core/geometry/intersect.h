#pragma once

#include <vector>

#include "core/geometry/segment.h"

namespace rim {

/// A place that two segments share: t along the first, u along the second, both 0..1.
struct Meeting {
  double t = 0;
  double u = 0;
  Point place;
};

/// Where two segments meet, each place once. Lines and arcs are solved as what they are; cubics are halved until flat
/// within `flatness` (> 0, in the segments' unit) and the place is then refined by Newton's method, so that two
/// crossings nearer than the flatness may count as none. Ends within 1e-9 of the other segment count as met. Segments
/// that run on the same track give no more than the ends of what they share (geometry/overlap.h).
std::vector<Meeting> meetings(const Piece& a, const Piece& b, double flatness = 0.001);

}  // namespace rim
