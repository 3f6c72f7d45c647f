#include "core/trace/contour/measured_ink.h"

#include "core/for_all.h"
#include "core/trace/contour/grain.h"

namespace rim::trace::contour {

MeasuredInk measureInk(const picture::Picture& picture, const TraceSettings& settings, const WorkControl& control) {
  Tones tones = tonesFor(picture, settings, control.stop);
  std::vector<Border> borders = followBorders(tones.grey, tones.tone, settings.minAreaPx2, control.stop);
  judgeNoise(tones, mostNoiseByGrain(tones.grey, tones.tone), borders);
  borders = finer(tones, std::move(borders), settings.minAreaPx2, control.stop);
  forAll(borders.size(), control, [&](std::size_t i) { borders[i] = measuredBorder(tones, i, borders[i]).points; });
  return {std::move(tones), std::move(borders)};
}

}  // namespace rim::trace::contour
