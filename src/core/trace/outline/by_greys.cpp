#include "core/trace/outline/by_greys.h"

#include <optional>

#include "core/for_all.h"
#include "core/geometry/segment.h"
#include "core/trace/contour/noise.h"
#include "core/trace/contour/rendering.h"
#include "core/trace/outline/fit_outline.h"
#include "core/trace/outline/fit_settings.h"
#include "core/trace/outline/likely_polygons.h"
#include "core/trace/outline/measured_at.h"
#include "core/trace/outline/polygon_by_greys.h"
#include "core/trace/outline/without_tiny_lines.h"
#include "core/trace/split/split.h"

namespace rim::trace::outline {
namespace {

struct Closeness {
  double roundingPx;
  double gapPx;
};
constexpr Closeness kCloseness[] = {{1.2, 7}, {0.8, 3}, {0.4, 1.5}, {0.25, 1}};
/// What is taken for noise may hide a bend, and level sides waver less than the corners between them: other amounts are
/// tried, too, from what a clean border has to some of what seems hardly any.
constexpr double kShareOfNoise[] = {4, 2, 0.6, 0.35, 0.2};
constexpr double kClosestNoisePx = 0.012;
constexpr double kLevelNoisePx = 0.02;
/// Polygons brought to where greys say hardly depend on what was there before.
constexpr int kPolygonRounds = 2;
/// What the greys of a clean picture are off by: renderers count in some hundred steps a pixel.
constexpr double kGreyError = 0.04;
/// Blocks of a JPEG waver more at edges than where all is even, up to this many times.
constexpr double kMostAtEdges = 14;
/// An outline whose greys agree as well as this is not tried again.
constexpr double kGoodUsual = 0.03;
constexpr double kGoodMost = 0.1;

/// What rules may move a piece by, as a share of the tolerance: where no more is amiss, a plain large outline is as it
/// was meant.
constexpr double kShareOfRules = 0.65;
bool isSmall(const Path& path) {
  constexpr double kSmallPx2 = 2500;
  const Box box = boxOf(path);
  return box.width() * box.height() <= kSmallPx2;
}
/// What is gained by less is not worth another try.
constexpr double kLeastGain = 3;

double priceOf(const Path& path) {
  double price = 0;
  for (const Segment& s : path.segments)
    price += s.kind == SegmentKind::Line ? split::kPriceOfLine : split::kPriceOfArc;
  return price;
}

/// Places every tenth of a pixel along a path, found by where they are.
class PlacesAlong {
 public:
  struct Place {
    Point at;
    Point along;
  };

  explicit PlacesAlong(const Path& path) {
    constexpr double kStepPx = 0.1;
    Box box = boxOf(path);
    low_ = {std::floor(box.low.x), std::floor(box.low.y)};
    columns_ = static_cast<int>(std::ceil(box.width())) + 2;
    rows_ = static_cast<int>(std::ceil(box.height())) + 2;
    cells_.resize(static_cast<std::size_t>(columns_) * static_cast<std::size_t>(rows_));
    for (std::size_t i = 0; i < path.segments.size(); ++i) {
      const Piece piece = pieceOf(path, i);
      const int steps = 1 + static_cast<int>(lengthOf(piece) / kStepPx);
      for (int k = 0; k < steps; ++k) {
        const double t = (k + 0.5) / steps;
        add({pointAt(piece, t), tangentAt(piece, t)});
      }
    }
  }

  /// The nearest one within a pixel that runs about the same way.
  std::optional<Place> nearest(Point p, Point along) const {
    std::optional<Place> best;
    double least = 1;
    const auto column = static_cast<int>(std::floor(p.x - low_.x));
    const auto row = static_cast<int>(std::floor(p.y - low_.y));
    for (int y = std::max(0, row - 1); y <= std::min(rows_ - 1, row + 1); ++y) {
      for (int x = std::max(0, column - 1); x <= std::min(columns_ - 1, column + 1); ++x) {
        for (const Place& place : cells_[index(x, y)]) {
          const double off = distance(place.at, p);
          if (off >= least || dot(place.along, along) < 0) continue;
          least = off;
          best = place;
        }
      }
    }
    return best;
  }

