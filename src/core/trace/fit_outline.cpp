#include "core/trace/fit_outline.h"

#include "core/trace/assemble.h"
#include "core/trace/moments.h"
#include "core/trace/noise.h"

namespace rim {
namespace {

/// What a sharpened border of a clean picture is off by.
constexpr double kBorderErrorPx = 0.012;
/// The share of the tolerance that counts as noise: 95 of 100 places then lie within the tolerance
/// several times over, and the farthest within it.
constexpr double kShareOfTolerance = 0.05;

std::optional<Path> asCircle(const Border& border, double deviationPx) {
  const auto circle = circleFrom(momentsOf(border));
  if (!circle || circle->meanSquare > 2.5 * deviationPx * deviationPx) return std::nullopt;
  for (const Point p : border) {
    if (std::abs(distance(p, circle->centre) - circle->radius) > 6 * deviationPx) return std::nullopt;
  }
  const Point right{circle->radius, 0};
  const double bulge = borderArea(border) < 0 ? -1 : 1;
  return Path{circle->centre + right,
              {Segment::arc(circle->centre - right, bulge), Segment::arc(circle->centre + right, bulge)},
              true};
}

bool usable(const Path& path) {
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Segment& s = path.segments[i];
    if (distance(segmentStart(path, i), s.end) < 1e-6) return false;
    if (!std::isfinite(s.end.x + s.end.y + s.bulge + s.handle1.x + s.handle1.y + s.handle2.x + s.handle2.y))
      return false;
  }
  return path.segments.size() > 1;
}

/// A place to start at again: a corner that a first round found, else the middle of its longest
/// piece's neighbourhood of breaks, any break but the arbitrary first one.
std::optional<std::size_t> betterStart(const Chain& chain) {
  if (chain.nodes[0].corner || chain.pieces.size() < 3) return std::nullopt;
  for (std::size_t k = 1; k < chain.pieces.size(); ++k) {
    if (chain.nodes[k].corner) return (chain.pieces[k - 1].to + chain.pieces[k].from) / 2;
  }
  return chain.pieces[1].from;
}

/// Lines, arcs and cubics with corners and smooth nodes; nothing when they come to no usable path.
std::optional<Path> fitPieces(const Border& border, const FitSettings& settings, const SplitLimits& split,
                              const std::stop_token& stop) {
  const JoinLimits join{cornerDegreesFor(settings.cornerReadiness), settings.roundingPx, settings.blunt};
  std::size_t start = sharpestPoint(border, 4);
  for (int round = 0;; ++round) {
    const Track track(border, start);
    std::vector<Piece> pieces = splitTrack(track, split, stop);
    if (pieces.size() < 2) return std::nullopt;
    const Chain chain = joinPieces(track, std::move(pieces), join, split);
    // The first start may lie anywhere on a smooth border; a second round starts at a break.
    const auto better = round == 0 ? betterStart(chain) : std::nullopt;
    if (better) {
      start = (start + *better) % border.size();
      continue;
    }
    Path path = assemble(track, chain, split, {settings.measured, settings.measuredReachPx});
    if (!usable(path)) return std::nullopt;
    return path;
  }
}

}  // namespace

Path borderAsPath(const Border& border) {
  Path path{border.front(), {}, true};
  for (std::size_t i = 1; i < border.size(); ++i) path.segments.push_back(Segment::line(border[i]));
  path.segments.push_back(Segment::line(border.front()));
  return path;
}

Path fitOutline(const Border& border, const FitSettings& settings, std::stop_token stop) {
  const double noise = std::min(noiseOf(border), settings.tolerancePx);
  const double deviation = std::hypot(std::max(noise, kBorderErrorPx), settings.tolerancePx * kShareOfTolerance);
  if (settings.measured.empty()) {
    if (auto circle = asCircle(border, deviation)) return *circle;
  }
  // Parts of a few pixels have nothing left when their ends are trimmed as usual.
  for (const double trimPx : {settings.roundingPx, settings.roundingPx / 3}) {
    if (auto path = fitPieces(border, settings, {deviation, trimPx}, stop)) return *path;
  }
  return borderAsPath(border);
}

}  // namespace rim
