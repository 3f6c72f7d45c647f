#pragma once

#include <vector>

#include "core/drawing/drawing.h"

namespace rim {

/// Puts new outlines along these paths into a drawing, in place of those that it has.
inline void setPaths(Drawing& drawing, std::vector<Path> paths) {
  drawing.outlines = makeDrawing(std::move(paths)).outlines;
}

/// Puts the outlines of a drawing on these layers, in order.
inline void setLayers(Drawing& drawing, const std::vector<std::size_t>& layers) {
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i) drawing.outlines[i].layer = layers[i];
}

}  // namespace rim
