#include "core/refine/propose/exact_lines.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <vector>

#include "core/geometry/segment.h"
#include "core/geometry/segment_distance.h"

namespace rim::refine {
namespace {

/// A line without ends.
struct Carrier {
  Point place;
  Point way;  ///< length 1
};

/// Where a node comes to when the lines on both its sides may have new carriers.
Point nodeOn(Point old, const std::optional<Carrier>& before, const std::optional<Carrier>& after) {
  const auto project = [old](const Carrier& c) { return c.place + c.way * dot(old - c.place, c.way); };
  constexpr double kParallel = 1e-3;
  if (before && after && std::abs(cross(before->way, after->way)) > kParallel) {
    const double t = cross(after->place - before->place, after->way) / cross(before->way, after->way);
    return before->place + before->way * t;
  }
  if (before) return project(*before);
  return after ? project(*after) : old;
}

/// The path with lines on new carriers; `moves` says which. All other lines keep theirs, curves follow their ends.
Path onCarriers(const Path& path, const std::vector<std::optional<Carrier>>& moves) {
  const std::size_t n = path.segments.size();
  std::vector<std::optional<Carrier>> carriers = moves;
  for (std::size_t i = 0; i < n; ++i) {
    if (carriers[i] || !isLine(path.segments[i])) continue;
    const Point start = segmentStart(path, i);
    carriers[i] = Carrier{start, unit(path.segments[i].end - start)};
  }
  Path out = path;
  const auto before = [&](std::size_t node) -> std::optional<Carrier> {
    if (node == 0 && !path.closed) return {};
    return carriers[(node + n - 1) % n];
  };
  const auto after = [&](std::size_t node) -> std::optional<Carrier> {
    return node == n && !path.closed ? std::nullopt : carriers[node % n];
  };
  const auto touched = [&](std::size_t node) {
    const bool ends = node > 0 || path.closed ? moves[(node + n - 1) % n].has_value() : false;
    return ends || ((node < n || path.closed) && moves[node % n].has_value());
  };
  const auto place = [&](std::size_t node, Point old) {
    return touched(node) ? nodeOn(old, before(node), after(node)) : old;
  };
  out.start = place(0, path.start);
  for (std::size_t i = 0; i < n; ++i) {
    const Point oldStart = segmentStart(path, i);
    const Point start = i == 0 ? out.start : out.segments[i - 1].end;
    Segment& s = out.segments[i];
    const Point oldEnd = s.end;
    s.end = path.closed && i + 1 == n ? out.start : place(i + 1, oldEnd);
    s.handle1 = s.handle1 + (start - oldStart);
    s.handle2 = s.handle2 + (s.end - oldEnd);
  }
  return out;
}

/// What came of a path, unless it moved nowhere or too far.
std::optional<ExactShape> taken(TrueUpKind kind, const Path& before, Path after, double withinMm) {
  if (after == before) return {};
  const Apart apart = apartBy(before, after);
  constexpr double kExact = 1e-9;
  if (apart.mm > withinMm || (apart.mm < kExact && after.segments.size() == before.segments.size())) return {};
  return ExactShape{kind, std::move(after), apart.mm, apart.at};
}

/// Lines made to lie along the directions that `directionFor` gives for them; none: a line stays.
template <class DirectionFor>
std::optional<ExactShape> alongDirections(TrueUpKind kind, const Path& path, double withinMm,
                                          const DirectionFor& directionFor) {
  std::vector<std::optional<Carrier>> moves(path.segments.size());
  const Box box = boxOf(path);
  constexpr double kShareOfSize = 1.0 / 12;  // shorter ones are parts of curves and wobbles
  const double shortest = kShareOfSize * std::max(box.width(), box.height());
  bool any = false;
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    if (!isLine(path.segments[i])) continue;
    const Point start = segmentStart(path, i);
    const Point way = path.segments[i].end - start;
    if (length(way) < shortest) continue;
    const std::optional<Point> wanted = directionFor(way);
    if (!wanted) continue;
    const double off = std::abs(cross(way, *wanted)) / 2;  // of its ends, turned about its middle
    constexpr double kExact = 1e-9;
    if (off <= kExact || off > withinMm) continue;
    moves[i] = Carrier{lerp(start, path.segments[i].end, 0.5), *wanted};
    any = true;
  }
  return any ? taken(kind, path, onCarriers(path, moves), withinMm) : std::nullopt;
}

/// The direction nearest to a way among those that are quarter turns from a main one, when it is within two degrees.
std::optional<Point> nearestQuarter(Point way, double main) {
  constexpr double kQuarter = std::numbers::pi / 2;
  constexpr double kNear = 2 * std::numbers::pi / 180;
  const double angle = std::atan2(way.y, way.x);
  const double quarters = std::round((angle - main) / kQuarter);
  const double wanted = main + quarters * kQuarter;
  if (!(length(way) > 0) || std::abs(angle - wanted) > kNear) return {};
  if (main != 0) return Point{std::cos(wanted), std::sin(wanted)};
  const int q = static_cast<int>(quarters) & 3;  // exactly level or upright
  constexpr Point kWays[] = {{1, 0}, {0, 1}, {-1, 0}, {0, -1}};
  return kWays[q];
}

/// The main direction of a path's lines modulo a quarter turn: that of the longest one, refined by those near it.
std::optional<double> mainDirection(const Path& path) {
  double longest = 0;
  double main = 0;
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Point way = path.segments[i].end - segmentStart(path, i);
    if (!isLine(path.segments[i]) || length(way) <= longest) continue;
    longest = length(way);
    main = std::atan2(way.y, way.x);
  }
  if (longest == 0) return {};
  double turn = 0;
  double weight = 0;
  for (std::size_t i = 0; i < path.segments.size(); ++i) {
    const Point way = path.segments[i].end - segmentStart(path, i);
    if (!isLine(path.segments[i]) || !nearestQuarter(way, main)) continue;
    constexpr double kQuarter = std::numbers::pi / 2;
    const double angle = std::atan2(way.y, way.x) - main;
    const double cube = std::pow(length(way), 3);  // a line's end moves by its length times the angle
    turn += (angle - std::round(angle / kQuarter) * kQuarter) * cube;
    weight += cube;
  }
  return main + turn / weight;
}

