#include "core/trace/split/split.h"

#include <algorithm>
#include <limits>
#include <numbers>
#include <numeric>

#include "core/error.h"
#include "core/trace/fit/moments.h"

namespace rim::trace::split {
namespace {

constexpr double kNever = std::numeric_limits<double>::infinity();
constexpr double kPriceOfSkippedPoint = 1;
constexpr double kPriceOfGap = 1;
constexpr double kPriceOfPointInGap = 3;
constexpr double kWidestSweep = 300 * std::numbers::pi / 180;
constexpr double kSmallestRadiusPx = 0.8;
constexpr double kShortestWayPx = 1.5;
/// No farther start is tried when the misfit has been this dear over this many places, or so many times as dear over
/// fewer.
constexpr double kHopeless = 200;
constexpr int kHopelessPlaces = 6;
constexpr double kMostTimes = 3;
/// Fits need some points after trimming, else less is trimmed.
constexpr double kLeastFittedPx = 2.5;
constexpr double kShareSpared = 0.15;
constexpr double kMostTrims = 3.5;

struct Rated {
  double price = kNever;
  bool arc = false;
  double meanSquare = 0;  ///< of the points' distances from it
  double lineMeanSquare = 0;
};

/// How a place of the track is reached at the least price.
struct Reached {
  double price = kNever;
  std::size_t from = 0;  ///< place where the piece that ends here starts
};

/// A place as pieces see it, the trim left out.
struct Trimmed {
  std::size_t first = 0;  ///< a piece that starts at the place follows the points from here on
  std::size_t end = 0;    ///< and one that ends at it those before this one
};

/// Where the next piece may start: at the end of one, or after a gap.
struct Start {
  double price = kNever;
  std::size_t end = 0;  ///< place where the piece before ended
};

/// The cheaper one of line and arc for points with these moments, `along` px of the border long; a mean square of 1 px
/// costs `perSquare`. When neither is below `atMost` it need not be fitted: a lower price that is no less, and a lower
/// mean square, or none is told.
Rated rate(const fit::Moments& m, double along, double perSquare, double atMost = kNever) {
  const double line = fit::lineMeanSquare(m);
  Rated best{kPriceOfLine + line * perSquare, false, line, line};
  if (best.price <= kPriceOfArc || m.count < 3) return best;
  if (atMost <= kPriceOfArc) return {};
  const double most = (std::min(best.price, atMost) - kPriceOfArc) / perSquare;
  const double meanSquare = fit::circleMeanSquare(m, most);
  if (meanSquare > most) {
    if (best.price < atMost) return best;
    return {kPriceOfArc + meanSquare * perSquare, true, meanSquare, line};
  }
  const auto circle = fit::circleFrom(m, meanSquare);
  if (!circle || circle->radius < kSmallestRadiusPx || along > circle->radius * kWidestSweep) return best;
  const double arc = kPriceOfArc + circle->meanSquare * perSquare;
  if (arc < best.price) best = {arc, true, circle->meanSquare, line};
  return best;
}

Rated rate(const fit::Moments& m, double along, const SplitLimits& limits, double atMost = kNever) {
  return rate(m, along, effectiveSampleSize(m.count) / (limits.deviationPx * limits.deviationPx), atMost);
}

/// The places where pieces may meet: 1, 2, 4, 8 and so on points off a breakpoint candidate, up to half of the way to
/// the next one, and the track's ends. Breaks at every point fit no truer, as corners are put where their sides meet.
std::vector<std::size_t> placesAround(const Track& track, std::span<const std::size_t> candidates) {
  const std::size_t last = track.last();
  std::vector<std::size_t> places{0, last};
  const auto addTowards = [&](std::size_t at, std::size_t neighbour, bool forwards) {
    const std::size_t room = forwards ? neighbour - at : at - neighbour;
    for (std::size_t off = 1; off <= room / 2; off *= 2) places.push_back(forwards ? at + off : at - off);
  };
  for (std::size_t k = 0; k < candidates.size(); ++k) {
    places.push_back(candidates[k]);
    addTowards(candidates[k], k > 0 ? candidates[k - 1] : 0, false);
    addTowards(candidates[k], k + 1 < candidates.size() ? candidates[k + 1] : last, true);
  }
  std::sort(places.begin(), places.end());
  places.erase(std::unique(places.begin(), places.end()), places.end());
  return places;
}

class Splitter {
 public:
  /// `places` are the indexes where pieces may meet, in rising order; the first and the last one are the track's ends.
  Splitter(const Track& track, const SplitLimits& limits, std::vector<std::size_t> places)
      : track_(track),
        limits_(limits),
        perSquareFact_(1 / (limits.deviationPx * limits.deviationPx)),
        places_(std::move(places)) {
    std::size_t end = 0;
    for (const std::size_t at : places_) {
      while (end < at && track_.arcLength(end) <= track_.arcLength(at) - limits_.trimPx) ++end;
      trimmed_.push_back({track_.indexBeyond(at, limits_.trimPx), end});
    }
  }

