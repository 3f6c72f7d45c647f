#pragma once

#include <vector>

#include "core/trace/inks/ink_borders.h"

namespace rim::trace::inks {

/// The closed outlines round the inks for which `inside` (by number) is true, those at their left.
/// Common borders of different sets are the same segments, run the other way.
std::vector<Path> outlinesRound(const InkBorders& borders, const std::vector<bool>& inside);

/// The borders between two inks that are both `inside`, once each, as long as they go straight on.
std::vector<Path> bordersWithin(const InkBorders& borders, const std::vector<bool>& inside);

}  // namespace rim::trace::inks
