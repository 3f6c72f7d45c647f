#pragma once

#include <limits>

#include "core/mend/join.h"

namespace rim {

/// Without paths of no length.
Repaired withoutZeroLengths(const Drawing& drawing);

/// Nodes in one place become one; the next segment begins where the one before ends, at most `coincidentMm` aside.
Repaired withoutCoincidentNodes(const Drawing& drawing, const MendSettings& settings);

/// What runs out and back on one line is cut off, down to the shorter of both ways; spikes longer than `longestMm`
/// stay.
Repaired withoutSpikes(const Drawing& drawing, const MendSettings& settings,
                       double longestMm = std::numeric_limits<double>::infinity());

/// The path without what runs out along segment i and back along the next.
Path withoutSpike(Path path, std::size_t i);

/// The path without segment i: the next one begins where the one before ended.
Path withoutSegment(Path path, std::size_t i);

/// Without the paths of these indices.
Drawing withoutPaths(const Drawing& drawing, const std::vector<std::size_t>& paths);

/// Outer borders run counter-clockwise, holes clockwise, islands in holes counter-clockwise again, and so on.
Drawing oriented(const Drawing& drawing);

}  // namespace rim
