#include "core/geometry/coming_near.h"

#include "core/geometry/segment_distance.h"

namespace rim {
namespace {

Box boxOf(const Edge& e) {
  return {{std::min(e.a.x, e.b.x), std::min(e.a.y, e.b.y)}, {std::max(e.a.x, e.b.x), std::max(e.a.y, e.b.y)}};
}

bool near(const Edge& p, const Edge& q, double reach) {
  if (apart(boxOf(p), boxOf(q), reach)) return false;
  return distanceToSegment(p.a, q.a, q.b) < reach || distanceToSegment(p.b, q.a, q.b) < reach ||
         distanceToSegment(q.a, p.a, p.b) < reach || distanceToSegment(q.b, p.a, p.b) < reach || touch(p, q);
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
