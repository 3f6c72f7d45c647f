#include "core/trace/lines/ink_edge.h"

namespace rim::trace::lines {

std::optional<Point> leavesInk(const MedialAxis& axis, std::uint32_t a, std::uint32_t b, Point from, Point direction) {
  if (axis.samples[a].ring != axis.samples[b].ring) return std::nullopt;
  const int step = shorterWay(axis, a, b);
  std::optional<Point> best;
  for (std::uint32_t i = a; i != b;) {
    const Point p = axis.samples[i].place;
    i = sampleBeside(axis, i, step);
    const Point q = axis.samples[i].place;
    const double sideP = cross(direction, p - from);
    const double sideQ = cross(direction, q - from);
    if ((sideP > 0) == (sideQ > 0)) continue;
    const Point at = lerp(p, q, sideP / (sideP - sideQ));
    if (!best || dot(at - *best, direction) > 0) best = at;
  }
  return best;
}

}  // namespace rim::trace::lines
