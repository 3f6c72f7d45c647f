#include "core/refine/edit/shapes.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <vector>

#include "core/error.h"
#include "core/geometry/arc.h"
#include "core/geometry/circle.h"
#include "core/geometry/elliptic_arc.h"

namespace rim::refine {
namespace {

constexpr double kFull = 2 * std::numbers::pi;

/// Corners round a centre, the first at `first`; every other one nearer where `waist` is below 1.
Path around(Point centre, Point first, int corners, double waist) {
  const bool star = waist < 1;
  const int count = star ? 2 * corners : corners;
  const Point out = first - centre;
  std::vector<Point> places;
  for (int k = 0; k < count; ++k) {
    const double angle = kFull * k / count;
    const double share = star && k % 2 == 1 ? waist : 1;
    const Point turned{out.x * std::cos(angle) - out.y * std::sin(angle),
                       out.x * std::sin(angle) + out.y * std::cos(angle)};
    places.push_back(centre + turned * share);
  }
  return polygonThrough(places);
}

}  // namespace

Path roundedBox(const Box& box, double radius) {
  const Point a = box.low;
  const Point b = box.high;
  const double r = std::min({radius, box.width() / 2, box.height() / 2});
  if (!(r > 0)) return polygonThrough({a, {b.x, a.y}, b, {a.x, b.y}});
  Path path{{a.x + r, a.y}, {}, true};
  const auto add = [&path](Point corner, Point end) {
    const Point last = endOf(path);
    constexpr double kShortest = 1e-9;
    if (distance(last, corner) > kShortest) path.segments.push_back(Segment::line(corner));
    path.segments.push_back(Segment::arc(end, bulgeFromSweep(std::numbers::pi / 2)));
  };
  add({b.x - r, a.y}, {b.x, a.y + r});
  add({b.x, b.y - r}, {b.x - r, b.y});
  add({a.x + r, b.y}, {a.x, b.y - r});
  add({a.x, a.y + r}, path.start);
  return path;
}

Path shapeBetween(const ShapeWish& wish, Point from, Point to, double tolerance) {
  Box box;
  box.include(from);
  box.include(to);
  const double radius = distance(from, to);
  const bool inBox =
      wish.kind == ShapeKind::Rectangle || wish.kind == ShapeKind::Ellipse || wish.kind == ShapeKind::Slot;
  const bool nothing = inBox ? !(box.width() > 0 && box.height() > 0) : !(radius > 0);
  if (nothing) throw InputError("both places are the same, or on one line: there is no shape between them.");
  switch (wish.kind) {
    case ShapeKind::Line:
      return {from, {Segment::line(to)}, false};
    case ShapeKind::Rectangle:
      return roundedBox(box, wish.rounding);
    case ShapeKind::Slot:
      return roundedBox(box, std::min(box.width(), box.height()) / 2);
    case ShapeKind::Circle:
      return circlePathOf(from, radius, 1);
    case ShapeKind::Ellipse:
      return pathOf({lerp(box.low, box.high, 0.5), {box.width() / 2, 0}, {0, box.height() / 2}, 0, kFull}, tolerance);
    case ShapeKind::Polygon:
      return around(from, to, std::clamp(wish.corners, 3, 1000), 1);
    case ShapeKind::Star:
      return around(from, to, std::clamp(wish.corners, 3, 1000), std::clamp(wish.waist, 0.01, 0.99));
  }
  return {};
}

}  // namespace rim::refine
