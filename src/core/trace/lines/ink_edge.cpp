#include "core/trace/lines/ink_edge.h"

#include <utility>

namespace rim {

std::optional<Point> leavesInk(const MedialAxis& axis, std::uint32_t a, std::uint32_t b, Point from, Point direction) {
  if (axis.samples[a].ring != axis.samples[b].ring) return std::nullopt;
  const SampleRing& ring = axis.rings[axis.samples[a].ring];
  const std::uint32_t count = ring.end - ring.first;
  const double forward = axis.samples[b].along - axis.samples[a].along;
  const bool up = (forward >= 0 ? forward : forward + ring.length) <= ring.length / 2;
  if (!up) std::swap(a, b);
  std::optional<Point> best;
  for (std::uint32_t i = a - ring.first; ring.first + i % count != b; i = (i + 1) % count) {
    const Point p = axis.samples[ring.first + i % count].place;
    const Point q = axis.samples[ring.first + (i + 1) % count].place;
    const double sideP = cross(direction, p - from);
    const double sideQ = cross(direction, q - from);
    if ((sideP > 0) == (sideQ > 0)) continue;
    const Point at = lerp(p, q, sideP / (sideP - sideQ));
    if (!best || dot(at - *best, direction) > 0) best = at;
  }
  return best;
}

}  // namespace rim
