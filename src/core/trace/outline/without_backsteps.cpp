#include "core/trace/outline/without_backsteps.h"

#include <algorithm>
#include <cmath>

#include "core/geometry/path_place.h"

namespace rim::trace::outline {
namespace {

/// A line so short says nothing, whichever way it runs.
constexpr double kNothingPx = 0.03;
constexpr double kAsidePx = 0.5;
constexpr double kFoldPx = 3;
constexpr double kFold = -0.9;  // cosine of the turns of a line folded into three

bool isLine(const Segment& segment) { return segment.kind == SegmentKind::Line; }

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

void takeOut(Path& path, std::size_t i) {
  const auto withOwnEnds = [](Point from, const Segment& segment, Point start, Point end) {
    return withEnds({from, {segment}, false}, start, end).segments.front();
  };
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

}  // namespace

Path withoutBacksteps(Path path, double anyPx) {
  path = withoutInnerBacksteps(std::move(path), anyPx);
  const std::size_t count = path.segments.size();
  if (!path.closed || count < 4) return path;
  // Where it begins and ends is in the middle once it begins elsewhere.
  Path turned = withoutInnerBacksteps(begunAt(path, count / 2), anyPx);
  return turned.segments.size() < count ? turned : path;
}

}  // namespace rim::trace::outline
