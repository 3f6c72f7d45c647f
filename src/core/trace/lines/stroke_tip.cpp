#include "core/trace/lines/stroke_tip.h"

#include <algorithm>
#include <cmath>

#include "core/trace/lines/ink_edge.h"

namespace rim::trace::lines {
namespace {

/// Takes away what lies beyond `end` where points end; two of them stay.
void cutBack(std::vector<Point>& points, Point end, Point direction) {
  while (points.size() > 2 && dot(end - points.back(), direction) < 0) points.pop_back();
}

/// Turns a track so that the end that is meant is last, lets `change` change its points, and turns it back.
template <typename Change>
void changeAt(StrokeTrack& track, std::size_t end, Change change) {
  std::vector<Point>& points = track.points;
  const std::size_t before = points.size();
  if (end == 0) std::reverse(points.begin(), points.end());
  change(points);
  if (end != 0) return;
  std::reverse(points.begin(), points.end());
  for (std::size_t& corner : track.corners)
    corner = corner + points.size() > before ? corner + points.size() - before : 0;
}

}  // namespace

FreeEnd endAtPen(const MedialAxis& axis, const StrokeChain& chain, StrokeTrack& track, std::size_t end) {
  const CentrePoint& outermost = end == 0 ? chain.points.front() : chain.points.back();
  Continuation on = continuationAt(track, end);
  const double width = track.widths.empty() ? track.width : (end == 0 ? track.widths.front() : track.widths.back());
  // A circle is followed up to the chain's last disc; on from there its tangent will do.
  const Point last = fit::project(on.shape, outermost.place);
  const Point out = dot(last - on.tip, on.direction) > 0 ? fit::tangentAt(on.shape, last) : on.direction;
  const Point from = dot(last - on.tip, on.direction) > 0 ? last : on.tip;
  const Point inkTip =
      leavesInk(axis, outermost.left, outermost.right, from, out).value_or(from + out * outermost.halfWidth);
  const Point stop = fit::project(on.shape, inkTip - out * (width / 2));
  changeAt(track, end, [&](std::vector<Point>& points) {
    if (dot(stop - on.tip, on.direction) > 0) {
      std::vector<Point> more = pointsOnTo(on, stop);
      points.insert(points.end(), more.begin(), more.end());
    } else {
      cutBack(points, stop, on.direction);
      const Point rest = points[points.size() - 2];
      const double ahead = dot(stop - rest, on.direction);
      points.back() = ahead > kShortestLinePx ? stop : rest + on.direction * kShortestLinePx;
    }
    on.tip = points.back();
    on.direction = fit::tangentAt(on.shape, on.tip);
  });
  return {on, inkTip, width};
}

void cutTrackAt(StrokeTrack& track, std::size_t end, Point stop, Point direction) {
  changeAt(track, end, [&](std::vector<Point>& points) { cutBack(points, stop, direction); });
}

}  // namespace rim::trace::lines
