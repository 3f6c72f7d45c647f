#pragma once

#include "core/geometry/path.h"

namespace rim {

/// An outline, or an open border, in the fewest segments that the method finds whose every place lies within `withinPx`
/// (> 0) of the outline that was fitted, and the other way round; what is a circle, and the ends of an open border,
/// stay.
///
/// Runs of up to 16 neighbouring segments become one line or one cubic, which keeps the tangents of the run's smooth
/// ends; of all ways to part the outline into such runs and single segments one with the fewest is taken, found by
/// dynamic programming (R. Bellman, "On the approximation of curves by line segments using dynamic programming",
/// Communications of the ACM 4 (1961), 284). What each run would become does not depend on `withinPx`, so a larger one
/// never has more segments. A run passes over a corner only where it leaves it by less than half of `withinPx`, and
/// over one of more than 30 degrees only where neither of its sides is longer than `withinPx`: corners stay to the very
/// end.
Path inFewerPieces(const Path& outline, double withinPx);

}  // namespace rim
