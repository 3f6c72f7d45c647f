#include "core/trace/outline/guard.h"

#include <cmath>

#include "core/geometry/nearest_on_ring.h"
#include "core/geometry/places_along.h"
#include "core/geometry/segment.h"
#include "core/trace/contour/noise.h"
#include "core/trace/outline/join.h"
#include "core/trace/outline/measured_at.h"

namespace rim::trace::outline {
namespace {

constexpr double kCellPx = 4;
constexpr double kStepPx = 0.5;
constexpr double kChordErrorPx = 0.02;
constexpr double kRoomPx = 0.45;

/// A corner, and how far the outline may lie beyond the border within so much of it.
struct Tip {
  Point place;
  double reachPx = 0;
};

std::vector<Tip> tipsOf(const Path& outline, double roundingPx) {
  constexpr double kLeastTurn = 0.15;  // radians
  std::vector<Tip> tips;
  const std::size_t n = outline.segments.size();
  for (std::size_t i = 0; i < n; ++i) {
    const Piece before = pieceOf(outline, i);
    const Piece after = pieceOf(outline, (i + 1) % n);
    const double turn = angleBetween(tangentAt(before, 1), tangentAt(after, 0));
    if (std::abs(turn) > kLeastTurn) tips.push_back({after.start, mostRetreat(turn, roundingPx, 0)});
  }
  return tips;
}

bool isAtTip(const std::vector<Tip>& tips, Point place, double off) {
  return std::any_of(tips.begin(), tips.end(),
                     [&](const Tip& tip) { return off <= tip.reachPx && distance(place, tip.place) <= tip.reachPx; });
}

}  // namespace

std::vector<Point> strayingFrom(const contour::Border& border, const Path& outline, const GuardLimits& limits) {
  std::vector<Point> found;
  const std::vector<Point> places = placesAlong(outline, kChordErrorPx, kStepPx);
  const NearestOnRing toOutline(places, kCellPx);
  std::size_t hint = 0;
  for (const Point p : border) {
    if (!toOutline.comesWithin(p, limits.farthestPx, hint)) found.push_back(p);
  }
  const NearestOnRing toBorder(border, kCellPx);
  std::vector<Tip> tips;
  hint = 0;
  for (const Point place : places) {
    if (toBorder.comesWithin(place, limits.farthestPx, hint)) continue;
    const auto nearest = toBorder.nearest(place);
    if (tips.empty()) tips = tipsOf(outline, limits.roundingPx);
    if (!isAtTip(tips, place, nearest.off)) found.push_back(border[nearest.index]);
  }
  return found;
}

Path guarded(Path outline, const contour::Border& border, const GuardLimits& limits) {
  constexpr double kFirstReachPx = 3;
  constexpr int kRounds = 3;
  std::vector<Point> places = strayingFrom(border, outline, limits);
  if (places.empty()) return outline;
  const std::vector<double> room(border.size(), std::min(kRoomPx, limits.farthestPx));
  Path line = borderWithin(border, room);
  const Path fitted = outline;
  std::vector<Point> all;
  for (int round = 0; round < kRounds && !places.empty(); ++round) {
    all.insert(all.end(), places.begin(), places.end());
    outline = measuredAt(fitted, border, {all, std::ldexp(kFirstReachPx, round), room});
    places = strayingFrom(border, outline, limits);
  }
  const bool holds = places.empty() && outline.segments.size() <= line.segments.size();
  return holds ? outline : line;
}

GuardLimits guardLimitsFor(const contour::Border& border, const FitSettings& settings) {
  constexpr double kTolerances = 2;
  constexpr double kLeastPx = 0.7;
  // What wavers by so much is not followed wave by wave.
  constexpr double kDeviations = 3;
  constexpr double kMostNoisePx = 0.5;
  const double noise = settings.jagged ? kMostNoisePx : std::min(contour::noiseOf(border), kMostNoisePx);
  return {std::max({kTolerances * settings.tolerancePx, kLeastPx, kDeviations * noise}), settings.roundingPx};
}

Path fitWithin(const contour::Border& border, const FitSettings& settings, const std::stop_token& stop) {
  constexpr double kCloser[] = {1, 2.0 / 3, 1.0 / 3};
  const GuardLimits limits = guardLimitsFor(border, settings);
  Path best;
  std::size_t fewest = 0;
  for (const double closer : kCloser) {
    FitSettings fit = settings;
    fit.roundingPx *= closer;
    fit.gapPx *= closer * closer;
    Path path = fitOutline(border, fit, stop);
    const std::size_t straying = strayingFrom(border, path, limits).size();
    if (straying == 0) return path;
    if (!best.segments.empty() && straying >= fewest) continue;
    fewest = straying;
    best = std::move(path);
  }
  return guarded(std::move(best), border, limits);
}

}  // namespace rim::trace::outline
