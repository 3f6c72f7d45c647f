#pragma once

#include <stop_token>

#include "core/mend/repair/join.h"

namespace rim::mend {

/// What became of strokes.
struct StrokeLines {
  Drawing drawing;
  std::size_t count = 0;     ///< strokes that became lines
  std::size_t branches = 0;  ///< lines that hang on them, which a choice of an edge would have lost
};

/// Of each stroke that closes on itself and is at most `strokeWidthMm` wide (mend/find/stroke_pairs.h) the outer edge,
/// the inner edge or the line between stays, as the settings say. The line between is the edge with fewer segments
/// moved by half the stroke's width: lines and arcs stay lines and arcs, and sharp corners stay sharp. What only the
/// outer edge shows, a whisker, a tail, is kept as a single line that hangs on what stays (branch_lines.h).
StrokeLines strokesToLines(const Drawing& drawing, const MendSettings& settings);

/// The same, and with the line between also every stroke that was drawn as one outline round its ends, or as several
/// that meet (mend/repair/middle_lines.h): the middles of these. Throws Cancelled.
StrokeLines allStrokesToLines(const Drawing& drawing, const MendSettings& settings, const std::stop_token& stop = {});

/// The same for one stroke alone, whose edges are these two paths.
Drawing strokeToLine(const Drawing& drawing, std::size_t outer, std::size_t inner, const MendSettings& settings);

/// The closed path moved to its left by `mm` (to its right when negative): lines in parallel, arcs about their centres,
/// cubics as arcs within `toleranceMm` of them. Neighbours meet again where they cross; arcs that would shrink to
/// nothing go, and their neighbours meet instead. For moves that are small against what the path is made of.
Path movedSideways(const Path& closed, double mm, double toleranceMm);

}  // namespace rim::mend
