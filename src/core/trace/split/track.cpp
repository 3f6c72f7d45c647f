#include "core/trace/split/track.h"

#include "core/geometry/segment_distance.h"

namespace rim::trace::split {

Track::Track(const contour::Border& border, std::size_t start) {
  const std::size_t n = border.size();
  points_.reserve(n + 1);
  arcLengths_.reserve(n + 1);
  double way = 0;
  const auto add = [&](std::size_t i) {
    const Point p = border[i];
    if (!points_.empty()) way += distance(points_.back(), p);
    points_.push_back(p);
    arcLengths_.push_back(way);
  };
  const std::size_t first = start % n;
  for (std::size_t i = first; i < n; ++i) add(i);
  for (std::size_t i = 0; i <= first; ++i) add(i);
}

Track Track::open(std::vector<Point> points) {
  Track track;
  track.closed_ = false;
  track.points_ = std::move(points);
  double way = 0;
  for (std::size_t i = 0; i < track.points_.size(); ++i) {
    if (i > 0) way += distance(track.points_[i - 1], track.points_[i]);
    track.arcLengths_.push_back(way);
  }
  return track;
}

std::size_t Track::indexAt(double way) const {
  const auto found = std::lower_bound(arcLengths_.begin(), arcLengths_.end(), way);
  return std::min(static_cast<std::size_t>(found - arcLengths_.begin()), last());
}

std::size_t Track::indexBeyond(std::size_t i, double px) const {
  std::size_t at = i;
  while (at < last() && arcLengths_[at] < arcLengths_[i] + px) ++at;
  return at;
}

std::pair<std::size_t, std::size_t> Track::within(std::size_t i, std::size_t j, double trimPx) const {
  const std::size_t from = indexBeyond(i, trimPx);
  std::size_t end = j + 1;
  while (end > 0 && arcLengths_[end - 1] > arcLengths_[j] - trimPx) --end;
  if (from + 2 <= end && end <= j + 1) return {from, end};
  return {i, j + 1};
}

double Track::distanceNear(std::size_t i, double reachPx, Point p) const {
  double least = distance(points_[i], p);
  // Point 0 and the last one are the same place: the search goes on round the end.
  const auto search = [&](std::size_t from, double offset) {
    const std::size_t end = indexAt(arcLengths_[from] + offset + reachPx);
    for (std::size_t k = indexAt(arcLengths_[from] + offset - reachPx); k < end; ++k)
      least = std::min(least, distanceToSegment(p, points_[k], points_[k + 1]));
  };
  search(i, 0);
  if (!closed_) return least;
  if (arcLengths_[i] < reachPx) search(i, length());
  if (length() - arcLengths_[i] < reachPx) search(i, -length());
  return least;
}

void Track::sample(std::size_t i, std::size_t j, double trimStart, double trimEnd, std::size_t most,
                   std::vector<Point>& out) const {
  out.clear();
  std::size_t from = i;
  std::size_t to = j;
  const double way = arcLengths_[j] - arcLengths_[i];
  double share = std::min(1.0, way / 1.25 / std::max(1e-9, trimStart + trimEnd));
  for (; share > 0.05; share /= 2) {
    from = indexAt(arcLengths_[i] + share * trimStart);
    to = indexAt(arcLengths_[j] - share * trimEnd);
    if (arcLengths_[to] > arcLengths_[j] - share * trimEnd && to > 0) --to;
    if (from + 2 <= to) break;
    from = i;
    to = j;
  }
  const std::size_t count = to - from + 1;
  if (count <= most) {
    out.assign(points_.begin() + static_cast<std::ptrdiff_t>(from),
               points_.begin() + static_cast<std::ptrdiff_t>(to + 1));
    return;
  }
  for (std::size_t k = 0; k < most; ++k) out.push_back(points_[from + k * (count - 1) / (most - 1)]);
}

}  // namespace rim::trace::split
