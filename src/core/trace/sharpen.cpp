#include "core/trace/sharpen.h"

#include <optional>

#include "core/trace/edge_place.h"

namespace rim {
namespace {

constexpr double kFarthestMove = 0.6;  // px

/// A row or a column of samples. Index 0 is at the left or, for a column, at the bottom.
class Samples {
 public:
  Samples(const cv::Mat& grey, bool alongX, int line)
      : first_(alongX ? grey.ptr<std::uint8_t>(line) : grey.ptr<std::uint8_t>(grey.rows - 1) + line),
        step_(alongX ? 1 : -static_cast<std::ptrdiff_t>(grey.step)),
        count_(alongX ? grey.cols : grey.rows) {}
  int count() const { return count_; }
  double operator[](int i) const { return first_[i * step_]; }

 private:
  const std::uint8_t* first_;
  std::ptrdiff_t step_;
  int count_;
};

/// The place between samples where the straight joins of the samples cross the level.
double interpolated(const Samples& samples, int from, int to, double level) {
  for (int i = from; i < to; ++i) {
    const double a = samples[i];
    const double b = samples[i + 1];
    if (a != b && (a - level) * (b - level) <= 0) return i + 0.5 + (level - a) / (b - a);
  }
  return (from + to + 1) / 2.0;
}

/// The edge between samples i and i + 1, as a coordinate along them.
std::optional<double> edgePlace(const Samples& samples, int i, EdgeLevel level, double thresholdLevel) {
  const auto rise = riseAt(samples, i);
  if (!rise) return std::nullopt;
  const double edge = coveredPlace(samples, *rise);
  if (level == EdgeLevel::Coverage) return edge;
  // Keeps the threshold's own place and takes away only the fault of the interpolation.
  const double middle = (samples[rise->low] + samples[rise->high]) / 2;
  const double fault = interpolated(samples, rise->low, rise->high, middle) - edge;
  return interpolated(samples, rise->low, rise->high, thresholdLevel) - fault;
}

/// The moved point; the same one when it cannot be moved; nothing when it lies along the edge.
std::optional<Point> moved(const cv::Mat& grey, Point p, Point along, EdgeLevel level, double thresholdLevel) {
  const bool inRow = isSampleMiddle(p.y);
  const bool inColumn = isSampleMiddle(p.x);
  if (inRow == inColumn) return p;
  if (inRow != (std::abs(along.y) >= std::abs(along.x))) return std::nullopt;
  const int line = static_cast<int>(inRow ? grey.rows - p.y : p.x);
  const Samples samples(grey, inRow, line);
  const double place = inRow ? p.x : p.y;
  const int i = static_cast<int>(std::floor(place - 0.5));
  if (i < 0 || i + 1 >= samples.count()) return p;
  const auto edge = edgePlace(samples, i, level, thresholdLevel);
  if (!edge || std::abs(*edge - place) > kFarthestMove) return p;
  return inRow ? Point{*edge, p.y} : Point{p.x, *edge};
}

}  // namespace

Border sharpenBorder(const cv::Mat& grey, TwoTone tone, EdgeLevel level, const Border& border,
                     std::span<const Point> keep, double keepPx) {
  const std::size_t n = border.size();
  const std::size_t reach = std::min<std::size_t>(2, (n - 1) / 2);
  Border sharp;
  sharp.reserve(n);
  std::size_t last = n;
  const auto leaveAsIs = [&](std::size_t from, std::size_t end) {
    for (std::size_t k = from; k < end; ++k) sharp.push_back(border[k % n]);
  };
  std::size_t first = n;
  for (std::size_t i = 0; i < n; ++i) {
    const Point along =
        border[i + reach < n ? i + reach : i + reach - n] - border[i < reach ? i + n - reach : i - reach];
    const bool kept =
        std::any_of(keep.begin(), keep.end(), [&](Point place) { return distance(place, border[i]) < keepPx; });
    const auto p = kept ? border[i] : moved(grey, border[i], along, level, tone.threshold - 0.5);
    if (!p) continue;
    // At corners and the ends of thin strokes nothing seems to lie across; a rough place is better than a hole.
    if (last < i && distance(sharp.back(), *p) > kHolePx) leaveAsIs(last + 1, i);
    if (sharp.empty() || sharp.back() != *p) sharp.push_back(*p);
    last = i;
    first = std::min(first, i);
  }
  if (!sharp.empty() && distance(sharp.back(), sharp.front()) > kHolePx) leaveAsIs(last + 1, n + first);
  while (sharp.size() > 1 && sharp.front() == sharp.back()) sharp.pop_back();
  return sharp.size() >= 3 ? sharp : border;
}

}  // namespace rim
