#pragma once

#include <optional>

#include "core/geometry/path.h"
#include "core/refine/propose/exact_shapes.h"

namespace rim::refine {

/// The path with every stretch between two corners that is nearly a line made one line: it leaves the line by no more
/// than `withinMm` and a sixtieth of its length. None when there is no such stretch of several segments, or of a curve.
std::optional<ExactShape> straightened(const Path& path, double withinMm);

/// The path with its lines that are within two degrees of level or upright made so, about their middles; nodes follow,
/// by no more than `withinMm`. Lines shorter than a twelfth of the path's larger side stay. None when nothing is to be
/// done.
std::optional<ExactShape> levelled(const Path& path, double withinMm);

/// The path with its lines that are within two degrees of parallel or square to its main direction made so, the same
/// way.
std::optional<ExactShape> squared(const Path& path, double withinMm);

}  // namespace rim::refine
