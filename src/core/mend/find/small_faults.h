#pragma once

#include <vector>

#include "core/drawing/drawing.h"
#include "core/geometry/segment.h"
#include "core/mend/find/settings.h"

namespace rim::mend {

/// A segment at fault within its path.
struct SegmentFault {
  std::size_t path = 0;
  std::size_t segment = 0;
  Point at;
  double sizeMm = 0;
};

/// Paths of no length at all, dots: shorter than a millionth of a mm, or without a segment.
bool isZeroLength(const Path& path);

/// Segments shorter than `coincidentMm` within longer paths: two nodes in one place.
std::vector<SegmentFault> coincidentNodes(const Paths& paths, double coincidentMm);

/// How far two pieces, one after the other, run out and back on one line: the shorter of both; 0 when they do not.
/// Within `doubleMm`, or, when they are longer than ten times that, a fifth of it.
double spikeOf(const Piece& out, const Piece& back, double doubleMm);

/// Segments that run back on the one before within `doubleMm`: out and back. The fault names the segment that runs out;
/// its size is how far.
std::vector<SegmentFault> spikes(const Paths& paths, double doubleMm);

/// The larger side of the path's box, mm.
double sizeOf(const Path& path);

/// Closed paths whose larger side is below `mm`.
std::vector<std::size_t> closedBelow(const Paths& paths, double mm);

}  // namespace rim::mend
