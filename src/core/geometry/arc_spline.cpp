#include "core/geometry/arc_spline.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <optional>

#include "core/geometry/arc.h"
#include "core/geometry/biarc.h"
#include "core/geometry/golden_section.h"
#include "core/geometry/segment.h"

namespace rim {
namespace {

constexpr double kNone = std::numeric_limits<double>::infinity();
constexpr double kMostBulge = 0.6;            // an arc of more than 124 degrees follows nothing well
constexpr double kShortestPart = 1.0 / 4096;  // of the parameter; a shorter one is taken as it is

/// A place that arcs have come to, and along what they arrive.
struct Stop {
  double t;
  Point place;
  Point tangent;
};

/// How far a piece from `start` lies from the point p, along the piece's radius.
double distanceFrom(Point p, Point start, const Segment& piece) {
  if (piece.kind == SegmentKind::Arc) {
    const Arc a = arcFromBulge(start, piece.end, piece.bulge);
    return std::abs(distance(a.centre, p) - a.radius);
  }
  return std::abs(cross(unit(piece.end - start), p - start));
}

Segment arcAlong(const Stop& from, Point to) {
  return Segment::arc(to, bulgeFromTangent(from.place, from.tangent, to));
}

/// How far the part of the curve from one parameter to another leaves an arc; infinite for one that turns by much.
double errorOf(const CubicPolynomial& curve, double from, double to, Point start, const Segment& arc) {
  constexpr int kSamples = 13;
  if (std::abs(arc.bulge) > kMostBulge) return kNone;
  double most = 0;
  for (int i = 1; i < kSamples; ++i)
    most = std::max(most, distanceFrom(curve.at(from + (to - from) * i / kSamples), start, arc));
  return most;
}

/// One curve, and what follows it from its beginning.
class Follower {
 public:
  Follower(const Cubic& cubic, double tolerance) : curve_(cubic), tolerance_(tolerance) {
    stops_.push_back({0, cubic.p0, tangent(cubic, 0)});
  }

  /// After so many arcs; the last that there is, once they reach the end.
  const Stop& after(std::size_t arcs) {
    while (stops_.size() <= arcs && stops_.back().t < 1) step();
    return stops_[std::min(arcs, stops_.size() - 1)];
  }
  /// Whether it came to where no arc follows, as before a cusp.
  bool isStuck() const { return stuck_; }

 private:
  void step() {
    const Stop from = stops_.back();
    const auto follows = [&](double t) {
      const Point to = curve_.at(t);
      return !(to == from.place) && errorOf(curve_, from.t, t, from.place, arcAlong(from, to)) <= tolerance_;
    };
    double reach = 1;
    if (!follows(1)) {
      double low = from.t;
      double high = 1;
      constexpr int kHalvings = 9;
      for (int k = 0; k < kHalvings || (low == from.t && high - low > kShortestPart); ++k) {
        const double middle = (low + high) / 2;
        (follows(middle) ? low : high) = middle;
      }
      stuck_ = stuck_ || low == from.t;
      reach = std::max(low, std::min(1.0, from.t + kShortestPart));
    }
    const Point to = curve_.at(reach);
    stops_.push_back({reach, to, endTangent(from.place, arcAlong(from, to))});
  }

