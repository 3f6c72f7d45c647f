#pragma once

#include <vector>

#include "core/geometry/segment.h"

namespace rim::refine {

/// The places t, ascending and with 0 and 1, between which a piece runs in one direction along x and along y.
std::vector<double> monotoneCuts(const Piece& piece);

/// Where a piece that is monotone in both directions passes the level y: its x. With `upright` where it passes the
/// upright line x = level: its y. The level must lie between both ends.
double crossingAt(const Piece& piece, double level, bool upright);

}  // namespace rim::refine
