#include "core/trace/inks/ink_borders.h"

#include <algorithm>
#include <iterator>
#include <numeric>
#include <set>

#include "core/colour/reduce.h"
#include "core/for_all.h"
#include "core/trace/inks/ink_crossings.h"
#include "core/trace/inks/junction.h"
#include "core/trace/inks/own_outlines.h"
#include "core/trace/inks/unseen.h"
#include "core/trace/inks/ways.h"
#include "core/trace/outline/fewer_pieces.h"
#include "core/trace/outline/fit_outline.h"
#include "core/trace/outline/fit_settings.h"
#include "core/trace/outline/guard.h"
#include "core/trace/outline/measured_near.h"

namespace rim::trace::inks {
namespace {

constexpr double kEverywherePx = 1e9;
/// Junctions nearer to each other are one.
constexpr double kOnePlacePx = 0.06;

class Fitter {
 public:
  Fitter(const Ways& ways, const std::vector<std::optional<Path>>& own, const outline::FitSettings& settings,
         double withinPx)
      : ways_(ways), own_(own), settings_(settings), withinPx_(withinPx) {
    paths_.resize(ways.ways.size());
  }

  struct Fitted {
    InkBorders borders;
    std::vector<Point> crossings;  ///< where some still cross
  };

  Fitted fitted(const WorkControl& control) {
    forAll(ways_.ways.size(), control,
           [&](std::size_t w) { paths_[w] = own_[w] ? *own_[w] : fit(ways_.ways[w], control.stop); });
    placeJunctions();
    for (std::size_t w = 0; w < paths_.size(); ++w) moveEnds(w);
    InkBorders result;
    result.junctions = places_;
    result.borders.resize(ways_.borders.size());
    for (std::size_t w = 0; w < paths_.size(); ++w) cut(w, result.borders);
    std::vector<Point> crossings = leaveCrossingsAsMeasured(result, control);
    if (crossings.empty() && withinPx_ > settings_.tolerancePx) takeFewerPieces(result, control);
    if (crossings.empty()) result = withoutUnseen(result, control.stop);
    return {std::move(result), std::move(crossings)};
  }

 private:
  const InkBorder& border(const Way::Part& part) const { return ways_.borders[part.border]; }
  int startOf(const Way::Part& part) const { return part.reversed ? border(part).end : border(part).start; }
  int endNodeOf(const Way::Part& part) const { return part.reversed ? border(part).start : border(part).end; }
  Point seen(int junction) const { return ways_.junctions[static_cast<std::size_t>(junction)].place; }

  std::vector<Point> pointsOf(const Way& way) const {
    std::vector<Point> points;
    for (const Way::Part& part : way.parts) {
      std::vector<Point> own = border(part).points;
      if (part.reversed) std::reverse(own.begin(), own.end());
      points.insert(points.end(), own.begin(), own.end());
    }
    points.erase(std::unique(points.begin(), points.end()), points.end());
    while (way.closed && points.size() > 1 && points.front() == points.back()) points.pop_back();
    return points;
  }

  Path straight(const Way& way) const {
    return {seen(startOf(way.parts.front())), {Segment::line(seen(endNodeOf(way.parts.back())))}, false};
  }

  Path fit(const Way& way, const std::stop_token& stop) const {
    if (way.onRim && !way.closed) return straight(way);
    const std::vector<Point> points = pointsOf(way);
    outline::FitSettings settings = settings_;
    settings.jagged =
        std::any_of(way.parts.begin(), way.parts.end(), [this](const Way::Part& part) { return border(part).jagged; });
    if (way.closed && points.size() >= 3) return outline::fitWithin(points, settings, stop);
    // A border of a pixel or two has no shape of its own.
    constexpr std::size_t kLeastPoints = 4;
    return points.size() < kLeastPoints ? straight(way) : outline::fitOpenBorder(points, settings, stop);
  }

