#pragma once

#include <vector>

#include "support/pen.h"

namespace rim::test {

/// A place on a circle; the angle in radians, anticlockwise from the right.
Point onCircle(Point centre, double radius, double angle);

PenStroke arc(Point centre, double radius, double from, double to);
PenStroke circle(Point centre, double radius);
PenStroke bezier(Point a, Point b, Point c, Point d);

/// Round three sides of a rectangle with round corners; it is open on the right.
PenStroke bow(Point low, Point high, double radius);

/// A round lid, and the side and bottom that go on along it.
std::vector<PenStroke> drum(Point middle, double a, double b, double high);

/// A star of four narrow tips with straight edges, `size` px from its middle, and round hollows between them.
PenStroke hollowStar(Point middle, double size);

}  // namespace rim::test
