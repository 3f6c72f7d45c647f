#include "core/trace/lines/shown_middles.h"

#include <algorithm>
#include <cmath>

#include "core/trace/lines/track_points.h"

namespace rim::trace::lines {
namespace {

std::vector<Point> placesOf(const MedialAxis& axis) {
  std::vector<Point> places;
  places.reserve(axis.samples.size());
  for (const RingSample& s : axis.samples) places.push_back(s.place);
  return places;
}

/// How many samples a tangent reaches to either side.
std::ptrdiff_t reachOf(const SampleRing& ring, double width) {
  const double spacing = ring.length / std::max(1.0, static_cast<double>(ring.end - ring.first));
  const auto most = static_cast<std::ptrdiff_t>(ring.end - ring.first) / 6;
  return std::clamp<std::ptrdiff_t>(std::lround(tangentReachOf(width) / spacing), 1, std::max<std::ptrdiff_t>(1, most));
}

/// Shows what is nearly shown where that is no more than a few samples between others.
void closeGaps(std::vector<ShownMiddle>& middles, const SampleRing& ring, const std::vector<bool>& nearly,
               std::ptrdiff_t most) {
  const std::size_t n = nearly.size();
  for (std::size_t k = 0; k < n; ++k) {
    if (!middles[ring.first + k].shown || middles[ring.first + (k + 1) % n].shown) continue;
    std::size_t gap = 1;
    while (gap < n && nearly[(k + gap) % n] && !middles[ring.first + (k + gap) % n].shown) ++gap;
    if (static_cast<std::ptrdiff_t>(gap) > most + 1 || !middles[ring.first + (k + gap) % n].shown) continue;
    for (std::size_t i = 1; i < gap; ++i) middles[ring.first + (k + i) % n].shown = true;
  }
}

}  // namespace

BorderNearby::BorderNearby(const MedialAxis& axis) : axis_(axis), index_(boxesAt(placesOf(axis))) {}

bool BorderNearby::isClear(Point place, double radius) const {
  bool clear = true;
  index_.near({place, place}, std::max(0.0, radius), [&](std::size_t i) {
    if (distance(axis_.samples[i].place, place) < radius) clear = false;
  });
  return clear;
}

std::optional<double> BorderNearby::wayOut(Point from, Point direction, double reach) const {
  std::optional<double> least;
  index_.near({from, from}, reach + kSampleSpacingPx, [&](std::size_t i) {
    const auto s = static_cast<std::uint32_t>(i);
    const Point a = axis_.samples[s].place - from;
    const Point b = axis_.samples[sampleBeside(axis_, s, 1)].place - from;
    const double besideA = cross(direction, a);
    const double besideB = cross(direction, b);
    if ((besideA < 0) == (besideB < 0)) return;
    const double way = dot(direction, lerp(a, b, besideA / (besideA - besideB)));
    if (way > 0 && way <= reach && (!least || way < *least)) least = way;
  });
  return least;
}

std::vector<ShownMiddle> shownMiddles(const MedialAxis& axis, const BorderNearby& border, double width) {
  // Where the border turns in by so much within its reach, two strokes meet, or one turns sharply.
  constexpr double kCrease = -0.5;
  std::vector<ShownMiddle> middles(axis.samples.size());
  for (const SampleRing& ring : axis.rings) {
    const std::ptrdiff_t reach = reachOf(ring, width);
    std::vector<double> turns(ring.end - ring.first, 0);
    std::vector<bool> nearly(ring.end - ring.first, false);
    for (std::uint32_t s = ring.first; s < ring.end; ++s) {
      const Point at = axis.samples[s].place;
      const Point before = axis.samples[sampleBeside(axis, s, -reach)].place;
      const Point after = axis.samples[sampleBeside(axis, s, reach)].place;
      const double chord = distance(before, after);
      if (chord < 1e-9) continue;
      ShownMiddle& middle = middles[s];
      middle.way = (after - before) * (1 / chord);
      middle.place = at + leftNormal(middle.way) * (width / 2);
      middle.shown = border.isClear(middle.place, width / 2 - slackOf(width));
      nearly[s - ring.first] = middle.shown || border.isClear(middle.place, width / 2 - 2 * slackOf(width));
      turns[s - ring.first] = angleBetween(at - before, after - at);
    }
    closeGaps(middles, ring, nearly, 3 * reach);
    for (std::uint32_t s = ring.first; s < ring.end; ++s) {
      const double turn = turns[s - ring.first];
      bool sharpest = turn < kCrease;
      for (std::ptrdiff_t k = -reach; k <= reach && sharpest; ++k)
        sharpest = turn <= turns[sampleBeside(axis, s, k) - ring.first];
      // The tangents beside a crease are those of neither side.
      for (std::ptrdiff_t k = -reach; k <= reach && sharpest; ++k) middles[sampleBeside(axis, s, k)].shown = false;
    }
  }
  return middles;
}

}  // namespace rim::trace::lines