 private:
  std::size_t index(int column, int row) const {
    return static_cast<std::size_t>(row) * static_cast<std::size_t>(columns_) + static_cast<std::size_t>(column);
  }
  void add(const Place& place) {
    const int column = std::clamp(static_cast<int>(place.at.x - low_.x), 0, columns_ - 1);
    const int row = std::clamp(static_cast<int>(place.at.y - low_.y), 0, rows_ - 1);
    cells_[index(column, row)].push_back(place);
  }

  Point low_;
  int columns_ = 0;
  int rows_ = 0;
  std::vector<std::vector<Place>> cells_;
};

/// The border with those of its points that were not measured put where greys say that the edge of the outline is.
contour::Border corrected(const contour::SharpBorder& border, const Path& outline,
                          const contour::Rendering& rendering) {
  constexpr double kMostPx = 0.5;
  constexpr double kFarthestPx = 1;
  const PlacesAlong places(outline);
  contour::Border result = border.points;
  const std::size_t n = result.size();
  for (std::size_t i = 0; i < n; ++i) {
    if (border.measured[i]) continue;
    const Point p = border.points[i];
    const auto place = places.nearest(p, border.points[(i + 1) % n] - border.points[(i + n - 1) % n]);
    if (!place) continue;
    const double off = std::clamp(rendering.offAt(place->at), -kMostPx, kMostPx);
    const Point moved = place->at - leftNormal(place->along) * off;
    if (distance(moved, p) < kFarthestPx) result[i] = moved;
  }
  return result;
}

struct Candidate {
  Path path;
  FitTarget target;
  std::size_t closeness;
};

class Agreeing {
 public:
  Agreeing(std::vector<Path>& outlines, std::vector<FitTarget>& targets, const contour::Tones& tones,
           const std::vector<contour::SharpBorder>& borders, const TraceSettings& settings, int rounds,
           const WorkControl& control)
      : outlines_(outlines),
        targets_(targets),
        tones_(tones),
        borders_(borders),
        settings_(settings),
        rounds_(rounds),
        control_(control) {}

  void run() {
    for (const FitTarget& target : targets_) settled_.push_back(target.settled);
    closeness_.assign(outlines_.size(), 0);
    for (int round = 0; round < rounds_; ++round) {
      contour::Rendering rendering(tones_.greys->shares, outlines_);
      error_ = std::max(std::hypot(tones_.greys->noise, kGreyError),
                        std::min(rendering.usualOff(), kGreyError + kMostAtEdges * tones_.greys->noise));
      const std::vector<std::size_t> which = notGood(rendering);
      if (which.empty()) return;
      if (round == 0) wavers_ = wavering(rendering);
      std::vector<std::vector<Candidate>> candidates(which.size());
      forAll(which.size(), {control_.stop, {}},
             [&](std::size_t k) { candidates[k] = candidatesFor(which[k], rendering, round); });
      for (std::size_t k = 0; k < which.size(); ++k) {
        const bool taken = takeBest(which[k], candidates[k], rendering);
        if (round > 0 && !taken) settled_[which[k]] = true;
      }
    }
  }

 private:
  std::vector<std::size_t> notGood(const contour::Rendering& rendering) const {
    const double noise = tones_.greys->noise;
    std::vector<std::size_t> which;
    for (std::size_t i = 0; i < outlines_.size(); ++i) {
      if (settled_[i]) continue;
      const contour::Rendering::Misfit misfit = rendering.misfitAlong(outlines_[i]);
      constexpr double kSeveral = 4;
      if (misfit.usual <= std::hypot(kGoodUsual, noise) && misfit.most <= std::hypot(kGoodMost, kSeveral * noise))
        continue;
      const double within = kShareOfRules * settings_.tolerancePx;
      const bool plain = closeness_[i] == 0 && outlines_[i].segments.size() <= kMostSides && !isSmall(outlines_[i]);
      if (plain && misfit.usual < within / 2 && misfit.most < within) continue;
      which.push_back(i);
    }
    return which;
  }

