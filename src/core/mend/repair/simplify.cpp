#include "core/mend/repair/simplify.h"

#include <algorithm>
#include <numbers>
#include <optional>
#include <set>

#include "core/geometry/arc.h"
#include "core/geometry/circle.h"
#include "core/geometry/fewer_points.h"
#include "core/geometry/flatten.h"
#include "core/geometry/segment.h"
#include "core/mend/find/crossings.h"
#include "core/mend/repair/meet.h"
#include "core/trace/outline/fewer_pieces.h"

namespace rim::mend {
namespace {

class Simplifying {
 public:
  Simplifying(std::vector<Point> points, bool closed, double toleranceMm, bool arcs)
      : points_(std::move(points)), closed_(closed), tolerance_(toleranceMm), arcs_(arcs) {}

  Path run() {
    if (!closed_) return asFewest();
    if (arcs_) {
      if (auto circle = asCircle()) return *circle;
    }
    // Where a ring begins may cost a piece or two.
    const std::vector<Point> ring = points_;
    std::optional<Path> best;
    for (const std::size_t begin : {sharpestOf(ring), outermostOf(ring)}) {
      points_ = ring;
      std::rotate(points_.begin(), points_.begin() + static_cast<std::ptrdiff_t>(begin), points_.end());
      points_.push_back(points_.front());
      for (Path& path : waysRound()) {
        if (!best || path.segments.size() < best->segments.size()) best = std::move(path);
      }
    }
    return *best;
  }

 private:
  /// Of lines alone, the method that parts them where they are farthest off is now and then one better.
  std::vector<Path> waysRound() const {
    std::vector<Path> ways{asFewest()};
    if (arcs_) return ways;
    const std::vector<Point> few = fewerPoints(points_, tolerance_);
    Path path{few.front(), {}, true};
    for (std::size_t i = 1; i < few.size(); ++i) path.segments.push_back(Segment::line(few[i]));
    ways.push_back(std::move(path));
    return ways;
  }

  Path asFewest() const {
    Path path{points_.front(), {}, closed_};
    for (std::size_t i = 0; i + 1 < points_.size();) {
      const std::size_t j = farthestFrom(i);
      path.segments.push_back(*pieceBetween(i, j));
      i = j;
    }
    return path;
  }

  std::optional<Path> asCircle() const {
    constexpr std::size_t kFewest = 8;
    if (points_.size() < kFewest) return {};
    Box box;
    for (const Point p : points_) box.include(p);
    const Point centre = lerp(box.low, box.high, 0.5);
    double sum = 0;
    for (const Point p : points_) sum += distance(p, centre);
    const double radius = sum / static_cast<double>(points_.size());
    double turning = 0;
    for (std::size_t i = 0; i < points_.size(); ++i) {
      const Point a = points_[i];
      const Point b = points_[(i + 1) % points_.size()];
      turning += angleBetween(a - centre, b - centre);
      if (std::abs(distance(a, centre) - radius) > tolerance_) return {};
      if (std::abs(distance(lerp(a, b, 0.5), centre) - radius) > tolerance_) return {};
    }
    if (std::abs(std::abs(turning) - 2 * std::numbers::pi) > 0.01) return {};
    return circlePathOf(centre, radius, turning > 0 ? 1 : -1);
  }

  static std::size_t sharpestOf(const std::vector<Point>& ring) {
    std::size_t sharpest = 0;
    double most = 0;
    const std::size_t n = ring.size();
    for (std::size_t i = 0; i < n; ++i) {
      const double turn = std::abs(angleBetween(ring[i] - ring[(i + n - 1) % n], ring[(i + 1) % n] - ring[i]));
      if (turn <= most) continue;
      most = turn;
      sharpest = i;
    }
    return sharpest;
  }

  static std::size_t outermostOf(const std::vector<Point>& ring) {
    Box box;
    for (const Point p : ring) box.include(p);
    const Point middle = lerp(box.low, box.high, 0.5);
    const auto far = std::max_element(ring.begin(), ring.end(),
                                      [middle](Point a, Point b) { return distance(a, middle) < distance(b, middle); });
    return static_cast<std::size_t>(far - ring.begin());
  }

  /// The last point that one piece from point i can reach: the reach is doubled, then halved.
  std::size_t farthestFrom(std::size_t i) const {
    const std::size_t last = points_.size() - 1;
    std::size_t good = i + 1;
    std::size_t bad = last + 1;
    for (std::size_t step = 2; i + step <= last; step *= 2) {
      if (!pieceBetween(i, i + step)) {
        bad = i + step;
        break;
      }
      good = i + step;
    }
    if (bad > last && good < last && pieceBetween(i, last)) return last;
    bad = std::min(bad, last + 1);
    while (bad - good > 1) {
      const std::size_t middle = good + (bad - good) / 2;
      (pieceBetween(i, middle) ? good : bad) = middle;
    }
    return good;
  }

