#include "core/trace/outline/measured_at.h"

#include <algorithm>
#include <limits>
#include <optional>

#include "core/geometry/box_index.h"
#include "core/geometry/fewer_points.h"
#include "core/geometry/path_place.h"
#include "core/geometry/segment.h"
#include "core/trace/fit/curve_fit.h"
#include "core/trace/outline/fit_outline.h"

namespace rim::trace::outline {
namespace {

/// How far p lies from the nearest of the places; where it is no farther than `enough`, any distance up to that.
double nearestOf(const std::vector<Point>& places, Point p, double enough) {
  double least = std::numeric_limits<double>::infinity();
  for (const Point place : places) {
    least = std::min(least, distance(place, p));
    if (least <= enough) break;
  }
  return least;
}

/// Begun at the node that lies farthest from all places.
Path begunFarFrom(Path path, const std::vector<Point>& places) {
  std::size_t best = 0;
  double most = -1;
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const double off = nearestOf(places, segmentStart(path, i), most);
    if (off <= most) continue;
    most = off;
    best = i;
  }
  return begunAt(std::move(path), best);
}

/// Where the border runs beside the path's start, the same way.
std::size_t besideStart(const contour::Border& border, const Path& path) {
  const Point way = startTangent(path.start, path.segments.front());
  const std::size_t n = border.size();
  std::size_t best = 0;
  double least = std::numeric_limits<double>::infinity();
  for (std::size_t i = 0; i < n; ++i) {
    constexpr double kAgainstPx = 10;
    const bool against = dot(way, border[(i + 1) % n] - border[(i + n - 1) % n]) < 0;
    const double off = distance(border[i], path.start) + (against ? kAgainstPx : 0);
    if (off >= least) continue;
    least = off;
    best = i;
  }
  return best;
}

template <typename Item>
std::vector<Item> turnedTo(std::vector<Item> items, std::size_t first) {
  std::rotate(items.begin(), items.begin() + static_cast<std::ptrdiff_t>(first), items.end());
  return items;
}

/// A path measured along.
class Along {
 public:
  explicit Along(const Path& path) : path_(path) {
    ways_.push_back(0);
    for (std::size_t i = 0; i < path.segments.size(); ++i) ways_.push_back(ways_.back() + lengthOf(pieceOf(path, i)));
  }
  double length() const { return ways_.back(); }

  /// The place nearest to p between two ways along the path.
  PathPlace nearest(Point p, double from, double to) const {
    PathPlace best;
    best.off = std::numeric_limits<double>::infinity();
    for (std::size_t i = 0; i < path_.segments.size(); ++i) {
      if (ways_[i + 1] < from || ways_[i] > to) continue;
      const Piece piece = pieceOf(path_, i);
      const double size = std::max(ways_[i + 1] - ways_[i], 1e-12);
      const double t = std::clamp(nearestOn(piece, p), std::clamp((from - ways_[i]) / size, 0.0, 1.0),
                                  std::clamp((to - ways_[i]) / size, 0.0, 1.0));
      const Point place = pointAt(piece, t);
      if (distance(place, p) < best.off) best = {i, t, place, distance(place, p)};
    }
    return best;
  }
  double wayTo(const PathPlace& place) const {
    return ways_[place.segment] + place.t * (ways_[place.segment + 1] - ways_[place.segment]);
  }

