#pragma once

#include <limits>
#include <stop_token>
#include <vector>

#include "core/geometry/path.h"
#include "core/trace/contour/border.h"
#include "core/trace/outline/rules.h"

namespace rim::trace::outline {

struct FitSettings {
  double tolerancePx = 0.35;    ///< how far the outline may leave the border, > 0
  double cornerReadiness = 50;  ///< 0 rounds everything, 100 keeps every kink
  Rules rules;                  ///< what is made exact
  double roundingPx = 1.2;      ///< how wide pixels and blur smear an edge
  double gapPx = 7;             ///< the longest stretch round a corner that neither of its sides must follow
  /// What the border may be off by at most (trace/contour/grain.h), whatever it seems to be by itself.
  double mostNoisePx = std::numeric_limits<double>::infinity();
  double leastNoisePx = 0;  ///< taken for noise even where the border seems to waver less
  /// The border comes from a picture without greys at its edges (trace/contour/without_jags.h).
  bool jagged = false;
  /// Corners are not put beyond the border near these places.
  std::vector<Point> blunt;
  /// Pieces that pass these places within `measuredReachPx` are left as the border's own points.
  std::vector<Point> measured;
  double measuredReachPx = 4;
  double measuredTolerancePx = 0;  ///< that their chords may leave out points by
};

/// The border as a closed path of lines, arcs and cubics, in upright pixels, running the same way.
///
/// Lines where the border is straight, arcs where it is round, cubics through smooth runs of
/// several pieces, one sharp node at a corner: there the path leaves the border for the
/// point where both sides meet, by at most what pixels round off. How closely it follows the rest
/// is weighed against the number of segments by the border's own noise (trace/contour/noise.h) and a
/// share of the tolerance. A border that one circle follows becomes that circle, as two half
/// circles; one that an ellipse follows becomes that ellipse (trace/fit/ellipse.h). Needs three points or more. Throws
/// Cancelled when `stop` is requested.
Path fitOutline(const contour::Border& border, const FitSettings& settings, std::stop_token stop = {});

/// The same for a border that does not close, from its first point to its last: an open path whose ends lie near
/// them, on what follows the border there. Needs two points or more.
Path fitOpenBorder(const std::vector<Point>& points, const FitSettings& settings, std::stop_token stop = {});

}  // namespace rim::trace::outline
