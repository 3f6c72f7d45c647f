#include "core/trace/deviation.h"

#include "core/error.h"
#include "core/geometry/flatten.h"
#include "core/geometry/nearest_on_ring.h"

namespace rim::trace {
namespace {

constexpr double kCellPx = 4;
constexpr double kStepPx = 1;
constexpr double kChordErrorPx = 0.005;

std::vector<DeviationSample> sampled(const Path& path, const contour::Border& border) {
  const NearestOnRing ring(border, kCellPx);
  std::vector<DeviationSample> samples;
  const auto add = [&](Point p) { samples.push_back({p, ring.nearest(p).off}); };
  const std::vector<Point> points = flatten(path, kChordErrorPx);
  // The points of a closed path do not repeat the first: the last edge leads back to it.
  const std::size_t edges = points.size() - (path.closed ? 0 : 1);
  for (std::size_t i = 0; i < edges; ++i) {
    const Point from = points[i];
    const Point to = points[(i + 1) % points.size()];
    const int steps = std::max(1, static_cast<int>(std::ceil(distance(from, to) / kStepPx)));
    for (int k = 0; k < steps; ++k) add(lerp(from, to, static_cast<double>(k) / steps));
  }
  return samples;
}

}  // namespace

Deviation deviationOf(const picture::Picture& picture, const TraceSettings& settings, const Drawing& tracing,
                      std::stop_token stop) {
  // The middle of a stroke follows no border.
  if (settings.method != TraceMethod::Outline) return {};
  const std::vector<contour::Border> borders = measuredBorders(picture, settings, stop);
  Deviation deviation;
  for (std::size_t i = 0; i < std::min(borders.size(), tracing.outlines.size()); ++i) {
    if (stop.stop_requested()) throw Cancelled();
    deviation.outlines.push_back({tracing.outlines[i].id, sampled(tracing.path(i), borders[i])});
    for (const DeviationSample& sample : deviation.outlines.back().samples) {
      if (sample.off <= deviation.largest) continue;
      deviation.largest = sample.off;
      deviation.worst = sample.place;
    }
  }
  return deviation;
}

}  // namespace rim::trace
