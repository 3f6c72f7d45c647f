#pragma once

#include <stop_token>
#include <vector>

#include "core/drawing/drawing.h"

namespace rim::sketch {

/// A closed outline that a CAD program would extrude, and its holes.
struct Profile {
  std::size_t outer = 0;           ///< place in the drawing's list
  std::vector<std::size_t> holes;  ///< those directly inside it
  double areaMm2 = 0;              ///< without the holes, exact
};

/// Why an outline cannot be extruded.
enum class Unfit { Open, Crosses };

struct UnfitOutline {
  std::size_t outline = 0;
  Unfit why = Unfit::Open;
};

/// What a CAD program makes of a drawing.
struct Sketch {
  std::vector<Profile> profiles;  ///< in the order of their outer outlines
  std::vector<UnfitOutline> unfit;
};

/// The profiles of a drawing in mm. What is open, or crosses itself or another outline of its layer, is none. The
/// others are told apart by how deep they lie within those of their layer: an even depth makes a profile, the outlines
/// directly inside are its holes, and what lies in these is a profile again. Throws Cancelled, and what inspect()
/// throws.
Sketch sketchOf(const Drawing& drawing, const std::stop_token& stop = {});

}  // namespace rim::sketch
