#include "core/trace/contour/roughness.h"

#include <algorithm>
#include <cmath>
#include <complex>
#include <numbers>

#include "core/median.h"
#include "core/trace/fit/primitive.h"

namespace rim::trace::contour {
namespace {

constexpr std::size_t kWindow = 20;
/// A sharpened border has about half as many points as were followed, and is not to be trusted where it was cut.
constexpr std::size_t kStretch = 2 * kWindow + 16;
constexpr std::size_t kMostStretches = 400;
constexpr std::size_t kLeastStride = 8;

struct LeftOver {
  double deviation = 0;  ///< px
  int crossings = 0;     ///< how often the points change sides
};

LeftOver leftOver(std::span<const Point> points, const fit::Primitive& primitive) {
  constexpr double kParametersOfCircle = 3;
  LeftOver left;
  double sum = 0;
  double before = 0;
  for (const Point p : points) {
    const double off = cross(fit::tangentAt(primitive, p), p - fit::project(primitive, p));
    sum += off * off;
    if (off * before < 0) ++left.crossings;
    before = off;
  }
  left.deviation = std::sqrt(sum / (static_cast<double>(points.size()) - kParametersOfCircle));
  return left;
}

LeftOver leftOver(std::span<const Point> points) {
  const LeftOver line = leftOver(points, fit::fitLine(points));
  const auto circle = fit::fitCircle(points);
  if (!circle) return line;
  const LeftOver round = leftOver(points, *circle);
  return round.deviation < line.deviation ? round : line;
}

/// Along rows and columns nothing jumps, whatever the picture.
bool isAslant(std::span<const Point> points) {
  constexpr double kLeastEitherWayPx = 3;
  const Point along = points.back() - points.front();
  return std::min(std::abs(along.x), std::abs(along.y)) >= kLeastEitherWayPx;
}

/// Along a level or upright run a border may lie on a pixel's side with all its greys.
bool isAslantAt(std::span<const Point> points, std::size_t i) {
  constexpr std::size_t kReach = 4;
  constexpr double kLeastStepPx = 0.5;
  const Point along = points[std::min(i + kReach, points.size() - 1)] - points[i - std::min(i, kReach)];
  return std::min(std::abs(along.x), std::abs(along.y)) >= kLeastStepPx;
}

/// What lies in the middle of a stretch; nothing when it is too short.
std::span<const Point> windowOf(const Border& stretch) {
  if (stretch.size() < kWindow) return {};
  return std::span(stretch).subspan((stretch.size() - kWindow) / 2, kWindow);
}

/// What is seen of some stretches that run aslant.
struct Looked {
  std::size_t aslant = 0;
  std::vector<double> deviations;  ///< of those that are crossed often
  std::complex<double> phases;     ///< sum over their points
  double points = 0;
};

Looked lookAt(std::span<const Point> points) {
  constexpr int kOften = 6;
  Looked looked;
  looked.aslant = 1;
  const LeftOver left = leftOver(points);
  if (left.crossings < kOften) return looked;
  looked.deviations.push_back(left.deviation);
  for (std::size_t i = 0; i < points.size(); ++i) {
    const Point p = points[i];
    if (isSampleMiddle(p.x) == isSampleMiddle(p.y) || !isAslantAt(points, i)) continue;
    looked.phases += std::polar(1.0, 2 * std::numbers::pi * (isSampleMiddle(p.x) ? p.y : p.x));
    ++looked.points;
  }
  return looked;
}

void add(const Looked& some, Looked& all) {
  all.aslant += some.aslant;
  all.deviations.insert(all.deviations.end(), some.deviations.begin(), some.deviations.end());
  all.phases += some.phases;
  all.points += some.points;
}

Roughness roughnessOf(const Looked& looked, double grainPx) {
  constexpr std::size_t kLeastCount = 4;
  // Thin strokes show no grain; theirs is hardly more.
  constexpr double kMostGrainPx = 0.12;
  constexpr double kClearlyMore = 1.5;
  // Greys that say it wrongly, as of one thing drawn over another, are better than none.
  constexpr double kJaggedPx = 0.07;
  constexpr double kOnSides = 0.15;
  // Of a few points many may lie there by chance: so many standard deviations of a sum of cosines. Windows overlap.
  constexpr double kByChance = 2;
  constexpr double kOverlap = static_cast<double>(kWindow) / kLeastStride;
  if (looked.deviations.size() < std::max(kLeastCount, looked.aslant / 4)) return {};
  const double middle = medianOf(looked.deviations);
  if (middle <= kClearlyMore * std::min(grainPx, kMostGrainPx)) return {};
  const double chance = kByChance * std::sqrt(kOverlap * looked.points / 2);
  return {middle, middle > kJaggedPx && looked.phases.real() > kOnSides * looked.points + chance};
}

}  // namespace

std::vector<Stretch> stretchesOf(const std::vector<Border>& borders) {
  std::size_t total = 0;
  for (const Border& border : borders) total += border.size();
  const std::size_t stride = std::max(kLeastStride, total / kMostStretches);
  std::vector<Stretch> stretches;
  std::size_t at = 0;  // of the next stretch, from where the border begins
  for (std::size_t i = 0; i < borders.size(); ++i) {
    const Border& border = borders[i];
    for (; at < border.size(); at += stride) {
      Border points;
      for (std::size_t k = 0; k < std::min(kStretch, border.size()); ++k)
        points.push_back(border[(at + k) % border.size()]);
      stretches.push_back({i, std::move(points)});
    }
    at -= border.size();
  }
  return stretches;
}

std::vector<Roughness> roughnessOf(const std::vector<Stretch>& stretches, std::size_t count, double grainPx) {
  constexpr std::size_t kOfItsOwn = 16;
  Looked all;
  std::vector<Looked> each(count);
  for (const Stretch& stretch : stretches) {
    const auto points = windowOf(stretch.points);
    if (points.empty() || !isAslant(points)) continue;
    const Looked looked = lookAt(points);
    add(looked, all);
    add(looked, each[stretch.border]);
  }
  const Roughness together = roughnessOf(all, grainPx);
  std::vector<Roughness> rough(count, together);
  for (std::size_t i = 0; i < count; ++i) {
    if (each[i].aslant >= kOfItsOwn) rough[i] = roughnessOf(each[i], grainPx);
  }
  return rough;
}

}  // namespace rim::trace::contour
