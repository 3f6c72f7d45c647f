#pragma once

#include <vector>

#include "core/trace/lines/centrelines.h"

namespace rim::trace::lines {

/// The same lines in an order, and open ones turned, so that the way from the end of one to the start of the next is
/// short: always on to the nearest that is left, from the lower left corner. Places of a grid are searched ring by
/// ring.
std::vector<Centreline> inDrawOrder(std::vector<Centreline> lines);

}  // namespace rim::trace::lines
