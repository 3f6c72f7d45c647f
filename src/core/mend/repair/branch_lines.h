#pragma once

#include <stop_token>
#include <vector>

#include "core/trace/lines/centrelines.h"

namespace rim::mend {

/// The middles of what hangs on a stroke that closes on itself, between its two edges: whiskers, tails, antennas.
/// `middle` is the line between the edges, `width` (> 0) the stroke's. Of the middle lines of all that is between the
/// edges (mend/repair/middle_lines.h) it is what runs out of the stroke, from about its edge, and ends freely, at least
/// 0.75 widths beyond it. Throws Cancelled.
std::vector<trace::lines::Centreline> branchesOf(const Path& outer, const Path& inner, const Path& middle, double width,
                                                 const std::stop_token& stop = {});

/// A line led on backwards as it starts, until it meets a path; to the nearest place of that where it does not within
/// `reach` (> 0).
Path ledBackTo(const Path& on, Path line, double reach);

/// The outer edge without what hangs on it out to `tip`: straight across its foot. As it is, where the edge does not
/// come back to the stroke on both sides.
Path withoutBranch(const Path& outer, const Path& middle, double width, Point tip);

}  // namespace rim::mend
