#pragma once

#include <vector>

#include "core/trace/contour/border.h"

namespace rim::trace::contour {

/// Part of a border, in which its roughness is looked at.
struct Stretch {
  std::size_t border = 0;  ///< index
  Border points;
};

/// What the grain of a picture (trace/contour/grain.h) does not explain of how a border jumps to and fro across itself.
struct Roughness {
  double px = 0;  ///< standard deviation; 0 when grain explains it
  /// It jumps from one side of a pixel to the next, as the picture has no greys at its edges to say where between them
  /// they are: one of black and white only, or one reduced without smoothing.
  bool jagged = false;
};

/// Stretches of borders, at most a few hundred, spread evenly over all of them: enough to tell how rough they are
/// without a look at every point.
std::vector<Stretch> stretchesOf(const std::vector<Border>& borders);

/// How rough each of `count` borders is in a picture whose grain moves borders by up to `grainPx`.
///
/// Lines and circles are fitted to 20 points of each stretch that runs aslant; those count that the border crosses
/// often, as bends that are no circles are crossed a few times only, and the median of what is left over is taken. A
/// border is jagged when it is rough by 0.07 px or more (what is rounded to whole pixels: 1 / sqrt(12) = 0.29) and the
/// places of its points between pixels' sides, averaged on a circle (mean resultant length; K. V. Mardia and P. E.
/// Jupp, "Directional Statistics" (2000), 2.2), gather at these sides by more than chance: runs that are level or
/// upright there say nothing, as such an edge may lie on a side with all its greys. A border with few stretches is as
/// rough as all of them together.
std::vector<Roughness> roughnessOf(const std::vector<Stretch>& stretches, std::size_t count, double grainPx);

}  // namespace rim::trace::contour
