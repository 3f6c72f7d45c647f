#include "core/trace/lines/stroke_track.h"

#include <algorithm>
#include <cmath>

#include "core/median.h"
#include "core/trace/lines/stroke_corners.h"
#include "core/trace/lines/stroke_width.h"

namespace rim::trace::lines {
namespace {

/// The same points with others between those that lie far apart, as the middles of a few large discs do.
std::vector<CentrePoint> densely(const std::vector<CentrePoint>& points, bool closed) {
  std::vector<CentrePoint> dense;
  for (std::size_t i = 0; i < points.size(); ++i) {
    const CentrePoint& a = points[i];
    dense.push_back(a);
    if (i + 1 == points.size() && !closed) break;
    const CentrePoint& b = points[(i + 1) % points.size()];
    const int parts = static_cast<int>(std::ceil(distance(a.place, b.place) / kTrackStepPx));
    for (int k = 1; k < parts; ++k) {
      const double t = static_cast<double>(k) / parts;
      const CentrePoint& nearer = t < 0.5 ? a : b;
      dense.push_back(
          {lerp(a.place, b.place, t), a.halfWidth + t * (b.halfWidth - a.halfWidth), nearer.left, nearer.right});
    }
  }
  return dense;
}

/// Points kTrackStepPx apart, each the mean of those nearer than one and a half steps, as middles of neighbouring discs
/// lie to and fro.
std::vector<CentrePoint> evenly(const std::vector<CentrePoint>& points, bool closed) {
  std::vector<double> along{0};
  for (std::size_t i = 1; i < points.size(); ++i)
    along.push_back(along.back() + distance(points[i - 1].place, points[i].place));
  const double whole = along.back() + (closed ? distance(points.back().place, points.front().place) : 0);
  const auto steps = std::max<std::size_t>(2, static_cast<std::size_t>(std::lround(whole / kTrackStepPx)));
  const double step = whole / static_cast<double>(steps);
  const double reach = 1.5 * step;
  std::vector<CentrePoint> even;
  std::size_t first = 0;
  for (std::size_t k = 0; k < steps + (closed ? 0 : 1); ++k) {
    const double at = static_cast<double>(k) * step;
    while (first + 1 < points.size() && along[first] < at - reach) ++first;
    double weights = 0;
    Point place;
    double halfWidth = 0;
    double centre = 0;
    std::size_t nearest = first;
    for (std::size_t i = first; i < points.size() && along[i] <= at + reach; ++i) {
      const double weight = reach - std::abs(along[i] - at) + 1e-9;
      weights += weight;
      place = place + points[i].place * weight;
      halfWidth += points[i].halfWidth * weight;
      centre += along[i] * weight;
      if (std::abs(along[i] - at) < std::abs(along[nearest] - at)) nearest = i;
    }
    CentrePoint p = points[nearest];
    if (weights > 0) {
      p.place = place * (1 / weights);
      p.halfWidth = halfWidth / weights;
      // Where more of them lie at one side, as at the ends, the mean would be pulled to it.
      if (std::abs(centre / weights - at) > step / 2) p.place = points[nearest].place;
    }
    even.push_back(p);
  }
  return even;
}

/// How many points next to a chain's end at a junction have discs that still touch the corners there: these hold them
/// up, and they say nothing of the stroke's middle.
double heldAt(const MedialAxis& axis, const std::vector<CentrePoint>& points, bool atEnd, double radius) {
  constexpr double kSamePlacePx = 1.2;
  constexpr double kFarthest = 1.1;  // in radii of the junction, seen at sharp corners; round ones have no such place
  const auto pointAt = [&](std::size_t i) { return points[atEnd ? points.size() - 1 - i : i]; };
  const auto moved = [&](std::uint32_t from, std::uint32_t to) {
    return axis.samples[from].ring != axis.samples[to].ring || wayAlongRing(axis, from, to) > kSamePlacePx;
  };
  const CentrePoint first = pointAt(0);
  const double most = std::min((kFarthest * radius + 0.5) / kTrackStepPx, static_cast<double>(points.size()) - 1);
  std::size_t i = 0;
  while (static_cast<double>(i) < most && !(moved(first.left, pointAt(i).left) && moved(first.right, pointAt(i).right)))
    ++i;
  constexpr double kBlurPx = 1;
  return std::min(most, static_cast<double>(i) + kBlurPx / kTrackStepPx);
}

/// How many points of a chain's free end lie where its disc already feels the tip.
double atTip(const ChainEnd& end) {
  constexpr double kShare = 0.3;
  return (kShare * end.radius + 0.3) / kTrackStepPx;
}

/// The half-width that a chain has where nothing widens it: its lower quartile.
double usualHalfWidth(const std::vector<CentrePoint>& points) {
  std::vector<double> halves;
  for (const CentrePoint& p : points) halves.push_back(p.halfWidth);
  constexpr double kQuartile = 0.25;
  return quantileOf(std::move(halves), kQuartile);
}

/// How many points next to a chain's end lie where another stroke runs into it at a small angle: there it is wider.
double widenedAt(const std::vector<CentrePoint>& points, bool atEnd, double from, double radius) {
  constexpr double kWider = 1.07;
  constexpr double kFarthest = 5;  // in radii of the junction
  const double most = kWider * usualHalfWidth(points) + 0.05;
  const double last = std::min(from + kFarthest * radius / kTrackStepPx, static_cast<double>(points.size()) - 1);
  double at = from;
  while (at < last) {
    const auto i = static_cast<std::size_t>(at);
    if (points[atEnd ? points.size() - 1 - i : i].halfWidth <= most) break;
    ++at;
  }
  return at;
}

std::vector<CentrePoint> trimmed(const MedialAxis& axis, std::vector<CentrePoint> points,
                                 const std::array<ChainEnd, 2>& ends) {
  constexpr double kMostShare = 0.7;
  constexpr std::size_t kLeast = 3;
  if (points.size() <= kLeast) return points;
  const auto says = [&](std::size_t which) {
    const ChainEnd& at = ends[which];
    if (at.junction == ChainEnd::kFree) return atTip(at);
    return widenedAt(points, which == 1, heldAt(axis, points, which == 1, at.radius), at.radius);
  };
  double start = says(0);
  double end = says(1);
  const double most = kMostShare * static_cast<double>(points.size());
  if (start + end > most) {
    const double share = most / (start + end);
    start *= share;
    end *= share;
  }
  auto first = static_cast<std::ptrdiff_t>(start);
  auto last = static_cast<std::ptrdiff_t>(points.size()) - static_cast<std::ptrdiff_t>(end);
  if (last - first < static_cast<std::ptrdiff_t>(kLeast)) {
    first = std::max<std::ptrdiff_t>(0, std::min(first, last - 2));
    last = first + static_cast<std::ptrdiff_t>(kLeast);
  }
  return {points.begin() + first, points.begin() + std::min(last, static_cast<std::ptrdiff_t>(points.size()))};
}

void addUpTo(StrokeTrack& track, const std::vector<CentrePoint>& points, std::size_t from, std::size_t end) {
  for (std::size_t i = from; i < end; ++i) track.points.push_back(points[i].place);
}

/// Straight on to a corner and back from it, where another corner is too near for anything else.
void addStraight(std::vector<Point>& track, Point end) {
  const Point start = track.back();
  const int steps = std::max(1, static_cast<int>(std::lround(distance(start, end) / kTrackStepPx)));
  for (int k = 1; k < steps; ++k) track.push_back(lerp(start, end, static_cast<double>(k) / steps));
}

void addWithCorners(StrokeTrack& track, std::vector<CentrePoint> points, std::vector<StrokeCorner> corners) {
  if (track.closed && !corners.empty()) {
    // A ring begins behind its first corner and ends with it.
    const std::size_t turn = corners.front().to;
    std::rotate(points.begin(), points.begin() + static_cast<std::ptrdiff_t>(turn), points.end());
    for (StrokeCorner& c : corners) {
      c.from = (c.from + points.size() - turn) % points.size();
      c.to = (c.to + points.size() - turn) % points.size();
    }
    std::rotate(corners.begin(), corners.begin() + 1, corners.end());
    corners.back().to = points.size();
  }
  std::size_t next = 0;
  for (const StrokeCorner& c : corners) {
    const std::vector<Point>& run = c.run.points;
    const auto corner = run.begin() + static_cast<std::ptrdiff_t>(c.run.corner);
    if (c.from + 1 > next) {
      addUpTo(track, points, next, c.from + 1);
      track.points.insert(track.points.end(), run.begin(), corner);
    } else if (!track.corners.empty()) {
      track.points.resize(track.corners.back() + 1);
      addStraight(track.points, *corner);
    }
    track.corners.push_back(track.points.size());
    track.points.insert(track.points.end(), corner, run.end());
    next = std::max(next, c.to);
  }
  addUpTo(track, points, next, points.size());
}

}  // namespace

StrokeTrack trackOf(const MedialAxis& axis, const StrokeChain& chain) {
  StrokeTrack track;
  track.closed = chain.closed;
  track.ends = chain.ends;
  std::vector<CentrePoint> points = evenly(densely(chain.points, chain.closed), chain.closed);
  if (!chain.closed) points = trimmed(axis, std::move(points), chain.ends);
  track.widths = widthsAlong(axis, points, chain.closed);
  track.width = medianOf(track.widths);
  std::vector<double> discs;
  for (const CentrePoint& p : points) discs.push_back(2 * p.halfWidth);
  track.discWidth = medianOf(std::move(discs));
  std::vector<StrokeCorner> corners = strokeCorners(axis, points, chain.closed, track.width);
  addWithCorners(track, std::move(points), std::move(corners));
  return track;
}

Continuation continuationAt(const StrokeTrack& track, std::size_t end) {
  const double window = std::max(3 * track.width, 12.0);
  std::vector<Point> points = track.points;
  std::size_t most = points.size();
  if (end == 0) {
    std::reverse(points.begin(), points.end());
    if (!track.corners.empty()) most = track.corners.front() + 1;
  } else if (!track.corners.empty()) {
    most = points.size() - track.corners.back();
  }
  const auto count =
      std::clamp<std::size_t>(static_cast<std::size_t>(window / kTrackStepPx), 2, std::max<std::size_t>(2, most));
  const std::size_t used = std::min(count, points.size());
  return continuationOf(std::span(points).last(used), track.width);
}

}  // namespace rim::trace::lines
