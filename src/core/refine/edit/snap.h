#pragma once

#include <optional>
#include <set>

#include "core/drawing/drawing.h"

namespace rim::refine {

/// What a place can be brought to.
enum class SnapTo { Node, Crossing, Quadrant, Middle, Centre, Line };
inline constexpr std::size_t kSnaps = 6;

struct Snapped {
  Point place;
  SnapTo to = SnapTo::Node;
};

/// What of a drawing lies within `reach` of a place: the nearest node or end, else crossing, middle of a segment,
/// centre or quadrant of an arc, else the nearest place of an outline. `wanted` says which of them count; outlines in
/// `without` do not. None: nothing is there.
std::optional<Snapped> snapped(const Drawing& drawing, Point place, double reach, const std::set<SnapTo>& wanted,
                               const std::set<OutlineId>& without = {});

}  // namespace rim::refine
