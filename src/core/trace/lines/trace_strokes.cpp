#include "core/trace/lines/trace_strokes.h"

#include <algorithm>
#include <cmath>
#include <iterator>
#include <limits>

#include "core/for_all.h"
#include "core/median.h"
#include "core/trace/contour/measured_ink.h"
#include "core/trace/lines/areas.h"
#include "core/trace/lines/centrelines.h"
#include "core/trace/lines/end_on_areas.h"
#include "core/trace/lines/heal.h"
#include "core/trace/lines/stroke_limit.h"
#include "core/trace/lines/switch_parts.h"
#include "core/trace/lines/width_by_greys.h"
#include "core/trace/outline/fit_settings.h"
#include "core/trace/outline/trace_outlines.h"

namespace rim::trace::lines {
namespace {

/// What lines are fitted with: as rough as the roughest border.
outline::FitSettings fitFor(const contour::Tones& tones, const TraceSettings& settings) {
  outline::FitSettings fit = outline::fitSettingsFrom(settings);
  fit.mostNoisePx = tones.mostNoisePx;
  for (const contour::Roughness& rough : tones.rough) fit.mostNoisePx = std::max(fit.mostNoisePx, rough.px);
  return fit;
}

/// Brings the widths along a line to what the greys across it say of it as a whole.
void weighWidths(StrokeLine& line, const cv::Mat& grey) {
  if (line.widths.empty()) return;
  const double measured = medianOf(line.widths);
  const auto byGreys = widthByGreys(grey, line, measured);
  constexpr double kMostOff = 0.3;
  if (!byGreys || std::abs(*byGreys / measured - 1) > kMostOff) return;
  for (double& width : line.widths) width *= *byGreys / measured;
}

/// Adds lines, healed and fitted.
void add(Tracing& tracing, std::vector<StrokeLine> lines, const contour::Tones& tones, const TraceSettings& settings,
         const WorkControl& control) {
  lines = healed(std::move(lines), settings.strokes.healPx);
  forAll(lines.size(), {control.stop, {}}, [&](std::size_t i) { weighWidths(lines[i], tones.grey); });
  for (Centreline& line : fitStrokes(std::move(lines), fitFor(tones, settings), settings.strokes.ends, control)) {
    tracing.outlines.push_back(std::move(line.path));
    tracing.strokes.push_back(line.width);
  }
}

const Layer kLinesLayer{"lines", 0x1c, 0x5f, 0xc8};
const Layer kAreasLayer{"areas", 0, 0, 0};

/// Lines, and borders of what is too wide for a stroke, on which lines end that run into it.
Tracing mixed(const contour::Tones& tones, std::vector<StrokeNet> nets, double limitPx, const TraceSettings& settings,
              const WorkControl& control) {
  Tracing areas;
  if (std::any_of(nets.begin(), nets.end(), hasArea)) {
    contour::Tones wide{areasOnly(tones.grey, tones.tone, nets, limitPx), tones.tone, tones.level};
    std::vector<contour::Border> borders =
        contour::followBorders(wide.grey, wide.tone, settings.minAreaPx2, control.stop);
    contour::judgeNoise(wide, tones.mostNoisePx, borders);
    areas = outline::traceOutlines(std::move(wide), std::move(borders), settings, {control.stop, {}});
  }
  std::vector<StrokeLine> lines = linesOf(std::move(nets), control);
  endOnAreas(lines, areas.outlines);
  Tracing tracing;
  add(tracing, std::move(lines), tones, settings, control);
  tracing.layers = {kLinesLayer, kAreasLayer};
  tracing.layerOf.assign(tracing.outlines.size(), 0);
  std::move(areas.outlines.begin(), areas.outlines.end(), std::back_inserter(tracing.outlines));
  tracing.layerOf.resize(tracing.outlines.size(), 1);
  tracing.strokes.resize(tracing.outlines.size());
  return tracing;
}

}  // namespace

Tracing traceStrokes(const picture::Picture& picture, const TraceSettings& settings, const WorkControl& control) {
  const auto [tones, borders] = contour::measureInk(picture, settings, {control.stop, {}});
  const WorkControl quiet{control.stop, {}};
  std::vector<StrokeNet> nets = strokeNets(borders, quiet);
  const bool isMixed = settings.method == TraceMethod::Mixed;
  StrokeFacts facts{widthSharesOf(nets), std::numeric_limits<double>::infinity()};
  if (isMixed) facts.limitPx = settings.strokes.limitPx.value_or(strokeLimitOf(facts.widths));
  nets = withTracks(std::move(nets), facts.limitPx, control);
  if (isMixed) switchParts(nets, settings.strokes.switched);
  Tracing tracing;
  if (isMixed)
    tracing = mixed(tones, std::move(nets), facts.limitPx, settings, quiet);
  else
    add(tracing, linesOf(std::move(nets), quiet), tones, settings, quiet);
  tracing.facts = std::move(facts);
  tracing.threshold = tones.tone.threshold;
  return tracing;
}

}  // namespace rim::trace::lines
