#pragma once

#include <vector>

#include "core/geometry/path.h"

namespace rim {

/// An arc of an ellipse about a centre: centre + major cos(w) + minor sin(w), w from `startAngle` over `sweep`.
struct EllipticArc {
  Point centre;
  Point major;
  Point minor;
  double startAngle = 0;  ///< radians
  double sweep = 0;       ///< radians, -2 pi to 2 pi, positive from major to minor
};

/// The arc as SVG writes it ("A rx ry rotation large sweep x y") about its centre. Radii too small for the way from
/// start to end grow until they reach. Equal points or a radius of 0 give a sweep of 0: a straight line is meant.
/// Source: W3C, SVG 1.1 (Second Edition), appendix F.6.5 and F.6.6. `rotation` in radians.
EllipticArc ellipticArc(Point start, Point radii, double rotation, bool large, bool sweep, Point end);

/// The point at the parameter angle w.
Point pointOn(const EllipticArc& arc, double angle);

/// The arc as a path that starts at its start: circular arcs (two for a full turn) where the axes are equally long and
/// square to each other, else cubics within `tolerance` (> 0). A full turn is a closed path.
Path pathOf(const EllipticArc& arc, double tolerance);

}  // namespace rim
