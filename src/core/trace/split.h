#pragma once

#include <stop_token>
#include <vector>

#include "core/trace/primitive.h"
#include "core/trace/track.h"

namespace rim {

/// A range of the track and the line or circle that follows it.
struct Piece {
  std::size_t from = 0;  ///< index into the track
  std::size_t to = 0;    ///< index into the track; the next piece's `from`
  Primitive primitive;
};

struct SplitLimits {
  double deviationPx = 0.15;  ///< a piece leaves the border by no more than this
  double noisePx = 0.05;      ///< what the border itself may be off by; weighs error against pieces
  double trimPx = 1.0;        ///< left out at both ends of a piece: pixels round a corner off
};

/// The track as the fewest lines and arcs within the limits, and of all such splittings one with
/// the least error.
///
/// Greedy steps as far as possible, forwards and backwards, give the fewest pieces and for every
/// break the range it must lie in; dynamic programming over places in these ranges then picks the
/// breaks. Deviation is measured at up to 40 points a piece. Cost: some hundred small fits a
/// piece, whatever its length.
/// Throws Cancelled when `stop` is requested.
std::vector<Piece> splitTrack(const Track& track, const SplitLimits& limits, std::stop_token stop);

/// The best primitive for the points from index `from` to `to`, by the weighing of the limits.
Primitive fitRange(const Track& track, std::size_t from, std::size_t to, const SplitLimits& limits);

}  // namespace rim
