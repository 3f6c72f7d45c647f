#pragma once

#include <array>
#include <vector>

#include "core/trace/lines/continuation.h"
#include "core/trace/lines/stroke_chains.h"

namespace rim::trace::lines {

/// The middle of a stroke between two places where strokes meet or end, as far as nothing there pulls it aside, with
/// its corners as the pen drew them.
struct StrokeTrack {
  std::vector<Point> points;         ///< about kTrackStepPx apart, upright px
  std::vector<std::size_t> corners;  ///< which of them are corners
  std::vector<double> widths;        ///< of the stroke at places along it, px
  double width = 0;                  ///< px: the median
  double discWidth = 0;              ///< px: twice the median of its discs' radii
  bool closed = false;
  std::array<ChainEnd, 2> ends;
  bool area = false;      ///< it keeps its borders and is no line
  bool switched = false;  ///< somebody said so, against its width
};

/// The track of a chain. Next to a junction it begins where the discs lie outside of it.
StrokeTrack trackOf(const MedialAxis& axis, const StrokeChain& chain);

/// How a track would run on beyond its start (0) or end (1); what lies behind a corner does not count.
Continuation continuationAt(const StrokeTrack& track, std::size_t end);

}  // namespace rim::trace::lines
