#pragma once

#include <stop_token>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/refine/combine/arrangement.h"

namespace rim::refine {

/// What two drawings make of each other.
enum class AreaRule {
  Unite,      ///< what either holds
  Subtract,   ///< what the first holds without the second
  Intersect,  ///< what both hold
  Exclude,    ///< what one of them holds, but not the other
};

/// The closed outlines of a drawing as rings of one side: one that lies wholly inside another is its hole and runs
/// clockwise, an island in a hole counter-clockwise again. One that crosses itself counts by the even-odd rule. `take`
/// names the outlines by their place; their source is that place.
std::vector<Ring> ringsOf(const Drawing& drawing, const std::vector<std::size_t>& take, int side,
                          const std::stop_token& stop = {});

/// The places of a drawing's closed outlines, by layer where there are several.
std::vector<std::vector<std::size_t>> closedByLayer(const Drawing& drawing);

/// The drawing with the outlines at these places replaced by the outlines of an area. The first outline that came of a
/// place is still that one, others that did are new; what nothing came of is gone. New outlines stand where theirs
/// stood.
Drawing withAreas(const Drawing& drawing, const std::vector<std::size_t>& places, std::vector<AreaOutline> areas);

/// The closed outlines of every layer united: what overlaps becomes one. Open outlines stay. Throws Cancelled.
Drawing united(const Drawing& drawing, const std::stop_token& stop = {});

/// The closed outlines of every layer combined with all closed outlines of another drawing. Open outlines stay.
/// Throws Cancelled.
Drawing combined(const Drawing& drawing, const Drawing& other, AreaRule rule, const std::stop_token& stop = {});

}  // namespace rim::refine
