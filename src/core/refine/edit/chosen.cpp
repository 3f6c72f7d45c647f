#include "core/refine/edit/chosen.h"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "core/error.h"
#include "core/geometry/point_in_polygon.h"

namespace rim::refine {
namespace {

void moveOutline(Drawing& drawing, std::size_t i, Point by) { drawing.setPath(i, scaled(drawing.path(i), 1, by)); }

/// Whether an outline runs round a hole in another one.
bool isHoleIn(const Path& path, const Path& outer) {
  return signedArea(path) < 0 && PointInPolygon(outer).has(path.start);
}

}  // namespace

Drawing sizedTo(const Drawing& drawing, Hold hold, std::optional<double> width, std::optional<double> height,
                double toleranceMm) {
  const Box box = boxOf(drawing);
  const auto share = [](std::optional<double> wanted, double now) -> std::optional<double> {
    if (!wanted) return std::nullopt;
    if (!(*wanted > 0)) throw InputError("a size is more than 0.");
    if (!(now > 0)) throw InputError("what is chosen has no extent that way; it cannot be made larger.");
    return *wanted / now;
  };
  const auto x = share(width, box.width());
  const auto y = share(height, box.height());
  if (!x && !y) return drawing;
  return mapped(drawing, about(pointOf(box, hold), scale(x ? *x : *y, y ? *y : *x)), toleranceMm);
}

Drawing alignedBy(const Drawing& drawing, BoxSide side) {
  const auto at = [side](const Box& box) -> Point {
    const Point middle = lerp(box.low, box.high, 0.5);
    switch (side) {
      case BoxSide::Left:
        return {box.low.x, 0};
      case BoxSide::Middle:
        return {middle.x, 0};
      case BoxSide::Right:
        return {box.high.x, 0};
      case BoxSide::Lower:
        return {0, box.low.y};
      case BoxSide::Centre:
        return {0, middle.y};
      case BoxSide::Upper:
        return {0, box.high.y};
    }
    return {};
  };
  const Point wanted = at(boxOf(drawing));
  Drawing aligned = drawing;
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i)
    moveOutline(aligned, i, wanted - at(boxOf(drawing.path(i))));
  return aligned;
}

Drawing spacedEvenly(const Drawing& drawing, bool level) {
  const std::size_t n = drawing.outlines.size();
  if (n < 3) return drawing;
  std::vector<double> low(n);
  std::vector<double> size(n);
  for (std::size_t i = 0; i < n; ++i) {
    const Box box = boxOf(drawing.path(i));
    low[i] = level ? box.low.x : box.low.y;
    size[i] = level ? box.width() : box.height();
  }
  std::vector<std::size_t> order(n);
  std::iota(order.begin(), order.end(), 0);
  std::stable_sort(order.begin(), order.end(),
                   [&](std::size_t a, std::size_t b) { return low[a] + size[a] / 2 < low[b] + size[b] / 2; });
  const double from = low[order.front()];
  const double to = low[order.back()] + size[order.back()];
  const double gap = (to - from - std::accumulate(size.begin(), size.end(), 0.0)) / static_cast<double>(n - 1);
  Drawing spaced = drawing;
  double at = from;
  for (const std::size_t i : order) {
    const double by = at - low[i];
    moveOutline(spaced, i, level ? Point{by, 0} : Point{0, by});
    at += size[i] + gap;
  }
  return spaced;
}

Drawing combinedAreas(const Drawing& drawing, AreaRule rule, const std::stop_token& stop) {
  Drawing first = drawing;
  first.layers.clear();
  for (Outline& outline : first.outlines) outline.layer = 0;
  const auto area = [](const Outline& outline) {
    return outline.path().closed ? std::abs(signedArea(outline.path())) : -1;
  };
  const auto closed = std::count_if(first.outlines.begin(), first.outlines.end(),
                                    [](const Outline& outline) { return outline.path().closed; });
  if (closed < 2) throw InputError("they cannot be combined: two closed outlines or more are needed.");
  if (rule == AreaRule::Unite) return united(first, stop);
  const Outline largest = *std::max_element(first.outlines.begin(), first.outlines.end(),
                                            [&area](const Outline& a, const Outline& b) { return area(a) < area(b); });
  const auto isFirst = [&largest](const Outline& o) {
    return !o.path().closed || o.id == largest.id || isHoleIn(o.path(), largest.path());
  };
  const auto rest = std::stable_partition(first.outlines.begin(), first.outlines.end(), isFirst);
  Drawing second = emptyLike(first);
  second.outlines.assign(rest, first.outlines.end());
  first.outlines.erase(rest, first.outlines.end());
  Drawing left = combined(first, second, rule, stop);
  const bool nothing = std::none_of(left.outlines.begin(), left.outlines.end(),
                                    [](const Outline& outline) { return outline.path().closed; });
  if (nothing) throw InputError("they cannot be combined: nothing would be left of them.");
  return left;
}

}  // namespace rim::refine
