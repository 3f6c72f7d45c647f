#include "core/mend/find/stroke_pairs.h"

#include <algorithm>
#include <set>

#include "core/median.h"
#include "core/mend/find/piece_index.h"

namespace rim::mend {
namespace {

constexpr double kTurnsOfWidth = 8;
constexpr double kLikeShare = 0.7;        // of either edge
constexpr double kLikeShareOfBoth = 0.8;  // on average

/// Places evenly along the path, `stepMm` apart, however many segments it is made of.
std::vector<Point> placesAlong(const Path& path, double stepMm) {
  std::vector<Point> places;
  double next = stepMm / 2;  // to the next place, from the start of the segment
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Piece piece = pieceOf(path, i);
    const double size = lengthOf(piece);
    for (; next < size; next += stepMm) places.push_back(pointAt(piece, next / size));
    next -= size;
  }
  if (places.empty()) places.push_back(path.start);
  return places;
}

/// The distance to the path, or `beyond` when it is more than that.
double distanceTo(const PieceIndex& index, Point p, double beyond) {
  double least = beyond;
  index.near({p, p}, beyond, [&](std::size_t i) {
    const Piece& piece = index.pieces()[i].piece;
    least = std::min(least, distanceTo(piece, p));
  });
  return least;
}

std::vector<double> distancesTo(const Path& path, const std::vector<Point>& places, double beyond) {
  const PieceIndex index{Paths(path)};
  std::vector<double> found;
  found.reserve(places.size());
  for (const Point p : places) found.push_back(distanceTo(index, p, beyond));
  return found;
}

/// Whether at least two sides of the boxes of two outlines, one in the other, lie as near each other as the edges of a
/// stroke. Whiskers make the other sides differ.
bool lieClose(const Box& a, const Box& b, double widestMm) {
  constexpr double kPointed = 4;  // a sharp corner's outer edge reaches farther out than the stroke is wide
  int near = 0;
  for (const double off : {b.low.x - a.low.x, b.low.y - a.low.y, a.high.x - b.high.x, a.high.y - b.high.y}) {
    near += off <= kPointed * widestMm ? 1 : 0;
  }
  return near >= 2;
}

/// Whether one outline is not much longer than the other in it.
bool areAlikeLong(const Path& outer, const Path& inner) {
  constexpr double kMuchLonger = 1.6;
  return pathLength(outer) <= kMuchLonger * pathLength(inner);
}

std::optional<StrokePair> pairOf(const Drawing& drawing, std::size_t outer, std::size_t inner, double widestMm) {
  const Path& a = drawing.path(outer);
  const Path& b = drawing.path(inner);
  constexpr double kPlaces = 1000;
  const double stepMm = std::max(widestMm / 4, pathLength(a) / kPlaces);
  const std::vector<Point> onOuter = placesAlong(a, stepMm);
  const std::vector<Point> onInner = placesAlong(b, stepMm);
  constexpr double kBeyond = 3;
  const std::vector<double> outwards = distancesTo(b, onOuter, kBeyond * widestMm);
  const std::vector<double> inwards = distancesTo(a, onInner, kBeyond * widestMm);
  const double width = medianOf(inwards);
  if (!(width > 0) || width > widestMm || pathLength(b) < kTurnsOfWidth * width) return {};
  const auto like = [width](double d) { return std::abs(d - width) <= width / 4; };
  const auto share = [&like](const std::vector<double>& d) {
    return static_cast<double>(std::count_if(d.begin(), d.end(), like)) / static_cast<double>(d.size());
  };
  const double shareIn = share(inwards);
  const double shareOut = share(outwards);
  if (std::min(shareIn, shareOut) < kLikeShare || (shareIn + shareOut) / 2 < kLikeShareOfBoth) return {};
  StrokePair pair{outer, inner, width, {}};
  for (std::size_t i = 0; i < onOuter.size(); ++i) {
    constexpr double kMuchFarther = 2;
    if (outwards[i] <= kMuchFarther * width) continue;
    const bool near = !pair.unlike.empty() && distance(pair.unlike.back(), onOuter[i]) < kBeyond * widestMm;
    if (!near) pair.unlike.push_back(onOuter[i]);
  }
  return pair;
}

}  // namespace

std::optional<StrokePair> strokePairOf(const Drawing& drawing, Surroundings& round, std::size_t inner,
                                       double widestMm) {
  const Box& own = drawing.outlines[inner].box();
  const auto close = [&](std::size_t outer) { return lieClose(drawing.outlines[outer].box(), own, widestMm); };
  // Most outlines have none that near round them; that is told before any place is looked at.
  const std::vector<std::size_t> maybe = round.mayBeRound(inner);
  if (std::none_of(maybe.begin(), maybe.end(), close)) return {};
  const auto outer = round.parentAmong(round.of(inner));
  if (!outer || !onOneLayer(drawing, *outer, inner) || !close(*outer)) return {};
  if (!areAlikeLong(drawing.path(*outer), drawing.path(inner))) return {};
  return pairOf(drawing, *outer, inner, widestMm);
}

std::vector<StrokePair> eachInOne(const std::vector<StrokePair>& pairs) {
  std::vector<StrokePair> found;
  std::set<std::size_t> taken;
  for (const StrokePair& pair : pairs) {
    if (taken.count(pair.outer) != 0 || taken.count(pair.inner) != 0) continue;
    found.push_back(pair);
    taken.insert(pair.outer);
    taken.insert(pair.inner);
  }
  return found;
}

std::vector<StrokePair> strokePairs(const Drawing& drawing, double widestMm) {
  const Paths paths = pathsOf(drawing);
  Surroundings round(paths);
  std::vector<StrokePair> pairs;
  for (std::size_t inner = 0; inner < paths.size(); ++inner) {
    if (const auto pair = strokePairOf(drawing, round, inner, widestMm)) pairs.push_back(*pair);
  }
  return eachInOne(pairs);
}

}  // namespace rim::mend
