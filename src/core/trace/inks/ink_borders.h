#pragma once

#include <vector>

#include "core/colour/inks.h"
#include "core/geometry/path.h"
#include "core/picture/picture.h"
#include "core/trace/settings.h"
#include "core/work_control.h"

namespace rim::trace::inks {

/// A fitted border between two inks. An open one starts and ends at junctions; its ends are the
/// junctions' places exactly, so that borders meet.
struct FittedBorder {
  Path path;
  std::uint8_t left = 0;  ///< ink at its left, or kOutside (trace/inks/cracks.h)
  std::uint8_t right = 0;
  int start = -1;  ///< junction; -1: closed
  int end = -1;
  std::size_t way = 0;  ///< borders of one way go straight through junctions into each other
};

/// The planar map of a picture of inks: every border once, fitted once. Upright px.
struct InkBorders {
  std::vector<FittedBorder> borders;
  std::vector<Point> junctions;
};

/// Fits every border between two inks: in small pictures as the outline of one of them, traced alone, runs
/// (trace/inks/own_outlines.h), else as outlines are fitted (trace/outline/fit_outline.h); ways through
/// junctions as one, so what goes straight on stays straight; junctions where the borders that end there,
/// prolonged, meet each other or the way they end on (least squares). Borders that would cross follow their measured
/// points or their pixels near the crossing (trace/outline/measured_near.h). Parts with less than
/// settings.minAreaPx2 go to the inks around them. Inks that are to be dissolved must have been already.
/// Throws Cancelled.
InkBorders fitInkBorders(const picture::Picture& picture, const colour::InkMap& map, const TraceSettings& settings,
                         const WorkControl& control = {});

}  // namespace rim::trace::inks
