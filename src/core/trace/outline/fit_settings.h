#pragma once

#include "core/trace/contour/tones.h"
#include "core/trace/outline/fit_outline.h"

namespace rim::trace::outline {

/// What the person decided about fitting.
FitSettings fitSettingsFrom(const TraceSettings& settings);

/// What outline i is fitted with.
FitSettings fitSettingsFor(const contour::Tones& tones, std::size_t i, const TraceSettings& settings);

}  // namespace rim::trace::outline
