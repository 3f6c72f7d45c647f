#pragma once

#include "core/geometry/path.h"

namespace rim::trace::outline {

/// The open path without what it runs out and back within `widthPx`: of two pieces that meet in such a tip the shorter
/// one goes, and the longer one as far as it lies beside it. What is longer than `mostPx` stays, as does the last
/// segment of a path.
Path withoutSpikes(Path path, double widthPx, double mostPx);

}  // namespace rim::trace::outline
