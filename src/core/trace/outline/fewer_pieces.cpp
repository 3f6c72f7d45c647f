#include "core/trace/outline/fewer_pieces.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>
#include <optional>

#include "core/geometry/segment.h"
#include "core/geometry/segment_distance.h"
#include "core/trace/fit/curve_fit.h"

namespace rim::trace::outline {
namespace {

constexpr double kCornerDegrees = 12;
constexpr double kSharpDegrees = 30;
constexpr std::size_t kLongestRun = 16;  // segments
/// What a run is off by beyond this many times what is allowed no longer one comes back from.
constexpr double kFarTimes = 1.5;
constexpr std::size_t kPlacesOfSegment = 8;  // a power of 2
constexpr double kPriceOfCubic = 1.001;      // of two ways with as many segments the one with more lines

/// A run as one segment, and how far it leaves what it stands for.
struct Merged {
  Segment segment;
  double offPx = 0;
  double cornerOffPx = 0;  ///< at the corners that it passes over
  double sidePx = 0;       ///< the longest side of the sharp ones among them
};

class Merging {
 public:
  explicit Merging(Path path) : path_(std::move(path)), count_(path_.segments.size()) {
    for (std::size_t i = 0; i < count_; ++i) {
      const Piece piece = pieceOf(path_, i);
      const Piece before = pieceOf(path_, (i + count_ - 1) % count_);
      const double turn = angleBetween(tangentAt(before, 1), tangentAt(piece, 0));
      corner_.push_back(std::abs(turn) > kCornerDegrees * std::numbers::pi / 180);
      const bool sharp = std::abs(turn) > kSharpDegrees * std::numbers::pi / 180;
      side_.push_back(sharp ? std::max(lengthOf(before), lengthOf(piece)) : 0);
      for (std::size_t k = 0; k < kPlacesOfSegment; ++k)
        places_.push_back(pointAt(piece, static_cast<double>(k) / static_cast<double>(kPlacesOfSegment)));
    }
    places_.push_back(path_.segments.back().end);
  }

  Path within(double px) const {
    std::vector<double> least(count_ + 1, std::numeric_limits<double>::infinity());
    std::vector<std::size_t> from(count_ + 1, 0);
    std::vector<std::optional<Segment>> how(count_ + 1);
    least[0] = 0;
    for (std::size_t i = 0; i < count_; ++i) {
      take(i, i + 1, path_.segments[i], least, from, how);
      for (std::size_t j = i + 2; j <= std::min(count_, i + kLongestRun); ++j) {
        const auto merged = mergedRun(i, j);
        if (!merged || merged->offPx > kFarTimes * px) break;
        const bool keepsCorners = merged->cornerOffPx <= px / 2 && merged->sidePx <= px;
        if (merged->offPx <= px && keepsCorners) take(i, j, merged->segment, least, from, how);
      }
    }
    Path fewer{path_.start, {}, path_.closed};
    for (std::size_t at = count_; at > 0; at = from[at]) fewer.segments.push_back(*how[at]);
    std::reverse(fewer.segments.begin(), fewer.segments.end());
    return fewer;
  }

 private:
  static void take(std::size_t i, std::size_t j, const Segment& segment, std::vector<double>& least,
                   std::vector<std::size_t>& from, std::vector<std::optional<Segment>>& how) {
    const double cost = least[i] + (segment.kind == SegmentKind::Line ? 1 : kPriceOfCubic);
    if (cost >= least[j]) return;
    least[j] = cost;
    from[j] = i;
    how[j] = segment;
  }

  Point nodeAt(std::size_t i) const { return places_[i * kPlacesOfSegment]; }
  bool isCorner(std::size_t i) const { return corner_[i % count_]; }

  /// Segments i up to, not including, j as one. Nothing when they come back to where they began.
  std::optional<Merged> mergedRun(std::size_t i, std::size_t j) const {
    const Point start = nodeAt(i);
    const Point end = nodeAt(j);
    constexpr double kShortestPx = 1e-6;
    if (distance(start, end) < kShortestPx) return std::nullopt;
    const Segment line = Segment::line(end);
    const std::vector<Point> run = placesOf(i, j);
    Merged best{line, 0, 0, longestSide(i, j)};
    judge(i, j, run, best);
    if (best.offPx < kStraightPx) return best;
    const Piece first = pieceOf(path_, i);
    const Piece last = pieceOf(path_, j - 1);
    fit::CurveEnds ends{start, tangentAt(first, 0), end, tangentAt(last, 1)};
    const std::span<const Point> between(run.data() + 1, run.size() - 2);
    if (const auto fit = fit::fitCubic(ends, between)) {
      Merged curve{Segment::cubic(fit->cubic.p1, fit->cubic.p2, end), 0, 0, best.sidePx};
      judge(i, j, run, curve);
      if (curve.offPx < best.offPx) best = curve;
    }
    return best;
  }

