#pragma once

#include <optional>
#include <span>

#include "core/geometry/path.h"

namespace rim::trace::fit {

/// An ellipse. Upright pixels.
struct Ellipse {
  Point centre;
  Point axis;         ///< unit vector along the first half axis
  double along = 0;   ///< first half axis, px
  double across = 0;  ///< second half axis, px
};

/// The ellipse with the least squared distances to points all round it, to first order in the
/// distance (P. D. Sampson, "Fitting conic sections to very scattered data", CGIP 18 (1982),
/// 97-108), by Gauss and Newton from the ellipse that has the same second moments as the area
/// within. The points are the nodes of a closed polygon that does not cross itself. Nothing when
/// they are less than six or enclose no area.
std::optional<Ellipse> fitEllipse(std::span<const Point> points);

/// The area within a closed polygon that does not cross itself over that of the ellipse with the same second moments: 1
/// for ellipses, a little more for a few points on one, 0.95 for squares, less where a shape has arms or bays; 0 when
/// it encloses no area.
double likenessToEllipse(std::span<const Point> points);

/// The distance of a point from the ellipse, to first order; positive outside.
double distanceFrom(const Ellipse& ellipse, Point p);

/// The ellipse as a closed path of cubics with nodes at the ends of its axes: four, or eight where four
/// would leave it by more than `tolerancePx`. `turn` 1 runs counter-clockwise, -1 clockwise.
Path pathOf(const Ellipse& ellipse, double turn, double tolerancePx);

}  // namespace rim::trace::fit
