#pragma once

#include "core/trace/trace.h"

namespace rim::trace {

/// Kinds of pictures for which settings are known to be a good beginning (common practice, no source).
enum class StartingPoint { CrispArtwork, SmallWebPicture, InkOnPaper, PhonePhoto };

/// The settings to begin with; what is ink stays as it is in `now`.
TraceSettings settingsFor(StartingPoint kind, const TraceSettings& now);

}  // namespace rim::trace
