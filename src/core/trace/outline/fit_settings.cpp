#include "core/trace/outline/fit_settings.h"

#include <algorithm>

namespace rim::trace::outline {

FitSettings fitSettingsFrom(const TraceSettings& settings) {
  FitSettings fit;
  fit.tolerancePx = settings.tolerancePx;
  fit.cornerReadiness = settings.cornerReadiness;
  fit.rules = settings.rules;
  return fit;
}

FitSettings fitSettingsFor(const contour::Tones& tones, std::size_t i, const TraceSettings& settings) {
  FitSettings fit = fitSettingsFrom(settings);
  fit.mostNoisePx = std::max(tones.mostNoisePx, tones.rough[i].px);
  fit.jagged = tones.rough[i].jagged;
  return fit;
}

}  // namespace rim::trace::outline
