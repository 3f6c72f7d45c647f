#include "core/refine/edit/corners.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <optional>

#include "core/geometry/arc.h"
#include "core/geometry/intersect.h"
#include "core/geometry/segment.h"
#include "core/geometry/segment_distance.h"

namespace rim::refine {
namespace {

/// Where the carriers of two sides meet, a line without end or a whole circle each, nearest to `near`.
std::optional<Point> meetingOf(const Piece& a, const Piece& b, Point near) {
  std::vector<Point> places;
  const auto wayOf = [](const Piece& line) { return unit(line.segment.end - line.start); };
  const auto circleOf = [](const Piece& arc) { return arcFromBulge(arc.start, arc.segment.end, arc.segment.bulge); };
  if (isLine(a.segment) && isLine(b.segment)) {
    const Point u = wayOf(a);
    const Point v = wayOf(b);
    constexpr double kParallel = 1e-6;
    if (std::abs(cross(u, v)) < kParallel) return {};
    places = {a.start + u * (cross(b.start - a.start, v) / cross(u, v))};
  } else if (isLine(a.segment)) {
    const Arc arc = circleOf(b);
    places = lineMeetsCircle(a.start, wayOf(a), arc.centre, arc.radius);
  } else if (isLine(b.segment)) {
    const Arc arc = circleOf(a);
    places = lineMeetsCircle(b.start, wayOf(b), arc.centre, arc.radius);
  } else {
    const Arc p = circleOf(a);
    const Arc q = circleOf(b);
    places = circlesMeet(p.centre, p.radius, q.centre, q.radius);
  }
  const auto nearest = std::min_element(places.begin(), places.end(),
                                        [near](Point p, Point q) { return distance(p, near) < distance(q, near); });
  return nearest == places.end() ? std::nullopt : std::optional(*nearest);
}

/// The side with another end (or start) on its carrier; none when an arc would run all the way round.
std::optional<Segment> runTo(const Piece& side, Point start, Point end) {
  if (isLine(side.segment)) return Segment::line(end);
  const Arc arc = arcFromBulge(side.start, side.segment.end, side.segment.bulge);
  double sweep = angleBetween(start - arc.centre, end - arc.centre);
  if (arc.sweep > 0 && sweep < 0) sweep += 2 * std::numbers::pi;
  if (arc.sweep < 0 && sweep > 0) sweep -= 2 * std::numbers::pi;
  constexpr double kMost = 1.8 * std::numbers::pi;
  if (std::abs(sweep) > kMost) return {};
  return Segment::arc(end, bulgeFromSweep(sweep));
}

/// What sides and corners may wobble by, mm, where so much of a corner may be missing.
double slackFor(double missingMm) {
  constexpr double kShare = 0.05;
  constexpr double kLeastMm = 0.03;
  return std::max(kLeastMm, kShare * missingMm);
}

/// Runs of segments that lie on one line become that line: nodes along a side are no ends of it.
Path withWholeSides(const Path& path, double withinMm) {
  std::vector<Point> nodes{path.start};
  for (const Segment& s : path.segments) nodes.push_back(s.end);
  const std::size_t n = path.segments.size();
  const auto lieOnLine = [&](std::size_t from, std::size_t to) {
    for (std::size_t i = from; i < to; ++i) {
      if (i > from && distanceToSegment(nodes[i], nodes[from], nodes[to]) > withinMm) return false;
      const Piece piece = pieceOf(path, i);
      for (const double t : {0.25, 0.5, 0.75}) {
        if (!isLine(piece.segment) && distanceToSegment(pointAt(piece, t), nodes[from], nodes[to]) > withinMm)
          return false;
      }
    }
    return true;
  };
  Path whole{path.start, {}, path.closed};
  for (std::size_t from = 0; from < n;) {
    std::size_t to = from + 1;
    while (to < n && lieOnLine(from, to + 1)) ++to;
    const bool asLine = to > from + 1 || lieOnLine(from, to);
    whole.segments.push_back(asLine ? Segment::line(nodes[to]) : path.segments[from]);
    from = asLine ? to : from + 1;
  }
  return whole;
}

/// A closed path begun in the longest of its segments, at its start, so that no corner lies at the start.
Path begunAtLongest(const Path& path) {
  if (!path.closed) return path;
  std::size_t longest = 0;
  for (std::size_t i = 1; i < path.segments.size(); ++i) {
    if (lengthOf(pieceOf(path, i)) > lengthOf(pieceOf(path, longest))) longest = i;
  }
  return begunAt(path, longest);
}

/// Looks for corners that are missing, and puts them back.
class Sharpening {
 public:
  Sharpening(Path path, double missingMm) : path_(std::move(path)), missing_(missingMm) {}

