#pragma once

#include <span>

#include "core/geometry/path.h"
#include "core/trace/outline/join.h"

namespace rim::trace::outline {

/// Places where the border's own points are kept.
struct MeasuredPlaces {
  std::span<const Point> places;
  double reachPx = 4;      ///< a piece passes a place when it comes as near as this
  double tolerancePx = 0;  ///< that chords between the points may leave out others by
};

/// The segments of one border, closed or not, from its pieces and nodes. Every smooth stretch between corners
/// and long straight edges is the lines and arcs that its pieces are, or cubics all along
/// (trace/outline/section.h), whichever costs less by the prices of splitTrack(). Turns of more than
/// `kinkDegrees` within a stretch of cubics are kept. Pieces that pass a measured place are left as
/// the border's own points.
Path assemble(const split::Track& track, const Chain& chain, const split::SplitLimits& limits,
              const MeasuredPlaces& measured, double kinkDegrees);

}  // namespace rim::trace::outline
