#pragma once

#include <stop_token>
#include <string>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/mend/find/settings.h"
#include "core/mend/repair/untangle.h"

namespace rim::mend {

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
/// Spikes and loops are cut off up to `gapMm` only: longer spikes become a line drawn once, larger loops stay as lobes,
/// so that nothing that can be seen is lost. At the end outer borders run counter-clockwise and holes clockwise. A
/// drawing without faults stays as it is but for that. Throws Cancelled when a stop is requested.
Mended mended(const Drawing& drawing, const MendSettings& settings, const std::stop_token& stop = {});

/// The rounds alone, for repairs that must not be seen: true doubles become one, spikes of up to `longestSpikeMm` and
/// loops are cut off; nothing else is dropped but lines of no length. Throws Cancelled.
Mended mendedInRounds(const Drawing& drawing, const MendSettings& settings, double longestSpikeMm,
                      const std::stop_token& stop = {});

}  // namespace rim::mend
