#include "core/mend/find/broken_strokes.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <set>

#include "core/geometry/box_index.h"
#include "core/trace/lines/heal.h"

namespace rim::mend {
namespace {

constexpr double kMostWidths = 3;
/// Lines shorter than so many ways over a break are scraps, and, with breaks at both ends, dashes.
constexpr double kScrap = 2;
constexpr double kDash = 8;

double widthAt(const Drawing& drawing, const End& end) { return drawing.outlines[end.path].stroke.usual; }

/// How wide the break between two ends is, when it is one.
std::optional<double> breakBetween(const Drawing& drawing, const End& a, const End& b) {
  const double width = (widthAt(drawing, a) + widthAt(drawing, b)) / 2;
  const double way = distance(a.place, b.place);
  const double gap = std::max(0.0, way - width);
  if (gap > kMostWidths * width || !trace::lines::pointAtEachOther(a.place, a.outward, b.place, b.outward))
    return std::nullopt;
  const double shorter = std::min(pathLength(drawing.path(a.path)), pathLength(drawing.path(b.path)));
  return shorter < kScrap * way ? std::nullopt : std::optional(gap);
}

/// Without the pairs of lines that are short and have one at both ends.
void leaveDashes(const Drawing& drawing, std::vector<EndPair>& pairs) {
  std::map<std::size_t, std::array<bool, 2>> shortLines;  // which of their ends go on
  for (const EndPair& pair : pairs) {
    for (const End& end : {pair.a, pair.b}) {
      if (pathLength(drawing.path(end.path)) < kDash * distance(pair.a.place, pair.b.place))
        shortLines[end.path][end.atStart ? 0 : 1] = true;
    }
  }
  const auto isDash = [&shortLines](const End& end) {
    const auto own = shortLines.find(end.path);
    return own != shortLines.end() && own->second[0] && own->second[1];
  };
  std::erase_if(pairs, [&](const EndPair& p) { return p.a.path != p.b.path && (isDash(p.a) || isDash(p.b)); });
}

}  // namespace

std::vector<EndPair> brokenStrokes(const Drawing& drawing, const std::vector<End>& lonely) {
  std::vector<End> own;
  std::vector<Box> boxes;
  double widest = 0;
  for (const End& end : lonely) {
    const double width = widthAt(drawing, end);
    if (width <= 0) continue;
    widest = std::max(widest, width);
    own.push_back(end);
    boxes.push_back({end.place, end.place});
  }
  std::vector<EndPair> found;
  const BoxIndex index(boxes);
  for (std::size_t i = 0; i < own.size(); ++i) {
    index.near(boxes[i], (kMostWidths + 1) * widest, [&](std::size_t k) {
      if (k <= i) return;
      if (const auto gap = breakBetween(drawing, own[i], own[k])) found.push_back({own[i], own[k], *gap});
    });
  }
  std::stable_sort(found.begin(), found.end(), [](const EndPair& p, const EndPair& q) { return p.gapMm < q.gapMm; });
  std::set<std::pair<std::size_t, bool>> taken;
  std::erase_if(found, [&taken](const EndPair& pair) {
    const std::pair a(pair.a.path, pair.a.atStart);
    const std::pair b(pair.b.path, pair.b.atStart);
    if (taken.count(a) != 0 || taken.count(b) != 0) return true;
    taken.insert(a);
    taken.insert(b);
    return false;
  });
  leaveDashes(drawing, found);
  return found;
}

std::vector<EndPair> brokenStrokes(const Drawing& drawing, const OpenEnds& ends) {
  std::vector<End> lonely;
  for (const LonelyEnd& one : ends.lonely) lonely.push_back(one.end);
  return brokenStrokes(drawing, lonely);
}

Path bridgeOf(const EndPair& pair) {
  constexpr double kStraight = 1e-3;  // radians
  const Point way = pair.b.place - pair.a.place;
  const bool straight = std::abs(angleBetween(pair.a.outward, way)) < kStraight &&
                        std::abs(angleBetween(pair.b.outward, -way)) < kStraight;
  const double third = length(way) / 3;
  const Segment over = straight ? Segment::line(pair.b.place)
                                : Segment::cubic(pair.a.place + pair.a.outward * third,
                                                 pair.b.place + pair.b.outward * third, pair.b.place);
  return {pair.a.place, {over}, false};
}

}  // namespace rim::mend
