#pragma once

#include <optional>
#include <vector>

#include "core/trace/lines/stroke_lines.h"

namespace rim::trace::lines {

/// The way on from each end of each track, numbered 2 x track + end.
struct TrackLinks {
  std::vector<std::optional<std::size_t>> partner;
  std::vector<std::vector<Point>> more;  ///< points that it runs on by, in that direction
  std::vector<std::optional<FreeEnd>> freeEnd;

  explicit TrackLinks(std::size_t tracks) : partner(2 * tracks), more(2 * tracks), freeEnd(2 * tracks) {}
};

/// The lines that tracks make which go over into each other; areas are left out.
std::vector<StrokeLine> followed(const std::vector<StrokeTrack>& tracks, const TrackLinks& links);

}  // namespace rim::trace::lines
