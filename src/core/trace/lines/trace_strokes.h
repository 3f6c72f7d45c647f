#pragma once

#include "core/picture/picture.h"
#include "core/trace/settings.h"
#include "core/trace/tracing.h"
#include "core/work_control.h"

namespace rim::trace::lines {

/// The middles of strokes, and with TraceMethod::Mixed the borders of what is wider than they may be, of a picture in
/// two tones; these on the layers "lines" and "areas". Throws Cancelled, and what followBorders() throws.
Tracing traceStrokes(const picture::Picture& picture, const TraceSettings& settings, const WorkControl& control);

}  // namespace rim::trace::lines
