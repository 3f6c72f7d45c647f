#pragma once

#include <stop_token>
#include <vector>

#include "core/mend/find/finding.h"
#include "core/mend/find/settings.h"

namespace rim::mend {

/// Every fault of a drawing, by kind, what can be repaired first, and then by path. n log n for lines spread out.
/// Throws Cancelled when a stop is requested.
std::vector<Finding> inspect(const Drawing& drawing, const MendSettings& settings, const std::stop_token& stop = {});

/// Only those that say what would be cut twice or crosses: double lines, crossings and loops. Throws Cancelled.
std::vector<Finding> inspectTracks(const Drawing& drawing, const MendSettings& settings,
                                   const std::stop_token& stop = {});

}  // namespace rim::mend
