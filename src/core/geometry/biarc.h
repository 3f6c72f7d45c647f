#pragma once

#include <vector>

#include "core/geometry/path.h"

namespace rim {

/// Two arcs (or lines) from `start` to `end` that leave along the unit vector `startTangent`,
/// arrive along `endTangent` and share a tangent where they meet.
///
/// Of the family of such pairs the one with equal tangent lengths is taken. Source: K. M. Bolton,
/// "Biarc curves", Computer-Aided Design 7 (1975), 89-92. Where no such pair bends by less than a
/// half turn in each part, the straight line is returned; the caller sees that by its distance.
std::vector<Segment> biarc(Point start, Point startTangent, Point end, Point endTangent);

}  // namespace rim
