#pragma once

#include <functional>
#include <vector>

#include "core/trace/contour/tones.h"
#include "core/trace/outline/by_greys.h"
#include "core/trace/settings.h"
#include "core/trace/tracing.h"
#include "core/work_control.h"

namespace rim::trace::outline {

/// What is fitted, and how hard.
struct FitScope {
  /// Whether a border is; the others' outlines are the polygons of their points. None given: all are.
  std::function<bool(const contour::Border&)> isFitted{};
  int greyRounds = kMostGreyRounds;  ///< trace/outline/by_greys.h
};

/// Outlines fitted to borders at the picture's own fineness, whose noise is judged (judgeNoise()). An outline that
/// comes to cross another after fitting is fitted again closer; in the last resort it keeps its border's points near
/// where they cross. Throws Cancelled, and what followBorders() throws.
Tracing traceOutlines(contour::Tones tones, std::vector<contour::Border> borders, const TraceSettings& wished,
                      const WorkControl& control, const FitScope& scope = {});

/// The same of the borders that these tones have. Throws Cancelled, and what followBorders() throws.
Tracing traceTones(contour::Tones tones, const TraceSettings& settings, const WorkControl& control,
                   const FitScope& scope = {});

}  // namespace rim::trace::outline
