#pragma once

#include <stop_token>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/trace/trace.h"

namespace rim::trace {

/// A place of an outline and how far it lies from the measured border, in px.
struct DeviationSample {
  Point place;
  double off = 0;
};

/// How far outlines lie from the borders that were measured in the picture.
struct Deviation {
  struct OfOutline {
    OutlineId id = OutlineId::None;
    std::vector<DeviationSample> samples;  ///< about one a px, in running order; closed
  };
  std::vector<OfOutline> outlines;
  Point worst;         ///< upright px
  double largest = 0;  ///< px
};

/// Measures the outlines of a tracing (px, in the order of their borders) against the sharpened borders that they were
/// fitted to. At corners the outline leaves the border on purpose: what pixels round off shows there. Empty when lines
/// of strokes were traced, which follow no border. Throws Cancelled when `stop` is requested.
Deviation deviationOf(const picture::Picture& picture, const TraceSettings& settings, const Drawing& tracing,
                      std::stop_token stop = {});

}  // namespace rim::trace
