#include "core/trace/lines/along_edge.h"

#include <algorithm>
#include <cmath>

namespace rim {
namespace {

std::uint32_t shifted(const SampleRing& ring, std::uint32_t sample, std::ptrdiff_t by) {
  const auto count = static_cast<std::ptrdiff_t>(ring.end - ring.first);
  const std::ptrdiff_t at = static_cast<std::ptrdiff_t>(sample - ring.first) + by;
  return ring.first + static_cast<std::uint32_t>(((at % count) + count) % count);
}

}  // namespace

std::vector<Point> middlesAlongEdge(const MedialAxis& axis, std::uint32_t from, std::uint32_t to, double width,
                                    Point place, Point runs) {
  constexpr double kGetsOn = 0.75;
  constexpr double kShortPx = 0.4;
  // The wider the stroke, the farther aside a tangent's noise would put its middle.
  const std::ptrdiff_t window = std::max<std::ptrdiff_t>(3, std::lround(width / 4 / kSampleSpacingPx));
  std::vector<Point> middles;
  if (axis.samples[from].ring != axis.samples[to].ring) return middles;
  const SampleRing& ring = axis.rings[axis.samples[from].ring];
  const double forward = axis.samples[to].along - axis.samples[from].along;
  const bool up = (forward >= 0 ? forward : forward + ring.length) <= ring.length / 2;
  const std::ptrdiff_t step = up ? 1 : -1;
  const auto middleAt = [&](std::uint32_t sample) {
    const Point tangent =
        axis.samples[shifted(ring, sample, window)].place - axis.samples[shifted(ring, sample, -window)].place;
    return axis.samples[sample].place + leftNormal(unit(tangent)) * (width / 2);
  };
  for (std::uint32_t s = from; s != to;) {
    s = shifted(ring, s, step);
    const Point middle = middleAt(s);
    const std::uint32_t before = shifted(ring, s, -step * window);
    const double along = wayAlongRing(axis, before, s);
    if (dot(middle - middleAt(before), runs) < kGetsOn * along || dot(place - middle, runs) < kShortPx) break;
    middles.push_back(middle);
  }
  return middles;
}

}  // namespace rim
