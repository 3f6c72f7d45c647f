#include "core/trace/contour/threshold.h"

#include "core/picture/tone.h"

namespace rim::trace::contour {

int thresholdFor(const picture::Picture& picture, const TraceSettings& settings) {
  if (settings.threshold) return *settings.threshold;
  constexpr int kNoInk = 0;
  constexpr int kNoLightInk = 256;
  return picture::otsuThreshold(picture.histogram).value_or(settings.lightIsInk ? kNoLightInk : kNoInk);
}

}  // namespace rim::trace::contour
