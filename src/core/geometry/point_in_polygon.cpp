#include "core/geometry/point_in_polygon.h"

#include <algorithm>
#include <cmath>

#include "core/geometry/flatten.h"

namespace rim {

PointInPolygon::PointInPolygon(const Path& closed) : box_(boxOf(closed)) {
  constexpr double kShareOfSize = 1e-4;
  polygon_ = flatten(closed, std::max(1e-9, kShareOfSize * std::max(box_.width(), box_.height())));
  sortIntoStrips();
}

void PointInPolygon::sortIntoStrips() {
  // Sides that run up and down a lot pass through many strips; there are only so many that none is held often.
  const auto count = static_cast<double>(polygon_.size());
  double climb = 0;
  for (std::size_t i = 0; i < polygon_.size(); ++i) climb += std::abs(polygon_[i].y - before(i).y);
  const double strips = climb > 0 ? std::min(count / 4, count * box_.height() / climb) : 1;
  strips_.resize(std::max<std::size_t>(1, static_cast<std::size_t>(strips)));
  for (std::size_t i = 0; i < polygon_.size(); ++i) {
    const std::size_t one = stripAt(polygon_[i].y);
    const std::size_t other = stripAt(before(i).y);
    for (std::size_t strip = std::min(one, other); strip <= std::max(one, other); ++strip) strips_[strip].push_back(i);
  }
}

std::size_t PointInPolygon::stripAt(double y) const {
  const double share = box_.height() > 0 ? (y - box_.low.y) / box_.height() : 0;
  const auto count = static_cast<double>(strips_.size());
  return static_cast<std::size_t>(std::clamp(share * count, 0.0, count - 1));
}

bool PointInPolygon::has(Point p) const {
  if (!box_.contains(p)) return false;
  bool inside = false;
  for (const std::size_t i : strips_[stripAt(p.y)]) {
    const Point a = before(i);
    const Point b = polygon_[i];
    if ((a.y > p.y) != (b.y > p.y) && p.x < a.x + (b.x - a.x) * ((p.y - a.y) / (b.y - a.y))) inside = !inside;
  }
  return inside;
}

bool PointInPolygon::hasAll(const std::vector<Point>& places) const {
  return std::all_of(places.begin(), places.end(), [this](Point p) { return has(p); });
}

}  // namespace rim
