#include "core/mend/repair/branch_lines.h"

#include <algorithm>
#include <cmath>
#include <optional>

#include "core/geometry/intersect.h"
#include "core/geometry/nearest_on_paths.h"
#include "core/geometry/path_place.h"
#include "core/geometry/segment.h"
#include "core/mend/repair/middle_lines.h"

namespace rim::mend {
namespace {

constexpr double kBeside = 0.6;     // of the stroke's width: nearer to its middle than that a line is the stroke
constexpr double kShortest = 0.75;  // of its width: what reaches less far is a corner of its edge
constexpr int kStepsAWidth = 12;

/// The places of a path in steps of about a twelfth of a width (> 0), from its start to its end.
std::vector<PathPlace> placesAlong(const Path& path, double width) {
  constexpr double kMostPlaces = 50'000;
  const double step = std::max(width / kStepsAWidth, pathLength(path) / kMostPlaces);
  std::vector<PathPlace> places{startPlace(path)};
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Piece piece = pieceOf(path, i);
    const int parts = std::max(1, static_cast<int>(std::ceil(lengthOf(piece) / step)));
    for (int k = 1; k <= parts; ++k) {
      const double t = static_cast<double>(k) / parts;
      places.push_back({i, t, pointAt(piece, t), 0});
    }
  }
  return places;
}

}  // namespace

Path ledBackTo(const Path& on, Path line, double reach) {
  const Point back = -tangentAt(pieceOf(line, 0), 0);
  const Piece ray{line.start, Segment::line(line.start + back * reach)};
  Point foot = nearestOn(on, line.start).place;
  double least = reach;
  for (std::size_t i = 0; i < on.segments.size(); ++i) {
    for (const Meeting& meeting : meetings(ray, pieceOf(on, i))) {
      if (distance(meeting.place, line.start) >= least) continue;
      least = distance(meeting.place, line.start);
      foot = meeting.place;
    }
  }
  if (distance(foot, line.start) == 0) return line;
  line.segments.insert(line.segments.begin(), Segment::line(line.start));
  line.start = foot;
  // A line that goes on as a line is one.
  const bool straight = line.segments.size() > 1 && isLine(line.segments[1]) &&
                        std::abs(angleBetween(tangentAt(pieceOf(line, 0), 0), tangentAt(pieceOf(line, 1), 0))) < 1e-6;
  if (straight) line.segments.erase(line.segments.begin());
  return line;
}

std::vector<trace::lines::Centreline> branchesOf(const Path& outer, const Path& inner, const Path& middle, double width,
                                                 const std::stop_token& stop) {
  constexpr double kWider = 1.5;
  const NearestOnPaths stroke(Paths{middle});
  std::vector<trace::lines::Centreline> branches;
  for (const trace::lines::Centreline& line : middlesOf({&outer, &inner}, kWider * width, stop)) {
    if (line.path.closed || line.path.segments.empty()) continue;
    for (const bool forwards : {true, false}) {
      const Path path = forwards ? line.path : reversed(line.path);
      const std::vector<PathPlace> places = placesAlong(path, width);
      // The last place that still is the stroke; from there to the line's end it hangs on it.
      const auto last = std::find_if(places.rbegin(), places.rend(), [&](const PathPlace& place) {
        return stroke.distanceTo(place.place) <= kBeside * width;
      });
      if (last == places.rend() || last == places.rbegin()) continue;
      const Path tail = stretchOf(path, *last, endPlace(path));
      if (pathLength(tail) < kShortest * width) continue;
      branches.push_back({tail, line.width});
    }
  }
  return branches;
}

Path withoutBranch(const Path& outer, const Path& middle, double width, Point tip) {
  constexpr double kOnEdge = 0.505;  // of the width
  const NearestOnPaths stroke(Paths{middle});
  std::vector<PathPlace> places = placesAlong(outer, width);
  places.pop_back();  // the start once more
  const std::size_t count = places.size();
  std::size_t nearest = 0;
  for (std::size_t i = 1; i < count; ++i) {
    if (distance(places[i].place, tip) < distance(places[nearest].place, tip)) nearest = i;
  }
  const auto isEdge = [&](std::size_t i) { return stroke.distanceTo(places[i % count].place) <= kOnEdge * width; };
  std::size_t before = 0;
  std::size_t behind = 0;
  while (before < count / 2 && !isEdge(nearest + count - before)) ++before;
  while (behind < count / 2 && !isEdge(nearest + behind)) ++behind;
  if (before + behind >= count / 2 || before + behind == 0) return outer;
  Path path = stretchOf(outer, places[(nearest + behind) % count], places[(nearest + count - before) % count]);
  path.segments.push_back(Segment::line(path.start));
  path.closed = true;
  return path;
}

}  // namespace rim::mend