  ChangedPath run() {
    // What is shorter than what may be missing is a remnant of a corner sooner than a side.
    for (const double shortest : {missing_, 0.0}) {
      shortest_ = shortest;
      for (std::size_t i = 0; i < path_.segments.size(); ++i) {
        while (sharpenAfter(i)) {
        }
      }
    }
    return {std::move(path_), std::move(changes_)};
  }

 private:
  bool canBeSide(std::size_t i) const {
    return path_.segments[i].kind != SegmentKind::Cubic && lengthOf(pieceOf(path_, i)) >= shortest_;
  }

  std::size_t next(std::size_t i) const { return (i + 1) % path_.segments.size(); }

  /// Makes the corner between side i and the one that follows it sharp, when one is missing there.
  bool sharpenAfter(std::size_t i) {
    if (i >= path_.segments.size() || !canBeSide(i)) return false;
    constexpr std::size_t kMostBetween = 64;
    double between = 0;
    std::size_t j = next(i);
    for (std::size_t k = 0; k < kMostBetween && j != i; ++k, j = next(j)) {
      if (!path_.closed && j == 0) return false;
      if (k > 0 && canBeSide(j) && sharpen(i, j, k)) return true;
      between += lengthOf(pieceOf(path_, j));
      if (between > 4 * missing_) return false;
    }
    return false;
  }

  bool sharpen(std::size_t i, std::size_t j, std::size_t count) {
    const Piece before = pieceOf(path_, i);
    const Piece after = pieceOf(path_, j);
    const Point from = before.segment.end;
    const Point to = after.start;
    const auto corner = meetingOf(before, after, lerp(from, to, 0.5));
    if (!corner) return false;
    const double missingBefore = distance(from, *corner);
    const double missingAfter = distance(to, *corner);
    if (std::max(missingBefore, missingAfter) > missing_) return false;
    if (lengthOf(before) <= missingBefore || lengthOf(after) <= missingAfter) return false;
    // The sides run on, they are not cut back.
    if (dot(*corner - from, tangentAt(before, 1)) < 0 || dot(*corner - to, tangentAt(after, 0)) > 0) return false;
    const Turn turn = turnBetween(i, count);
    if (!turn.isACorner || (!turn.oneWay && !liesWithin({from, *corner, to}, i, count))) return false;
    const auto first = runTo(before, before.start, *corner);
    const auto second = runTo(after, *corner, after.segment.end);
    if (!first || !second) return false;
    changes_.push_back({*corner, movedAt(*corner, i, count)});
    replace(i, j, count, *first, *second);
    return true;
  }

  /// How what lies between the sides turns.
  struct Turn {
    bool isACorner = false;  ///< from the one side to the other it turns, by less than half a turn
    bool oneWay = false;     ///< it never turns back
  };

