#include "core/geometry/crossing.h"

#include <array>
#include <cstdint>
#include <map>
#include <set>

namespace rim {
namespace {

/// The point that two touching edges share; of parallel ones a point where they overlap.
Point commonPoint(const Edge& p, const Edge& q) {
  const Point u = p.b - p.a;
  const Point v = q.b - q.a;
  const double bend = cross(u, v);
  if (std::abs(bend) > 1e-12 * length(u) * length(v)) {
    return p.a + u * std::clamp(cross(q.a - p.a, v) / bend, 0.0, 1.0);
  }
  const double t = dot(q.a - p.a, u) / std::max(dot(u, u), 1e-300);
  return t >= 0 && t <= 1 ? q.a : q.b;
}

/// Neighbours share a node by right; they are at fault only when one folds back onto the other.
bool foldsBack(const Edge& before, const Edge& after) {
  const Point u = before.b - before.a;
  const Point v = after.b - after.a;
  return dot(u, v) < 0 && std::abs(cross(u, v)) < 1e-12 * length(u) * length(v);
}

bool inConflict(const Edge& p, const Edge& q, const std::vector<Polyline>& closed) {
  const std::size_t n = closed[p.polyline].size();
  if (follows(q, p, n)) return foldsBack(p, q);
  if (follows(p, q, n)) return foldsBack(q, p);
  return touch(p, q);
}

using EdgePair = std::array<std::uint32_t, 4>;

EdgePair keyOf(const Edge& p, const Edge& q) {
  const bool inOrder = std::pair(p.polyline, p.index) < std::pair(q.polyline, q.index);
  const Edge& one = inOrder ? p : q;
  const Edge& other = inOrder ? q : p;
  return {one.polyline, one.index, other.polyline, other.index};
}

}  // namespace

std::vector<Crossing> findCrossings(const std::vector<Polyline>& closed, std::stop_token stop,
                                    const std::function<bool(Point)>& mayMeet) {
  std::map<std::uint32_t, std::vector<Point>> found;
  const auto add = [&found](std::uint32_t polyline, Point place) {
    std::vector<Point>& places = found[polyline];
    if (places.size() < kMostCrossingPlaces) places.push_back(place);
  };
  std::set<EdgePair> known;  // two edges may share several cells
  EdgeGrid(closed, 0).forEachPair(stop, [&](const Edge& p, const Edge& q) {
    if (!inConflict(p, q, closed) || !known.insert(keyOf(p, q)).second) return;
    const Point place = commonPoint(p, q);
    if (mayMeet && mayMeet(place)) return;
    add(p.polyline, place);
    if (p.polyline != q.polyline) add(q.polyline, place);
  });
  std::vector<Crossing> crossings;
  for (const auto& [polyline, places] : found) {
    for (const Point place : places) crossings.push_back({polyline, place});
  }
  return crossings;
}

}  // namespace rim
