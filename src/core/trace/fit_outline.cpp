#include "core/trace/fit_outline.h"

#include <numbers>

#include "core/geometry/arc.h"
#include "core/trace/curve_fit.h"
#include "core/trace/join.h"

namespace rim {
namespace {

constexpr std::size_t kCircleSamples = 240;
constexpr std::size_t kCurveSamples = 48;
constexpr std::size_t kMostPiecesPerCurve = 12;
// A straight piece shorter than this may become a part of the curve it lies in.
constexpr double kShortLinePx = 5;
// An arc whose ends turn off the shared tangents by less than this stays an arc.
constexpr double kSameTangentDegrees = 1.0;

/// What a sharpened border of a clean picture is off by, where it is round.
constexpr double kBorderErrorPx = 0.03;
/// What the pieces may use of the tolerance; joints, and curves turned into arcs, need the rest.
constexpr double kShareOfTolerance = 0.25;
/// Of some dozen samples with normal noise the farthest is off by about three standard deviations.
constexpr double kFarthestInNoise = 3.2;
/// Noise does not widen the limit beyond this many tolerances.
constexpr double kMostTolerances = 3;

/// The standard deviation of the border's points across it, in px, from what no smooth curve does:
/// third differences, by their median so that corners do not count. Differences of white noise
/// with the weights 1/2, -3/2, 3/2, -1/2 have five times its variance.
double noiseOf(const Border& border) {
  const std::size_t n = border.size();
  std::vector<double> off(n);
  for (std::size_t i = 0; i < n; ++i) {
    const Point along = unit(border[(i + 2) % n] - border[(i + n - 1) % n]);
    const Point third = (border[(i + n - 1) % n] - border[(i + 2) % n]) * 0.5 + (border[(i + 1) % n] - border[i]) * 1.5;
    off[i] = std::abs(cross(along, third));
  }
  const auto middle = off.begin() + static_cast<std::ptrdiff_t>(n / 2);
  std::nth_element(off.begin(), middle, off.end());
  constexpr double kMedianToDeviation = 1.4826;
  return kMedianToDeviation * *middle / std::sqrt(5.0);
}

std::optional<Path> asCircle(const Border& border, double limitPx) {
  Border points;
  const std::size_t count = std::min(border.size(), kCircleSamples);
  for (std::size_t i = 0; i < count; ++i) points.push_back(border[i * border.size() / count]);
  points.push_back(points.front());
  const auto circle = fitCircle(points);
  if (!circle || deviationOf(*circle, points).largest > limitPx) return std::nullopt;
  const Point right{std::abs(circle->radius), 0};
  const double bulge = circle->radius < 0 ? -1 : 1;
  return Path{circle->place + right,
              {Segment::arc(circle->place - right, bulge), Segment::arc(circle->place + right, bulge)},
              true};
}

/// Builds the segments of one closed border from its pieces and nodes.
class Assembler {
 public:
  Assembler(const Track& track, const Chain& chain, double limitPx, double trimPx)
      : track_(track), chain_(chain), limitPx_(limitPx), trimPx_(trimPx) {}

  Path path() {
    const std::size_t n = chain_.pieces.size();
    Path path{chain_.nodes[0].place, {}, true};
    for (std::size_t k = 0; k < n;) {
      std::size_t count = 1;
      path.segments.push_back(single(k));
      if (!isLongLine(k)) {
        while (k + count < n && count < kMostPiecesPerCurve) {
          const auto curve = joined(k, count + 1);
          if (!curve) break;
          path.segments.back() = *curve;
          ++count;
        }
      }
      k += count;
    }
    return path;
  }

 private:
  const Piece& piece(std::size_t k) const { return chain_.pieces[k]; }
  const Node& nodeAt(std::size_t k) const { return chain_.nodes[k % chain_.nodes.size()]; }
  static bool isLine(const Piece& p) { return p.primitive.kind == Primitive::Kind::Line; }

  bool isLongLine(std::size_t k) const {
    return isLine(piece(k)) && track_.way(piece(k).to) - track_.way(piece(k).from) > kShortLinePx;
  }

  Point tangentOf(const Node& node, const Piece& at) const {
    return node.corner ? tangentAt(at.primitive, node.place) : node.tangent;
  }

