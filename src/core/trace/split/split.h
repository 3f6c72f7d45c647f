#pragma once

#include <limits>
#include <span>
#include <stop_token>
#include <vector>

#include "core/trace/fit/moments.h"
#include "core/trace/fit/primitive.h"
#include "core/trace/split/track.h"

namespace rim::trace::split {

/// A range of the track and the line or circle that follows it. Where a corner's rounded-off tip
/// lies between two pieces, the next one's `from` comes after this one's `to`.
struct TrackPiece {
  std::size_t from = 0;  ///< index into the track
  std::size_t to = 0;    ///< index into the track
  fit::Primitive primitive;
};

/// The arc length from a piece's start to its end, px.
inline double arcLengthOf(const Track& track, const TrackPiece& piece) {
  return track.arcLength(piece.to) - track.arcLength(piece.from);
}

struct SplitLimits {
  double deviationPx = 0.05;  ///< standard deviation that is taken for noise; weighs error against pieces
  double trimPx = 1.2;        ///< left out at both ends of a piece: pixels round a corner off
  double gapPx = 7;           ///< the longest stretch between two pieces that neither must follow
};

/// What a piece costs beside its misfit, in units of squared deviation: the regularisation that keeps pieces few. As in
/// a description length (J. Rissanen, "Modeling by shortest data description", Automatica 14 (1978), 465-471), but
/// dearer: neighbouring points of a border are not independent.
inline constexpr double kPriceOfLine = 12;
inline constexpr double kPriceOfArc = 19;
/// So many neighbouring points say no more than one that is independent.
inline constexpr double kPointsPerEffectiveOne = 2;

/// What each of so many points of a border adds to their effective sample size, the number of independent points that
/// would say as much: neighbours are not independent, and over long stretches an error that changes slowly (a lens,
/// blocks of a JPEG, uneven light) outweighs noise, so that of a stretch does not grow without bound.
double effectiveSharePerPoint(double points);
inline double effectiveSampleSize(double points) { return points * effectiveSharePerPoint(points); }

/// What points cost that a line or circle follows, beside its price: their squared distances (px) in units of
/// `deviationPx` squared, for the effective sample size. Needs a point.
double misfitPrice(std::span<const Point> points, const fit::Primitive& primitive, double deviationPx);

/// The track as lines and arcs with the least sum of misfit and prices over all ways of splitting
/// it: dynamic programming over the places of breaks, each range fitted by least squares.
///
/// Points within `trimPx` of a break, or in a gap, cost a fixed price each instead of their misfit.
/// Cost: each point is tried as a start and reaches until neither line nor arc follows any more, in constant time a
/// point. For short tracks; splitAmong() is for long ones.
/// Throws Cancelled when `stop` is requested.
std::vector<TrackPiece> splitTrack(const Track& track, const SplitLimits& limits, std::stop_token stop);

/// The same, but pieces meet at or near the breakpoint candidates only (trace/split/breakpoint_candidates.h; indexes in
/// rising order): at them and 1, 2, 4, 8 and so on points off, up to half of the way to the next.
std::vector<TrackPiece> splitAmong(const Track& track, std::span<const std::size_t> candidates,
                                   const SplitLimits& limits, std::stop_token stop);

/// What the better one of line and arc costs, its own price included, for points with these moments that take `along`
/// px of the border. When that is no less than `atMost` it need not be known: another that is no less may be told.
double priceOfPiece(const fit::Moments& moments, double along, const SplitLimits& limits,
                    double atMost = std::numeric_limits<double>::infinity());

/// The better one of line and arc for the points from index `from` to `to`, ends included, as
/// splitTrack() weighs them.
fit::Primitive fitRange(const Track& track, std::size_t from, std::size_t to, const SplitLimits& limits);

}  // namespace rim::trace::split