  std::optional<Segment> pieceBetween(std::size_t i, std::size_t j) const {
    const Point a = points_[i];
    const Point b = points_[j];
    if (j == i + 1) return Segment::line(b);
    if (a == b) return {};
    if (holds({a, Segment::line(b)}, i, j)) return Segment::line(b);
    constexpr std::size_t kFewestForArc = 3;
    if (!arcs_ || j - i < kFewestForArc) return {};
    double sum = 0;
    double weight = 0;
    for (std::size_t k = i + 1; k < j; ++k) {
      const double off = std::abs(cross(b - a, points_[k] - a));
      sum += off * bulgeThrough(a, points_[k], b);
      weight += off;
    }
    const double bulge = weight > 0 ? sum / weight : 0;
    constexpr double kMostBulge = 1.2;  // 200 degrees
    if (bulge == 0 || !(std::abs(bulge) < kMostBulge)) return {};
    const Segment arc = Segment::arc(b, bulge);
    return holds({a, arc}, i, j) ? std::optional(arc) : std::nullopt;
  }

  /// Whether all that lies between points i and j keeps to the piece, in order.
  bool holds(const Piece& piece, std::size_t i, std::size_t j) const {
    double before = 0;
    for (std::size_t k = i; k < j; ++k) {
      for (const Point p : {lerp(points_[k], points_[k + 1], 0.5), points_[k + 1]}) {
        const double t = nearestOn(piece, p);
        if (distance(pointAt(piece, t), p) > tolerance_ || t < before - 0.05) return false;
        before = std::max(before, t);
      }
    }
    return true;
  }

  std::vector<Point> points_;
  bool closed_;
  double tolerance_;
  bool arcs_;
};

}  // namespace

Path simplified(const Path& path, double toleranceMm, CurveForm form) {
  if (form == CurveForm::Beziers)
    return trace::outline::inFewerPieces(trace::outline::inFewerPieces(path, toleranceMm / 2), toleranceMm / 2);
  const bool arcs = form == CurveForm::Arcs;
  // What the chords that are looked at leave of the bound is the pieces'; lines alone need nearly all of it.
  const double chords = toleranceMm / (arcs ? 8 : 50);
  std::vector<Point> points = flatten(path, chords);
  if (points.size() < 3) return path;
  return Simplifying(std::move(points), path.closed, toleranceMm - chords, arcs).run();
}

namespace {

using Pairs = std::set<std::pair<std::size_t, std::size_t>>;

/// The paths that cross each other, or themselves.
Pairs crossingPairs(const Drawing& drawing, const MendSettings& settings, const std::stop_token& stop) {
  const PieceIndex index(pathsOf(drawing));
  Pairs pairs;
  for (const TrueCrossing& c :
       trueCrossings(drawing, index, coveredStretches(drawing, index, settings, stop), settings, stop))
    pairs.insert({std::min(c.a.path, c.b.path), std::max(c.a.path, c.b.path)});
  return pairs;
}

}  // namespace

Repaired withFewestNodes(const Drawing& drawing, const MendSettings& settings, const std::stop_token& stop,
                         CurveForm form) {
  Repaired result{drawing, 0};
  std::vector<double> within(drawing.outlines.size(), settings.simplifyMm);
  std::set<std::size_t> again;
  for (std::size_t p = 0; p < drawing.outlines.size(); ++p) again.insert(p);
  const Pairs before = crossingPairs(drawing, settings, stop);
  constexpr int kHalvings = 6;
  for (int round = 0; round <= kHalvings && !again.empty(); ++round) {
    for (const std::size_t p : again) {
      Path fewer = round < kHalvings ? simplified(drawing.path(p), within[p], form) : drawing.path(p);
      result.drawing.outlines[p] = drawing.outlines[p];
      if (fewer.segments.size() < drawing.path(p).segments.size()) result.drawing.setPath(p, std::move(fewer));
      within[p] /= 2;
    }
    // Where lines come to cross by it, both keep nearer to what they were; at last they stay as they were.
    again.clear();
    for (const auto& [one, other] : crossingPairs(result.drawing, settings, stop)) {
      if (before.count({one, other}) == 0) again.insert({one, other});
    }
  }
  for (std::size_t p = 0; p < drawing.outlines.size(); ++p)
    result.count += drawing.path(p).segments.size() - result.drawing.path(p).segments.size();
  return result;
}

}  // namespace rim::mend
