#include "core/refine/edit/nodes.h"

#include <cmath>
#include <limits>
#include <numbers>
#include <stdexcept>
#include <vector>

#include "core/geometry/arc.h"
#include "core/geometry/cubic.h"
#include "core/geometry/segment.h"

namespace rim::refine {
namespace {

void checkNode(const Path& path, std::size_t node) {
  if (node >= nodeCount(path)) throw std::out_of_range("the path has no such node");
}

void checkSegment(const Path& path, std::size_t segment) {
  if (segment >= path.segments.size()) throw std::out_of_range("the path has no such segment");
}

/// Puts a node somewhere else; segments keep what else they are, cubics the way to their handles there.
void moveNode(Path& path, std::size_t node, Point by) {
  const Point place = nodeAt(path, node) + by;
  const auto before = segmentBefore(path, node);
  const auto after = segmentAfter(path, node);
  if (node == 0) path.start = place;
  if (before) {
    Segment& in = path.segments[*before];
    in.end = place;
    if (in.kind == SegmentKind::Cubic) in.handle2 = in.handle2 + by;
  }
  if (!after) return;
  Segment& out = path.segments[*after];
  if (out.kind == SegmentKind::Cubic) out.handle1 = out.handle1 + by;
}

/// A segment of the same course whose ends can be handled.
Segment asCubic(Point start, const Segment& segment) {
  if (segment.kind == SegmentKind::Cubic) return segment;
  if (segment.kind == SegmentKind::Line)
    return Segment::cubic(lerp(start, segment.end, 1.0 / 3), lerp(start, segment.end, 2.0 / 3), segment.end);
  const Arc arc = arcFromBulge(start, segment.end, segment.bulge);
  // Of a full circle's quarter this leaves the arc by 2e-4 of its radius; arcs that turn farther by more.
  const double reach = 4.0 / 3 * std::tan(std::abs(arc.sweep) / 4) * arc.radius;
  return Segment::cubic(start + startTangent(start, segment) * reach, segment.end - endTangent(start, segment) * reach,
                        segment.end);
}

/// A handle's way from its node, turned along a unit vector.
Point turnedAlong(Point handle, Point node, Point along) { return node + along * distance(handle, node); }

/// What a segment becomes as another kind, of the same course.
std::vector<Segment> asKind(Point start, const Segment& segment, SegmentKind kind) {
  if (segment.kind == kind || start == segment.end) return {segment};
  constexpr double kSixthOfATurn = std::numbers::pi / 3;
  const bool straight = segment.kind == SegmentKind::Line;
  switch (kind) {
    case SegmentKind::Line:
      return {Segment::line(segment.end)};
    case SegmentKind::Arc:
      return {Segment::arc(segment.end, straight ? bulgeFromSweep(kSixthOfATurn)
                                                 : bulgeThrough(start, pointAt(start, segment, 0.5), segment.end))};
    case SegmentKind::Cubic:
      break;
  }
  if (straight) return {asCubic(start, segment)};
  constexpr double kShareOfRadius = 1e-3;
  const double radius = arcFromBulge(start, segment.end, segment.bulge).radius;
  return cubicsFromArc(start, segment, kShareOfRadius * radius);
}

void smoothen(Path& path, std::size_t node) {
  const auto before = segmentBefore(path, node);
  const auto after = segmentAfter(path, node);
  if (!before || !after || *before == *after) return;
  const Point at = nodeAt(path, node);
  Segment& in = path.segments[*before];
  Segment& out = path.segments[*after];
  const Point inStart = segmentStart(path, *before);
  const bool lineIn = in.kind == SegmentKind::Line;
  const bool lineOut = out.kind == SegmentKind::Line;
  Point along = tangentAt(inStart, in, 1) + tangentAt(at, out, 0);
  if (lineIn && !lineOut) along = tangentAt(inStart, in, 1);
  if (lineOut && !lineIn) along = tangentAt(at, out, 0);
  if (length(along) < 1e-9) along = leftNormal(tangentAt(at, out, 0));
  along = unit(along);
  if (!lineIn || lineOut) {
    in = asCubic(inStart, in);
    in.handle2 = turnedAlong(in.handle2, at, along * -1);
  }
  if (!lineOut || lineIn) {
    out = asCubic(at, out);
    out.handle1 = turnedAlong(out.handle1, at, along);
  }
}

void makeCorner(Path& path, std::size_t node) {
  const Point at = nodeAt(path, node);
  if (const auto before = segmentBefore(path, node)) {
    Segment& in = path.segments[*before];
    in.handle2 = in.kind == SegmentKind::Cubic ? lerp(at, segmentStart(path, *before), 1.0 / 3) : in.handle2;
  }
  if (const auto after = segmentAfter(path, node)) {
    Segment& out = path.segments[*after];
    out.handle1 = out.kind == SegmentKind::Cubic ? lerp(at, out.end, 1.0 / 3) : out.handle1;
  }
}

}  // namespace

Point nodeAt(const Path& path, std::size_t node) {
  checkNode(path, node);
  return node < path.segments.size() ? segmentStart(path, node) : path.segments.back().end;
}

std::size_t nearestNode(const Path& path, Point place) {
  std::size_t best = 0;
  double least = std::numeric_limits<double>::infinity();
  for (std::size_t i = 0; i < nodeCount(path); ++i) {
    const double off = distance(nodeAt(path, i), place);
    if (off >= least) continue;
    least = off;
    best = i;
  }
  return best;
}

std::optional<std::size_t> segmentBefore(const Path& path, std::size_t node) {
  checkNode(path, node);
  if (node > 0) return node - 1;
  return path.closed ? std::optional(path.segments.size() - 1) : std::nullopt;
}

std::optional<std::size_t> segmentAfter(const Path& path, std::size_t node) {
  checkNode(path, node);
  return node < path.segments.size() ? std::optional(node) : std::nullopt;
}

bool isSmooth(const Path& path, std::size_t node) {
  const auto before = segmentBefore(path, node);
  const auto after = segmentAfter(path, node);
  if (!before || !after) return false;
  constexpr double kStraight = std::numbers::pi / 180;
  const double turn = angleBetween(tangentAt(pieceOf(path, *before), 1), tangentAt(pieceOf(path, *after), 0));
  return std::abs(turn) <= kStraight;
}

Path withNodesMoved(const Path& path, const std::set<std::size_t>& nodes, Point by) {
  Path moved = path;
  for (const std::size_t node : nodes) moveNode(moved, node, by);
  return moved;
}

Path withSegmentPulled(const Path& path, const PathPlace& held, Point to) {
  checkSegment(path, held.segment);
  Path pulled = path;
  Segment& segment = pulled.segments[held.segment];
  const Point start = segmentStart(path, held.segment);
  const Point by = to - held.place;
  switch (segment.kind) {
    case SegmentKind::Line: {
      const std::size_t next = (held.segment + 1) % nodeCount(path);
      return withNodesMoved(path, {held.segment, next}, by);
    }
    case SegmentKind::Arc: {
      constexpr double kMostBulge = 50;  // nearly a full circle
      segment = Segment::arc(segment.end, std::clamp(bulgeThrough(start, to, segment.end), -kMostBulge, kMostBulge));
      break;
    }
    case SegmentKind::Cubic: {
      // Least change of both handles that brings the place there: each by its weight over the sum of their squares.
      const double t = std::clamp(held.t, 0.05, 0.95);
      const double first = 3 * (1 - t) * (1 - t) * t;
      const double second = 3 * (1 - t) * t * t;
      const double sum = first * first + second * second;
      segment.handle1 = segment.handle1 + by * (first / sum);
      segment.handle2 = segment.handle2 + by * (second / sum);
      break;
    }
  }
  return pulled;
}

Path withHandleAt(const Path& path, std::size_t segment, bool first, Point to, bool keepSmooth) {
  checkSegment(path, segment);
  Path moved = path;
  if (moved.segments[segment].kind != SegmentKind::Cubic) return moved;
  const std::size_t node = first ? segment : (segment + 1) % nodeCount(path);
  const Point at = nodeAt(path, node);
  const bool turns = keepSmooth && isSmooth(path, node) && distance(to, at) > 0;
  (first ? moved.segments[segment].handle1 : moved.segments[segment].handle2) = to;
  if (!turns) return moved;
  const auto other = first ? segmentBefore(path, node) : segmentAfter(path, node);
  if (!other || moved.segments[*other].kind != SegmentKind::Cubic) return moved;
  Point& handle = first ? moved.segments[*other].handle2 : moved.segments[*other].handle1;
  handle = turnedAlong(handle, at, unit(at - to));
  return moved;
}

Path withNodeAt(const Path& path, const PathPlace& place) {
  checkSegment(path, place.segment);
  constexpr double kEnd = 1e-6;
  if (place.t <= kEnd || place.t >= 1 - kEnd) return path;
  Path more = path;
  const Point start = segmentStart(path, place.segment);
  const Segment whole = path.segments[place.segment];
  const Segment first = partOf(start, whole, 0, place.t);
  Segment second = partOf(start, whole, place.t, 1);
  second.end = whole.end;
  more.segments[place.segment] = first;
  more.segments.insert(more.segments.begin() + static_cast<std::ptrdiff_t>(place.segment) + 1, second);
  return more;
}

Path withSegmentsAs(const Path& path, const std::set<std::size_t>& segments, SegmentKind kind) {
  Path changed = path;
  // From the last to the first, so that the numbers of the others hold.
  for (auto i = segments.rbegin(); i != segments.rend(); ++i) {
    checkSegment(path, *i);
    const std::vector<Segment> made = asKind(segmentStart(path, *i), path.segments[*i], kind);
    const auto at = changed.segments.begin() + static_cast<std::ptrdiff_t>(*i);
    *at = made.front();
    changed.segments.insert(at + 1, made.begin() + 1, made.end());
    changed.segments[*i + made.size() - 1].end = path.segments[*i].end;
  }
  return changed;
}

Path smoothedAt(const Path& path, const std::set<std::size_t>& nodes) {
  Path smooth = path;
  for (const std::size_t node : nodes) smoothen(smooth, node);
  return smooth;
}

Path corneredAt(const Path& path, const std::set<std::size_t>& nodes) {
  Path sharp = path;
  for (const std::size_t node : nodes) makeCorner(sharp, node);
  return sharp;
}

namespace {

/// Each node moved to a place of its own.
Path withNodesAt(const Path& path, const std::set<std::size_t>& nodes, const std::vector<Point>& places) {
  Path moved = path;
  std::size_t k = 0;
  for (const std::size_t node : nodes) moveNode(moved, node, places[k++] - nodeAt(path, node));
  return moved;
}

std::vector<Point> placesOf(const Path& path, const std::set<std::size_t>& nodes) {
  std::vector<Point> places;
  for (const std::size_t node : nodes) places.push_back(nodeAt(path, node));
  return places;
}

}  // namespace

Path linedUp(const Path& path, const std::set<std::size_t>& nodes, LineUp how) {
  std::vector<Point> places = placesOf(path, nodes);
  if (places.size() < 2) return path;
  Point mean{};
  for (const Point p : places) mean = mean + p * (1 / static_cast<double>(places.size()));
  const Point first = places.front();
  const Point chord = places.back() - first;
  for (Point& p : places) {
    if (how == LineUp::Level) p.y = mean.y;
    if (how == LineUp::Upright) p.x = mean.x;
    if (how == LineUp::Slanting && dot(chord, chord) > 0)
      p = first + chord * (dot(p - first, chord) / dot(chord, chord));
  }
  return withNodesAt(path, nodes, places);
}

Path spreadEvenly(const Path& path, const std::set<std::size_t>& nodes) {
  std::vector<Point> places = placesOf(path, nodes);
  if (places.size() < 3) return path;
  const Point first = places.front();
  const Point last = places.back();
  for (std::size_t i = 0; i < places.size(); ++i)
    places[i] = lerp(first, last, static_cast<double>(i) / static_cast<double>(places.size() - 1));
  return withNodesAt(path, nodes, places);
}

}  // namespace rim::refine