  static constexpr double kStraightPx = 0.05;

  /// The longest side of the sharp corners between two nodes.
  double longestSide(std::size_t i, std::size_t j) const {
    double longest = 0;
    for (std::size_t k = i + 1; k < j; ++k) longest = std::max(longest, side_[k % count_]);
    return longest;
  }

  /// How far the run's places lie from the segment, and places along the segment from the run.
  void judge(std::size_t i, std::size_t j, std::span<const Point> run, Merged& merged) const {
    const std::vector<Point> along = placesAlong({nodeAt(i), merged.segment}, run.size());
    const std::size_t placesOfSegment = (run.size() - 1) / (j - i);
    for (std::size_t k = 1; k + 1 < run.size(); ++k) {
      const double off = distanceToChords(run[k], along);
      merged.offPx = std::max(merged.offPx, off);
      if (k % placesOfSegment == 0 && isCorner(i + k / placesOfSegment))
        merged.cornerOffPx = std::max(merged.cornerOffPx, off);
    }
    if (merged.segment.kind == SegmentKind::Line) return;
    for (std::size_t k = 1; k + 1 < along.size(); ++k)
      merged.offPx = std::max(merged.offPx, distanceToChords(along[k], run));
  }

  /// Places along a run, its nodes among them; of a long one not all.
  std::vector<Point> placesOf(std::size_t i, std::size_t j) const {
    constexpr std::size_t kEnough = 40;
    std::size_t step = 1;
    while (step < kPlacesOfSegment && (j - i) * kPlacesOfSegment / step > kEnough) step *= 2;
    std::vector<Point> places;
    for (std::size_t k = i * kPlacesOfSegment; k <= j * kPlacesOfSegment; k += step) places.push_back(places_[k]);
    return places;
  }

  /// Places along a segment, its ends among them: chords between them leave it by hardly anything.
  static std::vector<Point> placesAlong(const Piece& piece, std::size_t count) {
    if (piece.segment.kind == SegmentKind::Line) return {piece.start, piece.segment.end};
    constexpr std::size_t kMost = 32;
    const std::size_t chords = std::min(kMost, std::max<std::size_t>(16, count));
    std::vector<Point> places;
    for (std::size_t k = 0; k <= chords; ++k)
      places.push_back(pointAt(piece, static_cast<double>(k) / static_cast<double>(chords)));
    return places;
  }

  static double distanceToChords(Point p, std::span<const Point> places) {
    double least = std::numeric_limits<double>::infinity();
    for (std::size_t k = 0; k + 1 < places.size(); ++k)
      least = std::min(least, distanceToSegment(p, places[k], places[k + 1]));
    return least;
  }

  Path path_;
  std::size_t count_;
  std::vector<double> side_;   ///< the longer one of the node that each segment begins with, where that is sharp
  std::vector<bool> corner_;   ///< of the node that each segment begins with
  std::vector<Point> places_;  ///< along all of it, its nodes among them
};

/// Begun at its sharpest node, which stays.
Path begunAtCorner(Path path) {
  const std::size_t n = path.segments.size();
  std::size_t sharpest = 0;
  double most = -1;
  for (std::size_t i = 0; i < n; ++i) {
    const double turn =
        std::abs(angleBetween(tangentAt(pieceOf(path, (i + n - 1) % n), 1), tangentAt(pieceOf(path, i), 0)));
    if (turn <= most) continue;
    most = turn;
    sharpest = i;
  }
  return begunAt(std::move(path), sharpest);
}

bool isRound(const Path& path) {
  return std::all_of(path.segments.begin(), path.segments.end(), [](const Segment& s) { return isArc(s); }) &&
         path.segments.size() <= 2;
}

}  // namespace

Path inFewerPieces(const Path& outline, double withinPx) {
  const std::size_t fewest = outline.closed ? 4 : 2;
  if (outline.segments.size() < fewest || isRound(outline)) return outline;
  Path fewer = Merging(outline.closed ? begunAtCorner(outline) : outline).within(withinPx);
  const std::size_t least = outline.closed ? 2 : 1;
  return fewer.segments.size() >= least && fewer.segments.size() < outline.segments.size() ? fewer : outline;
}

Path inFewerPiecesOnTry(const Path& fitted, double withinPx, int attempt) {
  constexpr double kNearer = 0.4;
  return attempt < kFewerPiecesTries ? inFewerPieces(fitted, withinPx * std::pow(kNearer, attempt)) : fitted;
}

}  // namespace rim::trace::outline
