#include "app/steps/refine/hand/hand_tool.h"

#include <cmath>
#include <limits>

#include "core/geometry/inside.h"
#include "core/geometry/path_place.h"

namespace rim::app {

std::optional<OutlineId> outlineAt(const Drawing& drawing, Point place, double reach, bool inside) {
  std::optional<OutlineId> best;
  double least = reach;
  for (const Outline& outline : drawing.outlines) {
    Box spot;
    spot.include(place);
    if (outline.path().segments.empty() || apart(boxOf(outline.path()), spot, reach)) continue;
    const double off = nearestOn(outline.path(), place).off;
    if (off > least) continue;
    least = off;
    best = outline.id;
  }
  if (best || !inside) return best;
  double smallest = std::numeric_limits<double>::infinity();
  for (const Outline& outline : drawing.outlines) {
    if (!outline.path().closed || !boxOf(outline.path()).contains(place)) continue;
    const double area = std::abs(signedArea(outline.path()));
    if (area >= smallest || !Inside(outline.path()).has(place)) continue;
    smallest = area;
    best = outline.id;
  }
  return best;
}

}  // namespace rim::app
