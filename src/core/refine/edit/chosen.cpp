#include "core/refine/edit/chosen.h"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "core/error.h"
#include "core/geometry/inside.h"

namespace rim::refine {
namespace {

/// Whether an outline runs round a hole in another one.
bool isHoleIn(const Path& path, const Path& outer) {
  return path.closed && signedArea(path) < 0 && Inside(outer).has(path.start);
}

/// What came of each, by who it is; what is new goes to the heir.
std::vector<SomePaths> byOrigin(const Drawing& before, const Drawing& after, const std::vector<std::size_t>& which,
                                std::size_t count, std::size_t heir) {
  std::vector<SomePaths> became(count);
  const OutlinePlaces places = placesOf(before);
  for (const Outline& outline : after.outlines) {
    const auto place = places.find(outline.id);
    became[place == places.end() ? heir : which[place->second]].push_back(outline.path());
  }
  return became;
}

}  // namespace

Box boxOf(const SomePaths& paths) {
  Box box;
  for (const Path& path : paths) box.include(rim::boxOf(path));
  return box;
}

SomePaths mapped(const SomePaths& paths, const Affine& map, double tolerance) {
  SomePaths result;
  for (const Path& path : paths) {
    Path there = transformed(path, map, tolerance);
    result.push_back(map.determinant() < 0 && path.closed ? reversed(there) : std::move(there));
  }
  return result;
}

SomePaths placedAt(const SomePaths& paths, Hold hold, std::optional<double> x, std::optional<double> y) {
  const Point now = pointOf(boxOf(paths), hold);
  const Point by{x.value_or(now.x) - now.x, y.value_or(now.y) - now.y};
  SomePaths result;
  for (const Path& path : paths) result.push_back(scaled(path, 1, by));
  return result;
}

SomePaths sizedTo(const SomePaths& paths, Hold hold, std::optional<double> width, std::optional<double> height,
                  double tolerance) {
  const Box box = boxOf(paths);
  const auto share = [](std::optional<double> wanted, double now) -> std::optional<double> {
    if (!wanted) return std::nullopt;
    if (!(*wanted > 0)) throw InputError("a size is more than 0.");
    if (!(now > 0)) throw InputError("what is chosen has no extent that way; it cannot be made larger.");
    return *wanted / now;
  };
  const auto x = share(width, box.width());
  const auto y = share(height, box.height());
  if (!x && !y) return paths;
  return mapped(paths, about(pointOf(box, hold), scale(x ? *x : *y, y ? *y : *x)), tolerance);
}

SomePaths alignedBy(const SomePaths& paths, BoxSide side) {
  const auto at = [side](const Box& box) -> Point {
    switch (side) {
      case BoxSide::Left:
        return {box.low.x, 0};
      case BoxSide::Middle:
        return {(box.low.x + box.high.x) / 2, 0};
      case BoxSide::Right:
        return {box.high.x, 0};
      case BoxSide::Lower:
        return {0, box.low.y};
      case BoxSide::Centre:
        return {0, (box.low.y + box.high.y) / 2};
      case BoxSide::Upper:
        return {0, box.high.y};
    }
    return {};
  };
  const Point wanted = at(boxOf(paths));
  SomePaths result;
  for (const Path& path : paths) result.push_back(scaled(path, 1, wanted - at(rim::boxOf(path))));
  return result;
}

SomePaths spacedEvenly(const SomePaths& paths, bool level) {
  if (paths.size() < 3) return paths;
  const auto low = [level](const Box& box) { return level ? box.low.x : box.low.y; };
  const auto size = [level](const Box& box) { return level ? box.width() : box.height(); };
  std::vector<Box> boxes;
  for (const Path& path : paths) boxes.push_back(rim::boxOf(path));
  std::vector<std::size_t> order(paths.size());
  std::iota(order.begin(), order.end(), 0);
  std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
    return low(boxes[a]) + size(boxes[a]) / 2 < low(boxes[b]) + size(boxes[b]) / 2;
  });
  const double from = low(boxes[order.front()]);
  const double to = low(boxes[order.back()]) + size(boxes[order.back()]);
  double taken = 0;
  for (const Box& box : boxes) taken += size(box);
  const double gap = (to - from - taken) / static_cast<double>(paths.size() - 1);
  SomePaths result = paths;
  double at = from;
  for (const std::size_t i : order) {
    const double by = at - low(boxes[i]);
    result[i] = scaled(paths[i], 1, level ? Point{by, 0} : Point{0, by});
    at += size(boxes[i]) + gap;
  }
  return result;
}

std::vector<SomePaths> combinedAreas(const SomePaths& paths, AreaRule rule, const std::stop_token& stop) {
  std::vector<std::size_t> closed;
  for (std::size_t i = 0; i < paths.size(); ++i) {
    if (paths[i].closed) closed.push_back(i);
  }
  if (closed.size() < 2) throw InputError("two closed outlines or more are needed.");
  const std::size_t largest = *std::max_element(closed.begin(), closed.end(), [&paths](std::size_t a, std::size_t b) {
    return std::abs(signedArea(paths[a])) < std::abs(signedArea(paths[b]));
  });
  const auto isFirst = [&](std::size_t i) {
    return rule == AreaRule::Unite || i == largest || isHoleIn(paths[i], paths[largest]);
  };
  SomePaths first;
  SomePaths second;
  std::vector<std::size_t> which;
  for (const std::size_t i : closed) {
    (isFirst(i) ? first : second).push_back(paths[i]);
    if (isFirst(i)) which.push_back(i);
  }
  const Drawing before = makeDrawing(std::move(first));
  const Drawing after =
      rule == AreaRule::Unite ? united(before, stop) : combined(before, makeDrawing(std::move(second)), rule, stop);
  if (after.outlines.empty()) throw InputError("nothing would be left of them.");
  std::vector<SomePaths> became = byOrigin(before, after, which, paths.size(), largest);
  for (std::size_t i = 0; i < paths.size(); ++i) {
    if (!paths[i].closed) became[i] = {paths[i]};
  }
  return became;
}

}  // namespace rim::refine
