#pragma once

#include <vector>

#include "core/trace/border.h"

namespace rim {

/// Part of a border, in which its jaggedness is looked at.
struct Stretch {
  std::size_t border = 0;  ///< index
  Border points;
};

/// Stretches of borders, at most a few hundred, spread evenly over all of them: enough to tell how jagged they are
/// without a look at every point.
std::vector<Stretch> stretchesOf(const std::vector<Border>& borders);

/// Which of `count` borders jump to and fro from one side of a pixel to the next because their picture has no greys at
/// its edges to say where between them they are, as in pictures of black and white only or reduced without smoothing:
/// by up to 1 / sqrt(12) = 0.29 px, the standard deviation of what is rounded to whole pixels. Where they jump by no
/// more than the grain of the picture, which moves borders by up to `grainPx` (trace/grain.h), explains, it is that;
/// where they lie anywhere between pixels' sides it is their shape.
///
/// Lines and circles are fitted to 20 points of each stretch that runs aslant; those count that the border crosses
/// often, as bends that are no circles are crossed a few times only. Where they lie between the sides is averaged on a
/// circle (mean resultant length; K. V. Mardia and P. E. Jupp, "Directional Statistics" (2000), 2.2). A border with few
/// stretches is as jagged as all of them together.
std::vector<bool> jaggedOnes(const std::vector<Stretch>& stretches, std::size_t count, double grainPx);

}  // namespace rim
