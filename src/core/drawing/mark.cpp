#include "core/drawing/mark.h"

#include <algorithm>
#include <cmath>

namespace rim {

OutlineMark markOf(const Outline& outline) {
  const Box box = boxOf(outline.path());
  return {outline.id, lerp(box.low, box.high, 0.5), {box.width(), box.height()}, std::abs(signedArea(outline.path()))};
}

OutlineMark scaled(const OutlineMark& mark, double factor) {
  return {mark.id, mark.middle * factor, mark.size * factor, mark.area * factor * factor};
}

std::optional<std::size_t> placeOf(const Drawing& drawing, const OutlineMark& mark) {
  if (const auto same = placeOf(drawing, mark.id)) return same;
  constexpr double kLike = 0.25;
  const double reach = kLike * length(mark.size);
  std::optional<std::size_t> best;
  double least = reach;
  for (std::size_t i = 0; i < drawing.outlines.size(); ++i) {
    const OutlineMark other = markOf(drawing.outlines[i]);
    const double off = distance(other.middle, mark.middle) + distance(other.size, mark.size);
    const bool like = std::abs(other.area - mark.area) <= kLike * std::max(other.area, mark.area);
    if (!like || off > least) continue;
    least = off;
    best = i;
  }
  return best;
}

}  // namespace rim
