#pragma once

#include <stop_token>

#include "core/mend/find/finding.h"
#include "core/mend/find/settings.h"

namespace rim {

/// The drawing with the lonely end that the finding is about joined to another lonely one, however far: to the nearest
/// that can be reached without crossing a line, running along one, or crossing itself. Unchanged when none of the
/// nearest dozen can be, or the finding is not about a lonely end. Throws Cancelled.
Drawing joinedFar(const Drawing& drawing, const Finding& finding, const MendSettings& settings,
                  const std::stop_token& stop = {});

}  // namespace rim
