#include "core/refine/edit/chosen.h"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "core/error.h"
#include "core/geometry/point_in_polygon.h"
#include "core/refine/edit/parts.h"

namespace rim::refine {
namespace {

void movePart(Drawing& drawing, const std::vector<std::size_t>& part, Point by) {
  for (const std::size_t i : part) drawing.setPath(i, scaled(drawing.path(i), 1, by));
}

Box boxOfPart(const Drawing& drawing, const std::vector<std::size_t>& part) {
  Box box;
  for (const std::size_t i : part) box.include(boxOf(drawing.path(i)));
  return box;
}

/// Whether an outline runs round a hole in another one.
bool isHoleIn(const Path& path, const Path& outer) {
  return signedArea(path) < 0 && PointInPolygon(outer).has(path.start);
}

std::ptrdiff_t closedIn(const Drawing& drawing) {
  return std::count_if(drawing.outlines.begin(), drawing.outlines.end(),
                       [](const Outline& outline) { return outline.path().closed; });
}

/// The drawing, of which two outlines or more are closed, with everything on one layer.
Drawing onOneLayer(const Drawing& drawing) {
  if (closedIn(drawing) < 2) throw InputError("they cannot be combined: two closed outlines or more are needed.");
  Drawing one = drawing;
  one.layers.clear();
  for (Outline& outline : one.outlines) outline.layer = 0;
  return one;
}

/// The largest closed outline with its holes and what is open, and all others.
std::pair<Drawing, Drawing> largestAndOthers(const Drawing& drawing) {
  Drawing first = onOneLayer(drawing);
  const auto area = [](const Outline& outline) {
    return outline.path().closed ? std::abs(signedArea(outline.path())) : -1;
  };
  const Outline largest = *std::max_element(first.outlines.begin(), first.outlines.end(),
                                            [&area](const Outline& a, const Outline& b) { return area(a) < area(b); });
  const auto isFirst = [&largest](const Outline& o) {
    return !o.path().closed || o.id == largest.id || isHoleIn(o.path(), largest.path());
  };
  const auto rest = std::stable_partition(first.outlines.begin(), first.outlines.end(), isFirst);
  Drawing second = emptyLike(first);
  second.outlines.assign(rest, first.outlines.end());
  first.outlines.erase(rest, first.outlines.end());
  return {std::move(first), std::move(second)};
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
  for (const auto& part : partsOf(drawing)) movePart(aligned, part, wanted - at(boxOfPart(drawing, part)));
  return aligned;
}

Drawing centredOnLargest(const Drawing& drawing) {
  const auto parts = partsOf(drawing);
  if (parts.empty()) return drawing;
  const auto size = [&drawing](const std::vector<std::size_t>& part) {
    const Box box = boxOfPart(drawing, part);
    return box.width() * box.height();
  };
  const auto largest =
      std::max_element(parts.begin(), parts.end(), [&size](const auto& a, const auto& b) { return size(a) < size(b); });
  const auto middle = [&drawing](const std::vector<std::size_t>& part) {
    return pointOf(boxOfPart(drawing, part), Hold::Centre);
  };
  Drawing centred = drawing;
  for (const auto& part : parts) {
    if (&part != &*largest) movePart(centred, part, middle(*largest) - middle(part));
  }
  return centred;
}

Drawing spacedEvenly(const Drawing& drawing, bool level) {
  const auto parts = partsOf(drawing);
  const std::size_t n = parts.size();
  if (n < 3) return drawing;
  std::vector<double> low(n);
  std::vector<double> size(n);
  for (std::size_t i = 0; i < n; ++i) {
    const Box box = boxOfPart(drawing, parts[i]);
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
    movePart(spaced, parts[i], level ? Point{by, 0} : Point{0, by});
    at += size[i] + gap;
  }
  return spaced;
}

Drawing combinedAreas(const Drawing& drawing, AreaRule rule, const std::stop_token& stop) {
  if (rule == AreaRule::Unite) return united(onOneLayer(drawing), stop);
  const auto [first, second] = largestAndOthers(drawing);
  Drawing left = combined(first, second, rule, stop);
  if (closedIn(left) == 0) throw InputError("they cannot be combined: nothing would be left of them.");
  return left;
}

Drawing cutAlongOthers(const Drawing& drawing, const std::stop_token& stop) {
  const auto [first, second] = largestAndOthers(drawing);
  Drawing outside = combined(first, second, AreaRule::Subtract, stop);
  const Drawing inside = combined(first, second, AreaRule::Intersect, stop);
  if (closedIn(outside) == 0 || closedIn(inside) == 0)
    throw InputError("nothing was cut: the others must lie partly, or wholly, inside the largest.");
  for (Outline outline : inside.outlines) {
    if (!outline.path().closed) continue;
    outline.id = OutlineId::None;
    outside.outlines.push_back(std::move(outline));
  }
  mintIds(outside);
  return outside;
}

}  // namespace rim::refine
