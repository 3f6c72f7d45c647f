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

Path closedThrough(const std::vector<Point>& corners) {
  Path path{corners.front(), {}, true};
  for (std::size_t i = 1; i < corners.size(); ++i) path.segments.push_back(Segment::line(corners[i]));
  path.segments.push_back(Segment::line(path.start));
  return path;
}

Path rectangle(Point low, Point high, double rounding) {
  const double r = std::min({rounding, (high.x - low.x) / 2, (high.y - low.y) / 2});
  if (!(r > 0)) return closedThrough({low, {high.x, low.y}, high, {low.x, high.y}});
  const double quarter = bulgeFromSweep(std::numbers::pi / 2);
  Path path{{low.x + r, low.y}, {}, true};
  const auto side = [&path](Point to) {
    const Point from = path.segments.empty() ? path.start : path.segments.back().end;
    if (distance(from, to) > 0) path.segments.push_back(Segment::line(to));
  };
  side({high.x - r, low.y});
  path.segments.push_back(Segment::arc({high.x, low.y + r}, quarter));
  side({high.x, high.y - r});
  path.segments.push_back(Segment::arc({high.x - r, high.y}, quarter));
  side({low.x + r, high.y});
  path.segments.push_back(Segment::arc({low.x, high.y - r}, quarter));
  side({low.x, low.y + r});
  path.segments.push_back(Segment::arc(path.start, quarter));
  return path;
}

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
  return closedThrough(places);
}

}  // namespace

Path shapeBetween(const ShapeWish& wish, Point from, Point to, double tolerance) {
  const Point low{std::min(from.x, to.x), std::min(from.y, to.y)};
  const Point high{std::max(from.x, to.x), std::max(from.y, to.y)};
  const double radius = distance(from, to);
  const bool inBox =
      wish.kind == ShapeKind::Rectangle || wish.kind == ShapeKind::Ellipse || wish.kind == ShapeKind::Slot;
  const bool nothing = inBox ? !(high.x > low.x && high.y > low.y) : !(radius > 0);
  if (nothing) throw InputError("both places are the same, or on one line: there is no shape between them.");
  switch (wish.kind) {
    case ShapeKind::Line:
      return {from, {Segment::line(to)}, false};
    case ShapeKind::Rectangle:
      return rectangle(low, high, wish.rounding);
    case ShapeKind::Slot:
      return rectangle(low, high, std::min(high.x - low.x, high.y - low.y) / 2);
    case ShapeKind::Circle:
      return circlePathOf(from, radius, 1);
    case ShapeKind::Ellipse: {
      const Point half = (high - low) * 0.5;
      return pathOf({lerp(low, high, 0.5), {half.x, 0}, {0, half.y}, 0, kFull}, tolerance);
    }
    case ShapeKind::Polygon:
      return around(from, to, std::clamp(wish.corners, 3, 1000), 1);
    case ShapeKind::Star:
      return around(from, to, std::clamp(wish.corners, 3, 1000), std::clamp(wish.waist, 0.01, 0.99));
  }
  return {};
}

}  // namespace rim::refine
