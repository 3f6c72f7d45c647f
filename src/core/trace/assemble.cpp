#include "core/trace/assemble.h"

#include <limits>
#include <numbers>

#include "core/geometry/arc.h"
#include "core/trace/curve_fit.h"

namespace rim {
namespace {

constexpr double kPriceOfCubic = 16;
constexpr std::size_t kMostPiecesPerCubic = 10;
constexpr std::size_t kCurveSamples = 64;
/// A straight piece longer than this is never swallowed by a curve.
constexpr double kLongLinePx = 12;
/// An arc whose ends turn off the shared tangents by less than this stays an arc.
constexpr double kSameTangentDegrees = 1.5;

bool isLine(const Piece& p) { return p.primitive.kind == Primitive::Kind::Line; }

double degreesBetween(Point a, Point b) { return std::abs(angleBetween(a, b)) * 180 / std::numbers::pi; }

/// The arc between two nodes that goes through the circle's own middle between them: nodes may lie
/// a little off the circle.
Segment arcOf(const Primitive& circle, Point from, Point to) {
  double sweep = angleBetween(from - circle.place, to - circle.place);
  if (circle.radius > 0 && sweep < 0) sweep += 2 * std::numbers::pi;
  if (circle.radius < 0 && sweep > 0) sweep -= 2 * std::numbers::pi;
  const Point spoke = unit(from - circle.place);
  const Point middle =
      circle.place + (spoke * std::cos(sweep / 2) + leftNormal(spoke) * std::sin(sweep / 2)) * std::abs(circle.radius);
  const Point chord = to - from;
  const double sagitta = cross(unit(chord), lerp(from, to, 0.5) - middle);
  return Segment::arc(to, 2 * sagitta / length(chord));
}

struct Choice {
  double price = std::numeric_limits<double>::infinity();
  std::size_t count = 1;  ///< pieces that the segment stands for
  std::vector<Segment> segments;
};

class Assembler {
 public:
  Assembler(const Track& track, const Chain& chain, const SplitLimits& limits, const MeasuredPlaces& measured)
      : track_(track), chain_(chain), limits_(limits), nodes_(chain.nodes) {
    for (const Piece& piece : chain.pieces) measured_.push_back(passes(piece, measured));
    // What is left as measured begins and ends on the border.
    for (std::size_t k = 0; k < measured_.size(); ++k) {
      if (!measured_[k]) continue;
      nodes_[k] = {track.point(piece(k).from), true, {}};
      nodes_[(k + 1) % nodes_.size()] = {track.point(piece(k).to), true, {}};
    }
  }

  Path path() {
    const std::size_t n = chain_.pieces.size();
    // From the end backwards: what the rest of the border costs at least from piece k on.
    std::vector<double> rest(n + 1, 0);
    std::vector<Choice> choices(n);
    for (std::size_t k = n; k-- > 0;) {
      Choice best = single(k);
      best.price += rest[k + 1];
      for (std::size_t count = 2; k + count <= n && count <= kMostPiecesPerCubic; ++count) {
        if (!mayJoin(k, count)) break;
        Choice curve = overPieces(k, count);
        curve.price += rest[k + count];
        if (curve.price < best.price) best = curve;
      }
      choices[k] = best;
      rest[k] = best.price;
    }
    Path path{nodes_[0].place, {}, true};
    for (std::size_t k = 0; k < n; k += choices[k].count) {
      path.segments.insert(path.segments.end(), choices[k].segments.begin(), choices[k].segments.end());
    }
    path.segments.back().end = path.start;
    return path;
  }

 private:
  const Piece& piece(std::size_t k) const { return chain_.pieces[k]; }
  const Node& nodeAt(std::size_t k) const { return nodes_[k % nodes_.size()]; }

  bool isLongLine(std::size_t k) const {
    return isLine(piece(k)) && track_.way(piece(k).to) - track_.way(piece(k).from) > kLongLinePx;
  }

  bool passes(const Piece& piece, const MeasuredPlaces& measured) const {
    const std::span<const Point> points = track_.points(piece.from, piece.to + 1);
    const auto near = [points, reach = measured.reachPx](Point place) {
      return std::any_of(points.begin(), points.end(), [=](Point p) { return distance(p, place) < reach; });
    };
    return std::any_of(measured.places.begin(), measured.places.end(), near);
  }

  bool mayJoin(std::size_t k, std::size_t count) const {
    return !measured_[k] && !measured_[k + count - 1] && !nodeAt(k + count - 1).corner && !isLongLine(k) &&
           !isLongLine(k + count - 1);
  }

  static Point tangentOf(const Node& node, const Piece& at) {
    return node.corner ? tangentAt(at.primitive, node.place) : node.tangent;
  }

  Choice single(std::size_t k) {
    const Node& from = nodeAt(k);
    const Node& to = nodeAt(k + 1);
    if (measured_[k]) return asMeasured(k);
    if (isLine(piece(k))) return {kPriceOfLine, 1, {Segment::line(to.place)}};
    const Segment arc = arcOf(piece(k).primitive, from.place, to.place);
    const bool fitsStart =
        from.corner || degreesBetween(startTangent(from.place, arc), from.tangent) < kSameTangentDegrees;
    const bool fitsEnd = to.corner || degreesBetween(endTangent(from.place, arc), to.tangent) < kSameTangentDegrees;
    if (fitsStart && fitsEnd) return {kPriceOfArc, 1, {arc}};
    Choice curve = overPieces(k, 1);
    // A cubic that misses the border is worse than a tangent that misses its neighbour's.
    const double arcMisfit = degreesBetween(startTangent(from.place, arc), tangentOf(from, piece(k)));
    return curve.price < kPriceOfCubic + 10 * arcMisfit ? curve : Choice{kPriceOfArc + 10 * arcMisfit, 1, {arc}};
  }

  Choice asMeasured(std::size_t k) const {
    Choice choice{0, 1, {}};
    for (std::size_t i = piece(k).from + 1; i < piece(k).to; ++i)
      choice.segments.push_back(Segment::line(track_.point(i)));
    choice.segments.push_back(Segment::line(nodeAt(k + 1).place));
    return choice;
  }

  /// One cubic over `count` pieces from k on.
  Choice overPieces(std::size_t k, std::size_t count) {
    const Node& from = nodeAt(k);
    const Node& to = nodeAt(k + count);
    const Piece& last = piece(k + count - 1);
    track_.sample(piece(k).from, last.to, limits_.trimPx, kCurveSamples, points_);
    const CurveFit fit = fitCubic(from.place, tangentOf(from, piece(k)), to.place, tangentOf(to, last), points_);
    const auto facts = static_cast<double>(last.to - piece(k).from + 1) / kPointsPerFact;
    const double misfit = facts * fit.meanSquare / (limits_.deviationPx * limits_.deviationPx);
    // One place far off is not made good by many that are near.
    const double farthest = fit.largest / (4 * limits_.deviationPx);
    const double excess = farthest > 1 ? 50 * (farthest - 1) : 0;
    return {kPriceOfCubic + misfit + excess, count, {Segment::cubic(fit.cubic.p1, fit.cubic.p2, to.place)}};
  }

  const Track& track_;
  const Chain& chain_;
  const SplitLimits& limits_;
  std::vector<Node> nodes_;
  std::vector<bool> measured_;
  std::vector<Point> points_;
};

}  // namespace

Path assemble(const Track& track, const Chain& chain, const SplitLimits& limits, const MeasuredPlaces& measured) {
  return Assembler(track, chain, limits, measured).path();
}

}  // namespace rim
