#pragma once

#include <vector>

#include "core/geometry/path.h"

namespace rim {

/// A circular arc with its centre, as the bulge of a segment describes it.
/// Formulas: DXF reference, group code 42 ("bulge is the tangent of one fourth the included
/// angle, negative if the arc goes clockwise from start to end point").
struct Arc {
  Point centre;
  double radius = 0;
  double startAngle = 0;  ///< radians
  double sweep = 0;       ///< radians, positive counter-clockwise, -2 pi to 2 pi
};

/// The circle that a bulge between two points means. `bulge` must not be 0 and the points not
/// equal; nearly straight arcs give a very large radius.
Arc arcFromBulge(Point start, Point end, double bulge);

/// The point after the fraction t (0..1) of the sweep.
Point pointOn(const Arc& arc, double t);

/// tan(sweep / 4); `sweep` in radians, magnitude below 2 pi.
double bulgeFromSweep(double sweepRadians);

/// The bulge of the arc from start to end that leaves start along the unit vector `tangent`.
/// Zero when the tangent points straight at the end.
double bulgeFromTangent(Point start, Point tangent, Point end);

/// The bulge of the arc from start to end through a place between them.
double bulgeThrough(Point start, Point between, Point end);

/// Where a line (through `at`, along a unit vector) and a circle meet: two places in the line's direction, one where
/// they touch within 1e-9, or none.
std::vector<Point> lineMeetsCircle(Point at, Point along, Point centre, double radius);

/// Where two circles meet: two places, one where they touch within 1e-9, or none; none when they are the same.
std::vector<Point> circlesMeet(Point centreA, double radiusA, Point centreB, double radiusB);

/// The arc as equal cubics of at most 95 degrees each (a fitted quarter turn may be a little more
/// than one), as many as keep within `tolerance` of the circle. Handles of 4/3 tan(sweep / 4) leave it
/// to one side only, by 2/27 sin^6(sweep / 4) / cos^2(sweep / 4) of the radius; a little shorter they
/// leave it equally to both, by 0.72 of that (T. Dokken, M. Daehlen, T. Lyche and K. Morken, "Good
/// approximation of circles by curvature-continuous Bezier curves", CAGD 7 (1990), 33-41; M. Goldapp,
/// "Approximation of circular arcs by cubic polynomials", CAGD 8 (1991), 227-238): 1.97e-4 for 90 degrees.
std::vector<Segment> cubicsFromArc(Point start, const Segment& arc, double tolerance);

}  // namespace rim
