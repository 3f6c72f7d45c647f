#pragma once

#include <optional>
#include <vector>

#include "core/drawing/drawing.h"

namespace rim::trace {

/// So many px of strokes are so wide.
struct WidthShare {
  double width = 0;   ///< px
  double length = 0;  ///< px

  friend bool operator==(const WidthShare&, const WidthShare&) = default;
};

/// The strokes that lines were made of.
struct StrokeFacts {
  std::vector<WidthShare> widths;  ///< of all ink, narrowest first, in steps of about 2 %
  double limitPx = 0;              ///< the widest that became lines; infinite: all did

  friend bool operator==(const StrokeFacts&, const StrokeFacts&) = default;
};

/// Outlines of a picture in upright pixels. All are closed (save shared borders between inks, and middles of strokes);
/// none crosses itself or another (save such middles); islands run counter-clockwise and their holes clockwise.
struct Tracing {
  std::vector<Path> outlines;
  int threshold = 0;                 ///< the one that was used
  std::vector<Layer> layers;         ///< of several inks (trace/ink_trace.h); else empty
  std::vector<std::size_t> layerOf;  ///< of each outline, when there are layers
  std::vector<StrokeWidth> strokes;  ///< of each outline, px, when lines of strokes are among them
  std::optional<StrokeFacts> facts;  ///< then
};

}  // namespace rim::trace
