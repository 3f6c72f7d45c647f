#pragma once

#include <array>
#include <cstdint>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/sketch/profiles.h"

namespace rim::sketch {

struct Point3 {
  double x = 0, y = 0, z = 0;
};

/// The surface of bodies as triangles, counter-clockwise seen from outside.
struct Solid {
  std::vector<Point3> points;  ///< mm
  std::vector<std::array<std::uint32_t, 3>> triangles;
};

/// The profiles pulled up from z = 0 by a thickness (mm, > 0), their curves as chords within `chordMm` (> 0). Caps are
/// constrained Delaunay triangulations (CGAL). Watertight: every edge is run along as often one way as the other.
Solid extruded(const Drawing& drawing, const Sketch& sketch, double thicknessMm, double chordMm);

/// What the surface encloses, mm3: the sum of signed tetrahedra under its triangles (divergence theorem).
double volumeOf(const Solid& solid);

/// Whether every edge of its triangles is run along as often one way as the other.
bool isWatertight(const Solid& solid);

}  // namespace rim::sketch
