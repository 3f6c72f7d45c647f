#include "core/trace/lines/stroke_corners.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>

#include "core/trace/lines/along_edge.h"
#include "core/trace/lines/ink_edge.h"

namespace rim::trace::lines {
namespace {

constexpr double kLeastTurn = 18 * std::numbers::pi / 180;

/// A corner's sides may end so many widths before it.
constexpr double kMostTrim = 2.5;

/// Points of a chain by number, round and round when it is a ring.
class Chain {
 public:
  Chain(const std::vector<CentrePoint>& points, bool closed)
      : points_(points), closed_(closed), count_(static_cast<std::ptrdiff_t>(points.size())) {}

  std::ptrdiff_t size() const { return count_; }
  bool has(std::ptrdiff_t i) const { return closed_ || (i >= 0 && i < count_); }
  const CentrePoint& point(std::ptrdiff_t i) const { return points_[numberOf(i)]; }
  Point at(std::ptrdiff_t i) const { return point(i).place; }
  std::size_t numberOf(std::ptrdiff_t i) const { return static_cast<std::size_t>((i % count_ + count_) % count_); }
  /// The points from one to another, whichever comes first.
  std::vector<Point> range(std::ptrdiff_t from, std::ptrdiff_t to) const {
    std::vector<Point> some;
    const std::ptrdiff_t step = from <= to ? 1 : -1;
    for (std::ptrdiff_t i = from; i != to + step; i += step) {
      if (has(i)) some.push_back(at(i));
    }
    return some;
  }
  /// How many points there are before (`step` -1) or after (1) point i, `most` at most.
  std::ptrdiff_t room(std::ptrdiff_t i, int step, std::ptrdiff_t most) const {
    if (closed_) return std::min(most, count_ / 2 - 1);
    return std::min(most, step < 0 ? i : count_ - 1 - i);
  }

