#include "core/trace/contour/sharpen.h"

#include <optional>

#include "core/trace/contour/edge_localisation.h"

namespace rim::trace::contour {
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

bool isOnRim(const cv::Mat& grey, Point p) { return p.x <= 0 || p.y <= 0 || p.x >= grey.cols || p.y >= grey.rows; }

struct Place {
  Point at;
  bool measured = false;
};

/// The moved point; the same one when it cannot be moved; nothing when it lies along the edge, or between rows and
/// columns.
std::optional<Place> moved(const cv::Mat& grey, Point p, Point along, EdgeLevel level, double thresholdLevel) {
  const bool inRow = isSampleMiddle(p.y);
  const bool inColumn = isSampleMiddle(p.x);
  if (inRow && inColumn) return Place{p, false};
  if (!inRow && !inColumn && !isOnRim(grey, p)) return std::nullopt;
  if (inRow == inColumn) return Place{p, true};
  if (inRow != (std::abs(along.y) >= std::abs(along.x))) return std::nullopt;
  const int line = static_cast<int>(inRow ? grey.rows - p.y : p.x);
  const Samples samples(grey, inRow, line);
  const double place = inRow ? p.x : p.y;
  const int i = static_cast<int>(std::floor(place - 0.5));
  if (i < 0 || i + 1 >= samples.count()) return Place{p, true};
  const auto edge = edgePlace(samples, i, level, thresholdLevel);
  if (!edge || std::abs(*edge - place) > kFarthestMove) return Place{p, false};
  return Place{inRow ? Point{*edge, p.y} : Point{p.x, *edge}, true};
}

/// Collects the points of a sharp border, and of the border that it is made of where that has holes.
class Collector {
 public:
  Collector(const Border& border, bool fine) : border_(border), fine_(fine) {
    sharp_.points.reserve(border.size());
    sharp_.measured.reserve(border.size());
  }

  void add(std::size_t i, const Place& place) {
    if (!first_) {
      first_ = i;
      firstMeasured_ = place.measured;
    } else {
      fillUpTo(i, place);
    }
    push(place);
    last_ = i;
    lastMeasured_ = place.measured;
  }

  SharpBorder closed() && {
    if (first_) fillUpTo(border_.size() + *first_, {sharp_.points.front(), firstMeasured_});
    while (sharp_.points.size() > 1 && sharp_.points.front() == sharp_.points.back()) {
      sharp_.points.pop_back();
      sharp_.measured.pop_back();
    }
    if (sharp_.points.size() < 3) return {border_, std::vector<bool>(border_.size(), false)};
    return std::move(sharp_);
  }

 private:
  void push(const Place& place) {
    if (!sharp_.points.empty() && sharp_.points.back() == place.at) return;
    sharp_.points.push_back(place.at);
    sharp_.measured.push_back(place.measured);
  }

  /// At corners and the ends of thin strokes nothing seems to lie across; a rough place is better than a hole.
  void fillUpTo(std::size_t end, const Place& next) {
    const bool rough = fine_ && !(lastMeasured_ && next.measured);
    if (!rough && distance(sharp_.points.back(), next.at) <= kHolePx) return;
    for (std::size_t k = last_ + 1; k < end; ++k) push({border_[k % border_.size()], false});
  }

  const Border& border_;
  bool fine_;
  SharpBorder sharp_;
  std::optional<std::size_t> first_;
  bool firstMeasured_ = false;
  std::size_t last_ = 0;
  bool lastMeasured_ = false;
};

}  // namespace

SharpBorder sharpFineBorder(const cv::Mat& grey, TwoTone tone, EdgeLevel level, const Border& border, int fineness,
                            std::span<const Point> keep, double keepPx) {
  const std::size_t n = border.size();
  const std::size_t reach = std::min<std::size_t>(2 * static_cast<std::size_t>(fineness), (n - 1) / 2);
  Collector collector(border, fineness > 1);
  for (std::size_t i = 0; i < n; ++i) {
    const Point along =
        border[i + reach < n ? i + reach : i + reach - n] - border[i < reach ? i + n - reach : i - reach];
    const bool kept =
        std::any_of(keep.begin(), keep.end(), [&](Point place) { return distance(place, border[i]) < keepPx; });
    const auto place = kept ? Place{border[i], false} : moved(grey, border[i], along, level, tone.threshold - 0.5);
    if (place) collector.add(i, *place);
  }
  return std::move(collector).closed();
}

Border sharpenBorder(const cv::Mat& grey, TwoTone tone, EdgeLevel level, const Border& border,
                     std::span<const Point> keep, double keepPx) {
  return sharpFineBorder(grey, tone, level, border, 1, keep, keepPx).points;
}

}  // namespace rim::trace::contour
