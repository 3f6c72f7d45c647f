#include "core/trace/lines/track_points.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/trace/fit/primitive.h"

namespace rim::trace::lines {

Path pathThrough(const std::vector<Point>& points, bool closed) {
  Path path = polygonThrough(points);
  path.closed = closed;
  if (!closed) path.segments.pop_back();
  return path;
}

Box boxOf(const std::vector<Point>& points) {
  Box box;
  for (const Point p : points) box.include(p);
  return box;
}

std::vector<Box> boxesAt(const std::vector<Point>& points) {
  std::vector<Box> boxes;
  boxes.reserve(points.size());
  for (const Point p : points) boxes.push_back({p, p});
  return boxes;
}

std::vector<Point> evenly(const std::vector<Point>& points) {
  std::vector<Point> even{points.front()};
  double left = kTrackStepPx;
  for (std::size_t i = 1; i < points.size(); ++i) {
    const double step = distance(points[i - 1], points[i]);
    for (; left <= step; left += kTrackStepPx) even.push_back(lerp(points[i - 1], points[i], left / step));
    left -= step;
  }
  if (distance(even.back(), points.back()) > kTrackStepPx / 4 || even.size() < 2) even.push_back(points.back());
  return even;
}

std::vector<Point> pointsFrom(const StrokeTrack& track, std::size_t at, int step, std::size_t skip, std::size_t count) {
  const auto n = static_cast<std::ptrdiff_t>(track.points.size());
  std::vector<Point> points;
  for (std::size_t k = skip; k < skip + count; ++k) {
    const std::ptrdiff_t i = static_cast<std::ptrdiff_t>(at) + step * static_cast<std::ptrdiff_t>(k);
    if (!track.closed && (i < 0 || i >= n)) break;
    points.push_back(track.points[static_cast<std::size_t>((i % n + n) % n)]);
  }
  return points;
}

double offOf(std::vector<Point> one, const std::vector<Point>& other) {
  one.insert(one.end(), other.begin(), other.end());
  const auto off = [&one](const fit::Primitive& shape) {
    double sum = 0;
    for (const Point p : one) sum += distance(p, fit::project(shape, p));
    return sum / static_cast<double>(one.size());
  };
  const auto circle = fit::fitCircle(one);
  return std::min(off(fit::fitLine(one)), circle ? off(*circle) : std::numeric_limits<double>::infinity());
}

double besideOf(const std::vector<Point>& line, Point p) {
  const auto nearest =
      std::min_element(line.begin(), line.end(), [p](Point q, Point r) { return distance(p, q) < distance(p, r); });
  if (nearest == line.begin() || std::next(nearest) == line.end()) return distance(*nearest, p);
  return std::abs(cross(unit(*std::next(nearest) - *std::prev(nearest)), p - *nearest));
}

}  // namespace rim::trace::lines
