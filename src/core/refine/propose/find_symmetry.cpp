// Finding the symmetry that a drawing nearly has.

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/error.h"
#include "core/geometry/affine.h"
#include "core/geometry/nearest_on_paths.h"
#include "core/geometry/segment.h"
#include "core/refine/propose/closest_pairs.h"
#include "core/refine/propose/symmetry.h"

namespace rim::refine {
namespace {

/// Places all along the drawing, and the nearest place of it to any other.
class Likeness {
 public:
  Likeness(const Drawing& drawing, int count) : paths_(pathsOf(drawing)) {
    const double step = totalLength(pathsOf(drawing)) / count;
    double next = step / 2;
    double walked = 0;
    for (const Piece& piece : paths_.pieces()) {
      const double size = lengthOf(piece);
      for (; next < walked + size; next += step) places_.push_back(pointAt(piece, (next - walked) / size));
      walked += size;
    }
  }

  const std::vector<Point>& places() const { return places_; }

  std::optional<Point> nearest(Point p, double reach) const { return paths_.within(p, reach); }
  ClosestPairs closest(const Affine& map, double reach) const { return closestPairs(places_, map, paths_, reach); }

  /// The mean distance of all mapped places from the drawing, each counted up to `reach`; every `every`-th is looked
  /// at.
  double misfit(const Affine& map, double reach, std::size_t every) const {
    double sum = 0;
    double count = 0;
    for (std::size_t i = 0; i < places_.size(); i += every) {
      const Point to = map(places_[i]);
      const auto place = nearest(to, reach);
      sum += place ? distance(*place, to) : reach;
      ++count;
    }
    return sum / count;
  }

  double farthest(const Affine& map, double reach) const {
    double most = 0;
    for (const Point p : places_) {
      const auto place = nearest(map(p), reach);
      most = std::max(most, place ? distance(*place, map(p)) : reach);
    }
    return most;
  }

