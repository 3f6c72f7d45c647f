#include "core/trace/outline/fit_outline.h"

#include <numbers>

#include "core/geometry/circle.h"
#include "core/trace/contour/noise.h"
#include "core/trace/fit/ellipse.h"
#include "core/trace/fit/moments.h"
#include "core/trace/outline/assemble.h"
#include "core/trace/outline/without_backsteps.h"
#include "core/trace/split/breakpoint_candidates.h"
#include "core/trace/split/cut_open.h"

namespace rim::trace::outline {
namespace {

/// What a sharpened border of a clean picture is off by.
constexpr double kBorderErrorPx = 0.012;
/// The share of the tolerance that counts as noise: 95 of 100 places then lie within the tolerance
/// several times over, and the farthest within it.
constexpr double kShareOfTolerance = 0.04;
/// Curves keep turns of more than this share of the angle that makes a corner of lines and arcs.
constexpr double kKinkShare = 0.3;
/// More than this share of the tolerance is never taken for noise; where a picture without greys was noisy before it
/// lost them, whole pixels are.
constexpr double kMostNoiseShare = 0.3;
constexpr double kMostJaggedNoiseShare = 1;
/// What a border without its jags is off by, measured on figures (benchmarks/accuracy); but no more than this share of
/// the tolerance: who sets a small one wants it followed closely.
constexpr double kWithoutJagsPx = 0.16;
constexpr double kMostJagsShare = 0.5;
/// One point may be off a circle by this share of the tolerance.
constexpr double kShareForOnePoint = 0.5;
/// What a circle leaves over of all points may be this many times what it leaves over of a few in a row.
constexpr double kOwnNoise = 1.5;
/// An ellipse through a few points comes so near to the one through all.
constexpr double kRoughlyPx = 1;

/// Every so many-th point only, about `count` of them.
contour::Border thinned(const contour::Border& border, std::size_t count) {
  contour::Border some;
  const std::size_t step = std::max<std::size_t>(1, border.size() / count);
  for (std::size_t i = 0; i < border.size(); i += step) some.push_back(border[i]);
  return some;
}

/// The circle whose distances from the points have at most this deviation, none of them more than `farthestPx`.
std::optional<Path> asCircle(const contour::Border& border, double deviationPx, double farthestPx) {
  const auto circle = fit::circleFrom(fit::momentsOf(border));
  if (!circle || circle->meanSquare > deviationPx * deviationPx) return std::nullopt;
  for (const Point p : border) {
    if (std::abs(distance(p, circle->centre) - circle->radius) > farthestPx) return std::nullopt;
  }
  return circlePathOf(circle->centre, circle->radius, contour::borderArea(border) < 0 ? -1 : 1);
}

/// Axes so near to level or upright become so.
fit::Ellipse levelled(fit::Ellipse ellipse) {
  const double angle = std::atan2(ellipse.axis.y, ellipse.axis.x);
  if (std::abs(std::remainder(angle, std::numbers::pi / 2)) < kMostTurnRadians)
    ellipse.axis = {std::round(ellipse.axis.x), std::round(ellipse.axis.y)};
  return ellipse;
}

bool follows(const fit::Ellipse& ellipse, const contour::Border& border, double deviationPx) {
  double sum = 0;
  for (const Point p : border) {
    const double off = fit::distanceFrom(ellipse, p);
    if (std::abs(off) > 6 * deviationPx) return false;
    sum += off * off;
  }
  return sum <= 2.5 * deviationPx * deviationPx * static_cast<double>(border.size());
}

bool within(const fit::Ellipse& ellipse, const contour::Border& border, double px) {
  return std::all_of(border.begin(), border.end(),
                     [&](Point p) { return std::abs(fit::distanceFrom(ellipse, p)) <= px; });
}

std::optional<Path> asEllipse(const contour::Border& border, double deviationPx, const FitSettings& settings) {
  constexpr std::size_t kLeastPoints = 16;
  constexpr double kSmallestPx = 2.5;
  constexpr double kMostUnlike = 0.15;
  if (border.size() < kLeastPoints) return std::nullopt;
  // Most outlines are none: a few points show it.
  const contour::Border some = thinned(border, kLeastPoints);
  if (std::abs(fit::likenessToEllipse(some) - 1) > kMostUnlike) return std::nullopt;
  const auto rough = fit::fitEllipse(some);
  if (!rough || std::min(rough->along, rough->across) < kSmallestPx) return std::nullopt;
  for (std::size_t i = 0; i < border.size(); i += 1 + border.size() / 64) {
    if (std::abs(fit::distanceFrom(*rough, border[i])) > kRoughlyPx + 6 * deviationPx) return std::nullopt;
  }
  const auto ellipse = fit::fitEllipse(border);
  if (!ellipse || !follows(*ellipse, border, deviationPx)) return std::nullopt;
  const fit::Ellipse level = settings.rules.level ? levelled(*ellipse) : *ellipse;
  constexpr double kShareForCubics = 0.2;
  constexpr double kShareForRules = 0.6;
  return fit::pathOf(within(level, border, kShareForRules * settings.tolerancePx) ? level : *ellipse,
                     contour::borderArea(border) < 0 ? -1 : 1, kShareForCubics * settings.tolerancePx);
}

/// What is taken for noise: what the border shows of it, within reason, and a share of the tolerance.
double deviationOf(const contour::Border& border, const FitSettings& settings) {
  const double share = settings.jagged ? kMostJaggedNoiseShare : kMostNoiseShare;
  const double noise = std::min(
      {std::max(contour::noiseOf(border), settings.leastNoisePx), settings.tolerancePx * share, settings.mostNoisePx});
  const double jags = settings.jagged ? std::min(kWithoutJagsPx, settings.tolerancePx * kMostJagsShare) : 0;
  return std::hypot(std::max({noise, jags, kBorderErrorPx}), settings.tolerancePx * kShareOfTolerance);
}

/// No segment without a length, none that is nowhere.
bool isFinite(const Path& path) {
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Segment& s = path.segments[i];
    if (distance(segmentStart(path, i), s.end) < 1e-6) return false;
    if (!std::isfinite(s.end.x + s.end.y + s.bulge + s.handle1.x + s.handle1.y + s.handle2.x + s.handle2.y))
      return false;
  }
  return !path.segments.empty();
}

bool usable(const Path& path) { return isFinite(path) && path.segments.size() > 1; }

/// The piece, from 1, that the outline is best begun with: one where it turns most, so that no smooth
/// stretch is cut in two. When the longest piece, whose parts are the first and the last, is a line, the
/// one after it will do.
std::size_t bestBeginning(const split::Track& track, const std::vector<split::TrackPiece>& pieces) {
  if (pieces.front().primitive.kind == fit::Primitive::Kind::Line) return 1;
  std::size_t best = 1;
  double sharpest = 0;
  for (std::size_t k = 1; k + 1 < pieces.size(); ++k) {
    const Point at = track.point(pieces[k].from);
    const double turn =
        std::abs(angleBetween(fit::tangentAt(pieces[k - 1].primitive, at), fit::tangentAt(pieces[k].primitive, at)));
    if (turn <= sharpest) continue;
    sharpest = turn;
    best = k;
  }
  return best;
}

/// The pieces on a track that starts where piece `first` starts: piece 0 and the last one, the two parts
/// of one, become one again. Needs three pieces or more.
std::vector<split::TrackPiece> joinedAtEnds(const split::Track& track, const std::vector<split::TrackPiece>& pieces,
                                            std::size_t first, const split::Track& turned,
                                            const split::SplitLimits& split) {
  const std::size_t shift = pieces[first].from;
  const std::size_t round = track.last() - shift;
  std::vector<split::TrackPiece> joined;
  for (std::size_t k = first; k + 1 < pieces.size(); ++k)
    joined.push_back({pieces[k].from - shift, pieces[k].to - shift, pieces[k].primitive});
  const std::size_t from = pieces.back().from - shift;
  const std::size_t to = round + pieces.front().to;
  joined.push_back({from, to, split::fitRange(turned, from, to, split)});
  for (std::size_t k = 1; k < first; ++k)
    joined.push_back({round + pieces[k].from, round + pieces[k].to, pieces[k].primitive});
  return joined;
}

/// Lines, arcs and cubics with corners and smooth nodes; nothing when they come to no usable path.
std::optional<Path> fitPieces(const contour::Border& border, const FitSettings& settings,
                              const split::SplitLimits& split, const std::stop_token& stop) {
  const JoinLimits join{cornerDegreesFor(settings.cornerReadiness), settings.roundingPx, split.deviationPx,
                        settings.blunt};
  const split::Opened opened = split::openedWithinPiece(border, split, stop);
  const split::Track& track = opened.track;
  std::vector<split::TrackPiece> pieces = settlePieces(track, opened.pieces, join, split);
  if (pieces.size() < 3) return std::nullopt;
  const std::size_t first = bestBeginning(track, pieces);
  const split::Track turned(border, opened.start + pieces[first].from);
  pieces = joinedAtEnds(track, pieces, first, turned, split);
  if (pieces.size() < 2) return std::nullopt;
  pieces = madeRegular(turned, std::move(pieces), settings.rules, settings.tolerancePx);
  Path path = withoutBacksteps(assemble(turned, joinPieces(turned, std::move(pieces), join), split,
                                        {settings.measured, settings.measuredReachPx, settings.measuredTolerancePx},
                                        kKinkShare * join.cornerDegrees));
  if (!usable(path)) return std::nullopt;
  return path;
}

}  // namespace

