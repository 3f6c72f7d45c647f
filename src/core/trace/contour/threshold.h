#pragma once

#include "core/picture/picture.h"
#include "core/trace/settings.h"

namespace rim::trace::contour {

/// The threshold that the settings mean for this picture. A picture of one tone has no ink:
/// automatic gives 0 then (and 256 for light ink), below which nothing lies.
int thresholdFor(const picture::Picture& picture, const TraceSettings& settings);

}  // namespace rim::trace::contour
