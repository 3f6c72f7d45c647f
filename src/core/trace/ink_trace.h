#pragma once

#include "core/trace/inks/ink_borders.h"
#include "core/trace/trace.h"

namespace rim::trace {

/// What is made of several inks.
enum class InkLayout {
  Silhouette,  ///< one outline round everything kept, with its holes
  CutOut,      ///< each kept ink's closed outlines on a layer of its own; common borders are the same segments
  Shared,      ///< every border once: the silhouette, and lines between two kept inks
};

/// The outlines of a picture of inks as the layout says, in upright px; layers carry the inks' names and colours.
/// Inks to be dissolved go to those around them first. Throws Cancelled.
Tracing traceInks(const picture::Picture& picture, const colour::InkMap& map, InkLayout layout,
                  const TraceSettings& settings, const WorkControl& control = {});

/// How many parts and holes closed outlines make: parts run counter-clockwise, holes clockwise.
struct PartsAndHoles {
  std::size_t parts = 0;
  std::size_t holes = 0;
};
PartsAndHoles partsAndHoles(const Paths& outlines);

}  // namespace rim::trace
