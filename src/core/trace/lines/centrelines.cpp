#include "core/trace/lines/centrelines.h"

#include <algorithm>
#include <cmath>
#include <iterator>

#include "core/for_all.h"
#include "core/geometry/nearest_on_paths.h"
#include "core/geometry/nesting.h"
#include "core/median.h"
#include "core/trace/contour/noise.h"
#include "core/trace/lines/draw_order.h"
#include "core/trace/lines/pen_lines.h"
#include "core/trace/lines/track_points.h"
#include "core/trace/outline/fewer_pieces.h"
#include "core/trace/outline/without_backsteps.h"

namespace rim::trace::lines {
namespace {

/// The borders of each island of ink, it first, its holes behind.
std::vector<std::vector<const contour::Border*>> islandsOf(const std::vector<contour::Border>& borders) {
  std::vector<Path> paths;
  paths.reserve(borders.size());
  for (const contour::Border& border : borders) paths.push_back(polygonThrough(border));
  const Nesting nesting = nestingOf(paths);
  std::vector<std::vector<const contour::Border*>> islands(borders.size());
  for (std::size_t i = 0; i < borders.size(); ++i) {
    if (contour::borderArea(borders[i]) > 0) islands[i].insert(islands[i].begin(), &borders[i]);
  }
  for (std::size_t i = 0; i < borders.size(); ++i) {
    if (contour::borderArea(borders[i]) <= 0 && nesting.parent[i]) islands[*nesting.parent[i]].push_back(&borders[i]);
  }
  std::erase_if(islands, [](const auto& rings) { return rings.empty() || contour::borderArea(*rings.front()) <= 0; });
  return islands;
}

StrokeWidth widthOf(const StrokeLine& line) {
  if (line.widths.empty()) return {};
  const auto [least, most] = std::minmax_element(line.widths.begin(), line.widths.end());
  return {medianOf(line.widths), *least, *most};
}

void runOnToInk(StrokeLine& line) {
  for (std::size_t end = 0; end < 2; ++end) {
    if (!line.freeEnds[end] || line.freeEnds[end]->atArea) continue;
    std::vector<Point> more = pointsOnTo(line.freeEnds[end]->on, line.freeEnds[end]->inkTip);
    if (end == 0)
      line.points.insert(line.points.begin(), more.rbegin(), more.rend());
    else
      line.points.insert(line.points.end(), more.begin(), more.end());
  }
}

/// Without points that are the same as the one before.
std::vector<Point> distinct(std::vector<Point> points, bool closed) {
  constexpr double kSamePx = 1e-6;
  const auto same = [](Point a, Point b) { return distance(a, b) < kSamePx; };
  points.erase(std::unique(points.begin(), points.end(), same), points.end());
  while (closed && points.size() > 1 && same(points.front(), points.back())) points.pop_back();
  return points;
}

/// How far every few of the points are off the path, px.
std::vector<double> offsFrom(const std::vector<Point>& points, const Path& path) {
  constexpr std::size_t kEvery = 4;
  const NearestOnPaths nearest{Paths(path)};
  std::vector<double> off;
  for (std::size_t i = 0; i < points.size(); i += kEvery) off.push_back(nearest.distanceTo(points[i]));
  return off;
}

/// What 95 of 100 of them are off by at most.
double off95(std::vector<double> offs) {
  constexpr double kShare = 0.95;
  return quantileOf(std::move(offs), kShare);
}

/// Where a stroke runs on from what was measured of it, pieces of both may overlap a little.
constexpr double kOverlapPx = 1.5;

Path fitLine(const std::vector<Point>& points, bool closed, const outline::FitSettings& settings,
             const std::stop_token& stop) {
  constexpr std::size_t kLeastForRing = 6;
  return closed && points.size() >= kLeastForRing ? outline::fitOutline(points, settings, stop)
                                                  : outline::fitOpenBorder(points, settings, stop);
}

/// A border is held by what lies on its other side, a lone line is not: where noise would let it leave its points by
/// more than most of the tolerance, less of it is taken for noise.
Path fitClosely(const std::vector<Point>& points, bool closed, outline::FitSettings settings,
                const std::stop_token& stop) {
  constexpr double kMostShare = 0.6;
  constexpr int kTries = 3;
  const double most = kMostShare * settings.tolerancePx;
  Path path;
  for (int attempt = 0; attempt < kTries; ++attempt) {
    path = fitLine(points, closed, settings, stop);
    if (off95(offsFrom(points, path)) <= most) break;
    settings.tolerancePx /= 2;
  }
  return path;
}

/// What a fit costs: a description that is short and leaves little over is the best (Schwarz' criterion: G. Schwarz,
/// "Estimating the dimension of a model", The Annals of Statistics 6 (1978), 461-464). Of points that lie so near each
/// other that they sway together one counts.
double costOf(const Path& path, const std::vector<double>& offs) {
  constexpr double kSwayPx = 8;
  constexpr double kCleanPx = 0.015;
  constexpr double kParameters = 5;  // of a line, arc or cubic that goes on from another one
  double squares = 0;
  for (const double off : offs) squares += off * off;
  const double independent = std::max(2.0, pathLength(path) / kSwayPx);
  return independent * std::log(squares / static_cast<double>(offs.size()) + kCleanPx * kCleanPx) +
         kParameters * std::log(independent) * static_cast<double>(path.segments.size());
}

/// Ink that runs into the paper makes the middle sway in waves too long to pass for noise: the best of fits to which
/// more of them counts as noise, and the one that is there.
Path leastSwaying(Path path, const std::vector<Point>& points, bool closed, const outline::FitSettings& settings,
                  const std::stop_token& stop) {
  struct Sway {
    double tolerances;
    double noises;
  };
  constexpr Sway kSways[] = {{1, 2}, {2, 2}, {2, 4}, {4, 4}};
  constexpr double kLeastNoisePx = 0.03;
  const double seen = std::max(contour::noiseOf(points), kLeastNoisePx);
  const std::vector<double> offs = offsFrom(points, path);
  double least = costOf(path, offs);
  const double most = std::max(settings.tolerancePx, off95(offs));
  const auto consider = [&](Path other) {
    const std::vector<double> otherOffs = offsFrom(points, other);
    const double cost = costOf(other, otherOffs);
    if (cost >= least || off95(otherOffs) > most) return;
    least = cost;
    path = std::move(other);
  };
  for (const Sway& sway : kSways) {
    outline::FitSettings fit = settings;
    fit.tolerancePx *= sway.tolerances;
    fit.leastNoisePx = sway.noises * seen;
    fit.mostNoisePx = fit.leastNoisePx;
    Path other = outline::withoutBacksteps(fitLine(points, closed, fit, stop), kOverlapPx);
    consider(outline::inFewerPieces(other, settings.tolerancePx));
    consider(std::move(other));
  }
  return path;
}

/// Whether a fit stays within the box of its points, but for a little.
bool staysNear(const Path& path, const std::vector<Point>& points) {
  constexpr double kMostPx = 2;
  const Box box = boxOf(points);
  const Box own = boxOf(path);
  return own.low.x > box.low.x - kMostPx && own.low.y > box.low.y - kMostPx && own.high.x < box.high.x + kMostPx &&
         own.high.y < box.high.y + kMostPx;
}

Path fittedLine(const std::vector<Point>& points, bool closed, const outline::FitSettings& settings,
                const std::stop_token& stop) {
  constexpr double kSteadyPx = 0.04;
  Path path = outline::withoutBacksteps(fitClosely(points, closed, settings, stop), kOverlapPx);
  if (off95(offsFrom(points, path)) <= kSteadyPx) return path;
  return leastSwaying(std::move(path), points, closed, settings, stop);
}

Path fit(const StrokeLine& line, const outline::FitSettings& settings, const std::stop_token& stop) {
  const std::vector<Point> points = distinct(line.points, line.closed);
  Path path = fittedLine(points, line.closed, settings, stop);
  return staysNear(path, points) ? path
                                 : outline::inFewerPieces(pathThrough(points, line.closed), settings.tolerancePx);
}

/// Rings of a pen that hardly differ in middle or radius do not at all, as borders (makeCirclesRegular()).
void makeRingsRegular(std::vector<Centreline>& lines, const outline::FitSettings& settings) {
  std::vector<Path> paths;
  for (Centreline& line : lines) paths.push_back(std::move(line.path));
  outline::makeCirclesRegular(paths, settings.rules, settings.tolerancePx);
  for (std::size_t i = 0; i < lines.size(); ++i) lines[i].path = std::move(paths[i]);
}

}  // namespace

std::vector<StrokeNet> strokeNets(const std::vector<contour::Border>& borders, const WorkControl& control) {
  const std::vector<std::vector<const contour::Border*>> islands = islandsOf(borders);
  std::vector<StrokeNet> nets(islands.size());
  forAll(islands.size(), control, [&](std::size_t i) { nets[i] = strokeNet(islands[i]); });
  return nets;
}

std::vector<StrokeNet> withTracks(std::vector<StrokeNet> nets, double limitPx, const WorkControl& control) {
  forAll(nets.size(), control, [&](std::size_t i) { nets[i] = withTracks(std::move(nets[i]), limitPx); });
  return nets;
}

std::vector<StrokeLine> linesOf(std::vector<StrokeNet> nets, const WorkControl& control) {
  const std::optional<double> penPx = penWidthOf(nets);
  std::vector<std::vector<StrokeLine>> ofNets(nets.size());
  forAll(nets.size(), control, [&](std::size_t i) { ofNets[i] = linesOf(std::move(nets[i]), penPx); });
  std::vector<StrokeLine> all;
  for (std::vector<StrokeLine>& lines : ofNets) std::move(lines.begin(), lines.end(), std::back_inserter(all));
  std::erase_if(all, [](const StrokeLine& line) { return line.points.size() < 2; });
  return all;
}

std::vector<Centreline> fitStrokes(std::vector<StrokeLine> lines, const outline::FitSettings& settings, StrokeEnds ends,
                                   const WorkControl& control) {
  std::vector<Centreline> fitted(lines.size());
  forAll(lines.size(), control, [&](std::size_t i) {
    if (ends == StrokeEnds::Ink) runOnToInk(lines[i]);
    fitted[i] = {fit(lines[i], settings, control.stop), widthOf(lines[i])};
  });
  makeRingsRegular(fitted, settings);
  return inDrawOrder(std::move(fitted));
}

}  // namespace rim::trace::lines
