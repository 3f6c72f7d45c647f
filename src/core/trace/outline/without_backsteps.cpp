#include "core/trace/outline/without_backsteps.h"

#include <algorithm>
#include <cmath>

#include "core/geometry/path_place.h"
#include "core/geometry/segment.h"

namespace rim::trace::outline {
namespace {

/// A line so short says nothing, whichever way it runs.
constexpr double kNothingPx = 0.03;
constexpr double kAsidePx = 0.5;
constexpr double kFoldPx = 3;
constexpr double kFold = -0.9;  // cosine of the turns of a line folded into three

bool stepsBack(const Path& path, std::size_t i, double anyPx) {
  const Segment& segment = path.segments[i];
  const Segment& previous = path.segments[i - 1];
  const Segment& next = path.segments[i + 1];
  const Point step = segment.end - segmentStart(path, i);
  if (!isLine(segment) || step == Point{}) return false;
  if (length(step) < kNothingPx) return true;
  const Point before = endTangent(segmentStart(path, i - 1), previous);
  const Point after = startTangent(segment.end, next);
  const double turn = std::max(dot(before, unit(step)), dot(unit(step), after));
  if (turn >= 0) return false;
  if (length(step) < anyPx) return true;
  const double aside = std::max(std::abs(cross(before, step)), std::abs(cross(after, step)));
  return isLine(previous) && isLine(next) && turn < kFold && (length(step) < kFoldPx || aside < kAsidePx);
}

/// A segment that started at `from` with other ends.
Segment withOwnEnds(Point from, const Segment& segment, Point start, Point end) {
  return withEnds({from, {segment}, false}, start, end).segments.front();
}

void takeOut(Path& path, std::size_t i) {
  Segment& previous = path.segments[i - 1];
  Segment& next = path.segments[i + 1];
  const Point from = segmentStart(path, i - 1);
  const Point to = path.segments[i].end;
  const Point middle = lerp(previous.end, to, 0.5);
  previous = withOwnEnds(from, previous, from, middle);
  next = withOwnEnds(to, next, middle, next.end);
  path.segments.erase(path.segments.begin() + static_cast<std::ptrdiff_t>(i));
}

/// The same; the first and the last segment stay.
Path withoutInnerBacksteps(Path path, double anyPx) {
  for (std::size_t i = 1; i + 1 < path.segments.size();) {
    if (stepsBack(path, i, anyPx)) {
      takeOut(path, i);
    } else {
      ++i;
    }
  }
  return path;
}

/// Whether a line is shorter than that and turns back from a direction.
bool isHook(const Piece& piece, Point direction, double shortPx) {
  constexpr double kNearlyBack = -0.7;  // cosine
  const Point way = piece.segment.end - piece.start;
  const double size = length(way);
  return isLine(piece.segment) && size > 0 && size < shortPx && dot(way, direction) < kNearlyBack * size;
}

}  // namespace

Path withoutBacksteps(Path path, double anyPx) {
  path = withoutInnerBacksteps(std::move(path), anyPx);
  const std::size_t count = path.segments.size();
  if (!path.closed || count < 4) return path;
  // Where it begins and ends is in the middle once it begins elsewhere.
  Path turned = withoutInnerBacksteps(begunAt(path, count / 2), anyPx);
  return turned.segments.size() < count ? turned : path;
}

Path withoutHooks(Path path, double shortPx) {
  std::vector<Segment>& segments = path.segments;
  if (segments.size() > 1) {
    const std::size_t last = segments.size() - 1;
    const Point from = segmentStart(path, last - 1);
    if (isHook(pieceOf(path, last), endTangent(from, segments[last - 1]), shortPx)) {
      segments[last - 1] = withOwnEnds(from, segments[last - 1], from, segments[last].end);
      segments.pop_back();
    }
  }
  if (segments.size() > 1 && isHook(pieceOf(path, 0), tangentAt(pieceOf(path, 1), 0), shortPx)) {
    segments[1] = withOwnEnds(segments[0].end, segments[1], path.start, segments[1].end);
    segments.erase(segments.begin());
  }
  return path;
}

}  // namespace rim::trace::outline