  /// Outlines whose borders noise or a JPEG may have moved: its even parts may be clean when its edges are not.
  std::vector<bool> wavering(const contour::Rendering& rendering) const {
    constexpr double kAmiss = 0.25;
    const bool clean = tones_.greys->noise < contour::kCleanNoise;
    std::vector<bool> wavers;
    for (const Path& path : outlines_) wavers.push_back(!clean || rendering.misfitAlong(path).most >= kAmiss);
    return wavers;
  }

  std::vector<Candidate> candidatesFor(std::size_t i, const contour::Rendering& rendering, int round) const {
    const bool correct = round > 0;
    std::vector<Candidate> candidates;
    const contour::Border points = correct ? corrected(borders_[i], outlines_[i], rendering) : borders_[i].points;
    FitSettings fit = fitSettingsFor(tones_, i, settings_);
    constexpr std::size_t kCloser = std::size(kCloseness) - 1;
    // At first all but the one that was drawn; then those beside the one that was taken.
    const std::size_t first = correct ? std::max<std::size_t>(closeness_[i], 1) - 1 : 1;
    const std::size_t last = correct ? std::min(closeness_[i] + 1, kCloser) : kCloser;
    for (std::size_t c = first; c <= last; ++c) {
      fit.roundingPx = kCloseness[c].roundingPx;
      fit.gapPx = kCloseness[c].gapPx;
      candidates.push_back({fitOutline(points, fit, control_.stop), {points, fit.roundingPx, fit.gapPx}, c});
    }
    addForNoise(i, points, candidates);
    const std::size_t fitted = candidates.size();
    for (std::size_t c = 0; c < fitted; ++c) {
      const Candidate& candidate = candidates[c];
      if (auto path = withItsBorderWhereAmiss(i, candidate.path, points, rendering))
        candidates.push_back({std::move(*path), candidate.target, candidate.closeness});
    }
    if (auto path = withItsBorderWhereAmiss(i, outlines_[i], points, rendering))
      candidates.push_back({std::move(*path), targets_[i], closeness_[i]});
    for (Path& polygon : polygonsFor(i, points, rendering, round < kPolygonRounds)) {
      candidates.push_back(
          {std::move(polygon), {points, kCloseness[kCloser].roundingPx, kCloseness[kCloser].gapPx}, kCloser});
    }
    return candidates;
  }

  /// Fits to which more or less than the border seems to waver counts as noise.
  void addForNoise(std::size_t i, const contour::Border& points, std::vector<Candidate>& candidates) const {
    if (!wavers_[i]) return;
    FitSettings fit = fitSettingsFor(tones_, i, settings_);
    fit.roundingPx = targets_[i].roundingPx;
    fit.gapPx = targets_[i].gapPx;
    const double seen = std::min(fit.mostNoisePx, contour::noiseOf(points));
    for (const double share : kShareOfNoise) {
      const double noise = share > 1 ? share * std::max(seen, kLevelNoisePx) : share * seen;
      if (noise < kClosestNoisePx) continue;
      fit.mostNoisePx = noise;
      fit.leastNoisePx = noise;
      candidates.push_back(
          {fitOutline(points, fit, control_.stop), {points, fit.roundingPx, fit.gapPx}, closeness_[i]});
    }
  }

