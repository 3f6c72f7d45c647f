#pragma once

#include "core/trace/lines/stroke_lines.h"

namespace rim::trace::lines {

/// Lets a track end where the pen's middle stopped, half a width before the ink's tip, at its start (0) or end (1), and
/// says how it would run on from there.
FreeEnd endAtPen(const MedialAxis& axis, const StrokeChain& chain, StrokeTrack& track, std::size_t end);

/// Takes away what of a track lies beyond `stop` at its start (0) or end (1), seen along `direction`; two points stay.
void cutTrackAt(StrokeTrack& track, std::size_t end, Point stop, Point direction);

}  // namespace rim::trace::lines
