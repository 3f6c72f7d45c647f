#pragma once

#include <cstddef>
#include <stop_token>
#include <vector>

#include "core/geometry/crossing.h"

namespace rim {

/// The polylines of which an edge comes within `reach` (> 0) of another edge of the same or another one, or of which
/// two neighbouring edges fold back so sharply that curves which they follow might meet beside their node; those that
/// come near each other, or near a third one, are in one group. Groups by their least index, ascending, as the indexes
/// in each are. Needs what findCrossings() needs.
///
/// Curves that their polylines follow within half of `reach` cross or touch only where a group holds both.
/// Time grows linearly with the number of edges as long as they are spread out. Throws Cancelled when `stop` is
/// requested.
std::vector<std::vector<std::size_t>> comingNear(const std::vector<Polyline>& closed, double reach,
                                                 std::stop_token stop);

}  // namespace rim
