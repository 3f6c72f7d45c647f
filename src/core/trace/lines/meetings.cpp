#include "core/trace/lines/meetings.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/trace/lines/ink_edge.h"

namespace rim::trace::lines {
namespace {

constexpr double kDegree = std::numbers::pi / 180;

/// How badly one arm continues another: the turn from the one into the other, and what they pass each other by;
/// nothing when they do not.
std::optional<double> mismatch(const Arm& a, const Arm& b) {
  constexpr double kMostTurn = 28 * kDegree;
  constexpr double kMostAside = 0.35;  // of the width
  const Point middle = lerp(a.on.tip, b.on.tip, 0.5);
  const Point outOfA = fit::tangentAt(a.on.shape, middle);
  const Point intoB = -fit::tangentAt(b.on.shape, middle);
  const double turn = std::abs(angleBetween(outOfA, intoB));
  const Point way = b.on.tip - a.on.tip;
  if (turn > kMostTurn || dot(way, a.on.direction) <= 0 || dot(-way, b.on.direction) <= 0) return std::nullopt;
  const double aside = distance(fit::project(a.on.shape, middle), fit::project(b.on.shape, middle));
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
  const auto back = [&](const Arm& arm) { return fit::project(arm.on.shape, arm.on.tip - arm.on.direction * reachPx); };
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
    const fit::Primitive side{fit::Primitive::Kind::Line, line[i - 1], along * (1 / whole), 0};
    const auto at = fit::meetingPoint(arm.on.shape, side, lerp(line[i - 1], line[i], 0.5));
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
      const double off = distance(at, fit::project(arm.on.shape, at));
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
      const Point foot = fit::project(arms[i].on.shape, at);
      const Point normal = leftNormal(fit::tangentAt(arms[i].on.shape, at));
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

/// The arms of one junction on their way to what becomes of them.
class StrokeMeeting {
 public:
  StrokeMeeting(const MedialAxis& axis, const std::vector<Arm>& arms, const StrokeJunction& junction)
      : axis_(axis), junction_(junction), arms_(arms), ends_(arms.size()) {}

  std::vector<ArmEnd> run() {
    pairThrough(arms_, ends_);
    std::vector<std::size_t> left;
    for (std::size_t i = 0; i < arms_.size(); ++i) {
      if (!ends_[i].partner) left.push_back(i);
    }
    left = endOnThrough(std::move(left));
    if (left.size() == 1) {
      stopAt(left.front(),
             hasThrough() ? fit::project(arms_[left.front()].on.shape, junction_.place) : junction_.place);
    } else if (!left.empty()) {
      endTogether(left, commonPoint(arms_, left, junction_).value_or(junction_.place));
    }
    return std::move(ends_);
  }

 private:
  bool hasThrough() const {
    return std::any_of(ends_.begin(), ends_.end(), [](const ArmEnd& end) { return end.partner && !end.stop; });
  }

  /// An arm ends at `at`.
  void stopAt(std::size_t arm, Point at) {
    ends_[arm].stop = at;
    ends_[arm].more = pointsOnTo(arms_[arm].on, at);
  }

  /// Two arms become one stroke with a corner at `at`.
  void join(std::size_t a, std::size_t b, Point at) {
    ends_[a].partner = b;
    ends_[b].partner = a;
    ends_[a].stop = ends_[b].stop = at;
    const Point outward = unit(arms_[a].on.direction + arms_[b].on.direction);
    const double turn = turnBetween(arms_[a], arms_[b]);
    const double width = (arms_[a].width + arms_[b].width) / 2;
    constexpr double kSharpest = 170 * kDegree;
    const double missing = turn < kSharpest ? missingTo(axis_, junction_, at, outward, turn, width) : 0;
    ends_[a].more = roundCorner(arms_[a].on, arms_[b].on, at, missing).points;
  }

  /// The two of these arms that turn least into one another become one stroke at `at`; the others end there.
  void endTogether(std::vector<std::size_t> which, Point at) {
    while (which.size() >= 2) {
      std::size_t first = 0;
      std::size_t second = 1;
      for (std::size_t i = 0; i < which.size(); ++i) {
        for (std::size_t k = i + 1; k < which.size(); ++k) {
          if (turnBetween(arms_[which[i]], arms_[which[k]]) >= turnBetween(arms_[which[first]], arms_[which[second]]))
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

  /// Where an arm, running on, first comes to one of these strokes.
  std::optional<Point> placeOn(const std::vector<std::vector<Point>>& through, const Arm& arm) const {
    constexpr double kReach = 3;
    const double reach = kReach * junction_.radius + 2;
    std::optional<Point> at;
    for (const std::vector<Point>& line : through) {
      auto here = crossingOf(arm, line, reach);
      if (!here) here = touchOf(arm, line, reach);
      if (here && (!at || distance(*here, arm.on.tip) < distance(*at, arm.on.tip))) at = here;
    }
    return at;
  }

  /// Lets those of these arms end on strokes that go through which come to one. Gives the others.
  std::vector<std::size_t> endOnThrough(std::vector<std::size_t> which) {
    std::vector<std::vector<Point>> through;
    for (std::size_t i = 0; i < arms_.size(); ++i) {
      if (ends_[i].partner && *ends_[i].partner > i)
        through.push_back(throughLine(arms_[i], arms_[*ends_[i].partner], ends_[i].more, junction_.radius));
    }
    std::vector<std::size_t> others;
    std::vector<std::pair<std::size_t, Point>> places;
    for (const std::size_t i : which) {
      if (const auto at = placeOn(through, arms_[i]))
        places.emplace_back(i, *at);
      else
        others.push_back(i);
    }
    // Two that end at one place of it, as the legs of a K, are one stroke that touches it.
    constexpr double kSamePlace = 0.4;  // of the junction's radius
    while (!places.empty()) {
      const auto [arm, at] = places.back();
      places.pop_back();
      const auto other = std::find_if(places.begin(), places.end(), [&, &place = at](const auto& o) {
        return distance(o.second, place) < kSamePlace * junction_.radius;
      });
      if (other == places.end()) {
        stopAt(arm, at);
        continue;
      }
      join(arm, other->first, lerp(at, other->second, 0.5));
      places.erase(other);
    }
    return others;
  }

  const MedialAxis& axis_;
  const StrokeJunction& junction_;
  const std::vector<Arm>& arms_;
  std::vector<ArmEnd> ends_;
};

}  // namespace

std::vector<ArmEnd> meet(const MedialAxis& axis, const std::vector<Arm>& arms, const StrokeJunction& junction) {
  return StrokeMeeting(axis, arms, junction).run();
}

}  // namespace rim::trace::lines
