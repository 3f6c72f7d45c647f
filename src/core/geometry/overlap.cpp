#include "core/geometry/overlap.h"

#include <algorithm>
#include <array>
#include <numbers>
#include <optional>

namespace rim {
namespace {

struct Foot {
  double t = 0;  // on the first
  double u = 0;  // on the second
};

/// Where a segment passes a place beside it.
class Beside {
 public:
  Beside(const Piece& piece, double tolerance)
      : piece_(piece), tolerance_(tolerance), beyond_(std::min(tolerance / 2, lengthOf(piece) / 10)) {}

  /// The place on the segment nearest to p, when p lies within the tolerance of it and not beyond its ends by more than
  /// a tenth of its length: segments shorter than the tolerance would else lie on all their neighbours.
  std::optional<double> at(Point p) const {
    const double t = nearestOn(piece_, p);
    const Point off = p - pointAt(piece_, t);
    if (length(off) > tolerance_ || std::abs(dot(off, tangentAt(piece_, t))) > beyond_) return {};
    return t;
  }

 private:
  const Piece& piece_;
  double tolerance_;
  double beyond_;
};

/// Ends of either that lie on the other.
std::vector<Foot> commonEnds(const Piece& a, const Piece& b, double tolerance) {
  const Beside besideA(a, tolerance);
  const Beside besideB(b, tolerance);
  std::vector<Foot> feet;
  for (const double end : {0.0, 1.0}) {
    if (const auto u = besideB.at(pointAt(a, end))) feet.push_back({end, *u});
    if (const auto t = besideA.at(pointAt(b, end))) feet.push_back({*t, end});
  }
  return feet;
}

bool parallel(const Piece& a, double t, const Piece& b, double u) {
  constexpr double kWidestAngle = 20 * std::numbers::pi / 180;
  return std::abs(cross(tangentAt(a, t), tangentAt(b, u))) <= std::sin(kWidestAngle);
}

/// Whether the stretch from t = from to t = to of a lies on b all the way.
bool together(const Piece& a, double from, double to, const Piece& b, double tolerance) {
  constexpr int kPlaces = 10;
  const Beside beside(b, tolerance);
  for (int i = 1; i < kPlaces; ++i) {
    const double t = from + (to - from) * i / kPlaces;
    const auto u = beside.at(pointAt(a, t));
    if (!u || !parallel(a, t, b, *u)) return false;
  }
  return true;
}

/// Whether both part from one place at an angle: near there they are near each other, as any two lines that meet are,
/// and no second line. Where both end together, or the stretch is but a few tolerances long, one is a sloppy copy of
/// the other instead.
bool partsFromATip(const Piece& a, const Piece& b, const Overlap& o, double tolerance) {
  constexpr double kShortest = 10;         // tolerances
  constexpr double kTip = 1.0 / 25;        // of the tolerance
  constexpr double kLeastOpening = 0.003;  // radians
  const Point from = pointAt(a, o.from);
  const Point to = pointAt(a, o.to);
  const double atFrom = distance(from, pointAt(b, o.otherFrom));
  const double atTo = distance(to, pointAt(b, o.otherTo));
  const double way = distance(from, to);
  if (way < kShortest * tolerance || std::min(atFrom, atTo) > kTip * tolerance) return false;
  if (std::max(atFrom, atTo) < kLeastOpening * way) return false;
  constexpr double kAtEnd = 1e-6;
  const auto isEnd = [](double t) { return t < kAtEnd || t > 1 - kAtEnd; };
  const bool together = atFrom > atTo ? isEnd(o.from) && isEnd(o.otherFrom) : isEnd(o.to) && isEnd(o.otherTo);
  return !together;
}

}  // namespace

std::vector<Overlap> overlapsOf(const Piece& a, const Piece& b, double tolerance) {
  if (apart(boxOf(a), boxOf(b), tolerance)) return {};
  std::vector<Foot> feet = commonEnds(a, b, tolerance);
  if (feet.size() < 2) return {};
  std::sort(feet.begin(), feet.end(), [](const Foot& p, const Foot& q) { return p.t < q.t; });
  constexpr double kShortestShare = 1e-6;
  std::vector<Overlap> candidates;
  for (std::size_t i = 0; i < feet.size(); ++i) {
    for (std::size_t j = i + 1; j < feet.size(); ++j) {
      const Overlap o{feet[i].t, feet[j].t, feet[i].u, feet[j].u};
      if (o.to - o.from > kShortestShare && std::abs(o.otherTo - o.otherFrom) > kShortestShare) candidates.push_back(o);
    }
  }
  std::stable_sort(candidates.begin(), candidates.end(),
                   [](const Overlap& p, const Overlap& q) { return p.to - p.from > q.to - q.from; });
  std::vector<Overlap> found;
  for (const Overlap& o : candidates) {
    const bool taken =
        std::any_of(found.begin(), found.end(), [&o](const Overlap& f) { return o.from < f.to && f.from < o.to; });
    if (!taken && together(a, o.from, o.to, b, tolerance) && !partsFromATip(a, b, o, tolerance)) found.push_back(o);
  }
  return found;
}

}  // namespace rim
