#pragma once

#include <span>

#include "core/geometry/path.h"
#include "core/trace/join.h"

namespace rim {

/// Places where the border's own points are kept.
struct MeasuredPlaces {
  std::span<const Point> places;
  double reachPx = 4;  ///< a piece passes a place when it comes as near as this
};

/// The segments of one closed border from its pieces and nodes: lines, arcs, and cubics where they
/// follow smooth runs of pieces at a lower price (dynamic programming over each run). Tangents are
/// shared at smooth nodes; an arc whose ends do not keep to them becomes a cubic. Pieces that pass
/// a measured place are left as the border's own points.
Path assemble(const Track& track, const Chain& chain, const SplitLimits& limits, const MeasuredPlaces& measured);

}  // namespace rim
