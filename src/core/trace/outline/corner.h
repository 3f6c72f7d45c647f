#pragma once

#include <optional>

#include "core/geometry/cubic.h"
#include "core/trace/fit/primitive.h"

namespace rim::trace::outline {

/// What comes to a corner from one side: a line or circle, or a cubic that goes on beyond its end.
struct CornerSide {
  fit::Primitive primitive;    ///< when there is no cubic
  std::optional<Cubic> cubic;  ///< the last one before the corner, or the first one after it
};

struct CornerPlace {
  Point place;
  double before = 0;  ///< parameter of the cubic before the corner there; beyond 1 it is prolonged
  double after = 0;   ///< parameter of the cubic after the corner; below 0 it is prolonged
  double turn = 0;    ///< radians, from the one's tangent to the other's
};

/// Where both sides, prolonged, meet nearest to `near` (Newton's method in both sides' parameters);
/// nothing when they do not within a quarter of a cubic's parameter.
std::optional<CornerPlace> meetSides(const CornerSide& before, const CornerSide& after, Point near);

}  // namespace rim::trace::outline
