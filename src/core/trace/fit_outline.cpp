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
constexpr double kShareOfTolerance = 0.04;
/// Curves keep turns of more than this share of the angle that makes a corner of lines and arcs.
constexpr double kKinkShare = 0.3;
/// More than this share of the tolerance is never taken for noise.
constexpr double kMostNoiseShare = 0.4;

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

/// The middle of the longest piece, an index into the track: a break there is no real one, but all
/// real breaks have their surroundings on one side of the track's ends.
std::size_t middleOfLongest(const Track& track, const std::vector<Piece>& pieces) {
  const auto way = [&track](const Piece& p) { return track.way(p.to) - track.way(p.from); };
  const auto longest = std::max_element(pieces.begin(), pieces.end(),
                                        [&way](const Piece& a, const Piece& b) { return way(a) < way(b); });
  return track.indexAt(track.way(longest->from) + way(*longest) / 2);
}

/// The piece, from 1, that the outline is best begun with: one where it turns most, so that no smooth
/// stretch is cut in two. When the longest piece, whose parts are the first and the last, is a line, the
/// one after it will do.
std::size_t bestBeginning(const Track& track, const std::vector<Piece>& pieces) {
  if (pieces.front().primitive.kind == Primitive::Kind::Line) return 1;
  std::size_t best = 1;
  double sharpest = 0;
  for (std::size_t k = 1; k + 1 < pieces.size(); ++k) {
    const Point at = track.point(pieces[k].from);
    const double turn =
        std::abs(angleBetween(tangentAt(pieces[k - 1].primitive, at), tangentAt(pieces[k].primitive, at)));
    if (turn <= sharpest) continue;
    sharpest = turn;
    best = k;
  }
  return best;
}

/// The pieces on a track that starts where piece `first` starts: piece 0 and the last one, the two parts
/// of one, become one again. Needs three pieces or more.
std::vector<Piece> joinedAtEnds(const Track& track, const std::vector<Piece>& pieces, std::size_t first,
                                const Track& turned, const SplitLimits& split) {
  const std::size_t shift = pieces[first].from;
  const std::size_t round = track.last() - shift;
  std::vector<Piece> joined;
  for (std::size_t k = first; k + 1 < pieces.size(); ++k)
    joined.push_back({pieces[k].from - shift, pieces[k].to - shift, pieces[k].primitive});
  const std::size_t from = pieces.back().from - shift;
  const std::size_t to = round + pieces.front().to;
  joined.push_back({from, to, fitRange(turned, from, to, split)});
  for (std::size_t k = 1; k < first; ++k)
    joined.push_back({round + pieces[k].from, round + pieces[k].to, pieces[k].primitive});
  return joined;
}

/// Lines, arcs and cubics with corners and smooth nodes; nothing when they come to no usable path.
std::optional<Path> fitPieces(const Border& border, const FitSettings& settings, const SplitLimits& split,
                              const std::stop_token& stop) {
  const JoinLimits join{cornerDegreesFor(settings.cornerReadiness), settings.roundingPx, settings.blunt};
  const std::size_t anywhere = sharpestPoint(border, 4);
  const Track rough(border, anywhere);
  const std::vector<Piece> roughPieces = splitRoughly(rough, split, stop);
  if (roughPieces.size() < 2) return std::nullopt;
  const std::size_t start = (anywhere + middleOfLongest(rough, roughPieces)) % border.size();
  const Track track(border, start);
  std::vector<Piece> pieces = settlePieces(track, splitTrack(track, split, stop), join, split);
  if (pieces.size() < 3) return std::nullopt;
  const std::size_t first = bestBeginning(track, pieces);
  const Track turned(border, start + pieces[first].from);
  pieces = joinedAtEnds(track, pieces, first, turned, split);
  if (pieces.size() < 2) return std::nullopt;
  pieces = madeRegular(turned, std::move(pieces), settings.rules, settings.tolerancePx);
  Path path = assemble(turned, joinPieces(turned, std::move(pieces), join), split,
                       {settings.measured, settings.measuredReachPx}, kKinkShare * join.cornerDegrees);
  if (!usable(path)) return std::nullopt;
  return path;
}

}  // namespace

Path borderAsPath(const Border& border) {
  Path path{border.front(), {}, true};
  for (std::size_t i = 1; i < border.size(); ++i) path.segments.push_back(Segment::line(border[i]));
  path.segments.push_back(Segment::line(border.front()));
  return path;
}

Path fitOutline(const Border& border, const FitSettings& settings, std::stop_token stop) {
  const double noise = std::min(noiseOf(border), settings.tolerancePx * kMostNoiseShare);
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
