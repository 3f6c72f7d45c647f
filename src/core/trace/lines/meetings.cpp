#include "core/trace/lines/meetings.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/trace/lines/ink_edge.h"

namespace rim {
namespace {

constexpr double kDegree = std::numbers::pi / 180;

/// How badly one arm continues another: the turn from the one into the other, and what they pass each other by;
/// nothing when they do not.
std::optional<double> mismatch(const Arm& a, const Arm& b) {
  constexpr double kMostTurn = 28 * kDegree;
  constexpr double kMostAside = 0.35;  // of the width
  const Point middle = lerp(a.on.tip, b.on.tip, 0.5);
  const Point outOfA = tangentAt(a.on.shape, middle);
  const Point intoB = -tangentAt(b.on.shape, middle);
  const double turn = std::abs(angleBetween(outOfA, intoB));
  const Point way = b.on.tip - a.on.tip;
  if (turn > kMostTurn || dot(way, a.on.direction) <= 0 || dot(-way, b.on.direction) <= 0) return std::nullopt;
  const double aside = distance(project(a.on.shape, middle), project(b.on.shape, middle));
  const double width = std::max(a.width, b.width);
  // Two strokes that do not quite meet in one line turn twice between: the way over tells how much.
  if (aside > kMostAside * width + 0.15 * length(way)) return std::nullopt;
  return turn + aside / std::max(width, 1.0);
}

/// Pairs of arms that continue one another, the best first.
void pairThrough(const std::vector<Arm>& arms, std::vector<ArmEnd>& ends) {
  struct Pair {
    double mismatch;
    std::size_t a, b;
  };
  std::vector<Pair> pairs;
  for (std::size_t a = 0; a < arms.size(); ++a) {
    for (std::size_t b = a + 1; b < arms.size(); ++b) {
      if (const auto m = mismatch(arms[a], arms[b])) pairs.push_back({*m, a, b});
    }
  }
  std::sort(pairs.begin(), pairs.end(), [](const Pair& p, const Pair& q) { return p.mismatch < q.mismatch; });
  for (const Pair& p : pairs) {
    if (ends[p.a].partner || ends[p.b].partner) continue;
    ends[p.a].partner = p.b;
    ends[p.b].partner = p.a;
    ends[p.a].more = bridge(arms[p.a].on, arms[p.b].on);
  }
}

/// The middle of a stroke that goes through, a little beyond the junction at both sides.
std::vector<Point> throughLine(const Arm& a, const Arm& b, const std::vector<Point>& between, double reachPx) {
  const auto back = [&](const Arm& arm) { return project(arm.on.shape, arm.on.tip - arm.on.direction * reachPx); };
  std::vector<Point> line{back(a), a.on.tip};
  line.insert(line.end(), between.begin(), between.end());
  line.push_back(b.on.tip);
  line.push_back(back(b));
  return line;
}

/// Where a ray from an arm's tip, along its shape, first crosses a polyline within reach.
std::optional<Point> crossingOf(const Arm& arm, const std::vector<Point>& line, double reachPx) {
  std::optional<Point> best;
  for (std::size_t i = 1; i < line.size(); ++i) {
    const Point along = line[i] - line[i - 1];
    const double whole = length(along);
    if (whole < 1e-9) continue;
    const Primitive side{Primitive::Kind::Line, line[i - 1], along * (1 / whole), 0};
    const auto at = meetingPoint(arm.on.shape, side, lerp(line[i - 1], line[i], 0.5));
    if (!at) continue;
    const double share = dot(*at - line[i - 1], along) / (whole * whole);
    const double ahead = dot(*at - arm.on.tip, arm.on.direction);
    if (share < -1e-6 || share > 1 + 1e-6 || ahead < -1 || distance(*at, arm.on.tip) > reachPx) continue;
    if (!best || ahead < dot(*best - arm.on.tip, arm.on.direction)) best = at;
  }
  return best;
}

/// The place of a polyline that the arm, running on, comes nearest to without crossing it, as where one stroke touches
/// another one at its side; none when that is too far off.
std::optional<Point> touchOf(const Arm& arm, const std::vector<Point>& line, double reachPx) {
  constexpr double kNear = 0.35;  // of the width
  std::optional<Point> best;
  double least = kNear * arm.width;
  for (std::size_t i = 1; i < line.size(); ++i) {
    const int parts = std::max(1, static_cast<int>(distance(line[i - 1], line[i])));
    for (int k = 0; k < parts; ++k) {
      const Point at = lerp(line[i - 1], line[i], static_cast<double>(k) / parts);
      if (dot(at - arm.on.tip, arm.on.direction) < 0 || distance(at, arm.on.tip) > reachPx) continue;
      const double off = distance(at, project(arm.on.shape, at));
      if (off >= least) continue;
      least = off;
      best = at;
    }
  }
  return best;
}

/// The point nearest to the continuations of all these arms, by least squares; none when they are nearly parallel or it
/// lies outside of the junction.
std::optional<Point> commonPoint(const std::vector<Arm>& arms, const std::vector<std::size_t>& which,
                                 const StrokeJunction& junction) {
  constexpr int kRounds = 4;  // circles are taken by their tangents, ever nearer
  constexpr double kReach = 2.2;
  Point at = junction.place;
  for (int round = 0; round < kRounds; ++round) {
    double xx = 0, xy = 0, yy = 0, bx = 0, by = 0;
    for (const std::size_t i : which) {
      const Point foot = project(arms[i].on.shape, at);
      const Point normal = leftNormal(tangentAt(arms[i].on.shape, at));
      const double off = dot(normal, foot);
      xx += normal.x * normal.x;
      xy += normal.x * normal.y;
      yy += normal.y * normal.y;
      bx += normal.x * off;
      by += normal.y * off;
    }
    const double determinant = xx * yy - xy * xy;
    constexpr double kNearlyParallel = 0.03;
    if (determinant < kNearlyParallel) return std::nullopt;
    at = {(bx * yy - by * xy) / determinant, (xx * by - xy * bx) / determinant};
    if (distance(at, junction.place) > kReach * junction.radius + 1) return std::nullopt;
  }
  return at;
}

double turnBetween(const Arm& a, const Arm& b) { return std::abs(angleBetween(a.on.direction, -b.on.direction)); }

/// By how much the pen's middle stayed behind a corner at `at`, which opens away from `outward`, as the tail of the
/// axis that ran into it shows; 0 without one.
double missingTo(const MedialAxis& axis, const StrokeJunction& junction, Point at, Point outward, double turn,
                 double width) {
  constexpr double kThatWay = 0.7;
  for (const TailTip& tail : junction.tails) {
    if (dot(unit(tail.place - junction.place), outward) < kThatWay) continue;
    const auto edge = leavesInk(axis, tail.left, tail.right, at, outward);
    if (!edge) continue;
    const double clearance = dot(*edge - at, outward);
    return missingAt(clearance, turn, width).value_or(width / 2 - clearance);
  }
  return 0;
}

/// Makes corners of the strokes at a junction.
struct Corners {
  const MedialAxis& axis;
  const StrokeJunction& junction;
  const std::vector<Arm>& arms;
  std::vector<ArmEnd>& ends;