  /// An outline that keeps to the lines of its border where the greys do not agree with it, so that one bad spot does
  /// not cost the rest. Nothing when they agree everywhere, or nowhere.
  std::optional<Path> withItsBorderWhereAmiss(std::size_t i, const Path& path, const contour::Border& points,
                                              const contour::Rendering& rendering) const {
    constexpr double kAlmostPx = 0.2;
    constexpr double kSeveral = 4;
    constexpr double kOfTolerance = 0.75;  // corners cut across a pixel cover less of it
    constexpr double kReachPx = 2.5;
    constexpr std::size_t kMostPlaces = 200;
    // A pixel that is off by a share has the edge in it about so many pixels too far; what the tolerance allows is not
    // amiss.
    // Blocks of a JPEG ring beside corners by as much as a small thing would.
    if (tones_.greys->noise >= contour::kCleanNoise) return std::nullopt;
    const double most = std::max(std::hypot(2 * kGoodMost, kSeveral * error_), kOfTolerance * settings_.tolerancePx);
    const std::vector<Point> places = rendering.amiss(outlines_[i], path, most);
    if (places.empty() || places.size() > kMostPlaces) return std::nullopt;
    constexpr double kTinyPx = 0.3;
    return withoutTinyLines(
        measuredAt(path, points, {places, kReachPx, std::vector<double>(points.size(), kAlmostPx), true}), kTinyPx);
  }

  /// The border in lines; with `bring`, when it is small, also in few lines brought to where greys say.
  std::vector<Path> polygonsFor(std::size_t i, const contour::Border& points, const contour::Rendering& rendering,
                                bool bring) const {
    constexpr double kAlmostPx = 0.2;
    constexpr double kLevelDegrees = 4;
    constexpr int kMarginPx = 2;
    constexpr double kAgreeing = 1.5;
    std::vector<Path> polygons;
    if (auto lines = inLines(points, kAlmostPx)) polygons.push_back(std::move(*lines));
    if (!bring || !isSmall(outlines_[i])) return polygons;
    const contour::Coverage wanted = rendering.wantedOf(outlines_[i], kMarginPx);
    if (wanted.where.empty()) return polygons;
    const double level = settings_.rules.level ? kLevelDegrees : 0;
    for (const Path& start : likelyPolygons(points)) {
      for (const double degrees : {0.0, level}) {
        auto polygon = polygonByGreys(start, wanted, tones_.grey.size(), degrees);
        if (polygon && rendering.misfitOf(outlines_[i], *polygon) < kAgreeing * error_ * error_)
          polygons.push_back(std::move(*polygon));
        if (level == 0) break;
      }
    }
    return polygons;
  }

  bool takeBest(std::size_t i, std::vector<Candidate>& candidates, contour::Rendering& rendering) {
    Candidate* best = nullptr;
    double least = -kLeastGain;
    for (Candidate& candidate : candidates) {
      const double misfit = rendering.changeBy(outlines_[i], candidate.path) / (error_ * error_);
      const double cost = misfit + priceOf(candidate.path) - priceOf(outlines_[i]);
      if (cost >= least) continue;
      least = cost;
      best = &candidate;
    }
    if (best == nullptr) return false;
    rendering.replace(outlines_[i], best->path);
    outlines_[i] = std::move(best->path);
    targets_[i] = std::move(best->target);
    closeness_[i] = best->closeness;
    return true;
  }

  std::vector<Path>& outlines_;
  std::vector<FitTarget>& targets_;
  const contour::Tones& tones_;
  const std::vector<contour::SharpBorder>& borders_;
  const TraceSettings& settings_;
  int rounds_;
  const WorkControl& control_;
  double error_ = kGreyError;
  std::vector<bool> settled_;
  std::vector<bool> wavers_;
  std::vector<std::size_t> closeness_;
};

}  // namespace

void agreeWithGreys(std::vector<Path>& outlines, std::vector<FitTarget>& targets, const contour::Tones& tones,
                    const std::vector<contour::SharpBorder>& borders, const TraceSettings& settings, int rounds,
                    const WorkControl& control) {
  Agreeing(outlines, targets, tones, borders, settings, rounds, control).run();
}

}  // namespace rim::trace::outline
