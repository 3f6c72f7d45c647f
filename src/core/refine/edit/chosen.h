#pragma once

#include <optional>
#include <stop_token>
#include <vector>

#include "core/geometry/affine.h"
#include "core/geometry/path.h"
#include "core/refine/combine/areas.h"
#include "core/refine/edit/place.h"

/// What is done to the outlines that are chosen, as one. Lengths are in the paths' own unit unless one is named.
namespace rim::refine {

using SomePaths = std::vector<Path>;

/// The box round all of them.
Box boxOf(const SomePaths& paths);

/// All in the map's coordinates (geometry/affine.h); arcs become cubics within `tolerance` where circles would not stay
/// circles. What a mirror turned runs as before.
SomePaths mapped(const SomePaths& paths, const Affine& map, double tolerance);

/// All moved so that this point of their box comes there; what is not said stays.
SomePaths placedAt(const SomePaths& paths, Hold hold, std::optional<double> x, std::optional<double> y);

/// All made so wide and so high (> 0) about this point of their box; what is not said changes in proportion. Throws
/// InputError when they have no such extent, or a size is 0 or less.
SomePaths sizedTo(const SomePaths& paths, Hold hold, std::optional<double> width, std::optional<double> height,
                  double tolerance);

/// How outlines are lined up by their boxes.
enum class BoxSide { Left, Middle, Right, Lower, Centre, Upper };

/// Each moved so that this side of its box, or its middle across, lies where that of the box round all does.
SomePaths alignedBy(const SomePaths& paths, BoxSide side);

/// Each moved so that the gaps between boxes are equal, from the first to the last along x (`level`) or y; three or
/// more.
SomePaths spacedEvenly(const SomePaths& paths, bool level);

/// What becomes of each of the closed outlines (mm) when their areas are combined. With Unite all are; else what the
/// largest encloses, with those that run round holes in it, comes first, and the others second. Open ones stay. What is
/// new belongs to the largest. Throws Cancelled; InputError when nothing is left, or fewer than two are closed.
std::vector<SomePaths> combinedAreas(const SomePaths& paths, AreaRule rule, const std::stop_token& stop = {});

}  // namespace rim::refine
