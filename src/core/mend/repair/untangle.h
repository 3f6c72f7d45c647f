#pragma once

#include <stop_token>

#include "core/mend/repair/join.h"

namespace rim::mend {

/// Paths that cross themselves no longer do: loops smaller than `loopMm` are cut off, larger ones treated by the rule
/// (mend/repair/smoothing.h). Two nodes are in the wrong order when the two lines that cross have one line between
/// them: the outline then runs a, c, b, d instead of a, b, c, d. n log n in the number of crossings. Throws Cancelled.
Repaired untangled(const Drawing& drawing, const MendSettings& settings, BowTieRule rule,
                   const std::stop_token& stop = {});

/// The same at one crossing: of the path's crossings the one nearest to `at`, and those that hang together with it.
Drawing untangledAt(const Drawing& drawing, std::size_t path, Point at, const MendSettings& settings, BowTieRule rule);

}  // namespace rim::mend
