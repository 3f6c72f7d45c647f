#include "core/trace/contour/rendering.h"

#include "core/geometry/flatten.h"
#include "core/median.h"

namespace rim::trace::contour {
namespace {

/// Calls visit(row, column, px) for the pixels of a picture that a closed path passes, with the length that lies there
/// in steps of 0.1 px.
template <typename Visit>
void alongPixels(const Path& path, cv::Size picture, const Visit& visit) {
  constexpr double kStepPx = 0.1;
  constexpr double kChordOffPx = 0.02;
  const std::vector<Point> points = flatten(path, kChordOffPx);
  for (std::size_t i = 0; i < points.size(); ++i) {
    const Point from = points[i];
    const Point to = points[(i + 1) % points.size()];
    const double way = distance(from, to);
    const int steps = 1 + static_cast<int>(way / kStepPx);
    for (int k = 0; k < steps; ++k) {
      const Point p = lerp(from, to, (k + 0.5) / steps);
      const auto column = static_cast<int>(std::floor(p.x));
      const auto row = static_cast<int>(std::floor(picture.height - p.y));
      if (row < 0 || column < 0 || row >= picture.height || column >= picture.width) continue;
      visit(row, column, way / steps);
    }
  }
}

}  // namespace

Rendering::Rendering(cv::Mat1f wanted, const std::vector<Path>& outlines)
    : wanted_(std::move(wanted)), drawn_(wanted_.size(), 0.F), edges_(wanted_.size(), 0.F) {
  for (const Path& path : outlines) {
    const Coverage coverage = coverageOf(path, wanted_.size());
    if (!coverage.where.empty()) drawn_(coverage.where) += coverage.shares;
    addEdges(path, 1);
  }
}

void Rendering::addEdges(const Path& path, float sign) {
  alongPixels(path, edges_.size(),
              [&](int row, int column, double px) { edges_(row, column) += sign * static_cast<float>(px); });
}

cv::Mat1f Rendering::changeOf(const Path& drawn, const Path& other, cv::Rect& where) const {
  const Coverage before = coverageOf(drawn, wanted_.size());
  const Coverage after = coverageOf(other, wanted_.size());
  where = before.where | after.where;
  cv::Mat1f change(where.size(), 0.F);
  if (!after.where.empty()) change(after.where - where.tl()) += after.shares;
  if (!before.where.empty()) change(before.where - where.tl()) -= before.shares;
  return change;
}

std::pair<double, double> Rendering::beforeAndAfter(const Path& drawn, const Path& other) const {
  cv::Rect where;
  const cv::Mat1f change = changeOf(drawn, other, where);
  if (where.empty()) return {0, 0};
  cv::Mat1f off;
  cv::subtract(drawn_(where), wanted_(where), off);
  const double before = cv::norm(off, cv::NORM_L2SQR);
  off += change;
  return {before, cv::norm(off, cv::NORM_L2SQR)};
}

std::vector<Point> Rendering::amiss(const Path& drawn, const Path& other, double most) const {
  cv::Rect where;
  cv::Mat1f off = changeOf(drawn, other, where);
  std::vector<Point> places;
  if (where.empty()) return places;
  off += drawn_(where);
  off -= wanted_(where);
  for (int row = 0; row < off.rows; ++row) {
    for (int column = 0; column < off.cols; ++column) {
      if (std::abs(off(row, column)) > most)
        places.push_back({where.x + column + 0.5, wanted_.rows - (where.y + row) - 0.5});
    }
  }
  return places;
}

double Rendering::misfitOf(const Path& drawn, const Path& other) const {
  return beforeAndAfter(drawn, other).second / pathLength(other);
}

double Rendering::changeBy(const Path& drawn, const Path& other) const {
  const auto [before, after] = beforeAndAfter(drawn, other);
  return after - before;
}

Coverage Rendering::wantedOf(const Path& drawn, int marginPx) const {
  Coverage wanted = coverageOf(drawn, wanted_.size(), marginPx);
  if (wanted.where.empty()) return wanted;
  wanted.shares += wanted_(wanted.where);
  wanted.shares -= drawn_(wanted.where);
  return wanted;
}

double Rendering::offAt(Point place) const {
  constexpr double kReachPx = 1.1;
  constexpr double kLeastEdge = 0.2;
  const Point middle{place.x - 0.5, edges_.rows - place.y - 0.5};
  const auto first = [](double at) { return std::max(0, static_cast<int>(std::ceil(at - kReachPx))); };
  const auto last = [](double at, int count) {
    return std::min(count - 1, static_cast<int>(std::floor(at + kReachPx)));
  };
  double missing = 0;
  double edge = 0;
  for (int row = first(middle.y); row <= last(middle.y, edges_.rows); ++row) {
    for (int column = first(middle.x); column <= last(middle.x, edges_.cols); ++column) {
      const double weight = 1 - std::hypot(column - middle.x, row - middle.y) / kReachPx;
      if (weight <= 0) continue;
      missing += weight * (wanted_(row, column) - drawn_(row, column));
      edge += weight * edges_(row, column);
    }
  }
  return edge > kLeastEdge ? missing / edge : 0;
}

Rendering::Misfit Rendering::misfitAlong(const Path& drawn) const {
  double squares = 0;
  double way = 0;
  Misfit misfit;
  alongPixels(drawn, edges_.size(), [&](int row, int column, double px) {
    const double off = drawn_(row, column) - wanted_(row, column);
    squares += px * off * off;
    way += px;
    misfit.most = std::max(misfit.most, std::abs(off));
  });
  if (way > 0) misfit.usual = std::sqrt(squares / way);
  return misfit;
}

double Rendering::usualOff() const {
  std::vector<float> off;
  constexpr float kLeastEdge = 0.3F;
  for (int row = 0; row < edges_.rows; ++row) {
    for (int column = 0; column < edges_.cols; ++column) {
      if (edges_(row, column) > kLeastEdge) off.push_back(std::abs(wanted_(row, column) - drawn_(row, column)));
    }
  }
  return off.empty() ? 0 : medianOf(std::move(off)) / kMedianDeviation;
}

void Rendering::replace(const Path& drawn, const Path& other) {
  cv::Rect where;
  const cv::Mat1f change = changeOf(drawn, other, where);
  if (!where.empty()) drawn_(where) += change;
  addEdges(drawn, -1);
  addEdges(other, 1);
}

}  // namespace rim::trace::contour
