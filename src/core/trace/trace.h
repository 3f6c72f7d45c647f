#pragma once

#include <stop_token>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/geometry/path.h"
#include "core/picture/picture.h"
#include "core/trace/contour/border.h"
#include "core/trace/contour/threshold.h"
#include "core/trace/settings.h"
#include "core/trace/tracing.h"
#include "core/work_control.h"

namespace rim::trace {

/// The measured borders before anything is fitted: what can be shown at once while a setting moves.
/// Throws what followBorders() throws.
std::vector<contour::Border> traceBorders(const picture::Picture& picture, const TraceSettings& settings,
                                          std::stop_token stop = {});

/// The same borders moved to where the ink's coverage says the edge is: what outlines are fitted to. Throws
/// what followBorders() throws.
std::vector<contour::Border> measuredBorders(const picture::Picture& picture, const TraceSettings& settings,
                                             std::stop_token stop = {});

/// Borders followed and fitted, or what else the settings' method asks for (trace/lines/trace_strokes.h). An outline
/// that comes to cross another after fitting is fitted
/// again closer, in the last resort it keeps its border's points near where they cross.
/// Throws Cancelled when a stop is requested, InputError when there are more than kMostBorderPoints.
Tracing trace(const picture::Picture& picture, const TraceSettings& settings, const WorkControl& control = {});

/// The same from borders that were followed already with these settings. Throws Cancelled.
Tracing fitBorders(const picture::Picture& picture, const std::vector<contour::Border>& borders,
                   const TraceSettings& settings, const WorkControl& control);

}  // namespace rim::trace
