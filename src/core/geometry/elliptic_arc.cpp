#include "core/geometry/elliptic_arc.h"

#include <numbers>

#include "core/geometry/affine.h"
#include "core/geometry/arc.h"

namespace rim {
namespace {

constexpr double kTurn = 2 * std::numbers::pi;

}  // namespace

EllipticArc ellipticArc(Point start, Point radii, double rotation, bool large, bool sweep, Point end) {
  const Affine turn = ::rim::rotation(rotation);
  double rx = std::abs(radii.x);
  double ry = std::abs(radii.y);
  if (start == end || !(rx > 0) || !(ry > 0)) return {start, {}, {}, 0, 0};
  // F.6.5.1: half the chord, in the ellipse's own axes.
  const Point half = ::rim::rotation(-rotation)((start - end) * 0.5);
  const double reach = (half.x / rx) * (half.x / rx) + (half.y / ry) * (half.y / ry);
  if (reach > 1) {  // F.6.6.3
    rx *= std::sqrt(reach);
    ry *= std::sqrt(reach);
  }
  // F.6.5.2 with both coordinates divided by their radius: the centre in the frame of the unit circle.
  const Point h{half.x / rx, half.y / ry};
  const double square = std::max(0.0, 1 / std::max(dot(h, h), 1e-300) - 1);
  const Point unitCentre = Point{h.y, -h.x} * ((large != sweep ? 1 : -1) * std::sqrt(square));
  const Point centre = turn({unitCentre.x * rx, unitCentre.y * ry}) + lerp(start, end, 0.5);
  const Point from = h - unitCentre;
  double angle = angleBetween(from, -h - unitCentre);  // F.6.5.6
  if (sweep && angle < 0) angle += kTurn;
  if (!sweep && angle > 0) angle -= kTurn;
  return {centre, turn({rx, 0}), turn({0, ry}), std::atan2(from.y, from.x), angle};
}

Point pointOn(const EllipticArc& arc, double angle) {
  return arc.centre + arc.major * std::cos(angle) + arc.minor * std::sin(angle);
}

Path pathOf(const EllipticArc& arc, double tolerance) {
  const Affine map{arc.major.x, arc.major.y, arc.minor.x, arc.minor.y, arc.centre.x, arc.centre.y};
  const auto onCircle = [](double angle) { return Point{std::cos(angle), std::sin(angle)}; };
  const bool full = std::abs(arc.sweep) >= kTurn * (1 - 1e-12);
  // An arc that goes nearly all the way round has a bulge without bound: it is written as two.
  const int pieces = std::abs(arc.sweep) > 1.1 * std::numbers::pi ? 2 : 1;
  Path circle{onCircle(arc.startAngle), {}, full};
  for (int i = 1; i <= pieces; ++i) {
    const Point to = full && i == pieces ? circle.start : onCircle(arc.startAngle + arc.sweep * i / pieces);
    circle.segments.push_back(Segment::arc(to, bulgeFromSweep(arc.sweep / pieces)));
  }
  return transformed(circle, map, tolerance);
}

}  // namespace rim
