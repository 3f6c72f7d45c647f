#pragma once

#include <vector>

#include "core/drawing/drawing.h"

/// What is moved as one when outlines are lined up, spaced or copied.
namespace rim::refine {

/// The outlines of a drawing, by their places, that stay together: those of one group, and a closed outline with all
/// that lies inside it, so that holes stay where they are in their part. Where that would be everything, an outline
/// (or a group) counts for itself: a hole can be brought to the middle of its plate. In the order of their first
/// outlines.
std::vector<std::vector<std::size_t>> partsOf(const Drawing& drawing);

/// The drawing, which holds copies (refine/edit/place.h) of its first `originals` outlines behind these, turn after
/// turn: with the copies of each behind it. `originals` > 0.
Drawing copiesBehindTheirs(Drawing drawing, std::size_t originals);

}  // namespace rim::refine