/// Whether the path has a corner at the start of a segment.
bool isCorner(const Path& path, std::size_t i) {
  const std::size_t n = path.segments.size();
  if (i == 0 && !path.closed) return true;
  constexpr double kCorner = 15 * std::numbers::pi / 180;
  const double turn = angleBetween(tangentAt(pieceOf(path, (i + n - 1) % n), 1), tangentAt(pieceOf(path, i), 0));
  return std::abs(turn) > kCorner;
}

}  // namespace

std::optional<ExactShape> straightened(const Path& path, double withinMm) {
  const std::size_t n = path.segments.size();
  std::vector<std::size_t> corners;
  for (std::size_t i = 0; i < n; ++i) {
    if (isCorner(path, i)) corners.push_back(i);
  }
  if (corners.empty()) return {};
  Path out{segmentStart(path, corners.front()), {}, path.closed};
  for (std::size_t c = 0; c < corners.size(); ++c) {
    const std::size_t from = corners[c];
    const std::size_t to = c + 1 < corners.size() ? corners[c + 1] : corners.front() + n;
    const Point a = segmentStart(path, from);
    const Point b = path.segments[(to + n - 1) % n].end;
    constexpr double kShare = 1.0 / 60;
    const double limit = std::min(withinMm, kShare * distance(a, b));
    bool straight = true;
    for (std::size_t i = from; i < to && straight; ++i) {
      for (const double t : {0.2, 0.4, 0.6, 0.8, 1.0})
        straight = straight && distanceToSegment(pointAt(pieceOf(path, i % n), t), a, b) <= limit;
    }
    if (straight) {
      out.segments.push_back(Segment::line(b));
    } else {
      for (std::size_t i = from; i < to; ++i) out.segments.push_back(path.segments[i % n]);
    }
  }
  if (out.segments.size() == n &&
      std::equal(out.segments.begin(), out.segments.end(),
                 path.segments.begin() + static_cast<std::ptrdiff_t>(corners.front()), path.segments.end()))
    return {};
  const bool curved =
      std::any_of(path.segments.begin(), path.segments.end(), [](const Segment& s) { return !isLine(s); });
  if (out.segments.size() == n && !curved) return {};
  return taken(TrueUpKind::Straight, path, std::move(out), withinMm);
}

std::optional<ExactShape> levelled(const Path& path, double withinMm) {
  return alongDirections(TrueUpKind::Level, path, withinMm, [](Point way) { return nearestQuarter(way, 0); });
}

std::optional<ExactShape> squared(const Path& path, double withinMm) {
  const auto main = mainDirection(path);
  if (!main) return {};
  return alongDirections(TrueUpKind::Parallel, path, withinMm,
                         [main](Point way) { return nearestQuarter(way, *main); });
}

}  // namespace rim::refine
