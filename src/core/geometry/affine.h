#pragma once

#include <array>

#include "core/geometry/path.h"

namespace rim {

/// An affine map of the plane: x' = a x + c y + e, y' = b x + d y + f, the order of SVG's matrix(a b c d e f).
struct Affine {
  double a = 1, b = 0, c = 0, d = 1, e = 0, f = 0;

  Point operator()(Point p) const { return {a * p.x + c * p.y + e, b * p.x + d * p.y + f}; }
  /// The vector p without the shift.
  Point turned(Point p) const { return {a * p.x + c * p.y, b * p.x + d * p.y}; }
  double determinant() const { return a * d - b * c; }

  friend bool operator==(const Affine&, const Affine&) = default;
};

Affine shift(Point by);
Affine scale(double x, double y);
/// Counter-clockwise for y up.
Affine rotation(double radians);

/// A map done about a centre instead of the origin.
Affine about(Point centre, const Affine& map);
/// Mirrored about the line through a place at an angle (radians).
Affine mirrorAbout(Point place, double angle);
/// First `inner`, then `outer`.
Affine operator*(const Affine& outer, const Affine& inner);
/// What takes a map back. Its determinant must not be 0.
Affine inverse(const Affine& map);

/// Whether circles stay circles, to a relative 1e-9: a turn, a shift, one scale, perhaps mirrored.
bool isSimilarity(const Affine& map);

/// The path in the map's coordinates. Arcs stay arcs under a similarity (their bulge changes sign when it mirrors),
/// else they become cubics within `tolerance` (> 0, in the new unit) of the ellipse.
Path transformed(const Path& path, const Affine& map, double tolerance);

}  // namespace rim