  std::vector<TrackPiece> pieces(const std::stop_token& stop) {
    const std::size_t count = places_.size();
    reached_.assign(count, {});
    starts_.assign(count, {});
    openFrom(0, 0, 0);
    for (std::size_t e = 1; e < count; ++e) {
      if (e % 64 == 0 && stop.stop_requested()) throw Cancelled();
      reach(e);
      if (reached_[e].price < kNever) openFrom(e, reached_[e].price, e);
    }
    return collect();
  }

 private:
  double way(std::size_t place) const { return track_.arcLength(places_[place]); }

  double gapPrice(std::size_t from, std::size_t to) const {
    return from == to ? 0 : kPriceOfGap + kPriceOfPointInGap * static_cast<double>(places_[to] - places_[from]);
  }

  /// Lets pieces start at place k or, after a gap, a little later.
  void openFrom(std::size_t k, double price, std::size_t end) {
    for (std::size_t next = k; next + 1 < places_.size() && way(next) - way(k) <= limits_.gapPx; ++next) {
      const double total = price + gapPrice(k, next);
      if (total < starts_[next].price) starts_[next] = {total, end};
    }
  }

  /// A piece that ends at one place and whose start moves back along the track.
  struct Growing {
    Growing(std::size_t last, Point origin) : end(last), summed(last), sums(origin) {}

    std::size_t end;     ///< points before it belong to the piece
    std::size_t summed;  ///< back to here they are in the sums; only fits need them
    fit::MomentSums sums;
    // What the squared distances come to at least, as those of fewer points did.
    double squares = 0;           ///< from any line or circle, or so many more that an arc's price makes up for it
    double squaresFromLines = 0;  ///< from any line
  };

  /// Finds the piece that reaches place e at the least price. Near starts are tried before far ones, and before all
  /// others the one that is best for the place before: when the price is nearly the least already, most of the others
  /// are seen to be too dear without a fit, or with a rough one.
  void reach(std::size_t e) {
    Growing piece(trimmed_[e].end, track_.point(places_[e]));
    tryBestBefore(e);
    int hopeless = 0;
    for (std::size_t k = e; k-- > 0 && hopeless <= kHopelessPlaces;) {
      if (k == best_) {
        if (fromBest_.summed < piece.summed) piece = fromBest_;
        continue;
      }
      const double price = tryStart(piece, k, e);
      const bool dear = price > kHopeless && price < kNever;
      hopeless = dear ? hopeless + static_cast<int>(std::min(price / kHopeless, kMostTimes)) : 0;
    }
  }

  /// Tries the start that is best for the place before e.
  void tryBestBefore(std::size_t e) {
    const std::size_t end = trimmed_[e].end;
    const std::size_t best = reached_[e - 1].price < kNever ? reached_[e - 1].from : e;
    if (best != best_) {
      best_ = best;
      fromBest_ = Growing(end, track_.point(places_[e]));
    }
    for (; fromBest_.end < end; ++fromBest_.end) fromBest_.sums.add(track_.point(fromBest_.end));
    if (best < e) tryStart(fromBest_, best, e);
  }

  /// The price of the piece from place k to place e, as priceOf() tells it; what it reaches e at is kept if it is less.
  double tryStart(Growing& piece, std::size_t k, std::size_t e) {
    const double along = way(e) - way(k);
    const double atMost = reached_[e].price - starts_[k].price;
    if (!(atMost > kPriceOfLine) || along < kShortestWayPx) return kNever;
    const bool isShort = along < 2 * limits_.trimPx + kLeastFittedPx;
    const double price = isShort ? shortPrice(k, e, along, atMost) : priceOf(piece, k, e, atMost);
    if (price < atMost) reached_[e] = {starts_[k].price + price, k};
    return price;
  }

  /// What the piece from place k to place e costs; no less than `atMost`, or kNever, when that is seen without a
  /// fit.
  double priceOf(Growing& piece, std::size_t k, std::size_t e, double atMost) const {
    const std::size_t first = trimmed_[k].first;
    if (first >= piece.end) return kNever;
    const auto count = static_cast<double>(piece.end - first);
    const double forPoints = kPriceOfSkippedPoint * (static_cast<double>(places_[e] - places_[k]) - count);
    const double room = atMost - forPoints;
    if (room <= kPriceOfLine) return kNever;
    const double perPoint = effectiveSharePerPoint(count) * perSquareFact_;
    const double atLeast = kPriceOfLine + piece.squares * perPoint;
    if (atLeast >= room) return atLeast + forPoints;
    const bool lineOnly = room <= kPriceOfArc;
    if (lineOnly && kPriceOfLine + piece.squaresFromLines * perPoint >= room) return kNever;
    while (piece.summed > first) piece.sums.add(track_.point(--piece.summed));
    if (lineOnly) {
      const double squares = piece.sums.lineMeanSquare() * count;
      piece.squaresFromLines = std::max(piece.squaresFromLines, squares);
      const double line = kPriceOfLine + squares * perPoint;
      return line < room ? line + forPoints : kNever;
    }
    const Rated rated = rate(piece.sums.central(), way(e) - way(k), perPoint * count, room);
    piece.squares = std::max(piece.squares, rated.meanSquare * count);
    piece.squaresFromLines = std::max(piece.squaresFromLines, rated.lineMeanSquare * count);
    return rated.price + forPoints;
  }

