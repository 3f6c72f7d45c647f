#pragma once

#include <vector>

#include "core/trace/lines/continuation.h"
#include "core/trace/lines/stroke_chains.h"

namespace rim::trace::lines {

/// A corner that the pen drew: the medial axis cuts it short, on an arc of its own.
struct StrokeCorner {
  std::size_t from = 0;  ///< the last point before it that lies on the stroke's middle
  std::size_t to = 0;    ///< the first one after it; less than `from` where a ring goes over its start
  CornerRun run;         ///< instead of those between
};

/// The corners of a chain of points about kTrackStepPx apart, in running order, of strokes about `width` px wide.
///
/// Both sides are prolonged until they meet; how far it is from there to the ink's edge outside tells how sharp the pen
/// turned (missingAt()).
std::vector<StrokeCorner> strokeCorners(const MedialAxis& axis, const std::vector<CentrePoint>& points, bool closed,
                                        double width);

}  // namespace rim::trace::lines
