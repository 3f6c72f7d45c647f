#pragma once

#include <stop_token>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/geometry/path.h"
#include "core/picture/picture.h"
#include "core/trace/contour/border.h"
#include "core/trace/contour/threshold.h"
#include "core/trace/settings.h"
#include "core/work_control.h"

namespace rim {

/// Outlines of a picture in upright pixels. All are closed (save shared borders between inks); none crosses itself or
/// another; islands run counter-clockwise and their holes clockwise.
struct Tracing {
  std::vector<Path> outlines;
  int threshold = 0;                 ///< the one that was used
  std::vector<Layer> layers;         ///< of several inks (trace/ink_trace.h); else empty
  std::vector<std::size_t> layerOf;  ///< of each outline, when there are layers
};

/// The measured borders before anything is fitted: what can be shown at once while a setting moves.
/// Throws what followBorders() throws.
std::vector<Border> traceBorders(const Picture& picture, const TraceSettings& settings, std::stop_token stop = {});

/// The same borders moved to where the ink's coverage says the edge is: what outlines are fitted to. Throws
/// what followBorders() throws.
std::vector<Border> measuredBorders(const Picture& picture, const TraceSettings& settings, std::stop_token stop = {});

/// Borders followed and fitted. An outline that comes to cross another after fitting is fitted
/// again closer, in the last resort it keeps its border's points near where they cross.
/// Throws Cancelled when a stop is requested, InputError when there are more than kMostBorderPoints.
Tracing trace(const Picture& picture, const TraceSettings& settings, const WorkControl& control = {});

/// The same from borders that were followed already with these settings. Throws Cancelled.
Tracing fitBorders(const Picture& picture, const std::vector<Border>& borders, const TraceSettings& settings,
                   const WorkControl& control);

}  // namespace rim