  Turn turnBetween(std::size_t i, std::size_t count) const {
    double least = 0;
    double most = 0;
    double sum = 0;
    Point way = tangentAt(pieceOf(path_, i), 1);
    const auto turn = [&](Point to) {
      const double angle = angleBetween(way, to);
      least = std::min(least, angle);
      most = std::max(most, angle);
      sum += angle;
      way = to;
    };
    std::size_t k = next(i);
    for (std::size_t c = 0; c < count; ++c, k = next(k)) {
      for (const double t : {0.0, 0.25, 0.5, 0.75, 1.0}) turn(tangentAt(pieceOf(path_, k), t));
    }
    turn(tangentAt(pieceOf(path_, k), 0));
    constexpr double kWobble = 0.15;
    constexpr double kLeastTurn = 0.1;
    const bool isACorner = std::abs(sum) > kLeastTurn && std::abs(sum) < std::numbers::pi - kLeastTurn;
    return {isACorner, least > -kWobble || most < kWobble};
  }

  /// Whether what lies between the sides keeps to the triangle that is missing, as a corner does that wobbles.
  bool liesWithin(const std::array<Point, 3>& triangle, std::size_t i, std::size_t count) const {
    const double slack = slackFor(missing_);
    const auto isOff = [&](Point p) {
      const auto& [a, b, c] = triangle;
      const double ab = cross(b - a, p - a);
      const double bc = cross(c - b, p - b);
      const double ca = cross(a - c, p - c);
      const bool inside = (ab >= 0 && bc >= 0 && ca >= 0) || (ab <= 0 && bc <= 0 && ca <= 0);
      return !inside &&
             std::min({distanceToSegment(p, a, b), distanceToSegment(p, b, c), distanceToSegment(p, c, a)}) > slack;
    };
    std::size_t k = next(i);
    for (std::size_t c = 0; c < count; ++c, k = next(k)) {
      for (const double t : {0.125, 0.25, 0.375, 0.5, 0.625, 0.75, 0.875, 1.0}) {
        if (isOff(pointAt(pieceOf(path_, k), t))) return false;
      }
    }
    return true;
  }

  double movedAt(Point corner, std::size_t i, std::size_t count) const {
    double least = std::numeric_limits<double>::infinity();
    std::size_t k = next(i);
    for (std::size_t c = 0; c < count; ++c, k = next(k)) least = std::min(least, distanceTo(pieceOf(path_, k), corner));
    return least;
  }

  void replace(std::size_t i, std::size_t j, std::size_t count, const Segment& first, const Segment& second) {
    path_.segments[i] = first;
    path_.segments[j] = second;
    if (j > i) {
      path_.segments.erase(path_.segments.begin() + static_cast<std::ptrdiff_t>(i) + 1,
                           path_.segments.begin() + static_cast<std::ptrdiff_t>(j));
    } else {
      const std::size_t atEnd = path_.segments.size() - 1 - i;
      path_.segments.erase(path_.segments.end() - static_cast<std::ptrdiff_t>(atEnd), path_.segments.end());
      path_.segments.erase(path_.segments.begin(), path_.segments.begin() + static_cast<std::ptrdiff_t>(count - atEnd));
    }
    if (path_.closed) path_.start = path_.segments.back().end;
  }