  void placeJunctions() {
    std::vector<BordersMeeting> meetings(ways_.junctions.size());
    for (std::size_t j = 0; j < meetings.size(); ++j) {
      meetings[j].seen = ways_.junctions[j].place;
      meetings[j].bent = ways_.junctions[j].bent;
    }
    const auto at = [&meetings](int junction) -> BordersMeeting& {
      return meetings[static_cast<std::size_t>(junction)];
    };
    for (std::size_t w = 0; w < paths_.size(); ++w) {
      const Way& way = ways_.ways[w];
      for (std::size_t k = way.closed ? 0 : 1; k < way.parts.size(); ++k) {
        const int junction = startOf(way.parts[k]);
        if (junction < 0) continue;
        // A side of the picture is known exactly.
        auto& through = at(junction).through;
        through.insert(way.onRim ? through.begin() : through.end(), &paths_[w]);
      }
      if (way.closed || paths_[w].segments.empty()) continue;
      const Path& path = paths_[w];
      const auto last = path.segments.size() - 1;
      at(startOf(way.parts.front())).ends.push_back({path.start, startTangent(path.start, path.segments.front())});
      at(endNodeOf(way.parts.back()))
          .ends.push_back({endOf(path), endTangent(segmentStart(path, last), path.segments[last])});
    }
    for (std::size_t j = 0; j < meetings.size(); ++j) {
      places_.push_back(ways_.junctions[j].fixed ? meetings[j].seen : meetingPlace(meetings[j]));
    }
    makeOneOfNearlyOne();
  }

  /// Junctions that come to lie beside each other lie in one place; that which is known exactly stays.
  void makeOneOfNearlyOne() {
    for (const InkBorder& border : ways_.borders) {
      if (border.start < 0 || border.start == border.end) continue;
      const auto one = static_cast<std::size_t>(border.start);
      const auto other = static_cast<std::size_t>(border.end);
      if (distance(places_[one], places_[other]) >= kOnePlacePx) continue;
      const bool otherIsKnown = ways_.junctions[other].fixed && !ways_.junctions[one].fixed;
      (otherIsKnown ? places_[one] : places_[other]) = places_[otherIsKnown ? other : one];
    }
  }

  Point placed(int junction) const { return places_[static_cast<std::size_t>(junction)]; }

  void moveEnds(std::size_t w) {
    const Way& way = ways_.ways[w];
    if (way.closed) return;
    paths_[w] = broughtTo(paths_[w], placed(startOf(way.parts.front())), placed(endNodeOf(way.parts.back())));
  }

  /// The borders of a way are its stretches between junctions.
  void cut(std::size_t w, std::vector<FittedBorder>& borders) const {
    const Way& way = ways_.ways[w];
    const Path& path = paths_[w];
    for (const Way::Part& part : way.parts) {
      FittedBorder& fitted = borders[part.border];
      fitted.left = border(part).left;
      fitted.right = border(part).right;
      fitted.start = border(part).start;
      fitted.end = border(part).end;
      fitted.way = w;
      fitted.path = way.parts.size() == 1 && !needsCut(way) ? path : stretch(path, way, part);
      if (part.reversed) fitted.path = reversed(fitted.path);
    }
  }

  bool needsCut(const Way& way) const { return way.closed && border(way.parts.front()).start >= 0; }

  Path stretch(const Path& path, const Way& through, const Way::Part& part) const {
    const Point from = placed(startOf(part));
    const Point to = placed(endNodeOf(part));
    PathPlace a = nearestOn(path, from);
    PathPlace b = nearestOn(path, to);
    // A closed way through one junction only goes all the way round.
    if (!through.closed && &part == &through.parts.front()) a = {0, 0, path.start, 0};
    if (!through.closed && &part == &through.parts.back()) b = {path.segments.size() - 1, 1, endOf(path), 0};
    Path own = stretchOf(path, a, b);
    // What came out far too long or short went round the wrong way: then the measured points must do.
    Path measured = polyline(part, from, to);
    const double way = pathLength(measured);
    if (std::abs(pathLength(own) - way) > 4 + 0.3 * way) return measured;
    return withEnds(std::move(own), from, to);
  }

  /// The border with its own points near the places, or, when those cross as well, the middles of its pixels' sides.
  Path asMeasuredNear(std::size_t index, const Path& path, const std::vector<Point>& places, double reachPx,
                      bool roughly) const {
    const InkBorder& own = ways_.borders[index];
    const std::vector<Point>& points = roughly ? own.sides : own.points;
    if (own.start < 0) return polygonThrough(points);
    return outline::measuredNear(path, points, placed(own.start), placed(own.end), places, reachPx);
  }