  /// An arm ends at `at`.
  void stopAt(std::size_t arm, Point at) {
    ends[arm].stop = at;
    ends[arm].more = pointsOnTo(arms[arm].on, at);
  }

  /// Two arms become one stroke with a corner at `at`.
  void join(std::size_t a, std::size_t b, Point at) {
    ends[a].partner = b;
    ends[b].partner = a;
    ends[a].stop = ends[b].stop = at;
    const Point outward = unit(arms[a].on.direction + arms[b].on.direction);
    const double turn = turnBetween(arms[a], arms[b]);
    const double width = (arms[a].width + arms[b].width) / 2;
    constexpr double kSharpest = 170 * kDegree;
    const double missing = turn < kSharpest ? missingTo(axis, junction, at, outward, turn, width) : 0;
    ends[a].more = roundCorner(arms[a].on, arms[b].on, at, missing).points;
  }

  /// The two of these arms that turn least into one another become one stroke at `at`; the others end there.
  void endAt(std::vector<std::size_t> which, Point at) {
    while (which.size() >= 2) {
      std::size_t first = 0;
      std::size_t second = 1;
      for (std::size_t i = 0; i < which.size(); ++i) {
        for (std::size_t k = i + 1; k < which.size(); ++k) {
          if (turnBetween(arms[which[i]], arms[which[k]]) >= turnBetween(arms[which[first]], arms[which[second]]))
            continue;
          first = i;
          second = k;
        }
      }
      join(which[first], which[second], at);
      which.erase(which.begin() + static_cast<std::ptrdiff_t>(second));
      which.erase(which.begin() + static_cast<std::ptrdiff_t>(first));
    }
    for (const std::size_t i : which) stopAt(i, at);
  }
};

}  // namespace

std::vector<ArmEnd> meet(const MedialAxis& axis, const std::vector<Arm>& arms, const StrokeJunction& junction) {
  constexpr double kReach = 3;
  constexpr double kSamePlace = 0.4;  // of the width
  std::vector<ArmEnd> ends(arms.size());
  Corners corners{axis, junction, arms, ends};
  pairThrough(arms, ends);
  std::vector<std::vector<Point>> through;
  for (std::size_t i = 0; i < arms.size(); ++i) {
    if (ends[i].partner && *ends[i].partner > i)
      through.push_back(throughLine(arms[i], arms[*ends[i].partner], ends[i].more, junction.radius));
  }
  std::vector<std::size_t> left;
  for (std::size_t i = 0; i < arms.size(); ++i) {
    if (!ends[i].partner) left.push_back(i);
  }
  std::vector<std::pair<std::size_t, Point>> onThrough;
  for (auto i = left.begin(); i != left.end() && !through.empty();) {
    std::optional<Point> at;
    const double reach = kReach * junction.radius + 2;
    for (const std::vector<Point>& line : through) {
      auto here = crossingOf(arms[*i], line, reach);
      if (!here) here = touchOf(arms[*i], line, reach);
      if (here && (!at || distance(*here, arms[*i].on.tip) < distance(*at, arms[*i].on.tip))) at = here;
    }
    if (!at) {
      ++i;
      continue;
    }
    onThrough.emplace_back(*i, *at);
    i = left.erase(i);
  }
  // Two that end at one place of it, as the legs of a K, are one stroke that touches it.
  while (!onThrough.empty()) {
    const auto [arm, at] = onThrough.back();
    onThrough.pop_back();
    const auto other = std::find_if(onThrough.begin(), onThrough.end(), [&, &place = at](const auto& o) {
      return distance(o.second, place) < kSamePlace * junction.radius;
    });
    if (other == onThrough.end()) {
      corners.stopAt(arm, at);
      continue;
    }
    corners.join(arm, other->first, lerp(at, other->second, 0.5));
    onThrough.erase(other);
  }
  if (left.empty()) return ends;
  if (left.size() == 1) {
    const Point at = through.empty() ? junction.place : project(arms[left.front()].on.shape, junction.place);
    corners.stopAt(left.front(), at);
    return ends;
  }
  corners.endAt(left, commonPoint(arms, left, junction).value_or(junction.place));
  return ends;
}

}  // namespace rim
