#pragma once

#include <limits>
#include <set>

#include "core/geometry/segment.h"
#include "core/mend/repair/join.h"

namespace rim::mend {

/// Without paths of no length.
Repaired withoutZeroLengths(const Drawing& drawing);

/// Nodes in one place become one: of a row of them the first stays, and so do all that lie farther from it than
/// `coincidentMm`, so that nothing moves farther than that, however many there are. n in the number of segments.
Repaired withoutCoincidentNodes(const Drawing& drawing, const MendSettings& settings);

/// What becomes of what runs out and back on one line and is longer than may be cut off.
enum class LongSpikes {
  Stay,
  BecomeLines,  ///< the line stays, drawn once, an open path that hangs on the outline
};

/// What runs out and back on one line is cut off, down to the shorter of both ways, when it is no longer than
/// `longestMm`. n in the number of segments.
Repaired withoutSpikes(const Drawing& drawing, const MendSettings& settings,
                       double longestMm = std::numeric_limits<double>::infinity(),
                       LongSpikes longer = LongSpikes::Stay);

/// The path without what runs out along segment i and back along the next.
Path withoutSpike(Path path, std::size_t i);

/// The line that two pieces draw there and back: from the node at their foot to the tip.
Path lineOfSpike(const Piece& out, const Piece& back);

/// The path without segment i: the next one begins where the one before ended.
Path withoutSegment(Path path, std::size_t i);

/// Without these outlines.
Drawing withoutOutlines(const Drawing& drawing, const std::set<OutlineId>& outlines);

/// Without the outlines of these indices.
Drawing withoutPaths(const Drawing& drawing, const std::vector<std::size_t>& paths);

/// Outer borders run counter-clockwise, holes clockwise, islands in holes counter-clockwise again, and so on.
Drawing oriented(const Drawing& drawing);

}  // namespace rim::mend
