#include "core/geometry/coming_near.h"

#include <map>

#include "core/disjoint_sets.h"
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

std::vector<std::vector<std::size_t>> comingNear(const std::vector<Polyline>& closed, double reach,
                                                 std::stop_token stop) {
  std::vector<char> found(closed.size(), 0);
  DisjointSets together(closed.size());
  EdgeGrid(closed, reach / 2).forEachPair(stop, [&](const Edge& p, const Edge& q) {
    if (found[p.polyline] != 0 && found[q.polyline] != 0 && together.of(p.polyline) == together.of(q.polyline)) return;
    const std::size_t n = closed[p.polyline].size();
    const bool suspect = follows(q, p, n)   ? mayMeetAgain(p, q, reach)
                         : follows(p, q, n) ? mayMeetAgain(q, p, reach)
                                            : near(p, q, reach);
    if (!suspect) return;
    found[p.polyline] = found[q.polyline] = 1;
    together.join(p.polyline, q.polyline);
  });
  std::vector<std::vector<std::size_t>> groups;
  std::map<std::size_t, std::size_t> groupOf;  // by its least index
  for (std::size_t i = 0; i < found.size(); ++i) {
    if (found[i] == 0) continue;
    const auto [at, isNew] = groupOf.try_emplace(together.of(i), groups.size());
    if (isNew) groups.emplace_back();
    groups[at->second].push_back(i);
  }
  return groups;
}

}  // namespace rim
