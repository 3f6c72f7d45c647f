#pragma once

#include <stop_token>
#include <vector>

#include "core/trace/split/split.h"

namespace rim::trace::split {

/// A closed border cut open, and its pieces.
struct Opened {
  std::size_t start = 0;  ///< index of the border's point where it is cut
  Track track;
  std::vector<TrackPiece> pieces;  ///< none when the border has no two breakpoint candidates
};

/// A closed border, three points or more, cut open within a piece and split (splitAmong()): the first and the last
/// piece are parts of one. It is cut in the middle of the longest run between breakpoint candidates, straight ones
/// before others; were both ends dearer as one piece than apart, in the middle of the longest piece found so, and split
/// again. Throws Cancelled when `stop` is requested.
Opened openedWithinPiece(const contour::Border& border, const SplitLimits& split, const std::stop_token& stop);

}  // namespace rim::trace::split
