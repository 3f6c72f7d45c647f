#pragma once

#include "core/geometry/path.h"

namespace rim::trace::outline {

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

/// What is fitted to by at most, whatever more is allowed: what comes of it is made fewer pieces, so that more never
/// needs more of them.
inline constexpr double kTightTolerancePx = 0.35;

/// How often outlines that come to cross by it are tried again, each time nearer to what was fitted; then they are
/// that.
inline constexpr int kFewerPiecesTries = 4;

/// `fitted` in fewer pieces, on try 0, 1, ...; from kFewerPiecesTries on it is itself.
Path inFewerPiecesOnTry(const Path& fitted, double withinPx, int attempt);

}  // namespace rim::trace::outline
