#include "core/refine/edit/brush.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/geometry/path_place.h"
#include "core/geometry/segment.h"
#include "core/refine/edit/ends.h"
#include "core/trace/fit/curve_fit.h"

namespace rim::refine {
namespace {

/// Samples of a path, close enough for the brush.
struct Samples {
  std::vector<PathPlace> places;
  double step = 0;
};

Samples samplesOf(const Path& path, double radius) {
  constexpr double kInARadius = 8;
  constexpr double kMost = 200000;
  Samples samples;
  samples.step = std::max(radius / kInARadius, pathLength(path) / kMost);
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Piece piece = pieceOf(path, i);
    const int count = std::max(1, static_cast<int>(std::ceil(lengthOf(piece) / samples.step)));
    for (int k = 0; k < count; ++k) {
      const double t = static_cast<double>(k) / count;
      samples.places.push_back({i, t, pointAt(piece, t), 0});
    }
  }
  if (!path.closed) samples.places.push_back({path.segments.size() - 1, 1, path.segments.back().end, 0});
  return samples;
}

bool isUnder(const Sweep& sweep, Point p) {
  for (std::size_t i = 0; i < sweep.places.size(); ++i) {
    const Point from = sweep.places[i];
    const Point to = sweep.places[std::min(i + 1, sweep.places.size() - 1)];
    if (distanceTo(Piece{from, Segment::line(to)}, p) <= sweep.radius) return true;
  }
  return false;
}

/// The longest run of samples under the sweep, from and to; over the start of a closed path.
struct Run {
  std::size_t first = 0;
  std::size_t count = 0;
};

std::optional<Run> longestRun(const Path& path, const Samples& samples, const Sweep& sweep) {
  const std::size_t n = samples.places.size();
  std::vector<bool> under(n);
  for (std::size_t i = 0; i < n; ++i) under[i] = isUnder(sweep, samples.places[i].place);
  const auto free = std::find(under.begin(), under.end(), false);
  if (free == under.end()) return std::nullopt;
  const auto begin = path.closed ? static_cast<std::size_t>(free - under.begin()) : 0;
  Run best;
  Run run;
  for (std::size_t k = 0; k < n; ++k) {
    const std::size_t i = (begin + k) % n;
    run = under[i] ? Run{run.count == 0 ? i : run.first, run.count + 1} : Run{};
    if (run.count > best.count) best = run;
  }
  if (best.count < 2) return std::nullopt;
  // The ends of an open path have no side beyond them.
  if (!path.closed && (best.first == 0 || best.first + best.count == n)) return std::nullopt;
  return best;
}

/// The path parted by a sweep: what lies outside it, one open path from the sweep's end round to its beginning (of an
/// open path two), and what lies under it.
struct Parted {
  Path before;  ///< of a closed path all that is outside
  Path after;   ///< of an open path only
  Path under;
};

Parted partedBy(const Path& path, const Samples& samples, const Run& run) {
  const std::size_t n = samples.places.size();
  const PathPlace from = samples.places[run.first];
  const PathPlace to = samples.places[(run.first + run.count - 1) % n];
  Parted parted;
  parted.under = stretchOf(path, from, to);
  if (path.closed) {
    parted.before = stretchOf(path, to, from);
  } else {
    parted.before = stretchOf(path, samples.places.front(), from);
    parted.after = stretchOf(path, to, samples.places.back());
  }
  return parted;
}

/// How far the places of the stretch that was lie from the new path.
FittedAgain measured(Path path, const Path& was, double step) {
  FittedAgain result{std::move(path), 0, {}};
  for (const PathPlace& sample : samplesOf(was, step).places) {
    const double off = nearestOn(result.path, sample.place).off;
    if (off > result.off) result.off = off, result.at = sample.place;
  }
  return result;
}

/// Places along a stretch without waves shorter than the brush: each the mean of those round it, weighted by a bell of
/// half the radius; the ends stay where they are.
std::vector<Point> calmed(const Path& under, double radius) {
  const Samples samples = samplesOf(under, radius);
  const auto n = static_cast<std::ptrdiff_t>(samples.places.size());
  const double sigma = std::max(1.0, radius / 2 / samples.step);
  std::vector<Point> calm;
  for (std::ptrdiff_t i = 0; i < n; ++i) {
    // Towards the ends fewer are round it on both sides, so that these are not drawn inwards.
    const std::ptrdiff_t reach = std::min({static_cast<std::ptrdiff_t>(3 * sigma), i, n - 1 - i});
    Point sum{};
    double weights = 0;
    for (std::ptrdiff_t k = -reach; k <= reach; ++k) {
      const double x = static_cast<double>(k) / sigma;
      const double weight = std::exp(-x * x / 2);
      sum = sum + samples.places[static_cast<std::size_t>(i + k)].place * weight;
      weights += weight;
    }
    calm.push_back(sum * (1 / weights));
  }
  return calm;
}

/// Cubics along places, as few as stay within a distance.
void follow(std::vector<Segment>& segments, std::span<const Point> points, Point startWay, Point endWay,
            double within) {
  constexpr std::size_t kFewest = 8;
  const auto fit = trace::fit::fitCubic({points.front(), startWay, points.back(), endWay}, points);
  if (fit && (fit->largest <= within || points.size() < 2 * kFewest)) {
    segments.push_back(Segment::cubic(fit->cubic.p1, fit->cubic.p2, points.back()));
    return;
  }
  if (points.size() < 2 * kFewest) {
    segments.push_back(Segment::line(points.back()));
    return;
  }
  const std::size_t middle = points.size() / 2;
  const Point way = points[middle + 2] - points[middle - 2];
  const Point along = unit(way);
  follow(segments, points.subspan(0, middle + 1), startWay, along, within);
  follow(segments, points.subspan(middle), along, endWay, within);
}

}  // namespace

std::optional<FittedAgain> corneredUnder(const Path& path, const Sweep& sweep) {
  const Samples samples = samplesOf(path, sweep.radius);
  const auto run = longestRun(path, samples, sweep);
  if (!run) return std::nullopt;
  const Parted parted = partedBy(path, samples, *run);
  Path rebuilt =
      path.closed ? metItself(parted.before) : met(parted.before, PathEnd::End, parted.after, PathEnd::Start);
  return measured(std::move(rebuilt), parted.under, sweep.radius);
}

std::optional<FittedAgain> smoothedUnder(const Path& path, const Sweep& sweep) {
  const Samples samples = samplesOf(path, sweep.radius);
  const auto run = longestRun(path, samples, sweep);
  if (!run) return std::nullopt;
  const Parted parted = partedBy(path, samples, *run);
  const std::vector<Point> calm = calmed(parted.under, sweep.radius);
  if (calm.size() < 4) return std::nullopt;
  constexpr double kWithin = 0.05;  // of the radius: no more than can be seen beside the brush
  const Path& next = path.closed ? parted.before : parted.after;
  std::vector<Segment> segments;
  follow(segments, calm, tangentAt(pieceOf(parted.before, parted.before.segments.size() - 1), 1),
         tangentAt(pieceOf(next, 0), 0), kWithin * sweep.radius);
  Path smooth = parted.before;
  smooth.segments.insert(smooth.segments.end(), segments.begin(), segments.end());
  if (path.closed) {
    smooth.segments.back().end = smooth.start;
    smooth.closed = true;
  } else {
    append(smooth, parted.after);
  }
  return measured(std::move(smooth), parted.under, sweep.radius);
}

}  // namespace rim::refine
