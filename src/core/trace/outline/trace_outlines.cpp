#include "core/trace/outline/trace_outlines.h"

#include <future>
#include <numeric>
#include <set>

#include "core/for_all.h"
#include "core/trace/contour/grain.h"
#include "core/trace/outline/fewer_pieces.h"
#include "core/trace/outline/fit_settings.h"
#include "core/trace/outline/guard.h"
#include "core/trace/outline/keep_apart.h"
#include "core/trace/outline/outline_crossings.h"
#include "core/trace/outline/within_picture.h"
#include "core/trace/outline/without_backsteps.h"

namespace rim::trace::outline {
namespace {

/// Outlines that enclose less than `minAreaPx2` go, and what belongs to them.
void leaveOutSmall(std::vector<Path>& outlines, std::vector<FitTarget>& targets, std::vector<contour::Border>& borders,
                   contour::Tones& tones, double minAreaPx2) {
  std::size_t kept = 0;
  for (std::size_t i = 0; i < outlines.size(); ++i) {
    if (std::abs(signedArea(outlines[i])) < minAreaPx2) continue;
    if (kept != i) {
      outlines[kept] = std::move(outlines[i]);
      targets[kept] = std::move(targets[i]);
      borders[kept] = std::move(borders[i]);
      tones.rough[kept] = tones.rough[i];
    }
    ++kept;
  }
  outlines.resize(kept);
  targets.resize(kept);
  borders.resize(kept);
  tones.rough.resize(kept);
}

/// Where more than what is fitted to is allowed, the fewest segments within it; less where outlines would cross by it.
void takeFewerPieces(std::vector<Path>& outlines, double withinPx, const WorkControl& control) {
  const std::vector<Path> fitted = outlines;
  std::vector<std::size_t> which(outlines.size());
  std::iota(which.begin(), which.end(), 0);
  OutlineCrossings crossings(outlines);
  for (int round = 0; !which.empty(); ++round) {
    forAll(which.size(), {control.stop, {}}, [&](std::size_t k) {
      const std::size_t i = which[k];
      outlines[i] = inFewerPiecesOnTry(fitted[i], withinPx, round);
      crossings.changed(i);
    });
    if (round >= kFewerPiecesTries) return;
    std::set<std::size_t> again;
    for (const Crossing& crossing : crossings.find(control.stop)) again.insert(crossing.polyline);
    which.assign(again.begin(), again.end());
  }
}

}  // namespace

Tracing traceOutlines(contour::Tones tones, std::vector<contour::Border> borders, const TraceSettings& wished,
                      const WorkControl& control, const FitScope& scope) {
  constexpr double kTinyPx = 0.05;  // what steps back by less says nothing
  TraceSettings settings = wished;
  borders = contour::finer(tones, std::move(borders), settings.minAreaPx2, control.stop);
  settings.tolerancePx = std::min(wished.tolerancePx, kTightTolerancePx);
  Tracing tracing;
  tracing.threshold = tones.tone.threshold;
  tracing.outlines.resize(borders.size());
  std::vector<FitTarget> targets(borders.size());
  // The measured points of a small picture are needed again; those of a large one would take too much memory.
  const bool small = tones.greys.has_value();
  std::vector<contour::SharpBorder> sharp(small ? borders.size() : 0);
  forAll(borders.size(), control, [&](std::size_t i) {
    contour::SharpBorder measured = contour::measuredBorder(tones, i, borders[i]);
    const FitSettings fit = fitSettingsFor(tones, i, settings);
    targets[i].settled = scope.isFitted && !scope.isFitted(borders[i]);
    if (targets[i].settled) {
      tracing.outlines[i] = polygonThrough(measured.points);
      return;
    }
    if (!small) {
      tracing.outlines[i] = fitWithin(measured.points, fit, control.stop);
      return;
    }
    tracing.outlines[i] = fitOutline(measured.points, fit, control.stop);
    targets[i].points = measured.points;
    sharp[i] = std::move(measured);
  });
  if (small) {
    agreeWithGreys(tracing.outlines, targets, tones, sharp, settings, scope.greyRounds, control);
    leaveOutSmall(tracing.outlines, targets, borders, tones, settings.minAreaPx2);
  }
  makeCirclesRegular(tracing.outlines, settings.rules, settings.tolerancePx);
  for (Path& outline : tracing.outlines)
    outline = withinPicture(withoutBacksteps(std::move(outline), kTinyPx), tones.grey.size());
  keepApart(tracing.outlines, targets, tones, borders, settings, control);
  if (settings.tolerancePx < wished.tolerancePx) takeFewerPieces(tracing.outlines, wished.tolerancePx, control);
  return tracing;
}

Tracing traceTones(contour::Tones tones, const TraceSettings& settings, const WorkControl& control,
                   const FitScope& scope) {
  auto mostNoise =
      std::async(std::launch::async, [&tones] { return contour::mostNoiseByGrain(tones.grey, tones.tone); });
  std::vector<contour::Border> borders =
      contour::followBorders(tones.grey, tones.tone, settings.minAreaPx2, control.stop);
  contour::judgeNoise(tones, mostNoise.get(), borders);
  return traceOutlines(std::move(tones), std::move(borders), settings, control, scope);
}

}  // namespace rim::trace::outline
