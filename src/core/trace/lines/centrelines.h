#pragma once

#include <vector>

#include "core/drawing/outline.h"
#include "core/trace/contour/border.h"
#include "core/trace/lines/stroke_lines.h"
#include "core/trace/outline/fit_outline.h"
#include "core/trace/settings.h"
#include "core/work_control.h"

namespace rim::trace::lines {

/// The middle of a stroke.
struct Centreline {
  Path path;          ///< upright px; open, or a closed ring
  StrokeWidth width;  ///< px
};

/// The nets of every island of ink that these borders enclose (islands and holes as measuredBorders() gives them).
/// Throws Cancelled.
std::vector<StrokeNet> strokeNets(const std::vector<contour::Border>& borders, const WorkControl& control);

/// The same nets with their tracks (withTracks()). Throws Cancelled.
std::vector<StrokeNet> withTracks(std::vector<StrokeNet> nets, double limitPx, const WorkControl& control);

/// The lines of all nets, one for each stroke that the pen drew, before anything is fitted (linesOf()). Throws
/// Cancelled.
std::vector<StrokeLine> linesOf(std::vector<StrokeNet> nets, const WorkControl& control);

/// Lines, arcs and cubics along strokes (fitOutline(), fitOpenBorder()), drawn in an order in which little is travelled
/// between them. Where `ends` says so, free ends run on to the ink's tip. Throws Cancelled.
std::vector<Centreline> fitStrokes(std::vector<StrokeLine> lines, const outline::FitSettings& settings, StrokeEnds ends,
                                   const WorkControl& control);

}  // namespace rim::trace::lines
