#pragma once

#include "core/drawing/drawing.h"
#include "core/geometry/affine.h"

namespace rim::refine {

/// One of the nine points of a box.
enum class Hold { LowerLeft, Lower, LowerRight, Left, Centre, Right, UpperLeft, Upper, UpperRight };

/// That point of a box (not empty).
Point pointOf(const Box& box, Hold hold);

/// Every outline in the map's coordinates: arcs stay arcs under a similarity (geometry/affine.h), else they become
/// cubics within `toleranceMm` (> 0). An outline that a mirror turned runs the other way, so that outer borders run
/// counter-clockwise as before.
Drawing mapped(const Drawing& drawing, const Affine& map, double toleranceMm = 1e-6);

/// The drawing turned counter-clockwise about the middle of its box.
Drawing rotated(const Drawing& drawing, double degrees);

/// The same about a point, mm.
Drawing rotated(const Drawing& drawing, double degrees, Point centre);

/// The drawing with left and right swapped (`leftRight`), or top and bottom, about the middle of its box.
Drawing mirrored(const Drawing& drawing, bool leftRight);

/// The drawing `factor` (> 0) times as large, about the middle of its box.
Drawing scaledBy(const Drawing& drawing, double factor);

/// The drawing moved so that this point of its box comes to `at`, mm.
Drawing placed(const Drawing& drawing, Point at, Hold hold);

/// The drawing as large as fits into width x height (mm, > 0), proportions kept, the lower left corner of its box where
/// it was.
Drawing fitted(const Drawing& drawing, double widthMm, double heightMm);

/// Copies in columns to the right and rows upwards, the drawing itself at the lower left; gaps (mm, may be negative)
/// are between boxes. Throws InputError when there would be more than kMostCopies.
Drawing inRows(const Drawing& drawing, int columns, int rows, Point gapsMm);

/// `count` in all, evenly on the circle about a centre, each turned with it. Throws InputError as inRows() does.
Drawing onCircle(const Drawing& drawing, int count, Point centre);

inline constexpr int kMostCopies = 100'000;

}  // namespace rim::refine
