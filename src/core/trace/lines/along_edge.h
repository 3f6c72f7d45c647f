#pragma once

#include <vector>

#include "core/geometry/point.h"
#include "core/trace/lines/medial_axis.h"

namespace rim::trace::lines {

/// Where the pen's middle was as the border at the outer side of a bend tells it: half a width inside it. Discs are
/// held up by the inner side there; the outer one shows the stroke's middle up to the corner.
///
/// Begins behind the sample `from` and goes towards `to` along their ring, the shorter way, as long as the middle gets
/// on: round the tip of a corner it stands still. Ends a little before `place`, seen along `runs` (unit).
std::vector<Point> middlesAlongEdge(const MedialAxis& axis, std::uint32_t from, std::uint32_t to, double width,
                                    Point place, Point runs);

}  // namespace rim::trace::lines
