#include "core/trace/outline/join.h"

#include <cmath>
#include <numbers>

#include "core/trace/fit/moments.h"

namespace rim::trace::outline {
namespace {

constexpr double kBluntReachPx = 6;
/// A gap shorter than this is shared by its neighbours.
constexpr double kShortGapPx = 2.5;
/// A touching place is taken when it lies so near the break; breaks between smooth pieces are vague.
constexpr double kVagueBreakPx = 6;
/// Two pieces touch when they come as close as this.
constexpr double kTouchPx = 0.08;
/// A piece longer than this is fitted again when it has become shorter.
constexpr double kRefittedPx = 8;
/// A piece longer than this many smears of an edge is no rounding.
constexpr double kLongestRounding = 8;

double degrees(double radians) { return radians * 180 / std::numbers::pi; }

struct MetSides {
  Point place;
  double turn = 0;  ///< radians
};

/// The stretch of the border between the end of one piece and the start of the next.
struct Gap {
  std::size_t middle = 0;  ///< index into the track
  double way = 0;          ///< px
};

Gap gapBetween(const split::Track& track, const split::TrackPiece& a, const split::TrackPiece& b) {
  const bool wraps = b.from < a.to;
  const double way = track.arcLength(b.from) - track.arcLength(a.to) + (wraps ? track.length() : 0);
  double middle = track.arcLength(a.to) + way / 2;
  if (middle >= track.length()) middle -= track.length();
  return {track.indexAt(middle), way};
}

/// The corner that two pieces make across a gap, if the border comes close enough to it.
std::optional<MetSides> cornerOf(const fit::Primitive& a, const fit::Primitive& b, const split::Track& track,
                                 const Gap& gap, const JoinLimits& limits) {
  const auto meet = fit::meetingPoint(a, b, track.point(gap.middle));
  if (!meet) return std::nullopt;
  const double turn = angleBetween(fit::tangentAt(a, *meet), fit::tangentAt(b, *meet));
  const double reach = mostRetreat(turn, limits.roundingPx, limits.deviationPx);
  const double around = reach + gap.way / 2 + 4 * limits.roundingPx;
  if (track.distanceNear(gap.middle, around, *meet) > reach) return std::nullopt;
  return MetSides{*meet, turn};
}

/// Where a line and a circle, or two circles, come closest to touching.
std::optional<Point> touchingPlace(const fit::Primitive& a, const fit::Primitive& b) {
  if (isLine(a) && isLine(b)) return std::nullopt;
  if (isLine(a)) return fit::project(a, b.place);
  if (isLine(b)) return fit::project(b, a.place);
  const Point axis = b.place - a.place;
  if (length(axis) < 1e-6) return std::nullopt;
  // One inside the other: the place lies beyond the smaller circle's centre; else between both.
  const bool sameTurn = a.radius * b.radius > 0;
  const bool aLarger = std::abs(a.radius) > std::abs(b.radius);
  const Point towards = unit(sameTurn && !aLarger ? -axis : axis);
  const Point onA = a.place + towards * std::abs(a.radius);
  return lerp(onA, fit::project(b, onA), 0.5);
}

Node smoothNode(const fit::Primitive& a, const fit::Primitive& b, Point near) {
  Point place = near;
  const auto touching = touchingPlace(a, b);
  if (touching && distance(*touching, near) < kVagueBreakPx &&
      distance(fit::project(a, *touching), fit::project(b, *touching)) < kTouchPx) {
    place = *touching;
  }
  const Point onA = fit::project(a, place);
  const Point onB = fit::project(b, place);
  if (isLine(a) && !isLine(b)) return {onA, false, a.direction};
  if (isLine(b) && !isLine(a)) return {onB, false, b.direction};
  return {lerp(onA, onB, 0.5), false, unit(fit::tangentAt(a, place) + fit::tangentAt(b, place))};
}

bool isBlunt(const JoinLimits& limits, Point place) {
  return std::any_of(limits.blunt.begin(), limits.blunt.end(),
                     [place](Point p) { return distance(p, place) < kBluntReachPx; });
}

Node nodeBetween(const split::TrackPiece& before, const split::TrackPiece& after, const split::Track& track,
                 const JoinLimits& limits) {
  const fit::Primitive& a = before.primitive;
  const fit::Primitive& b = after.primitive;
  const Gap gap = gapBetween(track, before, after);
  const Point near = track.point(gap.middle);
  if (isBlunt(limits, near)) return {near, true, {}, true};
  const double turn = angleBetween(fit::tangentAt(a, near), fit::tangentAt(b, near));
  const bool lines = isLine(a) && isLine(b);
  if (std::abs(degrees(turn)) < limits.cornerDegrees && !lines) return smoothNode(a, b, near);
  const auto corner = cornerOf(a, b, track, gap, limits);
  const Point place = corner ? corner->place : lerp(fit::project(a, near), fit::project(b, near), 0.5);
  return {place, true, {}};
}

double distanceFrom(const fit::Primitive& primitive, Point p) { return distance(p, fit::project(primitive, p)); }

/// The stretch between two pieces with the ends that neither was fitted to.
split::TrackPiece stretchBetween(const split::Track& track, const split::TrackPiece& a, const split::TrackPiece& b,
                                 double trimPx) {
  return {track.indexAt(track.arcLength(a.to) - trimPx), track.indexAt(track.arcLength(b.from) + trimPx), {}};
}

/// The same with what the pieces went round at their ends without following it.
split::TrackPiece unfollowedBetween(const split::Track& track, const split::TrackPiece& a, const split::TrackPiece& b,
                                    const split::SplitLimits& split) {
  constexpr double kMostTrims = 4;
  const double off = 0.1 + 3 * split.deviationPx;
  split::TrackPiece stretch = stretchBetween(track, a, b, split.trimPx);
  const double first = track.arcLength(a.to) - kMostTrims * split.trimPx;
  const double last = track.arcLength(b.from) + kMostTrims * split.trimPx;
  while (stretch.from > a.from && track.arcLength(stretch.from) > first &&
         distanceFrom(a.primitive, track.point(stretch.from)) > off)
    --stretch.from;
  while (stretch.to < b.to && track.arcLength(stretch.to) < last &&
         distanceFrom(b.primitive, track.point(stretch.to)) > off)
    ++stretch.to;
  return stretch;
}

/// Whether the border between two pieces keeps as near to them, prolonged, as a rounded-off corner
/// does. Else something else lies there.
bool hidesCornerOnly(const split::Track& track, const split::TrackPiece& a, const split::TrackPiece& b,
                     const JoinLimits& limits, double trimPx) {
  const double most = 0.3 + 0.3 * limits.roundingPx;
  const split::TrackPiece stretch = stretchBetween(track, a, b, trimPx);
  for (std::size_t i = stretch.from; i <= stretch.to; ++i) {
    const Point p = track.point(i);
    if (std::min(distanceFrom(a.primitive, p), distanceFrom(b.primitive, p)) > most) return false;
  }
  return true;
}

/// Whether two pieces make a corner, and nothing but it lies between them.
bool makeCorner(const split::Track& track, const split::TrackPiece& a, const split::TrackPiece& b,
                const JoinLimits& limits, double trimPx) {
  const auto corner = cornerOf(a.primitive, b.primitive, track, gapBetween(track, a, b), limits);
  return corner && std::abs(degrees(corner->turn)) >= limits.cornerDegrees &&
         hidesCornerOnly(track, a, b, limits, trimPx);
}

/// Whether pieces k up to, not including, `end` only follow the rounded-off tip of a corner that the one before and the
/// one after make.
bool followRounding(const split::Track& track, const std::vector<split::TrackPiece>& pieces,
                    const split::TrackPiece& before, std::size_t k, std::size_t end, const JoinLimits& limits,
                    double trimPx) {
  const split::TrackPiece& after = pieces[end];
  double way = 0;
  for (std::size_t i = k; i < end; ++i) {
    const double own = split::arcLengthOf(track, pieces[i]);
    if (own >= kLongestRounding * limits.roundingPx || isBlunt(limits, track.point(pieces[i].from))) return false;
    way += own;
  }
  return std::min(split::arcLengthOf(track, before), split::arcLengthOf(track, after)) > way &&
         makeCorner(track, before, after, limits, trimPx);
}

/// Drops short pieces, one or two in a row, that only follow the rounded-off tip of a corner.
std::vector<split::TrackPiece> withoutRoundings(const split::Track& track, const std::vector<split::TrackPiece>& pieces,
                                                const JoinLimits& limits, double trimPx) {
  constexpr std::size_t kMostInARow = 2;
  std::vector<split::TrackPiece> kept;
  for (std::size_t k = 0; k < pieces.size();) {
    std::size_t dropped = 0;
    for (std::size_t row = 1; row <= kMostInARow && !kept.empty() && k + row < pieces.size(); ++row) {
      if (followRounding(track, pieces, kept.back(), k, k + row, limits, trimPx)) dropped = row;
    }
    k += dropped;
    kept.push_back(pieces[k++]);
  }
  return kept;
}

/// The line that follows a short piece. Points at its ends that lie well off the line of the others belong to corners
/// that pixels round off.
fit::Primitive lineWithin(const split::Track& track, std::size_t from, std::size_t to, double deviationPx) {
  constexpr double kWellOff = 3;
  const auto offOf = [&track](std::size_t i, std::size_t end) {
    return std::sqrt(fit::lineMeanSquare(fit::momentsOf(track.points(i, end))));
  };
  std::size_t end = to + 1;
  for (double off = offOf(from, end); end - from > 2 && off > kWellOff * deviationPx;) {
    const double withoutFirst = offOf(from + 1, end);
    const double withoutLast = offOf(from, end - 1);
    const double less = std::min(withoutFirst, withoutLast);
    if (less > off / 2) break;
    off = less;
    if (withoutFirst < withoutLast)
      ++from;
    else
      --end;
  }
  return fit::fitLine(track.points(from, end));
}

/// What follows a short stretch: as many pieces as it takes. Only what rounds corners off lies between them.
std::vector<split::TrackPiece> piecesWithin(const split::Track& track, const split::TrackPiece& stretch,
                                            const split::SplitLimits& split) {
  constexpr double kTrimShare = 1.0 / 3;
  constexpr double kGapTrims = 1.5;
  const auto points = track.points(stretch.from, stretch.to + 1);
  const split::SplitLimits fine{split.deviationPx, split.trimPx * kTrimShare, kGapTrims * split.trimPx};
  std::vector<split::TrackPiece> pieces =
      split::splitTrack(split::Track::open({points.begin(), points.end()}), fine, {});
  if (pieces.empty()) return {{stretch.from, stretch.to, split::fitRange(track, stretch.from, stretch.to, split)}};
  for (split::TrackPiece& piece : pieces) {
    piece.from += stretch.from;
    piece.to += stretch.from;
    if (isLine(piece.primitive)) piece.primitive = lineWithin(track, piece.from, piece.to, split.deviationPx);
  }
  return pieces;
}

/// Between pieces that make no corner pieces of its own follow what lies there, or, when that is
/// short, they share it. At blunt places no point of the border is left out.
std::vector<split::TrackPiece> withGapsClosed(const split::Track& track, std::vector<split::TrackPiece> pieces,
                                              const JoinLimits& limits, const split::SplitLimits& split) {
  std::vector<split::TrackPiece> closed;
  const std::size_t n = pieces.size();
  for (std::size_t k = 0; k < n; ++k) {
    closed.push_back(pieces[k]);
    if (k + 1 == n) break;
    split::TrackPiece& after = pieces[k + 1];
    const Gap gap = gapBetween(track, pieces[k], after);
    if (isBlunt(limits, track.point(gap.middle))) {
      if (gap.way > 0)
        closed.push_back({pieces[k].to, after.from, split::fitRange(track, pieces[k].to, after.from, split)});
      continue;
    }
    const bool followed = hidesCornerOnly(track, pieces[k], after, limits, split.trimPx);
    if (followed && (gap.way < kShortGapPx || makeCorner(track, pieces[k], after, limits, split.trimPx))) continue;
    const split::TrackPiece between = unfollowedBetween(track, pieces[k], after, split);
    if (between.to <= between.from + 1) continue;
    closed.back().to = std::max(closed.back().from, between.from);
    after.from = std::min(after.to, between.to);
    for (split::TrackPiece* shorter : {&closed.back(), &after}) {
      if (split::arcLengthOf(track, *shorter) > kRefittedPx)
        shorter->primitive = split::fitRange(track, shorter->from, shorter->to, split);
    }
    for (const split::TrackPiece& piece : piecesWithin(track, between, split)) closed.push_back(piece);
  }
  return closed;
}

/// Some short pieces in a row become one arc where it follows all of their points for less than they cost without any
/// misfit: a small round thing is an arc, not the lines that gaps were closed with.
std::vector<split::TrackPiece> withRoundsJoined(const split::Track& track, std::vector<split::TrackPiece> pieces,
                                                const JoinLimits& limits, const split::SplitLimits& split) {
  constexpr std::size_t kMostInARow = 5;
  for (std::size_t k = 0; k < pieces.size(); ++k) {
    const auto isShort = [&](std::size_t i) {
      return split::arcLengthOf(track, pieces[i]) < kLongestRounding * limits.roundingPx;
    };
    std::size_t row = 0;
    while (row < kMostInARow && k + row < pieces.size() && isShort(k + row)) ++row;
    for (; row > 1; --row) {
      const split::TrackPiece& last = pieces[k + row - 1];
      const auto points = track.points(pieces[k].from, last.to + 1);
      const auto circle = fit::fitCircle(points);
      double apart = 0;
      for (std::size_t i = k; i < k + row; ++i)
        apart += isLine(pieces[i].primitive) ? split::kPriceOfLine : split::kPriceOfArc;
      if (!circle || split::kPriceOfArc + split::misfitPrice(points, *circle, split.deviationPx) >= apart) continue;
      pieces[k] = {pieces[k].from, last.to, *circle};
      pieces.erase(pieces.begin() + static_cast<std::ptrdiff_t>(k) + 1,
                   pieces.begin() + static_cast<std::ptrdiff_t>(k + row));
      break;
    }
  }
  return pieces;
}

}  // namespace

std::vector<split::TrackPiece> settlePieces(const split::Track& track, std::vector<split::TrackPiece> pieces,
                                            const JoinLimits& limits, const split::SplitLimits& split) {
  pieces = withRoundsJoined(track, withGapsClosed(track, std::move(pieces), limits, split), limits, split);
  return withoutRoundings(track, pieces, limits, split.trimPx);
}

Chain joinPieces(const split::Track& track, std::vector<split::TrackPiece> pieces, const JoinLimits& limits) {
  Chain chain{std::move(pieces), {}};
  const std::size_t n = chain.pieces.size();
  const auto endOf = [&track](const split::TrackPiece& piece, std::size_t at) {
    return Node{fit::project(piece.primitive, track.point(at)), true, {}, true};
  };
  for (std::size_t k = 0; k < n; ++k) {
    if (k == 0 && !track.closed()) {
      chain.nodes.push_back(endOf(chain.pieces.front(), 0));
      continue;
    }
    chain.nodes.push_back(nodeBetween(chain.pieces[(k + n - 1) % n], chain.pieces[k], track, limits));
  }
  if (!track.closed()) chain.nodes.push_back(endOf(chain.pieces.back(), track.last()));
  return chain;
}

double mostRetreat(double turnRadians, double roundingPx, double deviationPx) {
  constexpr double kDeviations = 3;
  const double halfOpening = (std::numbers::pi - std::abs(turnRadians)) / 2;
  return 0.75 + kDeviations * deviationPx + 0.6 * roundingPx / std::tan(std::max(halfOpening, 0.05));
}

double cornerDegreesFor(double readiness) {
  const double r = std::clamp(readiness, 0.0, 100.0);
  // Straight lines in the logarithm: 180 to 20 to 5 degrees.
  return r < 50 ? 180 * std::pow(20.0 / 180, r / 50) : 20 * std::pow(5.0 / 20, (r - 50) / 50);
}

}  // namespace rim::trace::outline
