#include "core/trace/trace.h"

#include "core/trace/contour/grain.h"
#include "core/trace/contour/measured_ink.h"
#include "core/trace/lines/trace_strokes.h"
#include "core/trace/outline/trace_outlines.h"

namespace rim {

std::vector<Border> traceBorders(const Picture& picture, const TraceSettings& settings, std::stop_token stop) {
  const Tones tones = tonesFor(picture, settings, stop);
  return followBorders(tones.grey, tones.tone, settings.minAreaPx2, std::move(stop));
}

std::vector<Border> measuredBorders(const Picture& picture, const TraceSettings& settings, std::stop_token stop) {
  return measureInk(picture, settings, {std::move(stop), {}}).borders;
}

Tracing fitBorders(const Picture& picture, const std::vector<Border>& borders, const TraceSettings& settings,
                   const WorkControl& control) {
  if (settings.method != TraceMethod::Outline) return traceStrokes(picture, settings, control);
  Tones tones = tonesFor(picture, settings, control.stop);
  judgeNoise(tones, mostNoiseByGrain(tones.grey, tones.tone), borders);
  return traceOutlines(std::move(tones), borders, settings, control);
}

Tracing trace(const Picture& picture, const TraceSettings& settings, const WorkControl& control) {
  if (settings.method != TraceMethod::Outline) return traceStrokes(picture, settings, control);
  return traceTones(tonesFor(picture, settings, control.stop), settings, control);
}

}  // namespace rim
