#pragma once

#include <cstddef>
#include <vector>

#include "core/trace/split/split.h"

namespace rim::trace::split {

/// Breakpoint candidates: where the lines and arcs of a track are likely to meet, indexes into it in rising order,
/// never its first or last. Of a closed track the place where it starts counts as any other: it is no break when a
/// piece goes on through it, and 0 when pieces meet there.
///
/// Runs of a few points become one with a neighbour for as long as that costs less by the prices of splitTrack(), the
/// pair that saves most first (bottom-up segmentation, E. Keogh, S. Chu, D. Hart, M. Pazzani, "An online algorithm for
/// segmenting time series", IEEE ICDM 2001, 289-296). A greedy choice: breaks may be some points off, and a corner's
/// tip may have two; none is missing that is worth a piece. Time grows as n log n.
std::vector<std::size_t> breakpointCandidates(const Track& track, const SplitLimits& limits);

}  // namespace rim::trace::split
