#include "core/trace/outline/cut_corners.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/geometry/segment.h"

namespace rim::trace::outline {

Path withCornersCut(const Path& outline, const std::vector<Point>& places, double reachPx, double cutPx) {
  constexpr double kLeastTurn = 10 * std::numbers::pi / 180;
  const std::size_t n = outline.segments.size();
  // Whether the node at the start of each segment is cut.
  std::vector<bool> cut(n, false);
  for (std::size_t i = 0; i < n; ++i) {
    const Piece before = pieceOf(outline, (i + n - 1) % n);
    const Piece after = pieceOf(outline, i);
    const auto isNear = [&](Point place) { return distance(place, after.start) <= reachPx; };
    cut[i] = std::abs(angleBetween(tangentAt(before, 1), tangentAt(after, 0))) >= kLeastTurn &&
             std::any_of(places.begin(), places.end(), isNear);
  }
  if (std::none_of(cut.begin(), cut.end(), [](bool c) { return c; })) return outline;
  Path result{{}, {}, outline.closed};
  for (std::size_t i = 0; i < n; ++i) {
    const Piece side = pieceOf(outline, i);
    const double share = std::min(cutPx / std::max(lengthOf(side), 1e-9), 1.0 / 3);
    const double from = cut[i] ? share : 0;
    const double to = cut[(i + 1) % n] ? 1 - share : 1;
    const Point start = pointAt(side, from);
    if (i == 0) result.start = start;
    if (i > 0 && cut[i]) result.segments.push_back(Segment::line(start));
    result.segments.push_back(from > 0 || to < 1 ? partOf(side.start, side.segment, from, to) : side.segment);
  }
  if (cut[0]) result.segments.push_back(Segment::line(result.start));
  return result;
}

}  // namespace rim::trace::outline
