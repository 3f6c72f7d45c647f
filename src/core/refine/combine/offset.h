#pragma once

#include <stop_token>

#include "core/drawing/drawing.h"

namespace rim::refine {

/// What stands at a corner that an offset opens (`--joins`).
enum class Joins {
  Round,  ///< an arc about the corner
  Mitre,  ///< both sides run on until they meet; cut off at 10 times the distance
  Bevel,  ///< a straight line
};

/// How an open line that is made an outline ends (`--tips`).
enum class Tips {
  Round,  ///< a half circle about its end
  Flat,   ///< straight across its end
};

/// The closed outlines of every layer grown by `mm`, or shrunk when it is negative; what runs together becomes one,
/// what vanishes is gone. A line's offset is a line and an arc's is an arc; a cubic is offset as arcs within
/// `toleranceMm`
/// (> 0) of it. Open outlines stay.
///
/// Every side is moved, corners that open are filled, corners that close are run through, and what the whole winds
/// round at least once is the area: X. Chen and S. McMains, "Polygon offsetting by computing winding numbers", ASME
/// DETC2005-85513, with arcs as arcs (common practice for arcs, no source). Throws Cancelled.
Drawing offset(const Drawing& drawing, double mm, Joins joins, double toleranceMm = 0.001,
               const std::stop_token& stop = {});

/// Open lines become closed outlines `mm` (> 0) wide, or as wide as they were drawn when it is 0 (those whose width
/// nobody knows stay). Closed outlines stay. Throws Cancelled.
Drawing thickened(const Drawing& drawing, double mm, Joins joins, Tips tips, double toleranceMm = 0.001,
                  const std::stop_token& stop = {});

/// The drawing with a border ring round everything: two closed outlines, the inner one nowhere nearer to anything than
/// `gapMm`, the outer one `widthMm` beyond it (both > 0). They lie on the first layer. Throws Cancelled.
Drawing withRing(const Drawing& drawing, double gapMm, double widthMm, Joins joins, double toleranceMm = 0.001,
                 const std::stop_token& stop = {});

}  // namespace rim::refine
