#pragma once

#include <stop_token>

#include "core/geometry/curve_form.h"
#include "core/mend/repair/join.h"

namespace rim::mend {

/// The path made of few segments that leave it by at most `toleranceMm` (> 0): lines and arcs, lines alone, or lines
/// and cubics (trace/outline/fewer_pieces.h, in two passes).
///
/// From each node on, the longest line or arc is taken that ends at another place of the path and holds all that lies
/// between, so the nodes are nearly the fewest possible; a whole circle becomes two half circles. The start of a closed
/// path is put on its sharpest corner first. n log n.
Path simplified(const Path& path, double toleranceMm, CurveForm form = CurveForm::Arcs);

/// All paths simplified by the settings' `simplifyMm`; those that would not have fewer nodes stay as they are. Paths
/// that would come to cross each other or themselves by it are kept nearer to what they were. Throws Cancelled.
Repaired withFewestNodes(const Drawing& drawing, const MendSettings& settings, const std::stop_token& stop = {},
                         CurveForm form = CurveForm::Arcs);

}  // namespace rim::mend
