#include "core/trace/trace.h"

#include "core/trace/contour/grain.h"
#include "core/trace/contour/measured_ink.h"
#include "core/trace/lines/trace_strokes.h"
#include "core/trace/outline/trace_outlines.h"

namespace rim::trace {

std::vector<contour::Border> traceBorders(const picture::Picture& picture, const TraceSettings& settings,
                                          std::stop_token stop) {
  const contour::Tones tones = contour::tonesFor(picture, settings, stop);
  return contour::followBorders(tones.grey, tones.tone, settings.minAreaPx2, std::move(stop));
}

std::vector<contour::Border> measuredBorders(const picture::Picture& picture, const TraceSettings& settings,
                                             std::stop_token stop) {
  return contour::measureInk(picture, settings, {std::move(stop), {}}).borders;
}

Tracing fitBorders(const picture::Picture& picture, const std::vector<contour::Border>& borders,
                   const TraceSettings& settings, const WorkControl& control) {
  if (settings.method != TraceMethod::Outline) return lines::traceStrokes(picture, settings, control);
  contour::Tones tones = contour::tonesFor(picture, settings, control.stop);
  contour::judgeNoise(tones, contour::mostNoiseByGrain(tones.grey, tones.tone), borders);
  return outline::traceOutlines(std::move(tones), borders, settings, control);
}

Tracing trace(const picture::Picture& picture, const TraceSettings& settings, const WorkControl& control) {
  if (settings.method != TraceMethod::Outline) return lines::traceStrokes(picture, settings, control);
  return outline::traceTones(contour::tonesFor(picture, settings, control.stop), settings, control);
}

}  // namespace rim::trace
