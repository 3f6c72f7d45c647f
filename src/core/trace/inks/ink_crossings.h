#pragma once

#include <stop_token>
#include <vector>

#include "core/trace/inks/ink_borders.h"

namespace rim::trace::inks {

/// Where the outlines of an ink cross themselves or each other, of all inks (px); within 0.1 px of a junction, where
/// they may meet, nothing is told. Throws Cancelled.
std::vector<Point> crossingPlaces(const InkBorders& borders, const std::stop_token& stop);

/// Whether a path goes through one of the places, to 0.05 px.
bool passes(const Path& path, const std::vector<Point>& places);

}  // namespace rim::trace::inks