  /// The segment for piece k alone.
  Segment single(std::size_t k) {
    const Node& from = nodeAt(k);
    const Node& to = nodeAt(k + 1);
    if (isLine(piece(k))) return Segment::line(to.place);
    const Segment arc = arcOf(piece(k).primitive, from.place, to.place);
    const auto off = [](Point a, Point b) { return std::abs(angleBetween(a, b)) * 180 / std::numbers::pi; };
    const bool fitsStart = from.corner || off(startTangent(from.place, arc), from.tangent) < kSameTangentDegrees;
    const bool fitsEnd = to.corner || off(endTangent(from.place, arc), to.tangent) < kSameTangentDegrees;
    if (fitsStart && fitsEnd) return arc;
    const CurveFit fit = curveOver(k, 1);
    return fit.largest <= limitPx_ ? Segment::cubic(fit.cubic.p1, fit.cubic.p2, to.place) : arc;
  }

  /// One cubic over `count` pieces from k on, if they are smooth and it follows them.
  std::optional<Segment> joined(std::size_t k, std::size_t count) {
    if (nodeAt(k + count - 1).corner || isLongLine(k + count - 1)) return std::nullopt;
    const CurveFit fit = curveOver(k, count);
    if (fit.largest > limitPx_) return std::nullopt;
    return Segment::cubic(fit.cubic.p1, fit.cubic.p2, fit.cubic.p3);
  }

  CurveFit curveOver(std::size_t k, std::size_t count) {
    const Node& from = nodeAt(k);
    const Node& to = nodeAt(k + count);
    track_.sample(piece(k).from, piece(k + count - 1).to, trimPx_, kCurveSamples, points_);
    return fitCubic(from.place, tangentOf(from, piece(k)), to.place, tangentOf(to, piece(k + count - 1)), points_);
  }

  static Segment arcOf(const Primitive& circle, Point from, Point to) {
    const Point a = from - circle.place;
    const Point b = to - circle.place;
    double sweep = angleBetween(a, b);
    if (circle.radius > 0 && sweep < 0) sweep += 2 * std::numbers::pi;
    if (circle.radius < 0 && sweep > 0) sweep -= 2 * std::numbers::pi;
    return Segment::arc(to, bulgeFromSweep(sweep));
  }

  const Track& track_;
  const Chain& chain_;
  double limitPx_;
  double trimPx_;
  std::vector<Point> points_;
};

bool usable(const Path& path) {
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Segment& s = path.segments[i];
    if (distance(segmentStart(path, i), s.end) < 1e-6) return false;
    if (!std::isfinite(s.end.x + s.end.y + s.bulge + s.handle1.x + s.handle1.y + s.handle2.x + s.handle2.y))
      return false;
  }
  return path.segments.size() > 1;
}

}  // namespace

Path borderAsPath(const Border& border) {
  Path path{border.front(), {}, true};
  for (std::size_t i = 1; i < border.size(); ++i) path.segments.push_back(Segment::line(border[i]));
  path.segments.push_back(Segment::line(border.front()));
  return path;
}

Path fitOutline(const Border& border, const FitSettings& settings, std::stop_token stop) {
  const double noise = noiseOf(border);
  const double limitPx = std::clamp(kFarthestInNoise * noise, settings.tolerancePx * kShareOfTolerance,
                                    settings.tolerancePx * kMostTolerances);
  if (auto circle = asCircle(border, limitPx)) return *circle;
  const SplitLimits split{limitPx, std::max(kBorderErrorPx, noise), settings.roundingPx};
  const JoinLimits join{cornerDegreesFor(settings.cornerReadiness), settings.roundingPx};
  std::size_t start = sharpestPoint(border, 4);
  // A second round from a break that the first one found: a smooth border has no better place.
  for (int round = 0;; ++round) {
    const Track track(border, start);
    const Chain chain = joinPieces(track, splitTrack(track, split, stop), join);
    const std::size_t n = chain.pieces.size();
    if (round == 0 && n > 2 && !chain.nodes[0].corner) {
      std::size_t other = 1;
      for (std::size_t k = 1; k < n && !chain.nodes[other].corner; ++k) other = chain.nodes[k].corner ? k : other;
      start = (start + chain.pieces[other].from) % border.size();
      continue;
    }
    const Path path = n > 1 ? Assembler(track, chain, limitPx, split.trimPx).path() : Path{};
    return usable(path) ? path : borderAsPath(border);
  }
}

}  // namespace rim
