#include "core/trace/lines/continuation.h"

#include <algorithm>
#include <cmath>

#include "core/geometry/cubic.h"
#include "core/trace/fit/moments.h"

namespace rim::trace::lines {
namespace {

double meanSquareFrom(const fit::Primitive& shape, std::span<const Point> points) {
  double sum = 0;
  for (const Point p : points) {
    const Point off = p - fit::project(shape, p);
    sum += dot(off, off);
  }
  return sum / static_cast<double>(points.size());
}

std::vector<Point> sampled(const Cubic& cubic) {
  const double length = distance(cubic.p0, cubic.p1) + distance(cubic.p1, cubic.p2) + distance(cubic.p2, cubic.p3);
  const int steps = std::max(1, static_cast<int>(std::lround(length / kTrackStepPx)));
  std::vector<Point> points;
  for (int k = 1; k < steps; ++k) points.push_back(pointOn(cubic, static_cast<double>(k) / steps));
  return points;
}

/// What follows the last points, and how many of them.
struct Followed {
  fit::Primitive shape;
  std::size_t points = 0;
};

/// The shape that follows as many of the last points as any does within what a short stretch of them is off by.
template <typename Fit>
Followed farthest(std::span<const Point> points, double width, Fit fit) {
  constexpr double kLeastOffPx = 0.05;
  constexpr double kNoise = 1.6;
  constexpr double kGrowth = 1.25;
  const auto shortest = static_cast<std::size_t>(std::max(0.4 * width, 2.5) / kTrackStepPx);
  std::size_t count = std::clamp<std::size_t>(shortest, 2, points.size());
  Followed best{fit::fitLine(points.last(count)), count};
  const double off = std::sqrt(meanSquareFrom(best.shape, points.last(count)));
  const double most = std::max(kLeastOffPx, kNoise * off);
  while (count < points.size()) {
    count = std::min(points.size(), static_cast<std::size_t>(static_cast<double>(count) * kGrowth) + 1);
    const std::optional<fit::Primitive> shape = fit(points.last(count));
    if (!shape) continue;
    if (meanSquareFrom(*shape, points.last(count)) > most * most) break;
    best = {*shape, count};
  }
  return best;
}

}  // namespace

Continuation continuationOf(std::span<const Point> points, double width) {
  constexpr double kTightest = 0.6;  // circle, in widths
  constexpr double kFarther = 1.7;   // what a circle must follow more than a line does
  const Followed line =
      farthest(points, width, [](std::span<const Point> some) { return std::optional(fit::fitLine(some)); });
  const Followed circle = farthest(points, width, [&](std::span<const Point> some) -> std::optional<fit::Primitive> {
    const auto c = fit::fitCircle(some);
    return c && std::abs(c->radius) > kTightest * width ? c : std::nullopt;
  });
  const bool round = static_cast<double>(circle.points) > kFarther * static_cast<double>(line.points);
  const fit::Primitive shape = round ? circle.shape : line.shape;
  const Point tip = fit::project(shape, points.back());
  return {shape, tip, fit::tangentAt(shape, tip)};
}

std::optional<Point> meetingOf(const Continuation& a, const Continuation& b, double backPx, double reachPx) {
  const Point middle = lerp(a.tip, b.tip, 0.5);
  std::optional<Point> best;
  // Of two places that circles have in common the nearest is not always the one ahead: both sides are asked from.
  for (const Point near : {middle + (a.direction + b.direction) * (reachPx / 4), middle}) {
    const auto meet = fit::meetingPoint(a.shape, b.shape, near);
    if (!meet) continue;
    const bool ahead = dot(*meet - a.tip, a.direction) > -backPx && dot(*meet - b.tip, b.direction) > -backPx;
    if (!ahead || distance(*meet, a.tip) > reachPx || distance(*meet, b.tip) > reachPx) continue;
    if (!best || distance(*meet, middle) < distance(*best, middle)) best = meet;
  }
  return best;
}

std::vector<Point> pointsOnTo(const Continuation& from, Point end) {
  const Point last = fit::project(from.shape, end);
  if (dot(last - from.tip, from.direction) <= 0) return {end};
  const int steps = std::max(1, static_cast<int>(std::lround(distance(from.tip, last) / kTrackStepPx)));
  std::vector<Point> points;
  for (int k = 1; k < steps; ++k)
    points.push_back(fit::project(from.shape, lerp(from.tip, last, static_cast<double>(k) / steps)));
  points.push_back(end);
  return points;
}

std::optional<double> missingAt(double clearance, double turn, double width) {
  constexpr double kNoisePx = 0.06;
  const double perRadius = 1 / std::cos(turn / 2) - 1;  // an arc of radius r passes its corner by so many r
  const double sharp = std::min(0.08 * width + 0.1, 0.4 * width / 2 * perRadius + kNoisePx);
  const double missing = width / 2 - clearance;
  if (missing <= sharp) return 0;
  constexpr double kRoundest = 0.45;  // in widths; from half a width on the medial axis itself is right
  if (missing > kRoundest * width * perRadius) return std::nullopt;
  return missing;
}

CornerRun roundCorner(const Continuation& from, const Continuation& to, Point at, double missing) {
  if (missing <= 0) {
    CornerRun run{pointsOnTo(from, at), 0};
    run.corner = run.points.size() - 1;
    const std::vector<Point> back = pointsOnTo(to, at);
    run.points.insert(run.points.end(), back.rbegin() + 1, back.rend());
    return run;
  }
  const double half = std::abs(angleBetween(from.direction, -to.direction)) / 2;
  const double radius = missing / (1 / std::cos(half) - 1);
  const double room = std::min(dot(at - from.tip, from.direction), dot(at - to.tip, to.direction));
  const double back = std::clamp(radius * std::tan(half), 0.0, std::max(0.0, room));
  const auto start = [&](const Continuation& side) {
    const Point place = fit::project(side.shape, at - side.direction * back);
    return Continuation{side.shape, place, fit::tangentAt(side.shape, place)};
  };
  const Continuation in = start(from);
  const Continuation out = start(to);
  CornerRun run{pointsOnTo(from, in.tip), 0};
  const std::vector<Point> arc = bridge(in, out);
  run.corner = run.points.size() + arc.size() / 2;
  run.points.insert(run.points.end(), arc.begin(), arc.end());
  const std::vector<Point> more = pointsOnTo(to, out.tip);
  run.points.insert(run.points.end(), more.rbegin(), more.rend());
  run.corner = std::min(run.corner, run.points.size() - 1);
  return run;
}

std::vector<Point> bridge(const Continuation& from, const Continuation& to) {
  const double turn = std::abs(angleBetween(from.direction, -to.direction));
  const double third = distance(from.tip, to.tip) / 3 / std::max(0.3, std::pow(std::cos(turn / 4), 2));
  return sampled({from.tip, from.tip + from.direction * third, to.tip + to.direction * third, to.tip});
}

}  // namespace rim::trace::lines
