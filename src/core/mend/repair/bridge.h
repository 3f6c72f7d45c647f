#pragma once

#include "core/mend/find/open_ends.h"
#include "core/mend/repair/join.h"

namespace rim::mend {

/// All strokes that the pen drew in one and whose ink failed (brokenStrokes()) in one again, smoothly; a ring that was
/// broken is closed. Breaks in whose middle one of the places `left` lies stay.
Repaired bridgedStrokes(const Drawing& drawing, const MendSettings& settings, const std::vector<Point>& left = {});

/// The same of the one break nearest to a place, between these two outlines. Unchanged when there is none.
Drawing bridgedAt(const Drawing& drawing, std::size_t path, std::size_t other, Point at, const MendSettings& settings);

}  // namespace rim::mend
