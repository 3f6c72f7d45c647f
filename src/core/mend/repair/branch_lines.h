#pragma once

#include <stop_token>
#include <vector>

#include "core/trace/lines/centrelines.h"

namespace rim {

/// The middles of what hangs on a stroke that closes on itself, between its two edges: whiskers, tails, antennas. Each
/// begins where it meets the middle of the stroke and ends freely; with its width. Lengths in the unit of the edges,
/// `widest` (> 0) bounds the stroke. None: nothing hangs on it that is a line. Throws Cancelled.
std::vector<Centreline> branchesOf(const Path& outer, const Path& inner, double widest,
                                   const std::stop_token& stop = {});

/// A branch without its first `length`; what is shorter is gone (no segments).
Path withoutBeginning(const Path& open, double length);

}  // namespace rim
