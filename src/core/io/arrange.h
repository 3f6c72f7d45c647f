#pragma once

#include <string>
#include <utility>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/job/file_wish.h"

namespace rim::io {

/// The drawing moved so that its origin lies at that corner, or in the middle, of a box (mm).
Drawing withOrigin(const Drawing& drawing, job::OriginAt origin, const Box& box);

/// The drawing on a page that is the box round all outlines and `marginMm` (>= 0) on every side.
Drawing onArtworkPage(const Drawing& drawing, double marginMm);

/// The drawing on a page that is this box (mm).
Drawing onPage(const Drawing& drawing, const Box& page);

/// The drawing with layers that say what a machine does beside each outline: "outside" of the borders of areas,
/// "inside" of their holes, "line" along what is open or a pen drew. Those that nothing is on are not there.
Drawing layeredByRole(const Drawing& drawing);

/// The outlines of one layer alone. Throws InputError, naming those that there are, when there is none of that name.
Drawing onlyLayer(const Drawing& drawing, const std::string& name);

}  // namespace rim::io
