#include "core/trace/lines/along_edge.h"

#include <algorithm>
#include <cmath>

namespace rim::trace::lines {
std::vector<Point> middlesAlongEdge(const MedialAxis& axis, std::uint32_t from, std::uint32_t to, double width,
                                    Point place, Point runs) {
  constexpr double kGetsOn = 0.75;
  constexpr double kShortPx = 0.4;
  // The wider the stroke, the farther aside a tangent's noise would put its middle.
  const std::ptrdiff_t window = std::max<std::ptrdiff_t>(3, std::lround(width / 4 / kSampleSpacingPx));
  std::vector<Point> middles;
  if (axis.samples[from].ring != axis.samples[to].ring) return middles;
  const int step = shorterWay(axis, from, to);
  const auto middleAt = [&](std::uint32_t sample) {
    const Point tangent = axis.samples[sampleBeside(axis, sample, window)].place -
                          axis.samples[sampleBeside(axis, sample, -window)].place;
    return axis.samples[sample].place + leftNormal(unit(tangent)) * (width / 2);
  };
  for (std::uint32_t s = from; s != to;) {
    s = sampleBeside(axis, s, step);
    const Point middle = middleAt(s);
    const std::uint32_t before = sampleBeside(axis, s, -step * window);
    const double along = wayAlongRing(axis, before, s);
    if (dot(middle - middleAt(before), runs) < kGetsOn * along || dot(place - middle, runs) < kShortPx) break;
    middles.push_back(middle);
  }
  return middles;
}

}  // namespace rim::trace::lines
