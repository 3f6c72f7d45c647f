#pragma once

#include <vector>

#include "core/trace/inks/ink_borders.h"

namespace rim::trace::inks {

/// The borders without slivers: where three borders meet and two of them leave the junction so close to each other
/// (0.4 px, for no more than 4) that nothing of the ink lies between, the junction is where they part, and the third
/// one leads on to it. The junctions of `stay` stay as they are; those that moved are added to `moved`.
InkBorders withoutSlivers(InkBorders borders, const std::vector<bool>& stay, std::vector<std::size_t>& moved);

}  // namespace rim::trace::inks
