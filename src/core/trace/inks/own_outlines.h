#pragma once

#include <optional>
#include <vector>

#include "core/geometry/path.h"
#include "core/trace/inks/lone_inks.h"
#include "core/trace/inks/ways.h"
#include "core/work_control.h"

namespace rim::trace::inks {

/// Of every way the stretch of an outline that follows it, of an ink that was traced alone and lies beside all of the
/// way. It runs the way's way; a closed way has the whole outline, an open one what lies between its junctions, or
/// ends earlier in a line that is to be prolonged to one. Nothing where none follows it, and of the picture's sides.
/// Throws Cancelled.
std::vector<std::optional<Path>> ownOutlines(const Ways& ways, const LoneInks& lone, const WorkControl& control);

}  // namespace rim::trace::inks