 private:
  NearestOnPaths paths_;
  std::vector<Point> places_;
};

Point centroidOf(const Likeness& likeness) {
  Point sum;
  for (const Point p : likeness.places()) sum = sum + p;
  return sum * (1 / static_cast<double>(likeness.places().size()));
}

Affine turnAbout(Point centre, int turns) { return about(centre, rotation(2 * std::numbers::pi / turns)); }

constexpr int kRounds = 60;
constexpr std::size_t kFewest = 3;  // pairs that tell anything
constexpr int kPlaces = 1500;       // all along a drawing

/// How far off a place's like is looked for.
double reachOf(const Drawing& drawing, double withinMm) {
  constexpr double kShareOfSize = 0.03;
  const Box box = boxOf(drawing);
  return std::max(withinMm, kShareOfSize * distance(box.low, box.high));
}

/// The mirror nearest to one that brings places onto the drawing best.
Symmetry mirrorInPlace(const Likeness& likeness, Symmetry mirror, double reach) {
  for (int round = 0; round < kRounds; ++round) {
    const Affine map = mirrorAbout(mirror.centre, mirror.axisAngle);
    const ClosestPairs closest = likeness.closest(map, reach);
    if (closest.pairs.size() < kFewest) break;
    // The reflection about an axis at angle a turns (x, y) to (x cos 2a + y sin 2a, x sin 2a - y cos 2a).
    double c = 0;
    double s = 0;
    for (const auto& [from, to] : closest.pairs) {
      const Point u = from - closest.from;
      const Point v = to - closest.to;
      c += u.x * v.x - u.y * v.y;
      s += u.y * v.x + u.x * v.y;
    }
    mirror.axisAngle = std::atan2(s, c) / 2;
    // Half-way between a place and its like lies the axis.
    mirror.centre = lerp(closest.from, closest.to, 0.5);
  }
  if (mirror.axisAngle < 0) mirror.axisAngle += std::numbers::pi;
  mirror.farthestMm = likeness.farthest(mirrorAbout(mirror.centre, mirror.axisAngle), 4 * reach);
  return mirror;
}

Symmetry turnInPlace(const Likeness& likeness, Symmetry turn, double reach) {
  for (int round = 0; round < kRounds; ++round) {
    const Affine map = turnAbout(turn.centre, turn.turns);
    const Affine spin = turnAbout({}, turn.turns);
    const ClosestPairs closest = likeness.closest(map, reach);
    if (closest.pairs.size() < kFewest) break;
    // centre = spin(centre) + mean of (like - spin(place)).
    const Point mean = closest.to - spin(closest.from);
    const double a = 1 - spin.a;
    const double b = -spin.c;
    const double size = a * a + b * b;
    turn.centre = {(a * mean.x - b * mean.y) / size, (b * mean.x + a * mean.y) / size};
  }
  turn.farthestMm = likeness.farthest(turnAbout(turn.centre, turn.turns), 4 * reach);
  return turn;
}

std::optional<Symmetry> bestMirror(const Likeness& likeness, double reach, double withinMm,
                                   const std::stop_token& stop) {
  constexpr int kAxes = 180;
  constexpr std::size_t kEvery = 5;
  const Point centre = centroidOf(likeness);
  std::vector<std::pair<double, double>> tried;
  for (int i = 0; i < kAxes; ++i) {
    if (stop.stop_requested()) throw Cancelled();
    const double angle = std::numbers::pi * i / kAxes;
    tried.emplace_back(likeness.misfit(mirrorAbout(centre, angle), reach, kEvery), angle);
  }
  std::sort(tried.begin(), tried.end());
  constexpr std::size_t kBest = 4;
  std::optional<Symmetry> best;
  for (std::size_t i = 0; i < std::min(kBest, tried.size()); ++i) {
    const Symmetry found = mirrorInPlace(likeness, {0, centre, tried[i].second, 0}, reach);
    if (!best || found.farthestMm < best->farthestMm) best = found;
  }
  return best && best->farthestMm <= withinMm ? best : std::nullopt;
}

std::optional<Symmetry> bestTurn(const Likeness& likeness, double reach, double withinMm, const std::stop_token& stop) {
  constexpr int kMostTurns = 12;
  for (int turns = kMostTurns; turns >= 2; --turns) {
    if (stop.stop_requested()) throw Cancelled();
    const Symmetry found = turnInPlace(likeness, {turns, centroidOf(likeness), 0, 0}, reach);
    if (found.farthestMm <= withinMm) return found;
  }
  return {};
}

}  // namespace

std::optional<Symmetry> secondMirror(const Drawing& drawing, const Symmetry& first, double withinMm) {
  if (drawing.outlines.empty() || !(totalLength(pathsOf(drawing)) > 0)) return {};
  const Likeness likeness(drawing, kPlaces);
  const double reach = reachOf(drawing, withinMm);
  const double angle = std::fmod(first.axisAngle + std::numbers::pi / 2, std::numbers::pi);
  const Point along{std::cos(first.axisAngle), std::sin(first.axisAngle)};
  Point centre = first.centre + along * dot(centroidOf(likeness) - first.centre, along);
  for (int round = 0; round < kRounds; ++round) {
    const ClosestPairs closest = likeness.closest(mirrorAbout(centre, angle), reach);
    if (closest.pairs.size() < kFewest) return {};
    centre = centre + along * dot(lerp(closest.from, closest.to, 0.5) - centre, along);
  }
  const Symmetry second{0, centre, angle, likeness.farthest(mirrorAbout(centre, angle), 4 * reach)};
  return second.farthestMm <= withinMm ? std::optional(second) : std::nullopt;
}

std::optional<Symmetry> symmetryOf(const Drawing& drawing, SymmetryWish wish, double withinMm,
                                   const std::stop_token& stop) {
  const Box box = boxOf(drawing);
  if (box.empty() || !(totalLength(pathsOf(drawing)) > 0)) return {};
  const Likeness likeness(drawing, kPlaces);
  const double reach = reachOf(drawing, withinMm);
  if (wish != SymmetryWish::Turn) {
    const auto mirror = bestMirror(likeness, reach, withinMm, stop);
    if (mirror || wish == SymmetryWish::Mirror) return mirror;
  }
  return bestTurn(likeness, reach, withinMm, stop);
}

}  // namespace rim::refine
