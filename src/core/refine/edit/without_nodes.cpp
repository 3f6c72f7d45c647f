#include "core/refine/edit/without_nodes.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <numbers>
#include <optional>
#include <vector>

#include "core/error.h"
#include "core/geometry/arc.h"
#include "core/geometry/segment.h"
#include "core/trace/fit/curve_fit.h"

namespace rim::refine {
namespace {

constexpr int kSamples = 16;  ///< of each segment

/// Places along a stretch, its first and last node among them.
std::vector<Point> sampled(const Path& stretch) {
  std::vector<Point> points{stretch.start};
  for (std::size_t i = 0; i < stretch.segments.size(); ++i) {
    const Piece piece = pieceOf(stretch, i);
    for (int k = 1; k < kSamples; ++k) points.push_back(pointAt(piece, static_cast<double>(k) / kSamples));
    points.push_back(piece.segment.end);
  }
  return points;
}

struct Off {
  double most = 0;
  Point at;
};

/// How far one segment and the places that it stands for lie apart, looked at from both.
Off offOf(const Piece& piece, const std::vector<Point>& points, const Path& stretch) {
  Off off;
  const auto note = [&off](double distance, Point at) {
    if (distance > off.most) off = {distance, at};
  };
  for (const Point p : points) note(distanceTo(piece, p), p);
  constexpr int kPlaces = 64;
  for (int k = 1; k < kPlaces; ++k) {
    const Point place = pointAt(piece, static_cast<double>(k) / kPlaces);
    double nearest = std::numeric_limits<double>::infinity();
    for (std::size_t i = 0; i < stretch.segments.size(); ++i)
      nearest = std::min(nearest, distanceTo(pieceOf(stretch, i), place));
    note(nearest, place);
  }
  return off;
}

/// The arc between both ends that leaves the places least: by golden section in its bulge, from the arc through the
/// place farthest off the chord.
std::optional<Segment> arcThrough(const std::vector<Point>& points) {
  const Point start = points.front();
  const Point end = points.back();
  const Point chord = end - start;
  const double size = std::hypot(chord.x, chord.y);
  if (size <= 0) return std::nullopt;
  const auto farthest = std::max_element(points.begin(), points.end(), [&](Point a, Point b) {
    return std::abs(cross(chord, a - start)) < std::abs(cross(chord, b - start));
  });
  if (std::abs(cross(chord, *farthest - start)) < 1e-9 * size * size) return std::nullopt;
  const double guess = bulgeThrough(start, *farthest, end);
  const auto worst = [&](double bulge) {
    const Arc arc = arcFromBulge(start, end, bulge);
    double most = 0;
    for (const Point p : points) most = std::max(most, std::abs(distance(p, arc.centre) - arc.radius));
    return most;
  };
  constexpr double kGolden = 0.6180339887498949;
  double low = 0.7 * guess;
  double high = 1.3 * guess;
  for (int i = 0; i < 40; ++i) {
    const double a = high - kGolden * (high - low);
    const double b = low + kGolden * (high - low);
    (worst(a) < worst(b) ? high : low) = worst(a) < worst(b) ? b : a;
  }
  const Segment arc = Segment::arc(end, (low + high) / 2);
  return arc.kind == SegmentKind::Arc ? std::optional(arc) : std::nullopt;
}

std::optional<Segment> cubicAlong(const Path& stretch, const std::vector<Point>& points, bool keepWays) {
  trace::fit::CurveEnds ends{points.front(), {}, points.back(), {}};
  if (keepWays) {
    ends.startTangent = tangentAt(pieceOf(stretch, 0), 0);
    ends.endTangent = tangentAt(pieceOf(stretch, stretch.segments.size() - 1), 1);
  }
  const auto fit = trace::fit::fitCubic(ends, points);
  if (!fit) return std::nullopt;
  return Segment::cubic(fit->cubic.p1, fit->cubic.p2, points.back());
}

/// Whether all that lies between are corners of straight lines.
bool isCornered(const Path& stretch) {
  constexpr double kCorner = std::numbers::pi / 6;
  for (std::size_t i = 0; i < stretch.segments.size(); ++i) {
    if (!isLine(stretch.segments[i])) return false;
    if (i == 0) continue;
    const double turn = angleBetween(tangentAt(pieceOf(stretch, i - 1), 1), tangentAt(pieceOf(stretch, i), 0));
    if (std::abs(turn) < kCorner) return false;
  }
  return true;
}

struct Stand {
  Segment segment;
  Off off;
};

/// The one segment that stands for a stretch.
Stand standFor(const Path& stretch) {
  const std::vector<Point> points = sampled(stretch);
  const Point start = stretch.start;
  const auto judged = [&](const Segment& segment) { return Stand{segment, offOf({start, segment}, points, stretch)}; };
  Stand best = judged(Segment::line(points.back()));
  if (isCornered(stretch)) return best;
  // A richer kind is taken only when it keeps the shape far better.
  constexpr double kFarBetter = 0.25;
  const double negligible = 1e-6 * pathLength(stretch);
  const auto consider = [&](const std::optional<Segment>& segment, double share) {
    if (!segment || best.off.most <= negligible) return;
    const Stand other = judged(*segment);
    if (other.off.most < share * best.off.most) best = other;
  };
  consider(arcThrough(points), kFarBetter);
  const bool line = best.segment.kind == SegmentKind::Line;
  consider(cubicAlong(stretch, points, true), line ? kFarBetter : 0.5);
  consider(cubicAlong(stretch, points, false), best.segment.kind == SegmentKind::Cubic ? 0.5 : kFarBetter);
  return best;
}

/// The numbers of the nodes that stay, in order; of a closed path begun at the first of them the end is one, too.
std::vector<std::size_t> stayingNodes(const Path& path, const std::set<std::size_t>& nodes) {
  std::vector<std::size_t> kept;
  for (std::size_t i = 0; i < nodeCount(path); ++i) {
    if (nodes.count(i) == 0) kept.push_back(i);
  }
  return kept;
}

}  // namespace

FittedAgain withoutNodes(const Path& path, const std::set<std::size_t>& nodes) {
  std::vector<std::size_t> kept = stayingNodes(path, nodes);
  if (kept.size() < 2) throw InputError("an outline needs two nodes at least; delete the whole outline instead.");
  const std::size_t first = kept.front();
  const Path turned = path.closed ? begunAt(path, first) : path;
  if (path.closed) {
    for (std::size_t& node : kept) node -= first;
    kept.push_back(path.segments.size());
  }
  FittedAgain result{{segmentStart(turned, kept.front() % turned.segments.size()), {}, path.closed}, 0, {}};
  for (std::size_t k = 0; k + 1 < kept.size(); ++k) {
    Path stretch{segmentStart(turned, kept[k]), {}, false};
    stretch.segments.assign(turned.segments.begin() + static_cast<std::ptrdiff_t>(kept[k]),
                            turned.segments.begin() + static_cast<std::ptrdiff_t>(kept[k + 1]));
    if (stretch.segments.size() == 1) {
      result.path.segments.push_back(stretch.segments.front());
      continue;
    }
    const Stand stand = standFor(stretch);
    result.path.segments.push_back(stand.segment);
    if (stand.off.most > result.off) result.off = stand.off.most, result.at = stand.off.at;
  }
  const bool flat = std::all_of(result.path.segments.begin(), result.path.segments.end(), isLine);
  if (path.closed && flat && result.path.segments.size() < 3)
    throw InputError("these nodes enclose nothing any more; delete the whole outline instead.");
  return result;
}

}  // namespace rim::refine