 private:
  const std::vector<CentrePoint>& points_;
  bool closed_;
  std::ptrdiff_t count_;
};

std::ptrdiff_t stepsIn(double px) { return std::lround(px / kTrackStepPx); }

/// How much round a point says nothing of a turn there, and how much beside that does, in steps.
std::ptrdiff_t gapFor(double width) { return stepsIn(0.55 * width + 1); }
std::ptrdiff_t sideFor(double width) { return stepsIn(std::max(0.8 * width, 4.0)); }

/// The turn from what lies before a point's surroundings to what lies behind them, radians, to the left positive; 0
/// where there is too little.
double signedTurnAt(const Chain& chain, std::ptrdiff_t i, double width) {
  constexpr std::ptrdiff_t kLeast = 3;
  const std::ptrdiff_t gap = gapFor(width);
  const std::ptrdiff_t side = sideFor(width);
  const std::ptrdiff_t before = chain.room(i, -1, gap + side);
  const std::ptrdiff_t after = chain.room(i, 1, gap + side);
  const std::ptrdiff_t near = stepsIn(0.3 * width + 0.5);
  if (std::min(before, after) < near + kLeast) return 0;
  const auto start = [&](std::ptrdiff_t room) { return std::min(gap, room - kLeast); };
  const Point in = chain.at(i - start(before)) - chain.at(i - before);
  const Point out = chain.at(i + after) - chain.at(i + start(after));
  return angleBetween(in, out);
}

double turnAt(const Chain& chain, std::ptrdiff_t i, double width) { return std::abs(signedTurnAt(chain, i, width)); }
bool turnsLeft(const Chain& chain, std::ptrdiff_t i, double width) { return signedTurnAt(chain, i, width) > 0; }

/// Whether a chain turns much more at point i than a little before and behind it, as it does all along an arc.
bool isPeak(const Chain& chain, const std::vector<double>& turns, std::ptrdiff_t i, double width) {
  constexpr double kMore = 1.5;
  const std::ptrdiff_t away = gapFor(width) + sideFor(width);
  const auto turnOf = [&](std::ptrdiff_t k) { return chain.has(k) ? turns[chain.numberOf(k)] : 0; };
  return turnOf(i) > kMore * (turnOf(i - away) + turnOf(i + away)) / 2;
}

/// Numbers of points at which a chain turns more than anywhere near.
std::vector<std::ptrdiff_t> sharpest(const Chain& chain, bool closed, double width) {
  std::vector<double> turns(static_cast<std::size_t>(chain.size()));
  for (std::ptrdiff_t i = 0; i < chain.size(); ++i) turns[static_cast<std::size_t>(i)] = turnAt(chain, i, width);
  const std::ptrdiff_t reach = stepsIn(0.5 * width + 1);
  std::vector<std::ptrdiff_t> found;
  for (std::ptrdiff_t i = 0; i < chain.size(); ++i) {
    const double here = turns[static_cast<std::size_t>(i)];
    if (here < kLeastTurn) continue;
    bool most = true;
    std::ptrdiff_t behind = i;
    for (std::ptrdiff_t k = i - reach; k <= i + reach && most; ++k) {
      if (k == i || !chain.has(k)) continue;
      const double other = turns[chain.numberOf(k)];
      most = k < i ? other < here : other <= here;
      if (other == here) behind = k;
    }
    // A plateau's middle.
    if (most && isPeak(chain, turns, i, width)) found.push_back((i + behind) / 2);
  }
  if (!closed) return found;
  for (std::ptrdiff_t& i : found) i = static_cast<std::ptrdiff_t>(chain.numberOf(i));
  std::sort(found.begin(), found.end());
  return found;
}

struct Side {
  std::ptrdiff_t nearest = 0;  ///< the point next to the corner that counts
  std::vector<Point> points;   ///< up to it
  Continuation on;
};

std::optional<Side> sideOf(const Chain& chain, std::ptrdiff_t i, int step, double trimPx, std::ptrdiff_t most,
                           double width) {
  constexpr std::ptrdiff_t kLeast = 3;
  const std::ptrdiff_t room = chain.room(i, step, most);
  const std::ptrdiff_t trim = std::min(stepsIn(trimPx), room - kLeast);
  if (trim < 1) return std::nullopt;
  const std::ptrdiff_t far = std::min(room, trim + stepsIn(std::max(2.5 * width, 10.0)));
  std::vector<Point> points = chain.range(i + step * far, i + step * trim);
  const Continuation on = continuationOf(points, width);
  return Side{i + step * trim, std::move(points), on};
}

/// How far from point i the discs touch the same place of the border at the inner side of a bend: there they say
/// nothing of the stroke's middle.
double heldBy(const MedialAxis& axis, const Chain& chain, std::ptrdiff_t i, int step, double mostPx,
              std::uint32_t CentrePoint::*inner) {
  constexpr double kSamePlacePx = 1.2;
  const std::uint32_t here = chain.point(i).*inner;
  std::ptrdiff_t k = 0;
  for (const std::ptrdiff_t most = chain.room(i, step, stepsIn(mostPx)); k < most; ++k) {
    const std::uint32_t there = chain.point(i + step * (k + 1)).*inner;
    if (axis.samples[here].ring != axis.samples[there].ring || wayAlongRing(axis, here, there) > kSamePlacePx) break;
  }
  return static_cast<double>(k) * kTrackStepPx;
}

/// Both sides of a bend at point i, and where they meet.
struct Bend {
  Side in;
  Side out;
  Point place;
  Point runsIn;     ///< unit, into its place
  Point runsOut;    ///< unit, from the other side into it
  double turn = 0;  ///< radians at its place
};

/// The bend of two sides that meet not more than `backPx` behind their tips, `reachPx` from them at most.
std::optional<Bend> bendOf(Side in, Side out, double backPx, double reachPx) {
  const auto place = meetingOf(in.on, out.on, backPx, reachPx);
  if (!place) return std::nullopt;
  const Point runsIn = fit::tangentAt(in.on.shape, *place);
  const Point runsOut = fit::tangentAt(out.on.shape, *place);
  return Bend{std::move(in), std::move(out), *place, runsIn, runsOut, std::abs(angleBetween(runsIn, -runsOut))};
}

/// Looks where the sides meet, again when they turn out to turn more there than they seemed to.
std::optional<Bend> bendAt(const MedialAxis& axis, const Chain& chain, std::ptrdiff_t i, std::ptrdiff_t before,
                           std::ptrdiff_t after, double width, std::uint32_t CentrePoint::*inner) {
  constexpr int kRounds = 3;
  constexpr double kSharpest = 2.9;
  constexpr double kHardlyTurned = 0.05;
  constexpr double kBackPx = 0.5;
  double turn = turnAt(chain, i, width);
  const double heldIn = heldBy(axis, chain, i, -1, kMostTrim * width, inner);
  const double heldOut = heldBy(axis, chain, i, 1, kMostTrim * width, inner);
  std::optional<Bend> best;
  for (int round = 0; round < kRounds; ++round) {
    const double reach = std::min(kMostTrim * width, width / 2 * std::tan(std::min(turn, kSharpest) / 2));
    const auto in = sideOf(chain, i, -1, std::max(reach, heldIn) + 1, before, width);
    const auto out = sideOf(chain, i, 1, std::max(reach, heldOut) + 1, after, width);
    if (!in || !out) return best;
    const auto bend = bendOf(*in, *out, kBackPx, 2 * std::max({reach, heldIn, heldOut}) + width);
    if (!bend) return best;
    best = bend;
    if (best->turn < turn + kHardlyTurned) return best;
    turn = best->turn;
  }
  return best;
}

/// Goes on along the border at the outer side as far as it shows the stroke's middle. Says by which points.
std::vector<Point> runOnAlongEdge(const MedialAxis& axis, const Chain& chain, Side& side, const Side& other,
                                  Point place, Point runs, std::uint32_t CentrePoint::*outer, double width) {
  std::vector<Point> more = middlesAlongEdge(axis, chain.point(side.nearest).*outer, chain.point(other.nearest).*outer,
                                             2 * chain.point(side.nearest).halfWidth, place, runs);
  side.points.insert(side.points.end(), more.begin(), more.end());
  side.on = continuationOf(side.points, width);
  return more;
}

/// Takes away what lies beyond `place`.
void cutAt(std::vector<Point>& points, Point place, Point runs) {
  while (!points.empty() && dot(place - points.back(), runs) < 0) points.pop_back();
}

std::optional<StrokeCorner> cornerAt(const MedialAxis& axis, const Chain& chain, std::ptrdiff_t i,
                                     std::ptrdiff_t before, std::ptrdiff_t after, double width) {
  const bool leftTurn = turnsLeft(chain, i, width);
  const auto inner = leftTurn ? &CentrePoint::left : &CentrePoint::right;
  const auto outer = leftTurn ? &CentrePoint::right : &CentrePoint::left;
  const auto first = bendAt(axis, chain, i, before, after, width, inner);
  if (!first || first->turn < kLeastTurn) return std::nullopt;
  Side inSide = first->in;
  Side outSide = first->out;
  std::vector<Point> in = runOnAlongEdge(axis, chain, inSide, outSide, first->place, first->runsIn, outer, width);
  std::vector<Point> out = runOnAlongEdge(axis, chain, outSide, inSide, first->place, first->runsOut, outer, width);
  const auto bend = bendOf(std::move(inSide), std::move(outSide), 1, kMostTrim * width);
  if (!bend || bend->turn < kLeastTurn) return std::nullopt;
  const Point outward = unit(bend->runsIn + bend->runsOut);
  const auto edge = leavesInk(axis, chain.point(bend->in.nearest).*outer, chain.point(bend->out.nearest).*outer,
                              bend->place, outward);
  if (!edge) return std::nullopt;
  const auto missing = missingAt(dot(*edge - bend->place, outward), bend->turn, width);
  if (!missing) return std::nullopt;
  cutAt(in, bend->place, bend->runsIn);
  cutAt(out, bend->place, bend->runsOut);
  StrokeCorner corner{chain.numberOf(bend->in.nearest), chain.numberOf(bend->out.nearest),
                      roundCorner(bend->in.on, bend->out.on, bend->place, *missing)};
  std::vector<Point>& run = corner.run.points;
  run.insert(run.begin(), in.begin(), in.end());
  run.insert(run.end(), out.rbegin(), out.rend());
  corner.run.corner += in.size();
  return corner;
}

}  // namespace

std::vector<StrokeCorner> strokeCorners(const MedialAxis& axis, const std::vector<CentrePoint>& points, bool closed,
                                        double width) {
  constexpr std::size_t kLeast = 8;
  std::vector<StrokeCorner> corners;
  if (points.size() < kLeast) return corners;
  const Chain chain(points, closed);
  const std::vector<std::ptrdiff_t> places = sharpest(chain, closed, width);
  const std::ptrdiff_t count = chain.size();
  for (std::size_t k = 0; k < places.size(); ++k) {
    // A side may reach over two thirds of the way to the next corner; the track sorts out what both would replace.
    const auto most = [](std::ptrdiff_t steps) { return std::max<std::ptrdiff_t>(1, 2 * steps / 3); };
    std::ptrdiff_t before = count;
    std::ptrdiff_t after = count;
    if (k > 0)
      before = most(places[k] - places[k - 1]);
    else if (closed && places.size() > 1)
      before = most(places[0] + count - places.back());
    if (k + 1 < places.size())
      after = most(places[k + 1] - places[k]);
    else if (closed && places.size() > 1)
      after = most(places[0] + count - places[k]);
    if (auto corner = cornerAt(axis, chain, places[k], before, after, width)) corners.push_back(std::move(*corner));
  }
  return corners;
}

}  // namespace rim::trace::lines
