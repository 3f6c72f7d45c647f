#include "core/trace/outline/outline_crossings.h"

#include <algorithm>
#include <cmath>

#include "core/for_all.h"
#include "core/geometry/coming_near.h"
#include "core/geometry/flatten.h"

namespace rim::trace::outline {
namespace {

constexpr double kWideChordErrorPx = 0.1;
/// Sharp corners between a curve and a line may cross for so little that coarser chords do not show it.
constexpr double kFineChordErrorPx = 0.0002;
/// Outlines nearer to each other than this may cross when someone draws them by chords.
constexpr double kCoarseChordErrorPx = 0.01;

/// Lines that files would write on one another touch, whatever little they are apart.
Polyline rounded(Polyline points) {
  constexpr double kSteps = 4096;  // a pixel
  for (Point& p : points) p = {std::round(p.x * kSteps) / kSteps, std::round(p.y * kSteps) / kSteps};
  points.erase(std::unique(points.begin(), points.end()), points.end());
  while (points.size() > 1 && points.front() == points.back()) points.pop_back();
  return points;
}

}  // namespace

OutlineCrossings::OutlineCrossings(const std::vector<Path>& outlines, std::span<const Point> meetings)
    : outlines_(outlines), meetings_(meetings), wide_(outlines.size()) {
  forAll(outlines.size(), {}, [this](std::size_t i) { changed(i); });
}

void OutlineCrossings::changed(std::size_t i) { wide_[i] = flatten(outlines_[i], kWideChordErrorPx); }

bool OutlineCrossings::mayMeet(Point place) const {
  constexpr double kAtMeetingPx = 0.1;
  return std::any_of(meetings_.begin(), meetings_.end(),
                     [place](Point meeting) { return distance(meeting, place) < kAtMeetingPx; });
}

std::vector<Crossing> OutlineCrossings::foundAmong(const std::vector<std::size_t>& group,
                                                   const std::stop_token& stop) const {
  const auto flattened = [&](double chordErrorPx) {
    std::vector<Polyline> chords;
    for (const std::size_t i : group) chords.push_back(flatten(outlines_[i], chordErrorPx));
    return chords;
  };
  const auto foundAs = [&](const std::vector<Polyline>& close) {
    std::vector<Crossing> found = findCrossings(close, stop, [this](Point place) { return mayMeet(place); });
    for (Crossing& crossing : found) crossing.polyline = group[crossing.polyline];
    return found;
  };
  std::vector<Polyline> fine = flattened(kFineChordErrorPx);
  if (auto found = foundAs(fine); !found.empty()) return found;
  if (auto found = foundAs(flattened(kCoarseChordErrorPx)); !found.empty()) return found;
  for (Polyline& points : fine) points = rounded(std::move(points));
  return foundAs(fine);
}

std::vector<Crossing> OutlineCrossings::find(const std::stop_token& stop) const {
  const std::vector<std::vector<std::size_t>> groups = comingNear(wide_, 2 * kWideChordErrorPx, stop);
  std::vector<std::vector<Crossing>> ofGroups(groups.size());
  forAll(groups.size(), {stop, {}}, [&](std::size_t g) { ofGroups[g] = foundAmong(groups[g], stop); });
  std::vector<Crossing> found;
  for (const std::vector<Crossing>& some : ofGroups) found.insert(found.end(), some.begin(), some.end());
  std::stable_sort(found.begin(), found.end(),
                   [](const Crossing& a, const Crossing& b) { return a.polyline < b.polyline; });
  return found;
}

}  // namespace rim::trace::outline
