#pragma once

#include <vector>

#include "core/trace/trace.h"

namespace rim::trace {

/// How many nodes the outlines have at a tolerance.
struct NodesAt {
  double tolerancePx = 0;
  std::size_t nodes = 0;
};

/// Traces the picture in two tones at tolerances from 0.1 to 10 px, evenly spread by their logarithm, with all else as
/// the settings say. Ascending by tolerance. Throws what trace() throws; Cancelled.
std::vector<NodesAt> nodesAlongSmoothness(const picture::Picture& picture, const TraceSettings& settings,
                                          std::stop_token stop = {});

}  // namespace rim::trace
