#pragma once

#include <optional>

#include "core/refine/propose/exact_shapes.h"

namespace rim::refine {

/// The path with lines and arcs that meet at less than five degrees made to touch: between two lines the arc keeps its
/// radius and becomes their fillet; else its node slides along the line, radius and far end kept. None when nothing
/// would change, or something moves by more than `withinMm` (> 0).
std::optional<ExactShape> madeTangent(const Path& path, double withinMm);

}  // namespace rim::refine
