#include "core/trace/contour/coverage.h"

#include <algorithm>
#include <cmath>

#include "core/geometry/flatten.h"

namespace rim::trace::contour {
namespace {

constexpr double kChordErrorPx = 0.005;

/// Areas at the right of edges, summed up along rows in the end.
class Edges {
 public:
  explicit Edges(cv::Size size) : sums_(size.height, size.width + 2, 0.0), size_(size) {}

  /// An edge in columns and rows from the corner of the part on.
  void add(Point a, Point b) {
    if (a.y == b.y) return;
    const double sign = a.y < b.y ? 1 : -1;
    if (sign < 0) std::swap(a, b);
    const double slope = (b.x - a.x) / (b.y - a.y);
    const int last = std::min(size_.height - 1, static_cast<int>(std::ceil(b.y)) - 1);
    for (int row = std::max(0, static_cast<int>(std::floor(a.y))); row <= last; ++row) {
      const double from = std::max(a.y, static_cast<double>(row));
      const double to = std::min(b.y, row + 1.0);
      if (to <= from) continue;
      addInRow(row, sign * (to - from), a.x + slope * (from - a.y), a.x + slope * (to - a.y));
    }
  }

  cv::Mat1f shares() const {
    cv::Mat1f result(size_);
    for (int y = 0; y < size_.height; ++y) {
      double sum = 0;
      for (int x = 0; x < size_.width; ++x) {
        sum += sums_(y, x);
        result(y, x) = static_cast<float>(sum);
      }
    }
    return result;
  }

 private:
  /// What lies beside the part counts at its rim.
  double held(double x) const { return std::clamp(x, 0.0, static_cast<double>(size_.width)); }

  void addInRow(int row, double height, double from, double to) {
    if (from > to) std::swap(from, to);
    double* sums = sums_[row];
    const double width = to - from;
    const auto cell = [&](int column, double share, double middle) {
      const double area = height * share * (1 - (middle - column));
      sums[column] += area;
      sums[column + 1] += height * share - area;
    };
    const double left = held(from);
    const double right = held(to);
    const auto first = static_cast<int>(std::floor(left));
    if (width < 1e-12 || (left == from && right == to && right <= first + 1)) {
      cell(first, 1, (left + right) / 2);
      return;
    }
    if (left > from) cell(0, (left - from) / width, 0);
    for (int column = first; column < right; ++column) {
      const double a = std::max(left, static_cast<double>(column));
      const double b = std::min(right, column + 1.0);
      if (b > a) cell(column, (b - a) / width, (a + b) / 2);
    }
    if (right < to) cell(size_.width, (to - right) / width, size_.width);
  }

  cv::Mat1d sums_;
  cv::Size size_;
};

}  // namespace

Coverage coverageOf(const Path& path, cv::Size picture, int marginPx) {
  const Box box = boxOf(path);
  const auto floorOf = [](double v) { return static_cast<int>(std::floor(v)); };
  const cv::Point low(floorOf(box.low.x) - marginPx, floorOf(picture.height - box.high.y) - marginPx);
  const cv::Point high(floorOf(box.high.x) + 1 + marginPx, floorOf(picture.height - box.low.y) + 1 + marginPx);
  Coverage coverage{cv::Rect(low, high) & cv::Rect({}, picture)};
  if (coverage.where.empty()) return coverage;
  Edges edges(coverage.where.size());
  const std::vector<Point> points = flatten(path, kChordErrorPx);
  const auto placed = [&](Point p) { return Point{p.x - coverage.where.x, picture.height - p.y - coverage.where.y}; };
  for (std::size_t i = 0; i < points.size(); ++i) edges.add(placed(points[i]), placed(points[(i + 1) % points.size()]));
  coverage.shares = edges.shares();
  return coverage;
}

}  // namespace rim::trace::contour