  CubicPolynomial curve_;
  double tolerance_;
  std::vector<Stop> stops_;
  bool stuck_ = false;
};

/// The pair of arcs between two places and directions whose tangent at the end is `ratio` times as long as that at the
/// start; nothing where there is none.
std::optional<std::pair<Segment, Segment>> pairOf(const Stop& a, const Stop& b, double ratio) {
  const Point v = b.place - a.place;
  // |v - d t0 - r d t1|^2 = (d + r d)^2 for the tangent length d at the start.
  const double square = 2 * ratio * (1 - dot(a.tangent, b.tangent));
  const double linear = 2 * dot(v, a.tangent + b.tangent * ratio);
  const double root = std::sqrt(std::max(0.0, linear * linear + 4 * square * dot(v, v)));
  const double d = linear + root > 0 ? 2 * dot(v, v) / (linear + root) : -1;
  if (!(d > 0) || d > 1e3 * length(v)) return std::nullopt;
  const Point p = a.place + a.tangent * d;
  const Point q = b.place - b.tangent * (ratio * d);
  const Point joint = lerp(p, q, 1 / (1 + ratio));
  const Segment first = arcAlong(a, joint);
  return std::pair{first, arcAlong({0, joint, endTangent(a.place, first)}, b.place)};
}

/// How far the curve leaves a pair of arcs; a point of it belongs to the first as long as it lies before the joint.
double errorOf(const CubicPolynomial& curve, const Stop& a, const Stop& b, const std::pair<Segment, Segment>& pair) {
  constexpr int kSamples = 25;
  if (std::max(std::abs(pair.first.bulge), std::abs(pair.second.bulge)) > kMostBulge) return kNone;
  const Point joint = pair.first.end;
  const Point across = endTangent(a.place, pair.first);
  double most = 0;
  for (int i = 1; i < kSamples; ++i) {
    const Point p = curve.at(a.t + (b.t - a.t) * i / kSamples);
    const bool first = dot(p - joint, across) < 0;
    most = std::max(most, first ? distanceFrom(p, a.place, pair.first) : distanceFrom(p, joint, pair.second));
  }
  return most;
}

struct Middle {
  std::pair<Segment, Segment> pair{Segment::line({}), Segment::line({})};
  double error = kNone;
};

/// The truest pair of arcs between two stops.
Middle middleBetween(const CubicPolynomial& curve, const Stop& a, const Stop& b, double tolerance) {
  Middle best;
  const auto tryRatio = [&](double ratio) {
    const auto pair = pairOf(a, b, ratio);
    const double error = pair ? errorOf(curve, a, b, *pair) : kNone;
    if (error < best.error) best = {*pair, error};
    return error;
  };
  constexpr double kHopeless = 8;  // the best joint makes it no truer than that
  if (tryRatio(1) > kHopeless * tolerance) return best;
  // The error falls to the best joint and rises behind it.
  constexpr int kSteps = 9;
  constexpr double kMostLogarithm = 1.4;
  leastBetween(-kMostLogarithm, kMostLogarithm, kSteps,
               [&](double logarithm) { return tryRatio(std::exp(logarithm)); });
  return best;
}

/// The single arc that the curve is, but for its last digits.
std::optional<Segment> wholeArc(const Cubic& c, const CubicPolynomial& curve, double tolerance) {
  const Segment arc = arcAlong({0, c.p0, tangent(c, 0)}, c.p3);
  constexpr double kSameDirection = 1e-4;  // radians
  const bool arrives = std::abs(angleBetween(endTangent(c.p0, arc), tangent(c, 1))) < kSameDirection;
  if (!arrives || errorOf(curve, 0, 1, c.p0, arc) > tolerance) return std::nullopt;
  return arc;
}

/// The arcs from the beginning, the pair in the middle, and those from the end.
struct Way {
  std::size_t before = 0;
  std::size_t behind = 0;
  Middle middle;
};

/// The truest way of so many arcs beside the pair.
Way truestWay(const CubicPolynomial& curve, Follower& ahead, Follower& back, std::size_t arcs, double tolerance) {
  Way best;
  for (std::size_t k = 0; k <= arcs; ++k) {
    const Stop& a = ahead.after(k);
    const Stop reversed = back.after(arcs - k);
    const Stop b{1 - reversed.t, reversed.place, -reversed.tangent};
    if (a.t >= b.t) continue;
    const Middle middle = middleBetween(curve, a, b, tolerance);
    if (middle.error < best.middle.error) best = {k, arcs - k, middle};
  }
  return best;
}

std::vector<Segment> segmentsOf(const Way& way, Follower& ahead, Follower& back) {
  std::vector<Segment> out;
  for (std::size_t k = 0; k < way.before; ++k) out.push_back(arcAlong(ahead.after(k), ahead.after(k + 1).place));
  out.push_back(way.middle.pair.first);
  out.push_back(way.middle.pair.second);
  for (std::size_t k = way.behind; k > 0; --k) {
    const Stop of = back.after(k - 1);
    out.push_back(reversed(Piece{of.place, arcAlong(of, back.after(k).place)}).segment);
  }
  return out;
}

double curvatureAt(const CubicPolynomial& curve, double t) {
  const Point d = curve.derivative(t);
  const double speed = length(d);
  return speed > 0 ? cross(d, curve.secondDerivative(t)) / (speed * speed * speed) : 0;
}

/// The parameters where the curvature is largest or least, about: arcs keep the curve's direction there for nothing.
std::vector<double> vertices(const CubicPolynomial& curve) {
  constexpr int kSamples = 48;
  std::vector<double> found;
  double before = curvatureAt(curve, 0);
  double here = curvatureAt(curve, 1.0 / kSamples);
  for (int i = 1; i < kSamples; ++i) {
    const double next = curvatureAt(curve, (i + 1.0) / kSamples);
    // The parabola through three neighbours has its top here.
    const double bend = before - 2 * here + next;
    if ((here - before) * (next - here) < 0 && bend != 0)
      found.push_back((i + std::clamp((before - next) / (2 * bend), -0.5, 0.5)) / kSamples);
    before = here;
    here = next;
  }
  return found;
}

using Arcs = std::vector<Segment>;

/// The fewest arcs along a curve in one go; none where it needs too many.
Arcs inOneGo(const Cubic& cubic, double tolerance) {
  constexpr std::size_t kMostAtOnce = 10;
  const CubicPolynomial curve(cubic);
  if (const auto one = wholeArc(cubic, curve, tolerance)) return {*one};
  Follower ahead(cubic, tolerance);
  Follower back({cubic.p3, cubic.p2, cubic.p1, cubic.p0}, tolerance);
  for (std::size_t arcs = 0; arcs <= kMostAtOnce; ++arcs) {
    const Way way = truestWay(curve, ahead, back, arcs, tolerance);
    if (way.middle.error <= tolerance) return segmentsOf(way, ahead, back);
    if (ahead.isStuck() || back.isStuck()) break;
  }
  return {};
}

/// The same in parts, from one of these parameters to the next; none where one of them needs too many.
Arcs inParts(const Cubic& cubic, const std::vector<double>& cuts, double tolerance) {
  Arcs all;
  double from = 0;
  for (std::size_t k = 0; k <= cuts.size(); ++k) {
    const double to = k < cuts.size() ? cuts[k] : 1;
    const Segment own = partOf(cubic.p0, Segment::cubic(cubic.p1, cubic.p2, cubic.p3), from, to);
    const Arcs part = inOneGo(cubicOf(pointOn(cubic, from), own), tolerance);
    if (part.empty()) return {};
    all.insert(all.end(), part.begin(), part.end());
    from = to;
  }
  return all;
}

void addArcs(const Cubic& cubic, double tolerance, int halvings, Arcs& out) {
  if (cubic.p0 == cubic.p3 && length(cubic.p1 - cubic.p0) + length(cubic.p2 - cubic.p0) <= tolerance) {
    out.push_back(Segment::line(cubic.p3));
    return;
  }
  Arcs best = inOneGo(cubic, tolerance);
  constexpr std::size_t kFew = 3;
  constexpr std::size_t kMostVertices = 5;  // a cubic has no more
  if (best.empty() || best.size() > kFew) {
    const std::vector<double> cuts = vertices(CubicPolynomial(cubic));
    const Arcs parts = cuts.empty() || cuts.size() > kMostVertices ? Arcs() : inParts(cubic, cuts, tolerance);
    if (!parts.empty() && (best.empty() || parts.size() < best.size())) best = parts;
  }
  if (best.empty() && halvings > 0) {
    // A long way, or one round a cusp.
    const auto [first, second] = split(cubic, 0.5);
    addArcs(first, tolerance, halvings - 1, out);
    addArcs(second, tolerance, halvings - 1, out);
    return;
  }
  if (best.empty()) best = biarc(cubic.p0, tangent(cubic, 0), cubic.p3, tangent(cubic, 1));
  out.insert(out.end(), best.begin(), best.end());
  out.back().end = cubic.p3;
}

}  // namespace

std::vector<Segment> arcsFromCubic(const Cubic& cubic, double tolerance) {
  constexpr int kHalvings = 12;
  std::vector<Segment> out;
  addArcs(cubic, tolerance, kHalvings, out);
  return out;
}

}  // namespace rim
