#pragma once

#include <stop_token>
#include <vector>

#include "core/drawing/drawing.h"

namespace rim::refine {

/// A stretch of an outline that lies elsewhere in another drawing, or not there at all.
struct Difference {
  Point at;           ///< where it is farthest off, in the drawings' frame
  double mm = 0;      ///< how far, the frame's unit times `mmPerUnit`
  bool gone = false;  ///< it is the older drawing's line that has no like
};

/// Where two drawings of one frame differ by more than `leastMm` (> 0), either way, largest first: every stretch of
/// an outline that lies farther than that from all of the other drawing, at its farthest place; a stretch that was
/// moved counts once. Outlines that are the very same in both are not looked at. Places are looked at every
/// `leastMm`, at most some 200 000 in all, so that narrower differences may be missed in very long drawings. Throws
/// Cancelled.
std::vector<Difference> differencesBetween(const Drawing& now, const Drawing& then, double mmPerUnit, double leastMm,
                                           const std::stop_token& stop = {});

}  // namespace rim::refine
