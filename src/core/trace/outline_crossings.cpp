#include "core/trace/outline_crossings.h"

#include <algorithm>

#include "core/geometry/coming_near.h"
#include "core/geometry/flatten.h"

namespace rim {
namespace {

constexpr double kWideChordErrorPx = 0.05;
/// Sharp corners between a curve and a line may cross for so little that coarser chords do not show it.
constexpr double kFineChordErrorPx = 0.0002;
/// Outlines nearer to each other than this may cross when someone draws them by chords.
constexpr double kCoarseChordErrorPx = 0.01;

}  // namespace

OutlineCrossings::OutlineCrossings(const std::vector<Path>& outlines, std::span<const Point> meetings)
    : outlines_(outlines), meetings_(meetings), wide_(outlines.size()) {
  for (std::size_t i = 0; i < outlines.size(); ++i) changed(i);
}

void OutlineCrossings::changed(std::size_t i) { wide_[i] = flatten(outlines_[i], kWideChordErrorPx); }

bool OutlineCrossings::mayMeet(Point place) const {
  constexpr double kAtMeetingPx = 0.1;
  return std::any_of(meetings_.begin(), meetings_.end(),
                     [place](Point meeting) { return distance(meeting, place) < kAtMeetingPx; });
}

std::vector<Crossing> OutlineCrossings::find(const std::stop_token& stop) const {
  const std::vector<std::size_t> suspects = comingNear(wide_, 2 * kWideChordErrorPx, stop);
  for (const double chordError : {kFineChordErrorPx, kCoarseChordErrorPx}) {
    std::vector<Polyline> close(outlines_.size());
    for (const std::size_t i : suspects) close[i] = flatten(outlines_[i], chordError);
    std::vector<Crossing> found = findCrossings(close, stop);
    std::erase_if(found, [this](const Crossing& crossing) { return mayMeet(crossing.place); });
    if (!found.empty()) return found;
  }
  return {};
}

}  // namespace rim
