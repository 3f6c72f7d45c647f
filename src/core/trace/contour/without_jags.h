#pragma once

#include "core/trace/contour/border.h"

namespace rim::trace::contour {

/// A border of a picture without greys at its edges, moved to where the edge runs through the pixels' sides.
///
/// The points of `border` (trace/contour/border.h) lie on the sides between a pixel of ink and one of paper; each is
/// taken at the middle of its side. Where an edge runs nearly along columns, these sides are upright but for a lone
/// level one at every step, and it is the lone ones that tell where the edge is: it passes each by half a pixel of its
/// own slope at most, the others by half a pixel. So lone sides are kept and the straight way between them is filled in
/// with points about a pixel apart. Along runs of sides that end at a corner, or turn back, the others are kept where
/// no step tells more. (The steps of a digital straight line: A. Rosenfeld, "Digital straight line segments", IEEE
/// Trans. Computers C-23 (1974), 1264-1269: one of its two directions stands alone.) Points on the rim of the picture
/// stay.
Border withoutJags(const Border& border);

/// The same for the middles of sides that do not close: where they begin and end counts as a corner.
std::vector<Point> withoutJagsOpen(const std::vector<Point>& sides);

}  // namespace rim::trace::contour
