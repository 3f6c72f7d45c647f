#pragma once

#include <optional>
#include <stop_token>

#include "core/refine/combine/areas.h"
#include "core/refine/edit/place.h"

/// What is done to the outlines that are chosen, as one: a drawing of these alone, in mm. Turning, mirroring and
/// placing are those of a whole drawing (refine/edit/place.h).
namespace rim::refine {

/// All made so wide and so high (mm, > 0) about this point of their box; what is not said changes in proportion. Arcs
/// become cubics within `toleranceMm` (> 0) where circles do not stay circles. Throws InputError when they have no such
/// extent, or a size is 0 or less.
Drawing sizedTo(const Drawing& drawing, Hold hold, std::optional<double> width, std::optional<double> height,
                double toleranceMm);

/// How outlines are lined up by their boxes.
enum class BoxSide { Left, Middle, Right, Lower, Centre, Upper };

/// Each part (refine/edit/parts.h) moved so that this side of its box, or its middle across, lies where that of the box
/// round all does.
Drawing alignedBy(const Drawing& drawing, BoxSide side);

/// Each part moved so that the middle of its box is that of the part with the largest box.
Drawing centredOnLargest(const Drawing& drawing);

/// Each part moved so that the gaps between boxes are equal, from the first to the last along x (`level`) or y; three
/// or more.
Drawing spacedEvenly(const Drawing& drawing, bool level);

/// The closed outlines with their areas combined, whatever layers they are on. With Unite all are; else what the
/// largest encloses, with those that run round holes in it, comes first, and the others second. Open ones stay. Throws
/// Cancelled; InputError when nothing is left, or fewer than two are closed.
Drawing combinedAreas(const Drawing& drawing, AreaRule rule, const std::stop_token& stop = {});

/// What the largest closed outline encloses, cut apart along the others: what lies outside of them and what lies
/// inside, as closed outlines each. The others are gone, open ones stay. Throws Cancelled; InputError when nothing is
/// cut, or fewer than two are closed.
Drawing cutAlongOthers(const Drawing& drawing, const std::stop_token& stop = {});

}  // namespace rim::refine
