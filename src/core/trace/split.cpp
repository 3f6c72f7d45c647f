#include "core/trace/split.h"

#include <limits>
#include <numbers>

#include "core/error.h"

namespace rim {
namespace {

constexpr std::size_t kSamples = 40;
constexpr std::size_t kPlacesPerBreak = 13;
constexpr double kWidestSweep = 300 * std::numbers::pi / 180;
constexpr double kSmallestRadiusPx = 0.7;

// The price of a piece in units of squared noise, as in a description-length criterion. Points of
// a border are not independent of each other, so it is dearer than the textbook's.
constexpr double kPriceOfLine = 16;
constexpr double kPriceOfArc = 24;

/// A primitive and how it follows its range.
struct Fit {
  Primitive primitive;
  Deviation deviation;
  double price = std::numeric_limits<double>::infinity();
};

class Fitter {
 public:
  Fitter(const Track& track, const SplitLimits& limits) : track_(track), limits_(limits) {}

  /// The cheaper one of line and arc; a price past the deviation limit rises steeply.
  Fit best(std::size_t from, std::size_t to) {
    track_.sample(from, to, limits_.trimPx, kSamples, points_);
    const double way = track_.way(to) - track_.way(from);
    const Fit line = rated(fitLine(points_), way, kPriceOfLine);
    if (line.deviation.largest < limits_.noisePx) return line;
    const auto circle = arc(way);
    if (!circle) return line;
    const Fit round = rated(*circle, way, kPriceOfArc);
    return round.price < line.price ? round : line;
  }

  bool follows(std::size_t from, std::size_t to) {
    track_.sample(from, to, limits_.trimPx, kSamples, points_);
    if (points_.size() <= 2) return true;
    if (deviationOf(fitLine(points_), points_).largest <= limits_.deviationPx) return true;
    const auto circle = arc(track_.way(to) - track_.way(from));
    return circle && deviationOf(*circle, points_).largest <= limits_.deviationPx;
  }

 private:
  std::optional<Primitive> arc(double way) const {
    auto circle = fitCircle(points_);
    if (!circle || std::abs(circle->radius) < kSmallestRadiusPx) return std::nullopt;
    if (way > std::abs(circle->radius) * kWidestSweep) return std::nullopt;
    return circle;
  }

  Fit rated(const Primitive& primitive, double way, double price) const {
    const Deviation d = deviationOf(primitive, points_);
    const double excess = std::max(0.0, d.largest / limits_.deviationPx - 1);
    const double misfit = d.meanSquare * way / (limits_.noisePx * limits_.noisePx);
    return {primitive, d, price + misfit + 1000 * excess};
  }

