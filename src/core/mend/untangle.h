#pragma once

#include <stop_token>

#include "core/mend/join.h"

namespace rim {

/// What becomes of a path that crosses itself and encloses more than a loop on both sides.
enum class BowTieRule {
  Mend,   ///< two nodes in the wrong order are put right; other crossings are split
  Split,  ///< at the crossing one outline becomes two
  Leave,  ///< only loops are cut off
};

/// Paths that cross themselves no longer do: loops smaller than `loopMm` are cut off, larger ones treated by the rule.
/// Two nodes are in the wrong order when the two lines that cross have one line between them: the outline then runs
/// a, c, b, d instead of a, b, c, d. Where a crossing remains after 1000 repairs of one path, it is left.
/// Throws Cancelled.
Repaired untangled(const Drawing& drawing, const MendSettings& settings, BowTieRule rule,
                   const std::stop_token& stop = {});

/// The same at one crossing alone: of the path's crossings the one nearest to `at`.
Drawing untangledAt(const Drawing& drawing, std::size_t path, Point at, const MendSettings& settings, BowTieRule rule);

}  // namespace rim
