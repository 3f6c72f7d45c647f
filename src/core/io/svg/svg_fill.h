#pragma once

#include <vector>

#include "core/geometry/path.h"

namespace rim::io::svg {

/// Which outlines of one filled shape without a stroke show nowhere when its inside is told by the rule "nonzero" (SVG
/// 1.1, 11.3: a place is inside when the outlines round it, counted by direction, do not cancel out): those that have
/// the inside on both sides, because the outline round them runs the same way. One that crosses the outline round it,
/// or is as large, is never among them. n log n for outlines that do not nest deep.
std::vector<bool> hiddenByFill(const std::vector<Path>& shape);

}  // namespace rim::io::svg
