#include "core/trace/outline/section.h"

#include <limits>
#include <numbers>

#include "core/trace/fit/curve_fit.h"
#include "core/trace/fit/polish.h"

namespace rim::trace::outline {
namespace {

constexpr double kNever = std::numeric_limits<double>::infinity();
constexpr std::size_t kMostPiecesPerCubic = 40;
constexpr std::size_t kSamples = 48;
/// A curve is not made longer when it has been this dear over this many cuts.
constexpr double kHopeless = 150;
constexpr int kHopelessCuts = 3;
/// How far round a cut the border says where the curve goes through, px.
constexpr double kSmoothingPx = 8;

/// A cubic with the range of the track that it follows.
struct Stretch {
  std::size_t from = 0;
  std::size_t to = 0;
  Cubic cubic;
  bool kink = false;  ///< it turns where it begins: no common tangent with the one before
};

class Follower {
 public:
  Follower(const split::Track& track, const Section& section, const split::SplitLimits& limits)
      : track_(track), section_(section), limits_(limits) {
    for (std::size_t i = 0; i < section.cuts.size(); ++i) places_.push_back(placeOf(i));
  }

  std::optional<CurveRun> run() {
    std::vector<Stretch> stretches = cheapest();
    if (stretches.empty()) return std::nullopt;
    findKinks(stretches);
    polish(stretches);
    while (stretches.size() > 1 && mergeBest(stretches)) polish(stretches);
    CurveRun run;
    for (const Stretch& s : stretches) {
      run.price += kPriceOfCubic + misfit(s);
      run.cubics.push_back(s.cubic);
    }
    return run;
  }

 private:
  /// The place that a curve should go through at a cut: the border there, calmed.
  Point placeOf(std::size_t i) const {
    if (i == 0 && section_.start) return *section_.start;
    if (i + 1 == section_.cuts.size() && section_.end) return *section_.end;
    const std::size_t at = section_.cuts[i];
    const std::size_t before = section_.cuts[i > 0 ? i - 1 : 1];
    const std::size_t after = section_.cuts[i + 1 < section_.cuts.size() ? i + 1 : i - 1];
    const double room = std::min(std::abs(track_.arcLength(at) - track_.arcLength(before)),
                                 std::abs(track_.arcLength(after) - track_.arcLength(at)));
    const double reach = std::clamp(room, 1.5, kSmoothingPx);
    // At an end of the section only what lies within it counts.
    const double low = i == 0 ? 0 : reach;
    const double high = i + 1 == section_.cuts.size() ? 0 : reach;
    const double wider = low > 0 && high > 0 ? 1 : 2;
    const auto points = track_.points(track_.indexAt(track_.arcLength(at) - wider * low),
                                      std::min(track_.last(), track_.indexAt(track_.arcLength(at) + wider * high)) + 1);
    const auto circle = fit::fitCircle(points);
    return fit::project(circle ? *circle : fit::fitLine(points), track_.point(at));
  }

  double factsOf(std::size_t from, std::size_t to) const {
    return split::effectiveSampleSize(static_cast<double>(to - from + 1));
  }

  std::vector<Point> pointsOf(std::size_t from, std::size_t to) const {
    std::vector<Point> points;
    track_.sample(from, to, 0, 0, kSamples, points);
    return points;
  }

  double priceOf(std::size_t from, std::size_t to, const fit::CurveFit& fit) const {
    const double square = limits_.deviationPx * limits_.deviationPx;
    // One place far off is not made good by many that are near.
    const double farthest = fit.largest / (4 * limits_.deviationPx);
    return factsOf(from, to) * fit.meanSquare / square + (farthest > 1 ? 50 * (farthest - 1) : 0);
  }

  double misfit(const Stretch& s) const {
    const std::vector<Point> points = pointsOf(s.from, s.to);
    const std::vector<double> parameters = fit::nearestParameters(s.cubic, points);
    fit::CurveFit fit{s.cubic, 0, 0};
    for (std::size_t i = 0; i < points.size(); ++i) {
      const double off = distance(pointOn(s.cubic, parameters[i]), points[i]);
      fit.largest = std::max(fit.largest, off);
      fit.meanSquare += off * off / static_cast<double>(points.size());
    }
    return priceOf(s.from, s.to, fit);
  }

  std::vector<Stretch> cheapest() const {
    const std::size_t n = section_.cuts.size();
    struct Reached {
      double price = kNever;
      std::size_t from = 0;
      Cubic cubic;
    };
    std::vector<Reached> reached(n);
    reached[0].price = 0;
    for (std::size_t i = 0; i + 1 < n; ++i) {
      if (reached[i].price == kNever) continue;
      int hopeless = 0;
      for (std::size_t j = i + 1; j < n && j - i <= kMostPiecesPerCubic && hopeless < kHopelessCuts; ++j) {
        if (reached[j].price <= reached[i].price + kPriceOfCubic) continue;
        const auto fit = fit::fitCubic({places_[i], {}, places_[j], {}}, pointsOf(section_.cuts[i], section_.cuts[j]));
        const double misfit = fit ? priceOf(section_.cuts[i], section_.cuts[j], *fit) : kNever;
        hopeless = misfit > kHopeless ? hopeless + 1 : 0;
        const double total = reached[i].price + kPriceOfCubic + misfit;
        if (total < reached[j].price) reached[j] = {total, i, fit->cubic};
      }
    }
    std::vector<Stretch> stretches;
    if (reached[n - 1].price == kNever) return stretches;
    for (std::size_t j = n - 1; j > 0; j = reached[j].from)
      stretches.push_back({section_.cuts[reached[j].from], section_.cuts[j], reached[j].cubic});
    std::reverse(stretches.begin(), stretches.end());
    return stretches;
  }

