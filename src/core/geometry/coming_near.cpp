#include "core/geometry/coming_near.h"

#include "core/geometry/segment_distance.h"

namespace rim {
namespace {

bool boxesApart(const Edge& p, const Edge& q, double reach) {
  return std::min(p.a.x, p.b.x) > std::max(q.a.x, q.b.x) + reach ||
         std::min(q.a.x, q.b.x) > std::max(p.a.x, p.b.x) + reach ||
         std::min(p.a.y, p.b.y) > std::max(q.a.y, q.b.y) + reach ||
         std::min(q.a.y, q.b.y) > std::max(p.a.y, p.b.y) + reach;
}

/// Whether two edges cross: each one's ends lie on both sides of the other.
bool crossing(const Edge& p, const Edge& q) {
  const auto parted = [](const Edge& by, const Edge& e) {
    const Point way = by.b - by.a;
    return (cross(way, e.a - by.a) > 0) != (cross(way, e.b - by.a) > 0);
  };
  return parted(p, q) && parted(q, p);
}

bool near(const Edge& p, const Edge& q, double reach) {
  if (boxesApart(p, q, reach)) return false;
  return distanceToSegment(p.a, q.a, q.b) < reach || distanceToSegment(p.b, q.a, q.b) < reach ||
         distanceToSegment(q.a, p.a, p.b) < reach || distanceToSegment(q.b, p.a, p.b) < reach || crossing(p, q);
}

/// Neighbours share a node by right. What they follow may meet a second time when they fold back so sharply that the
/// angle between them is no more than what curves may turn off their chords: a parabola that leaves a chord by e leaves
/// its ends at an angle of 4 e to the chord's length.
bool mayMeetAgain(const Edge& before, const Edge& after, double reach) {
  const Point u = before.b - before.a;
  const Point v = after.b - after.a;
  return dot(u, v) < 0 && std::abs(cross(u, v)) < 2 * reach * (length(u) + length(v));
}

}  // namespace

std::vector<std::size_t> comingNear(const std::vector<Polyline>& closed, double reach, std::stop_token stop) {
  std::vector<char> found(closed.size(), 0);
  EdgeGrid(closed, reach / 2).forEachPair(stop, [&](const Edge& p, const Edge& q) {
    if (found[p.polyline] != 0 && found[q.polyline] != 0) return;
    const std::size_t n = closed[p.polyline].size();
    const bool same = p.polyline == q.polyline;
    const bool pFirst = same && (p.index + 1) % n == q.index;
    const bool qFirst = same && (q.index + 1) % n == p.index;
    const bool suspect = pFirst ? mayMeetAgain(p, q, reach) : qFirst ? mayMeetAgain(q, p, reach) : near(p, q, reach);
    if (suspect) found[p.polyline] = found[q.polyline] = 1;
  });
  std::vector<std::size_t> which;
  for (std::size_t i = 0; i < found.size(); ++i) {
    if (found[i] != 0) which.push_back(i);
  }
  return which;
}

}  // namespace rim
