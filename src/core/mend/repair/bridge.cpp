#include "core/mend/repair/bridge.h"

#include <algorithm>

#include "core/mend/find/broken_strokes.h"

namespace rim::mend {
namespace {

/// Each pair joined by a line of its own between its ends.
Drawing bridged(const Drawing& drawing, const std::vector<EndPair>& pairs, const MendSettings& settings) {
  Drawing with = drawing;
  std::vector<EndPair> joints;
  for (const EndPair& pair : pairs) {
    Outline over = with.outlines[pair.a.path].offspring(bridgeOf(pair));
    const std::size_t place = with.outlines.size();
    with.outlines.push_back(std::move(over));
    const Paths paths(with.path(place));
    End start = endOf(paths, 0, true);
    End end = endOf(paths, 0, false);
    start.path = end.path = place;
    joints.push_back({pair.a, start, 0});
    joints.push_back({end, pair.b, 0});
  }
  return joinPairs(with, joints, settings);
}

}  // namespace

Repaired bridgedStrokes(const Drawing& drawing, const MendSettings& settings, const std::vector<Point>& left) {
  std::vector<EndPair> pairs = brokenStrokes(drawing, pairEnds(drawing, settings));
  std::erase_if(pairs, [&left](const EndPair& p) {
    constexpr double kSameMm = 1e-6;
    const Point middle = lerp(p.a.place, p.b.place, 0.5);
    return std::any_of(left.begin(), left.end(), [middle](Point at) { return distance(at, middle) < kSameMm; });
  });
  if (pairs.empty()) return {drawing, 0};
  return {bridged(drawing, pairs, settings), pairs.size()};
}

Drawing bridgedAt(const Drawing& drawing, std::size_t path, std::size_t other, Point at, const MendSettings& settings) {
  std::vector<EndPair> pairs = brokenStrokes(drawing, pairEnds(drawing, settings));
  std::erase_if(pairs, [&](const EndPair& p) { return p.a.path != path || p.b.path != other; });
  const auto off = [at](const EndPair& p) { return distance(lerp(p.a.place, p.b.place, 0.5), at); };
  const auto nearest = std::min_element(pairs.begin(), pairs.end(),
                                        [&off](const EndPair& p, const EndPair& q) { return off(p) < off(q); });
  return nearest == pairs.end() ? drawing : bridged(drawing, {*nearest}, settings);
}

}  // namespace rim::mend
