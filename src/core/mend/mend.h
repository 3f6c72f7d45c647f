#pragma once

#include <stop_token>
#include <string>
#include <vector>

#include "core/geometry/drawing.h"
#include "core/mend/settings.h"

namespace rim {

/// A kind of repair and how often it was done, as in the report.
struct RepairCount {
  std::string kind;
  std::size_t count = 0;

  friend bool operator==(const RepairCount&, const RepairCount&) = default;
};

struct Mended {
  Drawing drawing;
  std::vector<RepairCount> repairs;  ///< kinds that were done at all, in order
};

/// Mends all that the settings allow: nodes, zero lengths and spikes tidied, one line made of two, ends joined, loops
/// cut off and bow-ties mended, again until nothing more comes of it; then strokes, specks, strays, a frame, nodes.
/// At the end outer borders run counter-clockwise and holes clockwise. A drawing without faults stays as it is but for
/// that. Throws Cancelled when a stop is requested.
Mended mended(const Drawing& drawing, const MendSettings& settings, const std::stop_token& stop = {});

}  // namespace rim