  /// The same for a piece too short for the usual trim, which keeps some points in its middle.
  double shortPrice(std::size_t k, std::size_t e, double along, double atMost) const {
    const double trim = std::clamp((along - kLeastFittedPx) / 2, 0.0, limits_.trimPx);
    const auto [from, to] = track_.within(places_[k], places_[e], trim);
    const double forPoints = kPriceOfSkippedPoint * static_cast<double>(places_[e] - places_[k] - (to - from));
    const double room = atMost - forPoints;
    if (room <= kPriceOfLine) return kNever;
    return rate(fit::momentsOf(track_.points(from, to)), along, limits_, room).price + forPoints;
  }

  std::vector<TrackPiece> collect() const {
    std::size_t last = places_.size() - 1;
    double least = reached_[last].price;
    for (std::size_t k = last; k-- > 1 && way(places_.size() - 1) - way(k) <= limits_.gapPx;) {
      const double total = reached_[k].price + gapPrice(k, places_.size() - 1);
      if (total < least) {
        least = total;
        last = k;
      }
    }
    std::vector<TrackPiece> pieces;
    for (std::size_t end = last; reached_[end].price < kNever;) {
      const std::size_t start = reached_[end].from;
      pieces.push_back({places_[start], places_[end], {}});
      end = starts_[start].end;
      if (end == 0) break;
    }
    std::reverse(pieces.begin(), pieces.end());
    for (TrackPiece& piece : pieces) piece.primitive = fitRange(track_, piece.from, piece.to, limits_);
    return pieces;
  }

  const Track& track_;
  const SplitLimits& limits_;
  double perSquareFact_;  ///< what a fact costs that is 1 px off
  std::vector<std::size_t> places_;
  std::vector<Trimmed> trimmed_;  ///< of each place
  std::vector<Reached> reached_;
  std::vector<Start> starts_;
  std::size_t best_ = 0;  ///< the start that is best for the place before the one to be reached
  Growing fromBest_{0, {}};
};

}  // namespace

double effectiveSharePerPoint(double points) {
  constexpr double kMostFacts = 60;
  return kMostFacts / (kMostFacts * kPointsPerEffectiveOne + points);
}

double misfitPrice(std::span<const Point> points, const fit::Primitive& primitive, double deviationPx) {
  double sum = 0;
  for (const Point p : points) {
    const double off = distance(p, fit::project(primitive, p));
    sum += off * off;
  }
  const auto count = static_cast<double>(points.size());
  return effectiveSampleSize(count) * sum / count / (deviationPx * deviationPx);
}

fit::Primitive fitRange(const Track& track, std::size_t from, std::size_t to, const SplitLimits& limits) {
  const double along = track.arcLength(to) - track.arcLength(from);
  // Long pieces can spare more of their ends, which corners bend a little even beyond the trim.
  const double spare = std::clamp(along * kShareSpared, limits.trimPx, kMostTrims * limits.trimPx);
  const double trim = std::clamp((along - kLeastFittedPx) / 2, 0.0, spare);
  const auto [first, end] = track.within(from, to, trim);
  const std::span<const Point> points = track.points(first, end);
  // However far it goes round: the parts of one piece, joined, may be nearly a whole circle.
  constexpr double kAnySweep = 0;
  if (rate(fit::momentsOf(points), kAnySweep, limits).arc) {
    if (auto circle = fit::fitCircle(points)) return *circle;
  }
  return fit::fitLine(points);
}

double priceOfPiece(const fit::Moments& moments, double along, const SplitLimits& limits, double atMost) {
  return rate(moments, along, limits, atMost).price;
}

std::vector<TrackPiece> splitTrack(const Track& track, const SplitLimits& limits, std::stop_token stop) {
  std::vector<std::size_t> places(track.last() + 1);
  std::iota(places.begin(), places.end(), std::size_t{0});
  return Splitter(track, limits, std::move(places)).pieces(stop);
}

std::vector<TrackPiece> splitAmong(const Track& track, std::span<const std::size_t> candidates,
                                   const SplitLimits& limits, std::stop_token stop) {
  return Splitter(track, limits, placesAround(track, candidates)).pieces(stop);
}

}  // namespace rim::trace::split
