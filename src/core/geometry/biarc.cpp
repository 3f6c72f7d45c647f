#include "core/geometry/biarc.h"

#include "core/geometry/arc.h"

namespace rim {
namespace {

constexpr double kShortestPart = 1.0 / 4096;  // of the parameter; a shorter one is taken as it is

Segment arcOrLine(Point start, Point tangent, Point end) {
  return Segment::arc(end, bulgeFromTangent(start, tangent, end));
}

/// How far the piece from `start` lies from the point p, along the piece's radius.
double distanceFrom(Point p, Point start, const Segment& piece) {
  if (piece.kind == SegmentKind::Arc) {
    const Arc a = arcFromBulge(start, piece.end, piece.bulge);
    return std::abs(distance(a.centre, p) - a.radius);
  }
  return std::abs(cross(unit(piece.end - start), p - start));
}

bool follows(const std::vector<Segment>& pieces, const Cubic& c, double tolerance) {
  constexpr int kSamples = 16;
  if (pieces.size() == 1) {
    for (int i = 1; i < kSamples; ++i) {
      if (distanceFrom(pointOn(c, i / double{kSamples}), c.p0, pieces[0]) > tolerance) return false;
    }
    return true;
  }
  // A point of the curve belongs to the first arc as long as it lies before the joint's normal.
  const Point joint = pieces[0].end;
  const Point across = endTangent(c.p0, pieces[0]);
  for (int i = 1; i < kSamples; ++i) {
    const Point p = pointOn(c, i / double{kSamples});
    const bool first = dot(p - joint, across) < 0;
    const double d = first ? distanceFrom(p, c.p0, pieces[0]) : distanceFrom(p, joint, pieces[1]);
    if (d > tolerance) return false;
  }
  return true;
}

/// The part of a cubic between two parameters.
Cubic between(const Cubic& cubic, double from, double to) {
  const Cubic rest = split(cubic, from).second;
  return from < 1 ? split(rest, (to - from) / (1 - from)).first : rest;
}

std::vector<Segment> arcsFor(const Cubic& c) { return biarc(c.p0, tangent(c, 0), c.p3, tangent(c, 1)); }

bool arcsFollow(const Cubic& c, double tolerance) {
  return distance(c.p0, c.p3) > 0 && follows(arcsFor(c), c, tolerance);
}

/// The parameter up to which one pair of arcs follows from `from` on, found by halving.
double farthest(const Cubic& cubic, double from, double tolerance) {
  if (arcsFollow(between(cubic, from, 1), tolerance)) return 1;
  double low = from;
  double high = 1;
  constexpr int kHalvings = 8;
  for (int k = 0; k < kHalvings || low == from; ++k) {
    const double middle = (low + high) / 2;
    if (high - low < kShortestPart) return std::min(1.0, from + kShortestPart);
    (arcsFollow(between(cubic, from, middle), tolerance) ? low : high) = middle;
  }
  return low;
}

}  // namespace

std::vector<Segment> biarc(Point start, Point startTangent, Point end, Point endTangent) {
  const Point chord = end - start;
  const double square = dot(chord, chord);
  if (square == 0) return {Segment::line(end)};
  const double straight = std::max(std::abs(cross(startTangent, chord)), std::abs(cross(endTangent, chord)));
  if (straight < 1e-9 * std::sqrt(square) && dot(startTangent, chord) > 0 && dot(endTangent, chord) > 0) {
    return {Segment::line(end)};
  }
  // The tangent length d solves 2 d^2 (1 - t0.t1) + 2 d chord.(t0 + t1) - chord.chord = 0.
  const double a = 2 * (1 - dot(startTangent, endTangent));
  const double b = 2 * dot(chord, startTangent + endTangent);
  const double root = std::sqrt(std::max(0.0, b * b + 4 * a * square));
  const double d = b + root > 0 ? 2 * square / (b + root) : -1;
  if (!(d > 0) || d > 1e3 * std::sqrt(square)) return {Segment::line(end)};
  const Point joint = lerp(start + startTangent * d, end - endTangent * d, 0.5);
  const Segment first = arcOrLine(start, startTangent, joint);
  const Point jointTangent = rim::endTangent(start, first);
  return {first, arcOrLine(joint, jointTangent, end)};
}

std::vector<Segment> arcsFromCubic(const Cubic& cubic, double tolerance) {
  std::vector<double> ends;
  for (double t = 0; t < 1;) {
    const double from = t;
    t = farthest(cubic, from, tolerance);
    // A short rest would become arcs too small for a machine: the last two parts are made equally long.
    const double middle = (from + 1) / 2;
    const bool shortRest = t < 1 && 1 - t < t - from;
    if (shortRest && arcsFollow(between(cubic, from, middle), tolerance) &&
        arcsFollow(between(cubic, middle, 1), tolerance)) {
      ends.push_back(middle);
      t = 1;
    }
    ends.push_back(t);
  }
  std::vector<Segment> out;
  double from = 0;
  for (const double to : ends) {
    const std::vector<Segment> arcs = arcsFor(between(cubic, from, to));
    out.insert(out.end(), arcs.begin(), arcs.end());
    from = to;
  }
  out.back().end = cubic.p3;
  return out;
}

}  // namespace rim