Path fitOpenBorder(const std::vector<Point>& points, const FitSettings& settings, std::stop_token stop) {
  const auto straight = [&points] { return Path{points.front(), {Segment::line(points.back())}, false}; };
  constexpr std::size_t kLeastPoints = 5;
  if (points.size() < kLeastPoints) return straight();
  const double deviation = deviationOf(points, settings);
  const JoinLimits join{cornerDegreesFor(settings.cornerReadiness), settings.roundingPx, deviation, {}};
  const split::Track track = split::Track::open(points);
  for (const double trimPx : {settings.roundingPx, settings.roundingPx / 3}) {
    const split::SplitLimits split{deviation, trimPx};
    const std::vector<std::size_t> likely = split::breakpointCandidates(track, split);
    std::vector<split::TrackPiece> pieces =
        settlePieces(track, split::splitAmong(track, likely, split, stop), join, split);
    if (pieces.empty()) continue;
    pieces.front().from = 0;
    pieces.back().to = track.last();
    pieces = madeRegular(track, std::move(pieces), settings.rules, settings.tolerancePx);
    Path path = assemble(track, joinPieces(track, std::move(pieces), join), split, {}, kKinkShare * join.cornerDegrees);
    if (isFinite(path)) return path;
  }
  Path path = straight();
  path.segments.clear();
  for (std::size_t i = 1; i < points.size(); ++i) path.segments.push_back(Segment::line(points[i]));
  return path;
}

Path fitOutline(const contour::Border& border, const FitSettings& settings, std::stop_token stop) {
  const double deviation = deviationOf(border, settings);
  if (settings.measured.empty()) {
    // A single point may be off by more than noise: where other borders end on a circle, say.
    const double farthest = std::max(6 * deviation, kShareForOnePoint * settings.tolerancePx);
    if (auto circle = asCircle(border, std::sqrt(2.5) * deviation, farthest)) return *circle;
    if (auto ellipse = asEllipse(border, deviation, settings)) return *ellipse;
  }
  // Parts of a few pixels have nothing left when their ends are trimmed as usual.
  for (const double trimPx : {settings.roundingPx, settings.roundingPx / 3}) {
    if (auto path = fitPieces(border, settings, {deviation, trimPx, settings.gapPx}, stop)) return *path;
  }
  if (settings.measured.empty()) {
    // Noise of a poor picture, beyond what is taken for it elsewhere, is no reason to keep every point.
    const double noise = std::max(settings.tolerancePx / 2, kOwnNoise * contour::noiseOf(border));
    if (auto circle = asCircle(border, noise, std::max(settings.tolerancePx, 6 * noise))) return *circle;
  }
  return polygonThrough(border);
}

}  // namespace rim::trace::outline
