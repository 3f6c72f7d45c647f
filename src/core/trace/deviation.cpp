#include "core/trace/deviation.h"

#include "core/error.h"
#include "core/geometry/flatten.h"
#include "core/geometry/segment_distance.h"

namespace rim {
namespace {

constexpr double kCellPx = 4;
constexpr double kStepPx = 1;
constexpr double kChordErrorPx = 0.005;

/// The points of a border by the cells of a grid, so that the nearest is found at once.
class Nearby {
 public:
  explicit Nearby(const Border& border) : border_(border) {
    for (const Point p : border) box_.include(p);
    columns_ = static_cast<int>(box_.width() / kCellPx) + 1;
    rows_ = static_cast<int>(box_.height() / kCellPx) + 1;
    cells_.resize(static_cast<std::size_t>(columns_) * static_cast<std::size_t>(rows_));
    for (std::size_t i = 0; i < border.size(); ++i) cells_[cellAt(column(border[i]), row(border[i]))].push_back(i);
  }

  double distanceTo(Point p) const {
    double least = std::numeric_limits<double>::infinity();
    const int most = std::max(columns_, rows_);
    for (int ring = 1; ring <= most; ring *= 2) {
      for (int y = row(p) - ring; y <= row(p) + ring; ++y) {
        for (int x = column(p) - ring; x <= column(p) + ring; ++x) {
          if (x < 0 || y < 0 || x >= columns_ || y >= rows_) continue;
          for (const std::size_t i : cells_[cellAt(x, y)]) least = std::min(least, distanceAt(i, p));
        }
      }
      if (least <= ring * kCellPx) break;
    }
    return least;
  }

 private:
  int column(Point p) const { return std::clamp(static_cast<int>((p.x - box_.low.x) / kCellPx), 0, columns_ - 1); }
  int row(Point p) const { return std::clamp(static_cast<int>((p.y - box_.low.y) / kCellPx), 0, rows_ - 1); }
  std::size_t cellAt(int x, int y) const {
    return static_cast<std::size_t>(y) * static_cast<std::size_t>(columns_) + static_cast<std::size_t>(x);
  }
  double distanceAt(std::size_t i, Point p) const {
    const std::size_t n = border_.size();
    return std::min(distanceToSegment(p, border_[(i + n - 1) % n], border_[i]),
                    distanceToSegment(p, border_[i], border_[(i + 1) % n]));
  }

  const Border& border_;
  Box box_;
  int columns_ = 1;
  int rows_ = 1;
  std::vector<std::vector<std::size_t>> cells_;
};

std::vector<DeviationSample> sampled(const Path& path, const Border& border) {
  const Nearby nearby(border);
  std::vector<DeviationSample> samples;
  const auto add = [&](Point p) { samples.push_back({p, nearby.distanceTo(p)}); };
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

Deviation deviationOf(const Picture& picture, const TraceSettings& settings, const Tracing& tracing,
                      std::stop_token stop) {
  const std::vector<Border> borders = measuredBorders(picture, settings, stop);
  Deviation deviation;
  for (std::size_t i = 0; i < std::min(borders.size(), tracing.outlines.size()); ++i) {
    if (stop.stop_requested()) throw Cancelled();
    deviation.outlines.push_back(sampled(tracing.outlines[i], borders[i]));
    for (const DeviationSample& sample : deviation.outlines.back()) {
      if (sample.off <= deviation.largest) continue;
      deviation.largest = sample.off;
      deviation.worst = sample.place;
    }
  }
  return deviation;
}

}  // namespace rim
