#pragma once

#include <vector>

#include "core/geometry/path.h"
#include "core/trace/lines/stroke_lines.h"

namespace rim::trace::lines {

/// Lets the lines that run into an area end on its border, as these outlines (upright px) draw it.
void endOnAreas(std::vector<StrokeLine>& lines, const std::vector<Path>& areas);

}  // namespace rim::trace::lines
