#include "core/trace/trace.h"

#include <future>

#include "core/for_all.h"
#include "core/picture/tone.h"
#include "core/trace/contour/grain.h"
#include "core/trace/contour/tones.h"
#include "core/trace/lines/trace_strokes.h"
#include "core/trace/outline/trace_outlines.h"

namespace rim {

std::vector<Border> traceBorders(const Picture& picture, const TraceSettings& settings, std::stop_token stop) {
  const Tones tones = tonesFor(picture, settings);
  return followBorders(tones.grey, tones.tone, settings.minAreaPx2, std::move(stop));
}

std::vector<Border> measuredBorders(const Picture& picture, const TraceSettings& settings, std::stop_token stop) {
  Tones tones = tonesFor(picture, settings);
  std::vector<Border> borders = followBorders(tones.grey, tones.tone, settings.minAreaPx2, stop);
  judgeNoise(tones, mostNoiseByGrain(tones.grey, tones.tone), borders);
  borders = finer(tones, std::move(borders), settings.minAreaPx2, std::move(stop));
  for (std::size_t i = 0; i < borders.size(); ++i) borders[i] = measuredBorder(tones, i, borders[i]).points;
  return borders;
}

Tracing fitBorders(const Picture& picture, const std::vector<Border>& borders, const TraceSettings& settings,
                   const WorkControl& control) {
  if (settings.method != TraceMethod::Outline) return traceStrokes(picture, settings, control);
  Tones tones = tonesFor(picture, settings);
  judgeNoise(tones, mostNoiseByGrain(tones.grey, tones.tone), borders);
  return traceOutlines(std::move(tones), borders, settings, control);
}

Tracing trace(const Picture& picture, const TraceSettings& settings, const WorkControl& control) {
  if (settings.method != TraceMethod::Outline) return traceStrokes(picture, settings, control);
  Tones tones = tonesFor(picture, settings);
  auto mostNoise = std::async(std::launch::async, [&tones] { return mostNoiseByGrain(tones.grey, tones.tone); });
  std::vector<Border> borders = followBorders(tones.grey, tones.tone, settings.minAreaPx2, control.stop);
  judgeNoise(tones, mostNoise.get(), borders);
  return traceOutlines(std::move(tones), std::move(borders), settings, control);
}

}  // namespace rim
