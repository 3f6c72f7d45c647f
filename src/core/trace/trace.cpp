#include "core/trace/trace.h"

#include <future>
#include <limits>
#include <map>

#include "core/error.h"
#include "core/picture/light.h"
#include "core/picture/tone.h"
#include "core/trace/fit_outline.h"
#include "core/trace/for_all.h"
#include "core/trace/grain.h"
#include "core/trace/measured_at.h"
#include "core/trace/outline_crossings.h"
#include "core/trace/room_beside.h"
#include "core/trace/roughness.h"
#include "core/trace/sharpen.h"
#include "core/trace/without_jags.h"

namespace rim {
namespace {

// An outline that crosses is fitted again: first with its corners there kept to the border, then with whole pieces
// there left as measured, farther round each time; at last only its border's own points near the crossings are taken,
// so that the rest stays what it is.
constexpr std::size_t kBluntAttempts = 3;
constexpr std::size_t kFitAttempts = 7;
constexpr std::size_t kLineAttempts = 11;  ///< from here on it is a line of points
constexpr std::size_t kMostAttempts = 16;
/// A line of points leaves its border by no more than this, as one that is drawn by hand within half a pixel.
constexpr double kMostRoomPx = 0.45;
constexpr double kMeasuredReachPx = 4;
constexpr double kAnyNoise = std::numeric_limits<double>::infinity();

/// What is known of one outline that is on its way to being fitted.
struct Attempt {
  std::size_t number = 0;
  std::vector<Point> places;         ///< where it crossed
  std::vector<Point> crossedAsLine;  ///< the same since it is a line of points
  Path fitted;                       ///< what it is taken from once it is fitted no more
};

/// The grey levels that are traced and what is ink in them.
struct Tones {
  cv::Mat grey;
  TwoTone tone;
  double mostNoisePx = 0;          ///< what borders may be off by (trace/grain.h)
  std::vector<Roughness> rough{};  ///< of each border, beyond that
};

/// With the automatic threshold uneven light is divided away first: where it is dark, one threshold for
/// all lies so near the paper that noise moves the border.
Tones tonesFor(const Picture& picture, const TraceSettings& settings) {
  constexpr double kUneven = 0.85;
  Tones tones{*picture.grey, {thresholdFor(picture, settings), settings.lightIsInk}, kAnyNoise};
  if (settings.threshold || settings.lightIsInk || evenness(picture) >= kUneven) return tones;
  const cv::Mat even = evenGrey(picture);
  const auto threshold = otsuThreshold(histogramOf(even));
  if (!threshold) return tones;
  return {even, {*threshold, false}, kAnyNoise};
}

/// Who sets a threshold wants the outline to follow it; the automatic one wants the true edge.
EdgeLevel levelFor(const TraceSettings& settings) {
  return settings.threshold ? EdgeLevel::Threshold : EdgeLevel::Coverage;
}

/// Finds what the borders may be off by; `mostNoisePx` by grain, the rest by themselves.
void judgeNoise(Tones& tones, double mostNoisePx, const std::vector<Border>& borders, const TraceSettings& settings) {
  tones.mostNoisePx = mostNoisePx;
  std::vector<Stretch> stretches = stretchesOf(borders);
  forAll(stretches.size(), {}, [&](std::size_t i) {
    stretches[i].points = sharpenBorder(tones.grey, tones.tone, levelFor(settings), stretches[i].points);
  });
  tones.rough = roughnessOf(stretches, borders.size(), mostNoisePx);
}

/// The border where the edge is; as it is within `keepPx` of the places `keep`.
Border measured(const Tones& tones, const Border& border, bool jagged, const TraceSettings& settings,
                std::span<const Point> keep = {}, double keepPx = 0) {
  if (jagged && keep.empty()) return withoutJags(border);
  return sharpenBorder(tones.grey, tones.tone, levelFor(settings), border, keep, keepPx);
}

/// A line of the border's points that leaves it by little; by no more than there is room beside it where it crossed
/// since, at last all round.
Path lineAlong(const Border& border, const Attempt& attempt, std::vector<double> roomPx) {
  if (attempt.number >= kMostAttempts) return borderWithin(border, roomPx);
  constexpr double kReachPx = 6;
  for (std::size_t i = 0; i < border.size(); ++i) {
    const auto isNear = [&](Point place) { return distance(place, border[i]) <= kReachPx; };
    if (std::none_of(attempt.crossedAsLine.begin(), attempt.crossedAsLine.end(), isNear)) roomPx[i] = kMostRoomPx;
  }
  return borderWithin(border, roomPx);
}

/// What was fitted, with the border's own points near the places where it crossed, farther round each time; chords
/// between them leave the border by no more than there is room beside it.
Path measuredNearCrossings(const Border& border, const Attempt& attempt, std::vector<double> roomPx) {
  if (attempt.number >= kLineAttempts) return lineAlong(border, attempt, std::move(roomPx));
  const auto step = static_cast<int>(attempt.number - kFitAttempts - 1);
  constexpr double kFirstReachPx = 2;
  return measuredAt(attempt.fitted, border, {attempt.places, std::ldexp(kFirstReachPx, 2 * step), std::move(roomPx)});
}

Path fitAt(const Tones& tones, const Border& border, const Roughness& rough, const Attempt& attempt,
           const TraceSettings& settings, std::stop_token stop) {
  FitSettings fit;
  fit.tolerancePx = settings.tolerancePx;
  fit.cornerReadiness = settings.cornerReadiness;
  fit.rules = settings.rules;
  fit.mostNoisePx = std::max(tones.mostNoisePx, rough.px);
  fit.jagged = rough.jagged;
  fit.blunt = attempt.places;
  if (attempt.number > kBluntAttempts) {
    fit.measured = attempt.places;
    const auto step = static_cast<int>(attempt.number - kBluntAttempts - 1);
    fit.measuredReachPx = std::ldexp(kMeasuredReachPx, step);
    fit.measuredTolerancePx = attempt.number < kFitAttempts ? std::ldexp(settings.tolerancePx, -1 - step) : 0;
  }
  return fitOutline(measured(tones, border, rough.jagged, settings, fit.measured, 2 * fit.measuredReachPx), fit, stop);
}

/// Where so much was left as measured that a line of points has fewer nodes, that is taken.
void takeFewerNodes(Path& outline, Attempt& attempt, const Border& border, const std::vector<double>& roomPx) {
  Attempt asLine = attempt;
  asLine.number = kLineAttempts;
  Path line = lineAlong(border, asLine, roomPx);
  if (outline.segments.size() <= line.segments.size()) return;
  outline = std::move(line);
  attempt = std::move(asLine);
}

void refitCrossings(Tracing& tracing, const Tones& tones, const std::vector<Border>& borders,
                    const TraceSettings& settings, const WorkControl& control) {
  std::vector<Attempt> attempts(borders.size());
  OutlineCrossings crossings(tracing.outlines);
  std::optional<RoomBeside> rooms;  // made when it is first needed
  while (true) {
    std::map<std::size_t, std::size_t> again;  // how often each outline crosses
    for (const Crossing& crossing : crossings.find(control.stop)) {
      Attempt& attempt = attempts[crossing.polyline];
      if (attempt.number >= kMostAttempts) continue;
      ++again[crossing.polyline];
      (attempt.number < kLineAttempts ? attempt.places : attempt.crossedAsLine).push_back(crossing.place);
    }
    if (again.empty()) return;
    std::vector<std::size_t> which;
    for (const auto& [i, count] : again) {
      which.push_back(i);
      Attempt& attempt = attempts[i];
      // So many crossings come from noise; fitting again for each of them would take minutes.
      attempt.number = count < kMostCrossingPlaces ? attempt.number + 1 : std::max(attempt.number + 1, kLineAttempts);
      if (attempt.fitted.segments.empty() && attempt.number > kFitAttempts) attempt.fitted = tracing.outlines[i];
    }
    const auto isMeasured = [&attempts](std::size_t i) { return attempts[i].number > kBluntAttempts; };
    if (!rooms && std::any_of(which.begin(), which.end(), isMeasured)) rooms.emplace(borders);
    forAll(which.size(), {control.stop, {}}, [&](std::size_t k) {
      const std::size_t i = which[k];
      tracing.outlines[i] = attempts[i].number > kFitAttempts
                                ? measuredNearCrossings(borders[i], attempts[i], rooms->of(i, kMostRoomPx))
                                : fitAt(tones, borders[i], tones.rough[i], attempts[i], settings, control.stop);
      if (isMeasured(i) && attempts[i].number < kLineAttempts)
        takeFewerNodes(tracing.outlines[i], attempts[i], borders[i], rooms->of(i, kMostRoomPx));
      crossings.changed(i);
    });
  }
}

Tracing fitted(const Tones& tones, const std::vector<Border>& borders, const TraceSettings& settings,
               const WorkControl& control) {
  Tracing tracing;
  tracing.threshold = tones.tone.threshold;
  tracing.outlines.resize(borders.size());
  forAll(borders.size(), control, [&](std::size_t i) {
    tracing.outlines[i] = fitAt(tones, borders[i], tones.rough[i], {}, settings, control.stop);
  });
  makeCirclesRegular(tracing.outlines, settings.rules, settings.tolerancePx);
  refitCrossings(tracing, tones, borders, settings, control);
  return tracing;
}

}  // namespace

int thresholdFor(const Picture& picture, const TraceSettings& settings) {
  if (settings.threshold) return *settings.threshold;
  constexpr int kNoInk = 0;
  constexpr int kNoLightInk = 256;
  return otsuThreshold(picture.histogram).value_or(settings.lightIsInk ? kNoLightInk : kNoInk);
}

std::vector<Border> traceBorders(const Picture& picture, const TraceSettings& settings, std::stop_token stop) {
  const Tones tones = tonesFor(picture, settings);
  return followBorders(tones.grey, tones.tone, settings.minAreaPx2, stop);
}

std::vector<Border> measuredBorders(const Picture& picture, const TraceSettings& settings, std::stop_token stop) {
  Tones tones = tonesFor(picture, settings);
  std::vector<Border> borders = followBorders(tones.grey, tones.tone, settings.minAreaPx2, std::move(stop));
  judgeNoise(tones, mostNoiseByGrain(tones.grey, tones.tone), borders, settings);
  for (std::size_t i = 0; i < borders.size(); ++i)
    borders[i] = measured(tones, borders[i], tones.rough[i].jagged, settings);
  return borders;
}

Tracing fitBorders(const Picture& picture, const std::vector<Border>& borders, const TraceSettings& settings,
                   const WorkControl& control) {
  Tones tones = tonesFor(picture, settings);
  judgeNoise(tones, mostNoiseByGrain(tones.grey, tones.tone), borders, settings);
  return fitted(tones, borders, settings, control);
}

Tracing trace(const Picture& picture, const TraceSettings& settings, const WorkControl& control) {
  Tones tones = tonesFor(picture, settings);
  auto mostNoise = std::async(std::launch::async, [&tones] { return mostNoiseByGrain(tones.grey, tones.tone); });
  const std::vector<Border> borders = followBorders(tones.grey, tones.tone, settings.minAreaPx2, control.stop);
  judgeNoise(tones, mostNoise.get(), borders, settings);
  return fitted(tones, borders, settings, control);
}

}  // namespace rim
