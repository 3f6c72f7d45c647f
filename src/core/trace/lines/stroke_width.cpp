#include "core/trace/lines/stroke_width.h"

#include <algorithm>

#include "core/geometry/segment_distance.h"

namespace rim::trace::lines {
namespace {

/// Sums of distances up to each point, and how many they are.
struct Sums {
  std::vector<double> distance{0};
  std::vector<double> count{0};

  double mean(std::size_t from, std::size_t end) const {
    const double n = count[end] - count[from];
    return n > 0 ? (distance[end] - distance[from]) / n : 0;
  }
};

/// The samples from one to another along their ring, the shorter way, the first left out; none when they are far apart
/// and so belong to different flanks.
std::vector<std::uint32_t> between(const MedialAxis& axis, std::uint32_t a, std::uint32_t b) {
  constexpr double kMostPx = 6;
  std::vector<std::uint32_t> some;
  if (a == b || axis.samples[a].ring != axis.samples[b].ring || wayAlongRing(axis, a, b) > kMostPx) return some;
  const int step = shorterWay(axis, a, b);
  for (std::uint32_t i = a; i != b;) some.push_back(i = sampleBeside(axis, i, step));
  return some;
}

Sums flank(const MedialAxis& axis, const std::vector<CentrePoint>& middle, std::uint32_t CentrePoint::*side) {
  Sums sums;
  for (std::size_t k = 0; k < middle.size(); ++k) {
    const Point a = middle[k == 0 ? 0 : k - 1].place;
    const Point b = middle[std::min(k + 1, middle.size() - 1)].place;
    double distance = 0;
    double count = 0;
    const auto add = [&](std::uint32_t sample) {
      distance += distanceToSegment(axis.samples[sample].place, a, b);
      count += 1;
    };
    if (k == 0) {
      add(middle[k].*side);
    } else {
      for (const std::uint32_t s : between(axis, middle[k - 1].*side, middle[k].*side)) add(s);
    }
    sums.distance.push_back(sums.distance.back() + distance);
    sums.count.push_back(sums.count.back() + count);
  }
  return sums;
}

}  // namespace

std::vector<double> widthsAlong(const MedialAxis& axis, const std::vector<CentrePoint>& middle, bool closed) {
  std::vector<double> widths;
  if (middle.empty()) return widths;
  const Sums left = flank(axis, middle, &CentrePoint::left);
  const Sums right = flank(axis, middle, &CentrePoint::right);
  const std::size_t count = middle.size();
  for (std::size_t k = 0; k < count; ++k) {
    const double step = count > 1 ? distance(middle[0].place, middle[1].place) : 1;
    const auto reach = static_cast<std::size_t>(std::max(2.0, 2 * middle[k].halfWidth) / std::max(step, 0.1) / 2) + 1;
    std::size_t from = k > reach ? k - reach : 0;
    std::size_t end = std::min(count, k + reach + 1);
    // At a track's ends as much is looked at as in its middle, further in.
    if (!closed && from == 0) end = std::min(count, 2 * reach + 1);
    if (!closed && end == count) from = count > 2 * reach + 1 ? count - 2 * reach - 1 : 0;
    const double both = left.mean(from, end) + right.mean(from, end);
    widths.push_back(both > 0 ? both : 2 * middle[k].halfWidth);
  }
  return widths;
}

}  // namespace rim::trace::lines