  Path path_;
  double missing_;
  double shortest_ = 0;  ///< that a side is, mm
  std::vector<CornerChange> changes_;
};

/// The side moved to its left, as an endless carrier of fillet centres.
std::optional<Piece> besides(const Piece& side, double left) {
  const Point start = side.start + leftNormal(tangentAt(side, 0)) * left;
  const Point end = side.segment.end + leftNormal(tangentAt(side, 1)) * left;
  if (isLine(side.segment)) return Piece{start, Segment::line(end)};
  const Arc arc = arcFromBulge(side.start, side.segment.end, side.segment.bulge);
  const double radius = arc.radius + (arc.sweep > 0 ? -left : left);
  constexpr double kSmallest = 1e-9;
  if (radius < kSmallest) return {};
  return Piece{start, Segment::arc(end, side.segment.bulge)};
}

/// The arc that rounds a corner.
struct Fillet {
  Point from;
  Point to;
  double bulge = 0;
};

std::optional<Fillet> filletOf(const Piece& before, const Piece& after, double radius) {
  const double turn = angleBetween(tangentAt(before, 1), tangentAt(after, 0));
  constexpr double kSharp = 10 * std::numbers::pi / 180;
  if (std::abs(turn) < kSharp || std::abs(turn) > std::numbers::pi - 1e-3) return {};
  const double left = turn > 0 ? radius : -radius;
  const auto a = besides(before, left);
  const auto b = besides(after, left);
  if (!a || !b) return {};
  const auto centre = meetingOf(*a, *b, after.start);
  if (!centre) return {};
  const Point from = pointAt(before, nearestOn(before, *centre));
  const Point to = pointAt(after, nearestOn(after, *centre));
  constexpr double kOnSide = 1e-6;
  if (std::abs(distance(from, *centre) - radius) > kOnSide || std::abs(distance(to, *centre) - radius) > kOnSide)
    return {};
  double sweep = angleBetween(from - *centre, to - *centre);
  if ((sweep > 0) != (turn > 0)) return {};
  return Fillet{from, to, bulgeFromSweep(sweep)};
}

/// How much of a side a fillet takes.
double shareTaken(const Piece& side, Point at, bool fromStart) {
  const double t = nearestOn(side, at);
  return fromStart ? t : 1 - t;
}

}  // namespace

ChangedPath sharpened(const Path& path, double missingMm) {
  if (path.segments.size() < 3) return {path, {}};
  const Path whole = withWholeSides(begunAtLongest(path), slackFor(missingMm));
  ChangedPath changed = Sharpening(begunAtLongest(whole), missingMm).run();
  if (changed.changes.empty()) return {path, {}};
  return changed;
}

ChangedPath filleted(const Path& path, double radiusMm) {
  const std::size_t n = path.segments.size();
  if (n < 2) return {path, {}};
  // The fillet at the end of each segment, when both sides are long enough for all that is taken of them.
  std::vector<std::optional<Fillet>> at(n);
  for (std::size_t i = 0; i + (path.closed ? 0 : 1) < n; ++i) {
    const Piece before = pieceOf(path, i);
    const Piece after = pieceOf(path, (i + 1) % n);
    const bool cubic = before.segment.kind == SegmentKind::Cubic || after.segment.kind == SegmentKind::Cubic;
    if (!cubic) at[i] = filletOf(before, after, radiusMm);
  }
  const auto taken = [&](std::size_t i) {
    const Piece side = pieceOf(path, i);
    double share = 0;
    if (at[i]) share += shareTaken(side, at[i]->from, false);
    if (at[(i + n - 1) % n]) share += shareTaken(side, at[(i + n - 1) % n]->to, true);
    return share;
  };
  for (bool again = true; again;) {
    again = false;
    for (std::size_t i = 0; i < n; ++i) {
      constexpr double kAll = 1 + 1e-9;
      if (taken(i) <= kAll) continue;
      at[i].reset();
      at[(i + n - 1) % n].reset();
      again = true;
    }
  }
  ChangedPath changed{{path.start, {}, path.closed}, {}};
  const auto& last = at[n - 1];
  if (path.closed && last) changed.path.start = last->to;
  for (std::size_t i = 0; i < n; ++i) {
    const Piece side = pieceOf(path, i);
    const auto& before = at[(i + n - 1) % n];
    const double a = before ? nearestOn(side, before->to) : 0;
    const double b = at[i] ? nearestOn(side, at[i]->from) : 1;
    constexpr double kNothing = 1e-9;
    if (b - a > kNothing) {
      Segment part = a == 0 && b == 1 ? side.segment : partOf(side.start, side.segment, a, b);
      if (at[i]) part.end = at[i]->from;
      changed.path.segments.push_back(part);
    }
    if (!at[i]) continue;
    changed.path.segments.push_back(Segment::arc(at[i]->to, at[i]->bulge));
    const Point corner = side.segment.end;
    const Piece arc{at[i]->from, changed.path.segments.back()};
    changed.changes.push_back({pointAt(arc, 0.5), distanceTo(arc, corner)});
  }
  if (path.closed) changed.path.segments.back().end = changed.path.start;
  return changed;
}

}  // namespace rim::refine
