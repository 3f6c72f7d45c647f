#pragma once

#include <vector>

#include "core/geometry/segment.h"
#include "core/mend/find/settings.h"

namespace rim::mend {

/// Two segments brought together: what becomes of the one before (its start stays), what lies between, and what becomes
/// of the one after (its end stays).
struct Joint {
  Segment before;
  std::vector<Segment> between;  ///< a bridge, mostly none
  Segment after;
};

/// Joins the end of `before` to the start of `after`.
///
/// Where they make a corner, both are lengthened or cut back to where they meet: lines as lines, arcs along their
/// circles, cubics by a straight end; no end moves by more than twice `gapMm`. Where they go on smoothly a bridge is
/// laid: a line between lines, else a cubic with the tangents of both ends. Ends nearer than `doubleMm` that make no
/// corner both move half-way instead.
Joint joint(const Piece& before, const Piece& after, const MendSettings& settings);

/// The one line or arc that both together are, when they lie on one line or on one circle within `touchMm`: `before`
/// must end where `after` starts. An arc stays below 1.1 half turns. None otherwise.
std::vector<Segment> asOne(const Piece& before, const Piece& after, double touchMm);

}  // namespace rim::mend
