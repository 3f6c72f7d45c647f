#pragma once

#include "core/geometry/path.h"

/// Shapes that a job needs beside what was traced. Outer borders run counter-clockwise.
namespace rim::refine {

enum class ShapeKind { Line, Rectangle, Circle, Ellipse, Polygon, Star, Slot };

struct ShapeWish {
  ShapeKind kind = ShapeKind::Circle;
  int corners = 6;      ///< of polygons and stars, 3..1000
  double rounding = 0;  ///< radius of a rectangle's corners
  double waist = 0.5;   ///< of a star: inner by outer radius, 0..1
  friend bool operator==(const ShapeWish&, const ShapeWish&) = default;
};

/// A rectangle whose corners are arcs of this radius, as far as there is room; 0: sharp ones.
Path roundedBox(const Box& box, double radius);

/// The shape between two places: a line from one to the other; rectangle, ellipse and slot in the box between them; a
/// circle, polygon or star about the first through the second. Circles and slots are arcs; an ellipse is of cubics
/// within `tolerance`. A line alone is open. Throws InputError when the places lie too near each other to make one.
Path shapeBetween(const ShapeWish& wish, Point from, Point to, double tolerance);

}  // namespace rim::refine
