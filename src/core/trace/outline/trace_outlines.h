#pragma once

#include <vector>

#include "core/trace/contour/tones.h"
#include "core/trace/settings.h"
#include "core/trace/tracing.h"
#include "core/work_control.h"

namespace rim {

/// Outlines fitted to borders at the picture's own fineness, whose noise is judged (judgeNoise()). An outline that
/// comes to cross another after fitting is fitted again closer; in the last resort it keeps its border's points near
/// where they cross. Throws Cancelled, and what followBorders() throws.
Tracing traceOutlines(Tones tones, std::vector<Border> borders, const TraceSettings& wished,
                      const WorkControl& control);

}  // namespace rim