 private:
  const Path& path_;
  std::vector<double> ways_;
};

std::vector<double> waysAlong(const contour::Border& border) {
  std::vector<double> ways{0};
  for (std::size_t i = 1; i < border.size(); ++i) ways.push_back(ways.back() + distance(border[i - 1], border[i]));
  return ways;
}

/// The cubic that takes a path on along points to a place, as smooth as there is room for; none: there is not.
std::optional<Segment> curveAlong(const Piece& before, std::span<const Point> points, const PathPlace& to,
                                  const Path& path, double roomPx) {
  if (points.size() < 3) return std::nullopt;
  const Point in = tangentAt(before, 1);
  const Point out = tangentOn(path, to);
  for (const bool smooth : {true, false}) {
    fit::CurveEnds ends{before.segment.end, {}, to.place, {}};
    if (smooth) ends.startTangent = in, ends.endTangent = out;
    const auto fit = fit::fitCubic(ends, points);
    if (fit && fit->largest <= roomPx) return Segment::cubic(fit->cubic.p1, fit->cubic.p2, to.place);
  }
  return std::nullopt;
}

/// The runs of border points that lie near a place, first and last index of each; neighbours become one.
std::vector<std::pair<std::size_t, std::size_t>> runsNear(const contour::Border& border,
                                                          const MeasuredStretches& measured) {
  constexpr std::size_t kLeastBetween = 4;
  std::vector<Box> boxes;
  for (const Point place : measured.places) boxes.push_back({place, place});
  const BoxIndex index(boxes);
  std::vector<std::pair<std::size_t, std::size_t>> runs;
  for (std::size_t i = 0; i < border.size(); ++i) {
    const Point p = border[i];
    bool isNear = false;
    index.near({p, p}, measured.reachPx,
               [&](std::size_t k) { isNear = isNear || distance(measured.places[k], p) <= measured.reachPx; });
    if (!isNear) continue;
    if (!runs.empty() && i - runs.back().second <= kLeastBetween) {
      runs.back().second = i;
    } else {
      runs.emplace_back(i, i);
    }
  }
  return runs;
}

}  // namespace

Path borderWithin(const contour::Border& border, const std::vector<double>& roomPx) {
  contour::Border round = border;
  round.push_back(border.front());
  std::vector<double> rooms = roomPx;
  rooms.push_back(roomPx.front());
  std::vector<Point> few = fewerPoints(round, rooms);
  if (few.size() < 4) return polygonThrough(border);
  few.pop_back();
  return polygonThrough(few);
}

Path measuredAt(const Path& path, const contour::Border& border, const MeasuredStretches& measured) {
  const Path turned = begunFarFrom(path, measured.places);
  const std::size_t beside = besideStart(border, turned);
  const contour::Border points = turnedTo(border, beside);
  const std::vector<double> rooms = turnedTo(measured.roomPx, beside);
  const Along along(turned);
  const std::vector<double> ways = waysAlong(points);
  const double share = along.length() / (ways.back() + distance(points.back(), points.front()));
  // Corners and smoothing make one of the two longer here and there.
  const double slack = 6 + 0.04 * along.length();
  Path open = turned;
  open.closed = false;
  Path result{turned.start, {}, true};
  PathPlace at{0, 0, turned.start, 0};
  const auto keepUpTo = [&](const PathPlace& to) {
    if (std::pair(to.segment, to.t) <= std::pair(at.segment, at.t)) return;
    const Path kept = stretchOf(open, at, to);
    result.segments.insert(result.segments.end(), kept.segments.begin(), kept.segments.end());
  };
  for (const auto& [first, last] : runsNear(points, measured)) {
    const double from = along.wayTo(at);
    const double here = std::max(from, share * ways[first]);
    keepUpTo(along.nearest(points[first], std::max(from, here - slack), here + slack));
    const std::size_t count = last - first + 1;
    const auto run = std::span<const Point>(points).subspan(first, count);
    const double there = std::max(here, share * ways[last]);
    at = along.nearest(points[last], std::max(from, there - slack), there + slack);
    std::optional<Segment> curve;
    if (measured.asCurves && !result.segments.empty())
      curve = curveAlong(pieceOf(result, result.segments.size() - 1), run, at, turned, rooms[first]);
    if (curve) {
      result.segments.push_back(*curve);
      continue;
    }
    for (const Point p : fewerPoints(run, std::span(rooms).subspan(first, count))) lineOnTo(result, p);
    lineOnTo(result, at.place);
  }
  keepUpTo({turned.segments.size() - 1, 1, turned.start, 0});
  lineOnTo(result, turned.start);
  if (!result.segments.empty()) result.segments.back().end = result.start;
  return result;
}

}  // namespace rim::trace::outline