  /// How far off, in degrees, the direction at the end of a free fit may be by noise alone: about
  /// eight deviations over length and root of the points (least squares of a cubic at its end).
  double vagueDegrees(const Stretch& s) const {
    const double way = std::max(1.0, track_.arcLength(s.to) - track_.arcLength(s.from));
    const double slope = 8 * limits_.deviationPx / (way * std::sqrt(std::max(1.0, factsOf(s.from, s.to))));
    return slope * 180 / std::numbers::pi;
  }

  bool turns(Point before, Point after, double vague) const {
    const double degrees = std::abs(angleBetween(before, after)) * 180 / std::numbers::pi;
    return degrees > std::max(section_.kinkDegrees, 3 * vague);
  }

  /// Free fits that turn by more than noise explains keep their kinks; all else is made smooth.
  void findKinks(std::vector<Stretch>& stretches) {
    const std::size_t n = stretches.size();
    for (std::size_t k = section_.closed ? 0 : 1; k < n; ++k) {
      const Stretch& before = stretches[(k + n - 1) % n];
      stretches[k].kink = turns(tangent(before.cubic, 1), tangent(stretches[k].cubic, 0),
                                std::max(vagueDegrees(before), vagueDegrees(stretches[k])));
    }
    const Stretch& first = stretches.front();
    const Stretch& last = stretches.back();
    if (section_.startTangent && !turns(*section_.startTangent, tangent(first.cubic, 0), vagueDegrees(first)))
      startTangent_ = section_.startTangent;
    if (section_.endTangent && !turns(tangent(last.cubic, 1), *section_.endTangent, vagueDegrees(last)))
      endTangent_ = section_.endTangent;
  }

  /// Moves the cubics from `from` up to, not including, `end` together.
  void polishRun(std::vector<Stretch>& stretches, std::size_t from, std::size_t end, bool closed) const {
    fit::SmoothRun run;
    for (std::size_t k = from; k < end; ++k) {
      const Stretch& s = stretches[k];
      run.cubics.push_back(s.cubic);
      run.points.push_back(pointsOf(s.from, s.to));
      run.weights.push_back(factsOf(s.from, s.to) /
                            static_cast<double>(std::max<std::size_t>(1, run.points.back().size())));
    }
    if (from == 0) run.startTangent = startTangent_;
    if (end == stretches.size()) run.endTangent = endTangent_;
    run.startSlides = section_.startSlides;
    run.endSlides = section_.endSlides;
    run.closed = closed;
    const std::vector<Cubic> cubics = fit::polished(std::move(run));
    for (std::size_t k = from; k < end; ++k) stretches[k].cubic = cubics[k - from];
  }

  void polish(std::vector<Stretch>& stretches) const {
    const bool kinks = std::any_of(stretches.begin(), stretches.end(), [](const Stretch& s) { return s.kink; });
    if (section_.closed && !kinks) {
      polishRun(stretches, 0, stretches.size(), true);
      return;
    }
    for (std::size_t from = 0; from < stretches.size();) {
      std::size_t end = from + 1;
      while (end < stretches.size() && !stretches[end].kink) ++end;
      polishRun(stretches, from, end, false);
      from = end;
    }
  }

  /// Makes one of the two neighbours whose becoming one saves most; false when none does.
  bool mergeBest(std::vector<Stretch>& stretches) const {
    double best = 0;
    std::size_t at = 0;
    Stretch merged;
    for (std::size_t k = 0; k + 1 < stretches.size(); ++k) {
      const Stretch& a = stretches[k];
      const Stretch& b = stretches[k + 1];
      const bool freeStart = a.kink || (k == 0 && !section_.closed);
      const bool freeEnd = k + 2 < stretches.size() ? stretches[k + 2].kink : !section_.closed;
      const auto tangentAtStart =
          freeStart ? (k == 0 ? startTangent_ : std::nullopt) : std::optional(tangent(a.cubic, 0));
      const auto tangentAtEnd =
          freeEnd ? (k + 2 == stretches.size() ? endTangent_ : std::nullopt) : std::optional(tangent(b.cubic, 1));
      const auto fit = fit::fitCubic({a.cubic.p0, tangentAtStart, b.cubic.p3, tangentAtEnd}, pointsOf(a.from, b.to));
      if (!fit) continue;
      const double saved = misfit(a) + misfit(b) + kPriceOfCubic - priceOf(a.from, b.to, *fit);
      if (saved <= best) continue;
      best = saved;
      at = k;
      merged = {a.from, b.to, fit->cubic, a.kink};
    }
    if (best <= 0) return false;
    stretches[at] = merged;
    stretches.erase(stretches.begin() + static_cast<std::ptrdiff_t>(at) + 1);
    return true;
  }

  const split::Track& track_;
  const Section& section_;
  const split::SplitLimits& limits_;
  std::vector<Point> places_;
  std::optional<Point> startTangent_;  ///< the section's, when the curve goes over into it smoothly
  std::optional<Point> endTangent_;
};

}  // namespace

std::optional<CurveRun> curvesAlong(const split::Track& track, const Section& section,
                                    const split::SplitLimits& limits) {
  if (section.cuts.size() < 2) return std::nullopt;
  return Follower(track, section, limits).run();
}

}  // namespace rim::trace::outline
