#pragma once

#include "core/geometry/path.h"

namespace rim::trace::outline {

/// The path without lines shorter than `tinyPx`, an open one without any segment so short, as they say nothing; what
/// came before ends where they did, and its last handle goes with it. The first line of a closed path stays, and so do
/// all of one of less than four segments; an open path begins and ends where it did, and keeps one segment.
Path withoutTinyLines(const Path& path, double tinyPx);

}  // namespace rim::trace::outline
