#include "core/trace/split/cut_open.h"

#include <algorithm>
#include <cmath>

#include "core/trace/fit/moments.h"
#include "core/trace/split/breakpoint_candidates.h"

namespace rim::trace::split {
namespace {

/// Where a border is best cut open, an index into the track: in the middle of the longest run between breakpoint
/// candidates, straight ones before others. A break there is no real one, but all real breaks have their surroundings
/// on one side of the track's ends.
std::size_t middleOfLongestRun(const Track& track, const std::vector<std::size_t>& breaks, double deviationPx) {
  constexpr double kPreferred = 4;
  constexpr double kStraight = 2;
  double longest = 0;
  double middle = 0;
  for (std::size_t k = 0; k + 1 < breaks.size(); ++k) {
    const double off = std::sqrt(fit::lineMeanSquare(fit::momentsOf(track.points(breaks[k], breaks[k + 1]))));
    const double way = track.arcLength(breaks[k + 1]) - track.arcLength(breaks[k]);
    const double rated = off < kStraight * deviationPx ? kPreferred * way : way;
    if (rated <= longest) continue;
    longest = rated;
    middle = track.arcLength(breaks[k]) + way / 2;
  }
  return track.indexAt(middle) % track.last();
}

std::size_t middleOfLongestPiece(const Track& track, const std::vector<TrackPiece>& pieces) {
  const auto longest = std::max_element(
      pieces.begin(), pieces.end(),
      [&track](const TrackPiece& a, const TrackPiece& b) { return arcLengthOf(track, a) < arcLengthOf(track, b); });
  return track.indexAt(track.arcLength(longest->from) + arcLengthOf(track, *longest) / 2) % track.last();
}

/// The same breaks on a track that starts at index `start` of the one before.
std::vector<std::size_t> turnedBreaks(std::vector<std::size_t> breaks, std::size_t start, std::size_t count) {
  for (std::size_t& at : breaks) at = (at + count - start) % count;
  std::sort(breaks.begin(), breaks.end());
  return breaks;
}

/// Whether the first and the last piece cost less as one.
bool endsAreOne(const Opened& opened, const SplitLimits& split) {
  if (opened.pieces.size() < 2) return true;
  const Track& track = opened.track;
  fit::MomentSums together(track.point(0));
  double apart = 0;
  for (const TrackPiece* piece : {&opened.pieces.front(), &opened.pieces.back()}) {
    const auto [from, end] = track.within(piece->from, piece->to, split.trimPx);
    fit::MomentSums sums(track.point(0));
    for (std::size_t i = from; i < end; ++i) sums.add(track.point(i));
    apart += priceOfPiece(sums.central(), arcLengthOf(track, *piece), split);
    together.add(sums);
  }
  // Together they may go nearly all the way round.
  constexpr double kAnySweep = 0;
  return priceOfPiece(together.central(), kAnySweep, split) < apart;
}

}  // namespace

Opened openedWithinPiece(const contour::Border& border, const SplitLimits& split, const std::stop_token& stop) {
  const Track anywhere(border, 0);
  const std::vector<std::size_t> breaks = breakpointCandidates(anywhere, split);
  const auto openedAt = [&](std::size_t start) {
    Track track(border, start);
    std::vector<TrackPiece> pieces = splitAmong(track, turnedBreaks(breaks, start, border.size()), split, stop);
    return Opened{start, std::move(track), std::move(pieces)};
  };
  if (breaks.size() < 2) return {0, anywhere, {}};
  Opened opened = openedAt(middleOfLongestRun(anywhere, breaks, split.deviationPx));
  if (endsAreOne(opened, split)) return opened;
  return openedAt((opened.start + middleOfLongestPiece(opened.track, opened.pieces)) % border.size());
}

}  // namespace rim::trace::split
