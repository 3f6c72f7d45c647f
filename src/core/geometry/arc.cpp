#include "core/geometry/arc.h"

#include <numbers>

namespace rim {

Arc arcFromBulge(Point start, Point end, double bulge) {
  const Point chord = end - start;
  // The centre lies on the chord's perpendicular bisector, (1 - b^2) / (4 b) chords to its left.
  const Point centre = lerp(start, end, 0.5) + leftNormal(chord) * ((1 - bulge * bulge) / (4 * bulge));
  const Point spoke = start - centre;
  return {centre, length(spoke), std::atan2(spoke.y, spoke.x), 4 * std::atan(bulge)};
}

Point pointOn(const Arc& arc, double t) {
  const double angle = arc.startAngle + arc.sweep * t;
  return arc.centre + Point{std::cos(angle), std::sin(angle)} * arc.radius;
}

double bulgeFromSweep(double sweepRadians) { return std::tan(sweepRadians / 4); }

double bulgeFromTangent(Point start, Point tangent, Point end) {
  // The angle between tangent and chord is half the sweep.
  return std::tan(angleBetween(tangent, end - start) / 2);
}

double bulgeThrough(Point start, Point between, Point end) {
  const double turn = std::numbers::pi - std::abs(angleBetween(start - between, end - between));
  return bulgeFromSweep(2 * turn) * (cross(between - start, end - between) > 0 ? 1 : -1);
}

namespace {

/// Both places half a chord to either side of its middle; the half chord's square may be negative by rounding.
std::vector<Point> endsOfChord(Point middle, Point along, double halfSquare, double radius) {
  constexpr double kTouchShare = 2e-9;
  if (halfSquare < -kTouchShare * radius) return {};
  if (halfSquare <= 0) return {middle};
  const Point half = along * std::sqrt(halfSquare);
  return {middle - half, middle + half};
}

}  // namespace

std::vector<Point> lineMeetsCircle(Point at, Point along, Point centre, double radius) {
  const double off = cross(along, centre - at);
  return endsOfChord(at + along * dot(along, centre - at), along, radius * radius - off * off, radius);
}

std::vector<Point> circlesMeet(Point centreA, double radiusA, Point centreB, double radiusB) {
  const double apart = distance(centreA, centreB);
  if (!(apart > 1e-12 * (radiusA + radiusB))) return {};
  const double along = (apart * apart + radiusA * radiusA - radiusB * radiusB) / (2 * apart);
  const Point way = unit(centreB - centreA);
  return endsOfChord(centreA + way * along, leftNormal(way), radiusA * radiusA - along * along, radiusA);
}

namespace {

constexpr double kWidestPiece = 95 * std::numbers::pi / 180;

/// Shares of the radius by which a cubic with handles of 4/3 tan(sweep / 4) leaves its arc, and by
/// which the best one does.
double errorOfTouching(double sweep) {
  const double quarter = std::abs(sweep) / 4;
  return 2.0 / 27 * std::pow(std::sin(quarter), 6) / (std::cos(quarter) * std::cos(quarter));
}
constexpr double kBestShare = 0.72;

/// The handle, in radii, that leaves the arc equally to both sides: at its middle the curve moves by
/// three quarters of what the handles do.
double bestHandle(double sweep) {
  const double shift = kBestShare * errorOfTouching(sweep) / (0.75 * std::sin(std::abs(sweep) / 2));
  return 4.0 / 3.0 * std::tan(sweep / 4) - std::copysign(shift, sweep);
}

}  // namespace

std::vector<Segment> cubicsFromArc(Point start, const Segment& arc, double tolerance) {
  const Arc a = arcFromBulge(start, arc.end, arc.bulge);
  int pieces = std::max(1, static_cast<int>(std::ceil(std::abs(a.sweep) / kWidestPiece - 1e-9)));
  constexpr int kMostPieces = 64;
  while (pieces < kMostPieces && kBestShare * errorOfTouching(a.sweep / pieces) * a.radius > tolerance) ++pieces;
  const double handle = bestHandle(a.sweep / pieces);
  std::vector<Segment> cubics;
  Point from = start;
  for (int i = 1; i <= pieces; ++i) {
    const Point to = i == pieces ? arc.end : pointOn(a, static_cast<double>(i) / pieces);
    cubics.push_back(
        Segment::cubic(from + leftNormal(from - a.centre) * handle, to - leftNormal(to - a.centre) * handle, to));
    from = to;
  }
  return cubics;
}

}  // namespace rim
