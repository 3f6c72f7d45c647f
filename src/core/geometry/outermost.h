#pragma once

#include "core/geometry/curve_form.h"

namespace rim {

/// The same path with a node wherever an arc or cubic that `form` turns into another kind runs level or upright within
/// `reach` of the side of `box` that it bulges towards.
///
/// Curves that are turned into another kind keep their nodes and tangents but may bulge a little
/// more or less between them. With nodes at the outermost places the box, and so the size of a
/// drawing, stays exactly what it was. `reach` >= 0, in the path's unit; for arcs 4e-4 of the
/// radius is added, the most that a cubic may leave an arc by (cubicsFromArc).
Path withOutermostNodes(const Path& path, const Box& box, double reach, CurveForm form);

}  // namespace rim