  const Track& track_;
  const SplitLimits& limits_;
  std::vector<Point> points_;
};

/// The furthest index after `from` that one primitive reaches: doubling, then halving.
std::size_t reachForwards(Fitter& fitter, std::size_t from, std::size_t last) {
  std::size_t good = std::min(from + 4, last);
  std::size_t step = 4;
  std::size_t bad = last + 1;
  while (good < last) {
    const std::size_t next = std::min(good + step, last);
    if (!fitter.follows(from, next)) {
      bad = next;
      break;
    }
    good = next;
    step *= 2;
  }
  while (good + 1 < bad) {
    const std::size_t middle = (good + bad) / 2;
    (fitter.follows(from, middle) ? good : bad) = middle;
  }
  return good;
}

std::size_t reachBackwards(Fitter& fitter, std::size_t to) {
  std::size_t good = to < 4 ? 0 : to - 4;
  std::size_t step = 4;
  std::size_t bad = 0;
  bool blocked = false;
  while (good > 0) {
    const std::size_t next = good < step ? 0 : good - step;
    if (!fitter.follows(next, to)) {
      bad = next;
      blocked = true;
      break;
    }
    good = next;
    step *= 2;
  }
  while (blocked && bad + 1 < good) {
    const std::size_t middle = (good + bad) / 2;
    (fitter.follows(middle, to) ? good : bad) = middle;
  }
  return good;
}

std::vector<std::size_t> latestBreaks(Fitter& fitter, std::size_t last, std::stop_token stop) {
  std::vector<std::size_t> breaks{0};
  while (breaks.back() < last) {
    if (stop.stop_requested()) throw Cancelled();
    breaks.push_back(reachForwards(fitter, breaks.back(), last));
  }
  return breaks;
}

std::vector<std::size_t> earliestBreaks(Fitter& fitter, std::size_t last, std::stop_token stop) {
  std::vector<std::size_t> breaks{last};
  while (breaks.back() > 0) {
    if (stop.stop_requested()) throw Cancelled();
    breaks.push_back(reachBackwards(fitter, breaks.back()));
  }
  std::reverse(breaks.begin(), breaks.end());
  return breaks;
}

/// Where each break may lie. Both ends of the track are fixed.
std::vector<std::vector<std::size_t>> placesFor(const std::vector<std::size_t>& early,
                                                const std::vector<std::size_t>& late) {
  std::vector<std::vector<std::size_t>> places;
  for (std::size_t k = 0; k < late.size(); ++k) {
    std::size_t from = late[k];
    std::size_t to = late[k];
    if (k > 0 && k + 1 < late.size() && early.size() == late.size()) {
      from = std::min(early[k], late[k]);
      to = std::max(early[k], late[k]);
    }
    const std::size_t count = std::min(kPlacesPerBreak, to - from + 1);
    std::vector<std::size_t> row;
    for (std::size_t i = 0; i < count; ++i) row.push_back(count == 1 ? from : from + i * (to - from) / (count - 1));
    places.push_back(std::move(row));
  }
  return places;
}

std::vector<std::size_t> cheapestBreaks(Fitter& fitter, const std::vector<std::vector<std::size_t>>& places,
                                        std::stop_token stop) {
  std::vector<std::vector<double>> price{{0.0}};
  std::vector<std::vector<std::size_t>> cameFrom{{0}};
  for (std::size_t k = 1; k < places.size(); ++k) {
    if (stop.stop_requested()) throw Cancelled();
    price.emplace_back(places[k].size(), std::numeric_limits<double>::infinity());
    cameFrom.emplace_back(places[k].size(), 0);
    for (std::size_t i = 0; i < places[k].size(); ++i) {
      for (std::size_t j = 0; j < places[k - 1].size(); ++j) {
        if (places[k - 1][j] >= places[k][i]) continue;
        const double total = price[k - 1][j] + fitter.best(places[k - 1][j], places[k][i]).price;
        if (total < price[k][i]) {
          price[k][i] = total;
          cameFrom[k][i] = j;
        }
      }
    }
  }
  std::vector<std::size_t> breaks(places.size());
  std::size_t at = 0;
  for (std::size_t k = places.size(); k-- > 0;) {
    breaks[k] = places[k][at];
    at = cameFrom[k][at];
  }
  return breaks;
}

}  // namespace

Primitive fitRange(const Track& track, std::size_t from, std::size_t to, const SplitLimits& limits) {
  return Fitter(track, limits).best(from, to).primitive;
}

std::vector<Piece> splitTrack(const Track& track, const SplitLimits& limits, std::stop_token stop) {
  Fitter fitter(track, limits);
  const std::vector<std::size_t> late = latestBreaks(fitter, track.last(), stop);
  const std::vector<std::size_t> early = earliestBreaks(fitter, track.last(), stop);
  const std::vector<std::size_t> breaks = cheapestBreaks(fitter, placesFor(early, late), stop);
  std::vector<Piece> pieces;
  for (std::size_t k = 1; k < breaks.size(); ++k) {
    pieces.push_back({breaks[k - 1], breaks[k], fitter.best(breaks[k - 1], breaks[k]).primitive});
  }
  return pieces;
}

}  // namespace rim