  /// Borders that come to cross each other after fitting follow their points near the crossing; where that does not
  /// help the sides of their pixels between junctions where these are seen, farther round each time, at last from end
  /// to end. Returns where some still cross.
  std::vector<Point> leaveCrossingsAsMeasured(InkBorders& result, const WorkControl& control) {
    constexpr double kReachesPx[] = {6, 6, 12, 24, 48};
    constexpr std::size_t kGentleRounds = 2;
    constexpr std::size_t kRounds = std::size(kReachesPx) + 3;
    for (std::size_t round = 0;; ++round) {
      const std::vector<Point> places = crossingPlaces(result, control.stop);
      if (places.empty() || round == kRounds) return places;
      const double reach = round < std::size(kReachesPx) ? kReachesPx[round] : kEverywherePx;
      std::set<int> junctions;
      for (std::size_t i = 0; i < result.borders.size(); ++i) {
        if (!passes(result.borders[i].path, places)) continue;
        result.borders[i].path = asMeasuredNear(i, result.borders[i].path, places, reach, round > 0);
        junctions.insert({ways_.borders[i].start, ways_.borders[i].end});
      }
      if (round >= kGentleRounds) putBack(junctions, reach, result);
    }
  }

  /// Where more is allowed than what is fitted to, each border in the fewest segments within it; less where borders
  /// would cross by it.
  void takeFewerPieces(InkBorders& result, const WorkControl& control) const {
    const std::vector<FittedBorder> fitted = result.borders;
    std::vector<std::size_t> which(fitted.size());
    std::iota(which.begin(), which.end(), 0);
    for (int round = 0; round <= outline::kFewerPiecesTries && !which.empty(); ++round) {
      forAll(which.size(), {control.stop, {}}, [&](std::size_t k) {
        result.borders[which[k]].path = outline::inFewerPiecesOnTry(fitted[which[k]].path, withinPx_, round);
      });
      const std::vector<Point> places = crossingPlaces(result, control.stop);
      std::erase_if(which, [&](std::size_t i) { return !passes(result.borders[i].path, places); });
    }
  }

  void putBack(const std::set<int>& junctions, double reachPx, InkBorders& result) {
    std::vector<Point> places;
    for (const int j : junctions) {
      if (j < 0) continue;
      places_[static_cast<std::size_t>(j)] = seen(j);
      places.push_back(seen(j));
    }
    result.junctions = places_;
    for (std::size_t i = 0; i < result.borders.size(); ++i) {
      const InkBorder& own = ways_.borders[i];
      if (own.start >= 0 && (junctions.count(own.start) != 0 || junctions.count(own.end) != 0))
        result.borders[i].path = asMeasuredNear(i, result.borders[i].path, places, reachPx, true);
    }
  }

  Path polyline(const Way::Part& part, Point from, Point to) const {
    std::vector<Point> points = border(part).points;
    if (part.reversed) std::reverse(points.begin(), points.end());
    Path path{from, {}, false};
    for (const Point p : points) path.segments.push_back(Segment::line(p));
    path.segments.push_back(Segment::line(to));
    return path;
  }

  const Ways& ways_;
  const std::vector<std::optional<Path>>& own_;  ///< of the ways (trace/inks/own_outlines.h)
  const outline::FitSettings& settings_;
  double withinPx_;  ///< how far borders may leave what was measured, whatever they are fitted to
  std::vector<Path> paths_;
  std::vector<Point> places_;
};

}  // namespace

InkBorders fitInkBorders(const picture::Picture& picture, const colour::InkMap& map, const TraceSettings& settings,
                         const WorkControl& control) {
  colour::InkMap clean = map;
  clean.labels = std::make_shared<const cv::Mat>(colour::withoutSpecks(*map.labels, settings.minAreaPx2, control.stop));
  outline::FitSettings fit = outline::fitSettingsFrom(settings);
  fit.tolerancePx = std::min(settings.tolerancePx, outline::kTightTolerancePx);
  const CrackGraph cracks = cracksOf(*clean.labels, control.stop);
  TraceSettings tight = settings;
  tight.tolerancePx = fit.tolerancePx;
  const LoneInks lone(cracks, *picture.bgr, clean, tight, {control.stop, {}});
  // Borders that cross whatever is done end at a junction that is made of several: those are kept apart then.
  constexpr int kMostRounds = 4;
  std::vector<Point> keptApart;
  for (int round = 1;; ++round) {
    const Ways ways = waysOf(cracks, *picture.bgr, clean, lone, keptApart, control.stop);
    const auto own = ownOutlines(ways, lone, {control.stop, {}});
    // Progress is told of the first round; few pictures need another.
    auto [borders, crossings] =
        Fitter(ways, own, fit, settings.tolerancePx).fitted(round == 1 ? control : WorkControl{control.stop, {}});
    if (crossings.empty() || round == kMostRounds) return std::move(borders);
    keptApart.insert(keptApart.end(), crossings.begin(), crossings.end());
  }
}

}  // namespace rim::trace::inks
