#include "core/trace/contour/threshold.h"

#include "core/picture/tone.h"

namespace rim {

int thresholdFor(const Picture& picture, const TraceSettings& settings) {
  if (settings.threshold) return *settings.threshold;
  constexpr int kNoInk = 0;
  constexpr int kNoLightInk = 256;
  return otsuThreshold(picture.histogram).value_or(settings.lightIsInk ? kNoLightInk : kNoInk);
}

}  // namespace rim
