#pragma once

#include <vector>

#include "core/trace/contour/tones.h"
#include "core/trace/outline/by_greys.h"

namespace rim::trace::outline {

/// Outlines of many segments of which a line of their border's points needs fewer become that line. Those that cross or
/// touch themselves or another have their corners there cut off by a fraction of a pixel, or are fitted again, closer
/// there each time, until none does: in the last resort they keep their border's points near where they cross, as few
/// as there is room for. `targets` are what they were fitted to, `borders` as they were followed; both one each. Throws
/// Cancelled.
void keepApart(std::vector<Path>& outlines, const std::vector<FitTarget>& targets, const contour::Tones& tones,
               const std::vector<contour::Border>& borders, const TraceSettings& settings, const WorkControl& control);

}  // namespace rim::trace::outline
