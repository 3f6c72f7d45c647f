#include "core/trace/inks/own_outlines.h"

#include <algorithm>
#include <cmath>

#include "core/for_all.h"
#include "core/geometry/nearest_on_ring.h"
#include "core/geometry/path_place.h"
#include "core/geometry/places_along.h"
#include "core/geometry/segment.h"

namespace rim::trace::inks {
namespace {

/// The middles of the sides of pixels along a way.
std::vector<Point> sidesAlong(const Way& way, const Ways& ways) {
  std::vector<Point> sides;
  for (const Way::Part& part : way.parts) {
    const std::vector<Point>& own = ways.borders[part.border].sides;
    part.reversed ? sides.insert(sides.end(), own.rbegin(), own.rend())
                  : sides.insert(sides.end(), own.begin(), own.end());
  }
  return sides;
}

/// An end of a way: its junction, and the measured point nearest to it, beyond which other inks are near.
struct WayEnd {
  Point junction;
  Point measured;

  double reachPx() const { return LoneInks::kOffPx + distance(junction, measured); }
};

WayEnd endOf(const Ways& ways, const Way::Part& part, bool atEnd) {
  const InkBorder& border = ways.borders[part.border];
  const bool last = atEnd != part.reversed;
  const auto junction = static_cast<std::size_t>(last ? border.end : border.start);
  return {ways.junctions[junction].place, last ? border.points.back() : border.points.front()};
}

/// Whether every place of `sides` lies near the path, save those that lead from its ends to junctions.
bool follows(const Path& path, const std::vector<Point>& sides, double toStartPx, double toEndPx) {
  return std::all_of(sides.begin(), sides.end(), [&](Point p) {
    return nearestOn(path, p).off <= LoneInks::kOffPx || distance(p, path.start) <= toStartPx ||
           distance(p, path.segments.back().end) <= toEndPx;
  });
}

/// Whether the path goes nowhere else than along the sides.
bool staysAt(const Path& path, const std::vector<Point>& sides) {
  constexpr double kChordErrorPx = 0.1;
  constexpr double kCellPx = 4;
  constexpr double kStepPx = 1;
  // There and back, so that the ends of an open way are not joined.
  std::vector<Point> both = sides;
  both.insert(both.end(), sides.rbegin(), sides.rend());
  const NearestOnRing ring(both, kCellPx);
  const std::vector<Point> places = placesAlong(path, kChordErrorPx, kStepPx);
  std::size_t hint = 0;
  return std::all_of(places.begin(), places.end(),
                     [&](Point p) { return ring.comesWithin(p, LoneInks::kOffPx + 1, hint); });
}

bool isNear(const Box& a, const Box& b) {
  return std::max({std::abs(a.low.x - b.low.x), std::abs(a.low.y - b.low.y), std::abs(a.high.x - b.high.x),
                   std::abs(a.high.y - b.high.y)}) <= LoneInks::kOffPx;
}

/// The whole of the outline that goes round just what the polygon of sides does, run its way.
std::optional<Path> wholeAlong(const LoneInks::Ink& ink, const std::vector<Point>& sides) {
  const Path polygon = polygonThrough(sides);
  const Box box = boxOf(polygon);
  for (const Path& outline : ink.outlines) {
    const double area = std::abs(signedArea(outline)) - std::abs(signedArea(polygon));
    if (!isNear(boxOf(outline), box) || std::abs(area) > pathLength(outline) / 2) continue;
    if (!staysAt(outline, sides)) continue;
    return (signedArea(outline) > 0) == (signedArea(polygon) > 0) ? outline : reversed(outline);
  }
  return std::nullopt;
}

/// Where a way that an outline follows ends. A long line is to be prolonged, as it shows the junction better than what
/// is there; anything else goes on to the outline's corner at the junction, or else to its nearest place.
PathPlace endNear(const Path& outline, const WayEnd& end) {
  constexpr double kLongStretchPx = 4;
  constexpr double kCornerTurn = 0.45;
  const PathPlace near = nearestOn(outline, end.measured);
  const Piece piece = pieceOf(outline, near.segment);
  if (isLine(piece.segment) && lengthOf(piece) > kLongStretchPx) return near;
  const PathPlace at = nearestOn(outline, end.junction);
  const std::vector<OutlineNode> nodes = nodesNear(outline, at.place);
  const auto sharpest = std::max_element(nodes.begin(), nodes.end(),
                                         [](const OutlineNode& a, const OutlineNode& b) { return a.turn < b.turn; });
  if (sharpest == nodes.end() || sharpest->turn < kCornerTurn) return at;
  const Point place = outline.segments[sharpest->segment].end;
  return {sharpest->segment, 1, place, distance(place, end.junction)};
}

/// The stretch of an outline from one junction to another one, `forwards` or against its way, that follows the sides.
std::optional<Path> stretchAlong(const LoneInks::Ink& ink, const WayEnd& from, const WayEnd& to, bool forwards,
                                 const std::vector<Point>& sides) {
  constexpr double kLongerPx = 4;
  constexpr double kLongerShare = 0.3;
  const auto length = static_cast<double>(sides.size());
  for (std::size_t i = 0; i < ink.outlines.size(); ++i) {
    if (!ink.boxes[i].contains(from.measured) || !ink.boxes[i].contains(to.measured)) continue;
    const PathPlace a = endNear(ink.outlines[i], from);
    const PathPlace b = endNear(ink.outlines[i], to);
    if (std::max(a.off, b.off) > 2 * LoneInks::kOffPx) continue;
    Path own = forwards ? stretchOf(ink.outlines[i], a, b) : reversed(stretchOf(ink.outlines[i], b, a));
    if (own.segments.empty() || pathLength(own) > kLongerPx + (1 + kLongerShare) * length) continue;
    if (follows(own, sides, from.reachPx(), to.reachPx()) && staysAt(own, sides)) return own;
  }
  return std::nullopt;
}

std::optional<Path> following(const Way& way, const Ways& ways, const LoneInks& lone) {
  const std::vector<InkBeside> beside = inksBesideAllOf(way, ways.borders);
  if (way.onRim || beside.empty()) return std::nullopt;
  const std::vector<Point> sides = sidesAlong(way, ways);
  for (const LoneInks::Ink& ink : lone.inks()) {
    for (const InkBeside& b : beside) {
      if (b.ink != ink.ink) continue;
      auto own = way.closed ? wholeAlong(ink, sides)
                            : stretchAlong(ink, endOf(ways, way.parts.front(), false),
                                           endOf(ways, way.parts.back(), true), b.atLeft, sides);
      if (own) return own;
    }
  }
  return std::nullopt;
}

}  // namespace

std::vector<std::optional<Path>> ownOutlines(const Ways& ways, const LoneInks& lone, const WorkControl& control) {
  std::vector<std::optional<Path>> own(ways.ways.size());
  if (lone.inks().empty()) return own;
  forAll(own.size(), control, [&](std::size_t w) { own[w] = following(ways.ways[w], ways, lone); });
  return own;
}

}  // namespace rim::trace::inks
